import Link from 'next/link';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import type { Saying } from '@/core/plan/saying';

import { rational } from '@/core/quantity/rational';
import { sayCount, sayGrams } from '@/core/quantity/say';
import { tryChoices } from '@/services/buying/choices';
import { makeBuyingPlan, viewBuyingPlan } from '@/services/buying/plan';
import { fillSlot } from '@/services/plan/sessions';

import { ActionForm } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';
import { Empty, PageTitle } from '@/ui/page';

export const metadata = { title: 'Open choices' };

interface Choice {
  readonly sessionId: string;
  readonly dishId: string;
  readonly written: string;
  readonly food: string;
  /** What fills it until then. */
  readonly now: string;
}

async function takeBack(choice: Choice): Promise<FormState> {
  'use server';
  return take(choice, null);
}

async function take({ food, now, ...choice }: Choice, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(fillSlot, async () => {
    await call(fillSlot, { ...choice, chosen: food });
    const { plan } = await call(viewBuyingPlan, {});
    if (plan) await call(makeBuyingPlan, { toDay: plan.toDay });
    return {
      message: `${food} it is: the session’s sheet and the plan go by it.`,
      undo: takeBack.bind(null, { ...choice, food: now, now: food }),
    };
  });
}

/** What an idea would change, in words. */
function said(
  { isEnough, dearer = 0, moreLost = 0 }: Awaited<ReturnType<typeof tryChoices>>[number],
  say: Saying,
): string {
  if (isEnough === undefined) return 'not tried';
  if (!isEnough) return 'cannot be had in time, or has no price';
  const money =
    dearer === 0 ? 'costs the same' : `${say.money(Math.abs(dearer))} ${dearer < 0 ? 'cheaper' : 'dearer'} in all`;
  if (moreLost === 0) return money;
  return `${money}, ${sayGrams(rational(Math.abs(moreLost)))} ${moreLost < 0 ? 'less' : 'more'} lost`;
}

export default async function Choices() {
  const say = await saying();
  const ideas = await orNotFound(call(tryChoices, {}));
  const lines = [...new Set(ideas.map(({ dishId, written }) => `${dishId} ${written}`))].map((key) =>
    ideas.filter(({ dishId, written }) => `${dishId} ${written}` === key),
  );
  return (
    <>
      <PageTitle
        title="Open choices"
        over="Each was planned to its end: its sheet made anew for everybody’s needs, its packs bought beside all others"
      >
        <Link href="/buying" className="btn">
          Buying
        </Link>
      </PageTitle>
      {lines.length === 0 && (
        <Empty title="Nothing is open">
          <p>No session that is to be bought for, and not locked yet, has a flexible slot or a swap to choose.</p>
        </Empty>
      )}
      {lines.map((own) => {
        const [first] = own;
        if (!first) return null;
        const order = own.toSorted((a, b) => (a.dearer ?? 1e9) - (b.dearer ?? 1e9));
        return (
          <section key={`${first.dishId} ${first.written}`} className="sheet mb-4 p-5" aria-label={first.dish}>
            <h2 className="text-xl font-bold">{first.dish}</h2>
            <p className="mb-2 text-sm">
              <Link href={`/sessions/${first.sessionId}`} className="link">
                {first.title}
              </Link>
              , taken up on {say.longDate(first.day)}. Now: <b>{first.now}</b>.
            </p>
            <ul className="divide-y divide-base-300">
              {order.map((idea) => {
                const { food, refused, isEnough, inSeason, onShelf, sessionId, dishId, written } = idea;
                return (
                  <li key={food} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
                    <b className="w-44">{food}</b>
                    <span className="grow text-sm">
                      {refused > 0
                        ? `not for everybody: ${sayCount(refused, 'kit')} could not be made with it`
                        : said(idea, say)}
                      {inSeason && '; in season'}
                      {onShelf && '; some is on a shelf'}
                    </span>
                    {refused === 0 && isEnough && (
                      <ActionForm
                        action={take.bind(null, { sessionId, dishId, written, food, now: idea.now })}
                        label={`Take ${food} for ${first.dish}`}
                      >
                        <button type="submit" className="btn btn-sm" aria-label={`Take ${food} for ${first.dish}`}>
                          Take {food}
                        </button>
                      </ActionForm>
                    )}
                  </li>
                );
              })}
            </ul>
          </section>
        );
      })}
    </>
  );
}
