import Link from 'next/link';
import { redirect } from 'next/navigation';
import { call } from '@/app/access';
import { attempt, formOf } from '@/app/form';
import { saying } from '@/app/saying';
import { addDays } from '@/core/plan/civil';
import { writeMoney } from '@/core/quantity/money';
import { rational } from '@/core/quantity/rational';
import { sayCount, sayGrams } from '@/core/quantity/say';
import { changeBuyingPlan, makeBuyingPlan, PLAN_SECONDS, viewBuyingPlan } from '@/services/buying/plan';
import { makeTrip } from '@/services/buying/trips';
import { addOneOffJob, markJob } from '@/services/countdown/countdown';
import { ActionForm } from '@/ui/form/action-form';
import { DateField } from '@/ui/form/dates';
import type { FormState } from '@/ui/form/form-state';
import { MoneyField } from '@/ui/form/money-field';
import { Empty, PageTitle } from '@/ui/page';
import { Planning } from '@/ui/planning';
import { PrintButton } from '@/ui/print-button';
import { UsualCautions } from '@/ui/recipes/usual-cautions';
import { BuyingFigures } from './figures';
import { PlannedTripLines } from './trip-lines';

export const metadata = { title: 'Buying' };

/** What was frozen here thaws in the fridge for a day; what is large, longer (USDA FSIS: a day for each 4 to 5 lb). */
const THAW_MINUTES = 1440;

const grams = (amount: number) => sayGrams(rational(amount));

/** What planning again came to, in a sentence. */
async function sayAgainst({ cost, dearer = 0, moreLost = 0 }: { cost: number; dearer?: number; moreLost?: number }) {
  const say = await saying();
  const money =
    dearer === 0 ? 'as before' : `${say.money(Math.abs(dearer))} ${dearer > 0 ? 'more' : 'less'} than before`;
  const lost = moreLost === 0 ? '' : `; ${grams(Math.abs(moreLost))} ${moreLost > 0 ? 'more' : 'less'} is lost`;
  return `Planned: ${say.money(cost)} in all, ${money}${lost}.`;
}

async function plan(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(makeBuyingPlan, async () => sayAgainst(await call(makeBuyingPlan, formOf(makeBuyingPlan, data))));
}

async function pin(version: number, ingredient: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(changeBuyingPlan, async () => {
    const change = { kind: 'pin' as const, ingredient, productId: String(data.get('productId') ?? '') };
    return sayAgainst(await call(changeBuyingPlan, { version, change }));
  });
}

async function visit(
  version: number,
  { shopId, day }: { shopId: string; day: string },
  on: boolean,
  _state: FormState | null,
): Promise<FormState> {
  'use server';
  return attempt(changeBuyingPlan, async () =>
    sayAgainst(await call(changeBuyingPlan, { version, change: { kind: 'visit', shopId, day, on } })),
  );
}

async function shopOn(version: number, shopId: string, on: boolean, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(changeBuyingPlan, async () =>
    sayAgainst(await call(changeBuyingPlan, { version, change: { kind: 'shop', shopId, on } })),
  );
}

async function budget(version: number, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(changeBuyingPlan, async () => {
    const written = String(data.get('budget') ?? '').replace(',', '.');
    const cents = written.trim() === '' ? null : Math.round(Number(written) * 100);
    return sayAgainst(await call(changeBuyingPlan, { version, change: { kind: 'budget', budget: cents as number } }));
  });
}

async function go(shopId: string, day: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(makeTrip, async () => redirect(`/trips/${await call(makeTrip, { shopId, day })}`));
}

async function takeOutOfFreezer(sessionId: string, name: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(addOneOffJob, async () => {
    const title = `Take ${name} out of the freezer, into the fridge`.slice(0, 120);
    const job = { stage: 'packing' as const, minutes: THAW_MINUTES, hours: 'any' as const, before: 'packing' };
    await call(addOneOffJob, { sessionId, title, ...job });
    return 'It is in the countdown, a day before it is packed.';
  });
}

async function done(sessionId: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(markJob, async () => {
    await call(markJob, { sessionId, job: 'buying', done: true });
    return 'Marked: its countdown goes on from there.';
  });
}

export default async function Buying() {
  const say = await saying();
  const {
    plan: made,
    usedUp,
    isOld,
    needs,
    sessions,
    shops,
    trips,
    choices,
    lots,
    past,
    cameShort,
    cold,
    today,
  } = await call(viewBuyingPlan, {});
  const shopName = (id: string) => shops.find((shop) => shop.id === id)?.name ?? '';
  const planned = made?.planned;
  const wishes = made?.wishes ?? {};
  const there = sessions.filter(({ id, isLocked }) => isLocked && planned?.ready.includes(id));
  const drafts = sessions.filter(({ isLocked }) => !isLocked);
  const isMade = (shopId: string, day: string) => trips.find((trip) => trip.shopId === shopId && trip.day === day);
  return (
    <>
      <PageTitle
        title="Buying"
        over={`${sayCount(sessions.length, 'session')} with ${sayCount((planned?.needs ?? needs).length, 'need')}: stock first, then the cheapest packs that are right for everybody`}
      >
        <Link href="/shelves" className="btn">
          Shelves
        </Link>
        <Link href="/buying/prices" className="btn">
          Price book
        </Link>
        <Link href="/trips" className="btn">
          Trips
        </Link>
        <Link href="/buying/lost" className="btn">
          Nothing lost
        </Link>
        {planned && (
          <Link href="/buying/choices" prefetch={false} className="btn">
            Open choices
          </Link>
        )}
        {planned && <PrintButton />}
      </PageTitle>
      <ActionForm
        action={plan}
        label="Plan the buying"
        className="no-print sheet mb-5 flex flex-wrap items-end gap-3 p-4"
      >
        <DateField
          label="For all sessions until"
          name="toDay"
          required
          width="w-56"
          defaultValue={made?.toDay ?? addDays(today, 28)}
        />
        <button type="submit" className="btn btn-primary">
          {planned ? 'Plan again' : 'Plan the buying'}
        </button>
        <Planning seconds={PLAN_SECONDS} />
        {isOld && (
          <p className="basis-full text-sm font-semibold">
            The roll, a dish or a session moved since this was planned: plan again before anybody goes to the shop.
          </p>
        )}
      </ActionForm>
      {cameShort.map(({ id, foods }) => (
        <p key={id} className="mb-4 rounded-box border-l-4 border-l-error bg-error/10 p-3 text-sm">
          <b>Came short on a trip:</b> {foods.join(', ')}.{' '}
          <Link href={`/trips/${id}/short`} prefetch={false} className="link">
            See what would mend it
          </Link>
          .
        </p>
      ))}
      {past.length > 0 && (
        <p className="mb-4 rounded-box border-l-4 border-l-error bg-error/10 p-3 text-sm">
          <b>Past its use-by on the shelf, and not planned with:</b> {past.join(', ')}.{' '}
          <Link href="/shelves" className="link">
            Write it off
          </Link>
          .
        </p>
      )}
      {!planned && (
        <Empty title="Nothing is planned yet">
          <p>
            {shops.length === 0
              ? 'Begin with the price book: a shop with its days, and what its packs cost.'
              : 'Press the button above: needs come from the kit sheets, and what has no price yet is named.'}
          </p>
          {shops.length === 0 && (
            <Link href="/buying/prices" className="btn btn-primary">
              Open the price book
            </Link>
          )}
        </Empty>
      )}
      {made && planned && (
        <>
          <BuyingFigures
            planned={planned}
            budget={wishes.budget}
            drafts={drafts.map(({ title }) => title)}
            cold={cold}
          />
          {planned.holes.length > 0 && (
            <p className="mb-4 rounded-box border-l-4 border-l-warning bg-base-100 p-3 text-sm">
              <b>Not in these figures:</b> {planned.holes.join(', ')} {planned.holes.length === 1 ? 'has' : 'have'} no
              price in any shop, and none is on a shelf.{' '}
              <Link href="/buying/prices#holes" className="link">
                Fill them in
              </Link>
              .
            </p>
          )}
          {planned.short.length > 0 && (
            <section
              className="mb-4 rounded-box border-l-4 border-l-error bg-error/10 p-3 text-sm"
              aria-label="Cannot be met"
            >
              <b>Cannot be bought in time, or not with a label that suits:</b>
              <ul className="list-disc pl-5">
                {planned.short.map(({ needId, missing, why }) => {
                  const need = planned.needs.find(({ id }) => id === needId);
                  const session = sessions.find(({ id }) => id === need?.sessionId);
                  return (
                    <li key={needId}>
                      {need?.ingredient}: {need?.units === undefined ? grams(missing) : sayCount(missing, 'unit')}{' '}
                      missing for {session?.title}, taken up on {need && say.longDate(need.day)}. {say.text(why)}
                    </li>
                  );
                })}
              </ul>
            </section>
          )}
          {there.length > 0 && (
            <section className="sheet mb-5 p-4" aria-labelledby="there">
              <h2 id="there" className="mb-1 font-bold">
                Everything is on the shelves for
              </h2>
              <ul className="flex flex-col gap-2">
                {there.map(({ id, title }) => (
                  <li key={id} className="flex flex-wrap items-center gap-3">
                    <Link href={`/sessions/${id}/buying`} className="link">
                      {title}
                    </Link>
                    <ActionForm action={done.bind(null, id)} label={`Shopping of ${title}`} className="no-print">
                      <button type="submit" className="btn btn-sm" aria-label={`Mark shopping done: ${title}`}>
                        Mark shopping done
                      </button>
                    </ActionForm>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {planned.trips.map((trip) => {
            const own = isMade(trip.shopId, trip.day);
            return (
              <section
                key={`${trip.shopId} ${trip.day}`}
                className="sheet mb-5 p-5"
                aria-label={`${shopName(trip.shopId)}, ${say.longDate(trip.day)}`}
              >
                <div className="mb-2 flex flex-wrap items-end justify-between gap-3">
                  <div>
                    <h2 className="text-xl font-bold">
                      {say.longDate(trip.day)}: {shopName(trip.shopId)}
                    </h2>
                    <p className="text-sm">
                      {sayCount(trip.lines.length, 'thing')},{' '}
                      {say.money(trip.lines.reduce((sum, { cost }) => sum + cost, 0))} at the till
                      {trip.cost > 0 && `, ${say.money(trip.cost)} to go there`}
                    </p>
                  </div>
                  <div className="no-print flex flex-wrap gap-2">
                    {own ? (
                      <Link href={`/trips/${own.id}`} className="btn btn-primary">
                        Open the trip
                      </Link>
                    ) : (
                      <ActionForm
                        action={go.bind(null, trip.shopId, trip.day)}
                        label={`Go to ${shopName(trip.shopId)} on ${trip.day}`}
                      >
                        <button type="submit" className="btn btn-primary">
                          Make this trip
                        </button>
                      </ActionForm>
                    )}
                    <ActionForm
                      action={visit.bind(null, made.version, { shopId: trip.shopId, day: trip.day }, false)}
                      label={`Leave out ${shopName(trip.shopId)} on ${trip.day}`}
                    >
                      <button type="submit" className="btn">
                        Leave this visit out
                      </button>
                    </ActionForm>
                  </div>
                </div>
                <PlannedTripLines
                  trip={trip}
                  sessions={Object.fromEntries(sessions.map(({ id, title }) => [id, title]))}
                  choices={choices}
                  pins={wishes.pins ?? {}}
                  pin={pin.bind(null, made.version)}
                />
              </section>
            );
          })}
          {planned.shelf.length > 0 && (
            <section className="sheet mb-5 p-5" aria-labelledby="from-shelf">
              <h2 id="from-shelf" className="mb-2 text-xl font-bold">
                From the shelf
              </h2>
              <ul className="divide-y divide-base-300">
                {planned.shelf.map((line) => {
                  const lot = lots.find(({ id }) => id === line.lotId);
                  return (
                    <li key={line.lotId} className="flex flex-wrap items-baseline gap-x-4 py-1.5">
                      <b className="w-56">{lot?.name ?? line.ingredient}</b>
                      <span className="w-28 tabular-nums">
                        {line.grams > 0 && grams(line.grams)} {line.units > 0 && sayCount(line.units, 'unit')}
                      </span>
                      <span className="text-sm">
                        for {[...new Set(line.uses.map(({ day }) => say.longDate(day)))].join(', ')}
                        {lot && `; good until ${say.longDate(lot.last)}`}
                      </span>
                      {lot?.thaws && line.uses[0] && (
                        <ActionForm
                          action={takeOutOfFreezer.bind(null, line.uses[0].sessionId, lot.name)}
                          label={`Thawing of ${lot.name}`}
                          className="no-print"
                        >
                          <button type="submit" className="btn btn-sm" aria-label={`Make a job of thawing ${lot.name}`}>
                            Make a job of thawing
                          </button>
                        </ActionForm>
                      )}
                    </li>
                  );
                })}
              </ul>
            </section>
          )}
          {usedUp.length > 0 && (
            <section className="sheet mb-5 p-5" aria-labelledby="used-up">
              <h2 id="used-up" className="mb-2 text-xl font-bold">
                Used up: see that it is there
              </h2>
              <ul className="columns-2 text-sm md:columns-3">
                {usedUp.map(({ name, count, by }) => (
                  <li key={name}>
                    <b className="tabular-nums">{count}</b> {name}, the first by {say.longDate(by)}
                  </li>
                ))}
              </ul>
            </section>
          )}
          <section
            className="no-print sheet mb-5 flex flex-wrap items-end gap-x-8 gap-y-3 p-5"
            aria-labelledby="wishes"
          >
            <h2 id="wishes" className="basis-full text-xl font-bold">
              What you want of the plan
            </h2>
            <ActionForm
              isUndoable
              action={budget.bind(null, made.version)}
              label="Budget"
              version={made.version}
              className="flex items-end gap-2"
            >
              <MoneyField
                label="At most in all"
                name="budget"
                width="w-32"
                defaultValue={wishes.budget === undefined ? '' : writeMoney(wishes.budget)}
              />
              <button type="submit" className="btn">
                Set budget
              </button>
            </ActionForm>
            {shops.map(({ id, name }) => {
              const isOff = wishes.noShops?.includes(id) ?? false;
              return (
                <ActionForm key={id} action={shopOn.bind(null, made.version, id, isOff)} label={`${name} in the plan`}>
                  <button type="submit" className="btn">
                    {isOff ? `Go to ${name} again` : `Do not go to ${name}`}
                  </button>
                </ActionForm>
              );
            })}
            {(wishes.noVisits ?? []).map((key) => {
              const [shopId = '', day = ''] = key.split(' ');
              return (
                <ActionForm
                  key={key}
                  action={visit.bind(null, made.version, { shopId, day }, true)}
                  label={`Visit of ${day} again`}
                >
                  <button type="submit" className="btn">
                    Allow {shopName(shopId)} on {say.longDate(day)} again
                  </button>
                </ActionForm>
              );
            })}
          </section>
        </>
      )}
      <p className="no-print mb-4 text-sm">
        <a href="/trips.csv" className="link">
          What was paid on trips, for the book-keeper (CSV)
        </a>
      </p>
      <UsualCautions at="shopping" />
    </>
  );
}
