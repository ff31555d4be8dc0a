import Link from 'next/link';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';

import { rational } from '@/core/quantity/rational';
import { sayGrams } from '@/core/quantity/say';
import { viewShortfall } from '@/services/buying/choices';
import { makeBuyingPlan, viewBuyingPlan } from '@/services/buying/plan';

import { ActionForm } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';
import { Empty, PageTitle } from '@/ui/page';

export const metadata = { title: 'Came short' };

async function planAgain(_state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(makeBuyingPlan, async () => {
    const { plan } = await call(viewBuyingPlan, {});
    if (plan) await call(makeBuyingPlan, { toDay: plan.toDay });
    return 'Planned: what is missing is in the visits to come.';
  });
}

type Way = Awaited<ReturnType<typeof viewShortfall>>['short'][number]['ways'][number];

/** What somebody does by it. */
async function Said({ way }: { way: Way }) {
  const say = await saying();
  const { kind, buys } = way;
  const bought = buys
    .map(({ packs, product, shop, day }) => `${packs} × ${product} at ${shop} on ${say.longDate(day)}`)
    .join('; ');
  switch (kind) {
    case 'shelf':
      return <>Nothing to buy: what stands on the shelves, or comes with a trip that is made already, is enough.</>;
    case 'visit':
      return <>Buy it: {bought}.</>;
    case 'fewer in reserve':
      return <>Make no kits in reserve: what is there is enough for the others.</>;
    case 'another food':
      return (
        <>
          {way.food} in its place in{' '}
          <Link href={`/sessions/${way.sessionId}#dishes`} className="link">
            {way.title}
          </Link>
          , which is right for everybody there{bought && `: ${bought}`}.
        </>
      );
  }
}

export default async function CameShort({ params }: { params: Promise<{ tripId: string }> }) {
  const say = await saying();
  const { tripId } = await params;
  const { shop, day, short } = await orNotFound(call(viewShortfall, { tripId }));
  const needed = short.filter(({ isNeeded }) => isNeeded);
  return (
    <>
      <PageTitle
        title={`Came short: ${shop}`}
        over={`${say.longDate(day)}; each way was planned to its end, the cheapest first`}
      >
        <Link href={`/trips/${tripId}`} className="btn">
          The trip
        </Link>
        <Link href="/buying" className="btn">
          Buying
        </Link>
      </PageTitle>
      {needed.length === 0 && (
        <Empty title="Nothing is missing">
          <p>All that the sessions need of this trip is there, or was done without it.</p>
        </Empty>
      )}
      {needed.map(({ ingredient, grams, reasons, ways }) => (
        <section key={ingredient} className="sheet mb-4 p-5" aria-label={ingredient}>
          <h2 className="text-xl font-bold">
            {ingredient}: {sayGrams(rational(grams))} too little
          </h2>
          {reasons.length > 0 && <p className="text-sm">Refused: {reasons.join(', ')}.</p>}
          {ways.length === 0 ? (
            <p className="mt-2">
              Nothing that is known mends it in time: no shelf, no visit, no other food of the dish. Set down a price
              elsewhere, choose another dish, or move the session.
            </p>
          ) : (
            <ol className="mt-2 divide-y divide-base-300">
              {ways.map((way, at) => (
                <li key={`${way.kind} ${way.food ?? way.buys[0]?.shop ?? at}`} className="flex gap-4 py-2">
                  <b className="w-24 shrink-0 text-right tabular-nums">
                    {way.cost === 0 ? 'no cost' : say.money(way.cost)}
                  </b>
                  <span>
                    <Said way={way} />
                  </span>
                </li>
              ))}
            </ol>
          )}
        </section>
      ))}
      {needed.length > 0 && (
        <ActionForm action={planAgain} label="Plan again">
          <button type="submit" className="btn btn-primary">
            Plan again with what is missing
          </button>
        </ActionForm>
      )}
    </>
  );
}
