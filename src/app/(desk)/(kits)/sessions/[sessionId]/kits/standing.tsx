import Link from 'next/link';
import { saying } from '@/app/saying';
import type { viewKitSheet } from '@/services/kits/kit-sheet';

import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import { lock, refuse, unlock } from './actions';

type Viewed = Awaited<ReturnType<typeof viewKitSheet>>;

interface Props {
  readonly sessionId: string;
  readonly viewed: Viewed;
  /** The page shows the sheet as it would be now, not the locked one. */
  readonly showsDraft: boolean;
}

/** How the sheet stands: what it cannot be made of, who locked it, what changed since, and what was decided. */
export async function Standing({ sessionId, viewed, showsDraft }: Props) {
  const say = await saying();
  const { bundle, sheet } = viewed;
  const { locked, draft, differences } = sheet;
  const record = bundle.sheet;
  return (
    <>
      {sheet.problems.map((problem) => (
        <p
          key={problem.where + problem.message}
          role="alert"
          className="rounded-box border-l-4 border-error bg-error/10 p-3"
        >
          <b>{problem.where}:</b> {problem.message}
        </p>
      ))}
      {locked && record && (
        <p className="text-sm">
          <b>Version {record.revision}, locked</b> by {record.lockedByName}, {say.moment(record.lockedAt.toISOString())}
          . Its code is <code>{record.fingerprint.slice(0, 12)}</code>. {locked.kits.length} kits.
        </p>
      )}
      {locked && record && (
        <details className="no-print text-sm">
          <summary className="cursor-pointer font-semibold">Unlock it</summary>
          <ActionForm
            action={unlock.bind(null, sessionId, record.revision)}
            label="Unlock the kit sheet"
            className="mt-2 flex flex-wrap items-end gap-2"
          >
            <Field
              label="Reason"
              name="reason"
              required
              minLength={3}
              maxLength={255}
              hint="The bench stops; ticks stay for what does not change"
            />
            <button type="submit" className="btn">
              Unlock version {record.revision}
            </button>
          </ActionForm>
        </details>
      )}
      {sheet.unlocked !== undefined && (
        <p role="status" className="rounded-box border-l-4 border-warning bg-base-100 p-3">
          <b>Version {record?.revision} was unlocked:</b> {sheet.unlocked}. The sheet follows the roll again; lock it to
          go on packing.
        </p>
      )}
      {sheet.refused !== undefined && (
        <p role="status" className="rounded-box border-l-4 border-base-300 bg-base-100 p-3 text-sm">
          {differences.length} {differences.length === 1 ? 'difference was' : 'differences were'} refused:{' '}
          {sheet.refused}. A kit whose person must avoid something new stays called back all the same.
        </p>
      )}
      {locked && draft && differences.length > 0 && sheet.refused === undefined && (
        <Differences sessionId={sessionId} viewed={viewed} showsDraft={showsDraft} />
      )}
    </>
  );
}

/** What changed since the sheet was locked, to be accepted or refused. */
function Differences({ sessionId, viewed: { bundle, sheet }, showsDraft }: Props) {
  const { differences } = sheet;
  const revision = bundle.sheet?.revision ?? 0;
  return (
    <section
      className="no-print rounded-box border border-warning border-l-4 bg-base-100 p-4"
      aria-labelledby="changed"
    >
      <h2 id="changed" className="text-xl font-bold">
        What changed since version {revision}
      </h2>
      <ul className="my-2 list-disc pl-5">
        {differences.map((difference) => (
          <li key={difference.names.join() + difference.what.join()}>
            <b>
              {difference.kind === 'added' ? 'New: ' : difference.kind === 'removed' ? 'Gone: ' : ''}
              {difference.names.length > 4 ? `${difference.names.length} kits` : difference.names.join(', ')}
            </b>
            : {difference.what.join('; ')}
          </li>
        ))}
      </ul>
      <p className="mb-2 text-sm">
        Ticks at the bench stay where an ingredient did not change. What was packed and is no longer wanted is called
        back there.
      </p>
      <div className="flex flex-wrap items-start gap-2">
        <ActionForm action={lock.bind(null, sessionId, sheet.basis)} label="Accept the differences">
          <button type="submit" className="btn btn-primary" disabled={(sheet.draft?.refusedKits ?? 0) > 0}>
            Accept into version {revision + 1}
          </button>
        </ActionForm>
        <Link href={showsDraft ? '?' : '?view=now'} className="btn">
          {showsDraft ? `Show version ${revision}` : 'Show the sheet as it would be'}
        </Link>
        <details>
          <summary className="btn">Refuse</summary>
          <ActionForm
            action={refuse.bind(null, sessionId, sheet.basis)}
            label="Refuse the differences"
            className="mt-2 flex flex-wrap items-end gap-2"
          >
            <Field label="Reason" name="reason" required minLength={3} maxLength={255} />
            <button type="submit" className="btn btn-primary">
              Refuse the differences
            </button>
          </ActionForm>
        </details>
      </div>
    </section>
  );
}
