import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { SessionFrame } from '@/app/session-frame';
import { viewShoppingList } from '@/services/buying/shopping';
import { markJob } from '@/services/countdown/countdown';
import { Empty } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';
import { UsualCautions } from '@/ui/recipes/usual-cautions';

import { FromShelf } from './from-shelf';

export const metadata = { title: 'Shopping list' };

async function mark(sessionId: string, done: boolean): Promise<void> {
  'use server';
  const answer = await attempt(markJob, async () => {
    await call(markJob, { sessionId, job: 'buying', done });
    return undefined;
  });
  if (!answer.ok) throw new Error(answer.message);
}

export default async function Shopping({ params }: { params: Promise<{ sessionId: string }> }) {
  const { sessionId } = await params;
  const { bundle, sheet, hours, aisles, usedUp, done } = await orNotFound(call(viewShoppingList, { sessionId }));
  const count = aisles.reduce((sum, aisle) => sum + aisle.items.length, 0);
  return (
    <SessionFrame
      bundle={bundle}
      sheet={sheet}
      hours={hours}
      current="buying"
      title="shopping list"
      actions={
        count > 0 && (
          <>
            <PrintButton />
            {sheet.locked && (
              <form action={mark.bind(null, sessionId, !done)}>
                <button type="submit" className={`btn ${done ? '' : 'btn-primary'}`}>
                  {done ? 'Shopping is not done after all' : 'Mark shopping done'}
                </button>
              </form>
            )}
          </>
        )
      }
    >
      <p className="mb-4">
        {sheet.locked ? (
          <>
            From version {bundle.sheet?.revision} of the kit sheet: {sheet.locked.kits.length} kits.
            {sheet.differences.length > 0 && (
              <b> The roll or a dish moved since: accept the differences on the kit sheet before you shop.</b>
            )}
          </>
        ) : (
          <b>Draft: the kit sheet is not locked, so amounts may still move.</b>
        )}{' '}
        Every amount covers what is packed, with trimming and spare.
      </p>
      {count === 0 ? (
        <Empty title="Nothing to buy yet">
          <p>The list is made from the kit sheet: choose dishes and bring in the roll first.</p>
        </Empty>
      ) : (
        <div className="gap-6 md:columns-2 print:columns-2">
          {aisles.map((aisle) => (
            <section
              key={aisle.aisle}
              className="sheet keep-together mb-5 break-inside-avoid p-4 print:p-0"
              aria-labelledby={`aisle-${aisle.aisle}`}
            >
              <h2 id={`aisle-${aisle.aisle}`} className="mb-1 text-lg font-bold">
                {aisle.title}
              </h2>
              <ul className="divide-y divide-base-300">
                {aisle.items.map((item) => (
                  <li key={item.ingredient} className="flex items-baseline gap-3 py-1.5">
                    <span
                      aria-hidden="true"
                      className="inline-block size-4 shrink-0 translate-y-0.5 rounded-xs border-2 border-base-content"
                    />
                    <span className="flex-1">
                      <b>{item.ingredient}</b>
                      {item.product && (
                        <span className="block text-sm font-semibold">only “{item.product}”: its label was read</span>
                      )}
                      <span className="block text-sm text-base-content/80">
                        {[item.need, item.left].filter(Boolean).join(', ')}
                      </span>
                    </span>
                    <span className="text-right font-semibold">{item.buy}</span>
                  </li>
                ))}
              </ul>
            </section>
          ))}
          {usedUp.length > 0 && (
            <section className="sheet keep-together mb-5 break-inside-avoid p-4 print:p-0" aria-labelledby="used-up">
              <h2 id="used-up" className="mb-1 text-lg font-bold">
                Used up: see that it is there
              </h2>
              <ul className="divide-y divide-base-300">
                {usedUp.map(({ name, count, packs }) => (
                  <li key={name} className="flex items-baseline gap-3 py-1.5">
                    <span
                      aria-hidden="true"
                      className="inline-block size-4 shrink-0 translate-y-0.5 rounded-xs border-2 border-base-content"
                    />
                    <b className="flex-1">{name}</b>
                    <span className="text-right font-semibold">
                      {count}
                      {packs !== undefined && `, ${packs} ${packs === 1 ? 'pack' : 'packs'}`}
                    </span>
                  </li>
                ))}
              </ul>
            </section>
          )}
        </div>
      )}
      {sheet.locked && (
        <FromShelf sessionId={sessionId} kits={sheet.locked.kits.length} budget={bundle.session.budgetCents} />
      )}
      <UsualCautions at="shopping" />
    </SessionFrame>
  );
}
