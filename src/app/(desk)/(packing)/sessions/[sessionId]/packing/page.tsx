import Link from 'next/link';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { SessionFrame } from '@/app/session-frame';
import { LABEL_SAYS_LESS } from '@/core/kits/record/locked-sheet';
import { benchSheet, calledBackNow, packedNow, packProgress } from '@/core/packing/progress';
import { isHomeKit, type Mode } from '@/core/plan/mode';
import { viewSession } from '@/services/kits/kit-sheet';
import { labelsToPrint, sendToPrinter } from '@/services/packing/labels';
import { Caution, Empty } from '@/ui/page';
import { PrintJob } from '@/ui/print-job';
import { UsualCautions } from '@/ui/recipes/usual-cautions';

async function send(sessionId: string) {
  'use server';
  let jobId: string | undefined;
  const answer = await attempt(sendToPrinter, async () => {
    jobId = (await call(sendToPrinter, { sessionId, paper: 'a4' })).jobId;
    return undefined;
  });
  return { ...answer, jobId };
}

/** Some of the labels, on either paper. */
function Papers({ sessionId, of }: { sessionId: string; of: 'changed' | 'made' }) {
  const on = (paper: 'a4' | 'letter', name: string) => (
    <a
      href={`/sessions/${sessionId}/labels.pdf?paper=${paper}&of=${of}`}
      className="link"
      target="_blank"
      rel="noreferrer"
    >
      {name}
    </a>
  );
  return (
    <>
      {on('a4', 'A4')} or {on('letter', 'Letter')}
    </>
  );
}

/** Names, as far as a line holds them. */
const sayFew = (names: readonly string[]): string =>
  names.length <= 8 ? names.join(', ') : `${names.slice(0, 7).join(', ')} and ${names.length - 7} more`;

export const metadata = { title: 'Packing' };

export default async function Packing({ params }: { params: Promise<{ sessionId: string }> }) {
  const { sessionId } = await params;
  const { bundle, sheet, hours } = await orNotFound(call(viewSession, { sessionId }));
  const revision = bundle.sheet?.revision ?? 0;
  const bench = sheet.locked && benchSheet(sheet.locked, revision);
  const changed =
    bench && revision > 1
      ? (await call(labelsToPrint, { sessionId, paper: 'a4', of: 'changed' })).labels.map(({ name }) => name)
      : [];
  const sayLess = sheet.differences.flatMap(({ what, names }) =>
    what.some((each) => each.startsWith(LABEL_SAYS_LESS)) ? names : [],
  );
  const goesHome = bundle.session.kitRules.goesHome === true && !isHomeKit(bundle.session.mode as Mode);
  const packed = packedNow(bundle.events);
  const progress = packProgress(bench?.kits ?? [], packed);
  const held = calledBackNow(bundle.events);
  const calledBack = bench?.kits.filter((kit) => held.has(kit.id)).map((kit) => kit.number) ?? [];
  return (
    <SessionFrame
      bundle={bundle}
      sheet={sheet}
      hours={hours}
      current="packing"
      title="packing"
      actions={
        <>
          <Link href={`/made/${sessionId}`} className="btn">
            Made ahead
          </Link>
          <Link href={`/prep/${bundle.session.date}`} prefetch={false} className="btn">
            Prep
          </Link>
        </>
      }
    >
      {!bench ? (
        <Empty title="Lock the kit sheet first">
          <p>
            Labels and the bench are made from a locked kit sheet, so that what is packed cannot move under the packers’
            hands.
          </p>
          <Link href={`/sessions/${sessionId}/kits`} className="btn btn-primary">
            Open the kit sheet
          </Link>
        </Empty>
      ) : (
        <div className="flex flex-col gap-5">
          {calledBack.length > 0 && (
            <p role="alert" className="rounded-box border-l-4 border-error bg-error/10 p-3 font-semibold">
              Called back at the bench: kit {calledBack.join(', ')}. What they must be made without has changed, or
              nobody gets them any more.{' '}
              <Link href={`/sessions/${sessionId}/kits`} className="link">
                Look at the differences
              </Link>
            </p>
          )}
          {sayLess.length > 0 && (
            <p role="alert" className="rounded-box border-l-4 border-error bg-error/10 p-3 font-semibold">
              The labels of {sayFew(sayLess)} say less than is known now.{' '}
              <Link href={`/sessions/${sessionId}/kits`} className="link">
                Accept the differences
              </Link>
              , then print them anew.
            </p>
          )}
          {progress.toTakeOut.length > 0 && (
            <p role="alert" className="rounded-box border-l-4 border-error bg-error/10 p-3 font-semibold">
              {progress.toTakeOut.length} packed {progress.toTakeOut.length === 1 ? 'ingredient is' : 'ingredients are'}{' '}
              no longer wanted: the bench shows which to take out.
            </p>
          )}
          <div className="grid gap-5 lg:grid-cols-2">
            <section className="sheet p-5" aria-labelledby="bench-title">
              <h2 id="bench-title" className="text-xl font-bold">
                Pack bench
              </h2>
              <p className="my-2">
                <b>{progress.kitsDone}</b> of {progress.kits} kits packed, {progress.ticksNeeded - progress.ticks}{' '}
                ingredients to go.
              </p>
              <progress
                className="progress progress-primary mb-4 w-full"
                value={progress.ticks}
                max={progress.ticksNeeded}
                aria-label="Ingredients packed"
              />
              <Link href={`/bench/${sessionId}`} className="btn btn-primary">
                Open the bench
              </Link>
            </section>
            <section className="sheet p-5" aria-labelledby="labels-title">
              <h2 id="labels-title" className="text-xl font-bold">
                Labels
              </h2>
              <p className="my-2">
                One label for each of {sheet.locked?.kits.length} kits: name, letter, what is inside, allergens in
                words, how to keep it and until when.
              </p>
              <div className="flex flex-wrap gap-2">
                <a href={`/sessions/${sessionId}/labels.pdf?paper=a4`} className="btn" target="_blank" rel="noreferrer">
                  A4, 3 × 8
                </a>
                <a
                  href={`/sessions/${sessionId}/labels.pdf?paper=letter`}
                  className="btn"
                  target="_blank"
                  rel="noreferrer"
                >
                  Letter, 2 × 5
                </a>
              </div>
              {changed.length > 0 && (
                <p className="mt-3">
                  Since version {revision - 1} the labels of {sayFew(changed)} say something else. Print these anew, and
                  take the old ones off: <Papers sessionId={sessionId} of="changed" />.
                </p>
              )}
              {goesHome && (
                <p className="mt-3">
                  What is made in class goes home in labelled bags; its labels:{' '}
                  <Papers sessionId={sessionId} of="made" />.
                </p>
              )}
              <form
                action={`/sessions/${sessionId}/labels.pdf`}
                target="_blank"
                className="mt-3 flex flex-wrap items-end gap-2"
                aria-label="One label again"
                rel="noopener"
              >
                <label className="flex flex-col gap-1 text-sm font-semibold">
                  One label again
                  <select name="kit" className="select w-56">
                    {sheet.locked?.kits.map(({ id, number, name }) => (
                      <option key={id} value={id}>
                        {number} {name}
                      </option>
                    ))}
                  </select>
                </label>
                <button type="submit" name="paper" value="a4" className="btn">
                  On A4
                </button>
                <button type="submit" name="paper" value="letter" className="btn">
                  On Letter
                </button>
              </form>
              <PrintJob send={send.bind(null, sessionId)} />
            </section>
          </div>
          <Caution>
            Hands, then surfaces, then ready-to-eat food first and raw meat last. Kits made without something are packed
            first, with clean tools, closed and set apart.
          </Caution>
          <UsualCautions at="packing" />
        </div>
      )}
    </SessionFrame>
  );
}
