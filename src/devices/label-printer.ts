import { change } from '@/store/query';
import type { Store } from '@/store/store';

/** Pages for the printer. The id makes printing twice the same as once. */
export interface PrintTask {
  readonly id: string;
  readonly programmeId: string;
  readonly sessionId: string;
  readonly title: string;
  readonly pdf: Uint8Array;
}

/** What puts labels onto paper. */
export interface LabelPrinter {
  /** Prints. @throws when the printer cannot take it now: it is tried again */
  print(task: PrintTask): Promise<void>;
}

/** A printer whose tray is looked at on the Devices page. */
export class SimulatedPrinter implements LabelPrinter {
  constructor(private readonly store: Store) {}

  async print({ pdf, ...task }: PrintTask): Promise<void> {
    await change(
      this.store.db,
      `INSERT IGNORE INTO print_out (id, programme_id, session_id, title, pages, pdf, at)
       VALUES (:id, :programmeId, :sessionId, :title, :pages, :pdf, :at)`,
      { ...task, pages: pagesOf(pdf), pdf: Buffer.from(pdf), at: new Date() },
    );
  }
}

/** Pages of a PDF, counted by its page objects. */
const pagesOf = (pdf: Uint8Array): number =>
  Buffer.from(pdf)
    .toString('latin1')
    .match(/\/Type\s*\/Page\b(?!s)/g)?.length ?? 1;
