import { addPrintOut } from '@/store/equipment';
import { holdProgramme } from '@/store/programme';
import { findOne } from '@/store/query';
import type { Store } from '@/store/store';

/** Pages for the printer. The id makes printing twice the same as once. */
export interface PrintTask {
  readonly id: string;
  readonly programmeId: string;
  readonly sessionId: string;
  readonly title: string;
  readonly pdf: Uint8Array;
  /** The locked sheet that they are of: its revision, and the fingerprint of what it holds. */
  readonly sheet: { readonly revision: number; readonly fingerprint: string };
}

/** The sheet is no longer what these labels say: somebody was erased from it while they were made. */
export class SheetChanged extends Error {}

/** What puts labels onto paper. */
export interface LabelPrinter {
  /** Prints. @throws SheetChanged; or when the printer cannot take it now: it is tried again */
  print(task: PrintTask): Promise<void>;
}

/** A printer whose tray is looked at on the Devices page. */
export class SimulatedPrinter implements LabelPrinter {
  constructor(private readonly store: Store) {}

  async print({ pdf, sheet, ...task }: PrintTask): Promise<void> {
    const { db } = this.store;
    const page = { ...task, ...sheet, pages: pagesOf(pdf), pdf: Buffer.from(pdf), at: new Date() };
    // Who erases somebody from the sheet waits meanwhile, and then takes these pages away as well.
    const added = await this.store.transaction(async (tx) => {
      await holdProgramme(tx, task);
      return addPrintOut(tx, page);
    });
    if (added === 0 && !(await findOne(db, db.models.printOut, { id: task.id })))
      throw new SheetChanged('The kit sheet changed while its labels were made.');
  }
}

/** Pages of a PDF, counted by its page objects. */
const pagesOf = (pdf: Uint8Array): number =>
  Buffer.from(pdf)
    .toString('latin1')
    .match(/\/Type\s*\/Page\b(?!s)/g)?.length ?? 1;
