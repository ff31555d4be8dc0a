import Link from 'next/link';
import { orNotFound } from '@/app/or-not-found';
import { readQuery } from '@/app/query';
import { SessionFrame } from '@/app/session-frame';
import type { SheetContent } from '@/core/kits/record/sheet-content';
import { viewKitSheet, viewWorking } from '@/services/kits/kit-sheet';
import { sayMoment } from '@/ui/dates';
import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import { KitSheetTable } from '@/ui/kits/kit-sheet-table';
import { TotalsTable } from '@/ui/kits/totals-table';
import { WorkingPanel } from '@/ui/kits/working-panel';
import { Caution, Empty } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';
import { call, requireMember } from '../../../../../access';
import { lock, refuse, unlock } from './actions';
import { BulkNote } from './bulk-note';
import { KitFigures } from './figures';
import { Refused } from './refused';
import { Versions } from './versions';

export const metadata = { title: 'Kit sheet' };

/** `working=A.3` asks for the component of variant A in row 3, `working=total.carrot` for a food's total. */
async function workingOf(sessionId: string, of: 'draft' | 'locked', wanted: string | undefined) {
  if (!wanted) return undefined;
  const [head = '', ...rest] = wanted.split('.');
  const tail = rest.join('.');
  const place = head === 'total' ? { ingredient: tail } : { variant: head, row: Number.parseInt(tail, 10) };
  return call(viewWorking, { sessionId, of, ...place }).catch(() => undefined);
}

export default async function Kits({
  params,
  searchParams,
}: {
  params: Promise<{ sessionId: string }>;
  searchParams: Promise<{ working?: string; view?: string; compare?: string; find?: string }>;
}) {
  const { sessionId } = await params;
  const { working: wanted, view, compare, find = '' } = await readQuery(searchParams);
  const { bundle, sheet, hours, figures: ofSheet } = await orNotFound(call(viewKitSheet, { sessionId }));
  const { programme } = await requireMember();
  const { locked, draft, differences } = sheet;
  const showDraft = !locked || view === 'now';
  // Figures are of the sheet that counts: beside another one they would be wrong.
  const figures = showDraft && locked ? undefined : ofSheet;
  const content: SheetContent | undefined = showDraft ? draft : locked.content;
  const working = await workingOf(sessionId, showDraft ? 'draft' : 'locked', wanted);
  const base = `?${new URLSearchParams({ ...(showDraft && locked ? { view: 'now' } : {}), ...(find ? { find } : {}) })}`;
  const courseId = bundle.session.courseId;
  const ready = Boolean(draft && draft.rows.length > 0 && sheet.participants.length > 0);
  const record = bundle.sheet;
  return (
    <SessionFrame
      bundle={bundle}
      sheet={sheet}
      hours={hours}
      current="kits"
      title="kit sheet"
      actions={
        ready && (
          <>
            <a href={`/sessions/${sessionId}/kits.csv`} className="btn" download>
              Take out as CSV
            </a>
            <a href={`/sessions/${sessionId}/kits.xlsx`} className="btn" download>
              XLSX
            </a>
            <a href={`/sessions/${sessionId}/kits.pdf`} className="btn" download>
              PDF
            </a>
            <PrintButton />
            {!locked && draft && draft.refusedKits === 0 && (
              <ActionForm action={lock.bind(null, sessionId, sheet.basis)} label="Lock the kit sheet">
                <button type="submit" className="btn btn-primary">
                  Lock kit sheet
                </button>
              </ActionForm>
            )}
          </>
        )
      }
    >
      <div className="flex flex-col gap-5">
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
            <b>Revision {record.revision}, locked</b> by {record.lockedByName},{' '}
            {sayMoment(record.lockedAt.toISOString(), programme.timeZone)}. Fingerprint{' '}
            <code>{record.fingerprint.slice(0, 12)}</code>. {locked.kits.length} kits.
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
                Unlock revision {record.revision}
              </button>
            </ActionForm>
          </details>
        )}
        {sheet.unlocked !== undefined && (
          <p role="status" className="rounded-box border-l-4 border-warning bg-base-100 p-3">
            <b>Revision {record?.revision} was unlocked:</b> {sheet.unlocked}. The sheet follows the roll again; lock it
            to go on packing.
          </p>
        )}
        {sheet.refused !== undefined && (
          <p role="status" className="rounded-box border-l-4 border-base-300 bg-base-100 p-3 text-sm">
            {differences.length} {differences.length === 1 ? 'difference was' : 'differences were'} refused:{' '}
            {sheet.refused}. A kit whose person must avoid something new stays called back all the same.
          </p>
        )}
        {locked && draft && differences.length > 0 && sheet.refused === undefined && (
          <section
            className="no-print rounded-box border border-warning border-l-4 bg-base-100 p-4"
            aria-labelledby="changed"
          >
            <h2 id="changed" className="text-xl font-bold">
              What changed since revision {record?.revision}
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
              Ticks at the bench stay where a component did not change. What was packed and is no longer wanted is
              called back there.
            </p>
            <div className="flex flex-wrap items-start gap-2">
              <ActionForm action={lock.bind(null, sessionId, sheet.basis)} label="Accept the differences">
                <button type="submit" className="btn btn-primary" disabled={draft.refusedKits > 0}>
                  Accept into revision {(record?.revision ?? 0) + 1}
                </button>
              </ActionForm>
              <Link href={showDraft ? '?' : '?view=now'} className="btn">
                {showDraft ? `Show revision ${record?.revision}` : 'Show the sheet as it would be'}
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
        )}
        {draft && (draft.refusedKits > 0 || sheet.leftOut.length > 0 || bundle.labels.length > 0) && (
          <Refused
            sessionId={sessionId}
            courseId={courseId}
            draft={draft}
            leftOut={sheet.leftOut}
            labels={bundle.labels}
          />
        )}
        {!ready && sheet.problems.length === 0 && (
          <Empty title={bundle.dishes.length === 0 ? 'No dish is chosen yet' : 'Nobody is on the roll yet'}>
            <p>The kit sheet is calculated from the session’s dishes and the course’s roll.</p>
            <Link
              href={bundle.dishes.length === 0 ? `/sessions/${sessionId}#dishes` : `/courses/${courseId}/roll/import`}
              className="btn btn-primary"
            >
              {bundle.dishes.length === 0 ? 'Choose dishes' : 'Bring in the roll'}
            </Link>
          </Empty>
        )}
        {ready && content && (
          <>
            <KitSheetTable content={content} base={base} pressed={wanted} find={find} />
            <div className="no-print flex flex-wrap gap-2">
              <Link href={`/sessions/${sessionId}/kits/stock`} className="btn">
                What I have
              </Link>
              <Link href={`/prep/${bundle.session.date}`} className="btn">
                Prep list
              </Link>
              {!locked && content.variants.length > 1 && !compare && (
                <Link href="?compare=versions" scroll={false} prefetch={false} className="btn">
                  Compare shared versions
                </Link>
              )}
            </div>
            {!locked && content.variants.length > 1 && compare && <Versions sessionId={sessionId} />}
            {figures && <BulkNote bulks={figures.bulks} content={content} />}
            {figures && figures.noSpoons.length > 0 && (
              <p className="text-sm">
                <b>Nothing to measure with at home:</b> {figures.noSpoons.join(', ')}. They draw from a jar or their own
                shelf: issue measuring spoons with the first kit, or see that they kept those they had.
              </p>
            )}
            <TotalsTable content={content} base={base} />
            {figures && <KitFigures figures={figures} />}
            <Caution>
              Unknown blocks: what a brand may add counts as contained until its label is recorded. “Made without” is
              never “free from”.
            </Caution>
          </>
        )}
      </div>
      {working && <WorkingPanel working={working} close={base} />}
    </SessionFrame>
  );
}
