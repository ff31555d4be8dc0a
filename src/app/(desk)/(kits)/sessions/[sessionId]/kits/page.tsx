import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { readQuery } from '@/app/query';
import { SessionFrame } from '@/app/session-frame';
import type { SheetContent } from '@/core/kits/record/sheet-content';
import { viewKitSheet, viewWorking } from '@/services/kits/kit-sheet';
import { ActionForm } from '@/ui/form/action-form';
import { KitSheetTable } from '@/ui/kits/kit-sheet-table';
import { TotalsTable } from '@/ui/kits/totals-table';
import { WorkingPanel } from '@/ui/kits/working-panel';
import { Caution, Empty } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';
import { SaveAs } from '@/ui/save-as';
import { lock } from './actions';
import { BulkNote } from './bulk-note';
import { KitFigures } from './figures';
import { Refused } from './refused';
import { Standing } from './standing';
import { Versions } from './versions';
import { WholeUnits } from './whole-units';

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
  const viewed = await orNotFound(call(viewKitSheet, { sessionId }));
  const { bundle, sheet, hours, figures: ofSheet } = viewed;
  const { locked, draft } = sheet;
  const showDraft = !locked || view === 'now';
  // Figures are of the sheet that counts: beside another one they would be wrong.
  const figures = showDraft && locked ? undefined : ofSheet;
  const content: SheetContent | undefined = showDraft ? draft : locked.content;
  const working = await workingOf(sessionId, showDraft ? 'draft' : 'locked', wanted);
  const base = `?${new URLSearchParams({ ...(showDraft && locked ? { view: 'now' } : {}), ...(find ? { find } : {}) })}`;
  const courseId = bundle.session.courseId;
  const ready = Boolean(draft && draft.rows.length > 0 && sheet.participants.length > 0);
  const canShare = !locked && content !== undefined && content.variants.length > 1;
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
            <SaveAs
              files={[
                ['PDF', `/sessions/${sessionId}/kits.pdf`],
                ['Workbook (XLSX)', `/sessions/${sessionId}/kits.xlsx`],
                ['CSV', `/sessions/${sessionId}/kits.csv`],
              ]}
            />
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
        <Standing sessionId={sessionId} viewed={viewed} showsDraft={showDraft} />
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
            <Ways sessionId={sessionId} date={bundle.session.date} canCompare={canShare && !compare} />
            <WholeUnits sessionId={sessionId} content={content} dishes={bundle.dishes} isLocked={!showDraft} />
            {canShare && compare && <Versions sessionId={sessionId} />}
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

/** Where to go on from the sheet. */
function Ways({ sessionId, date, canCompare }: { sessionId: string; date: string; canCompare: boolean }) {
  return (
    <div className="no-print flex flex-wrap gap-2">
      <Link href={`/sessions/${sessionId}/kits/stock`} className="btn">
        What I have
      </Link>
      <Link href={`/prep/${date}`} className="btn">
        Prep list
      </Link>
      {canCompare && (
        <Link href="?compare=versions" scroll={false} prefetch={false} className="btn">
          Compare shared versions
        </Link>
      )}
    </div>
  );
}
