import Link from 'next/link';
import { v7 } from 'uuid';
import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { saying } from '@/app/saying';
import { LOSS_REASONS, type MoveKind, STORAGES } from '@/core/buying/stock';
import { rational } from '@/core/quantity/rational';
import { sayCount, sayGrams } from '@/core/quantity/say';
import { moveLot, viewStock } from '@/services/buying/stock';

import { ActionForm } from '@/ui/form/action-form';
import { Choice, Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Empty, PageTitle } from '@/ui/page';

export const metadata = { title: 'Shelves' };

async function move(lotId: string, id: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(moveLot, async () => {
    const kind = String(data.get('kind') ?? 'used') as MoveKind;
    const text = (name: string) => String(data.get(name) ?? '');
    await call(moveLot, {
      id,
      lotId,
      kind,
      packs: text('packs') || 0,
      grams: text('grams') || 0,
      storage: kind === 'moved' ? (text('storage') as (typeof STORAGES)[number]) : null,
      placeId: null,
      reason: kind === 'thrown away' ? (text('reason') as (typeof LOSS_REASONS)[number] | '') : '',
    });
    return 'Noted.';
  });
}

const DOES: readonly { readonly kind: MoveKind; readonly say: string }[] = [
  { kind: 'used', say: 'Taken and used' },
  { kind: 'opened', say: 'Opened' },
  { kind: 'moved', say: 'Moved' },
  { kind: 'frozen', say: 'Frozen' },
  { kind: 'thawed', say: 'Thawed' },
  { kind: 'given away', say: 'Given away' },
  { kind: 'thrown away', say: 'Thrown away' },
];

/** Days from one civil date to another. */
const daysTo = (from: string, to: string) => Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);

/** What ends first stands first. */
const IN_ORDER = ['fridge', 'shelf', 'freezer'] as const;
/** Beyond so many one looks for a name. */
const A_SCREEN = 12;
/** Of a long list those that end first are shown; the rest is found or asked for. */
const FIRST = 50;

/** @param searchParams `lot`: of which it is noted what happened; `find`: what is looked for; `all`: the whole list */
export default async function Shelves({
  searchParams,
}: {
  searchParams: Promise<{ lot?: string; find?: string; all?: string }>;
}) {
  const say = await saying();
  const { lot: open, find = '', all } = await searchParams;
  const { lots: there, refused, today, isCoordinator } = await call(viewStock, {});
  const wanted = find.trim().toLowerCase();
  const found = there.filter(({ name, ingredient }) => `${name} ${ingredient}`.toLowerCase().includes(wanted));
  const lots = all || open ? found : found.slice(0, FIRST);
  const soon = (last: string) => daysTo(today, last) <= 3;
  return (
    <>
      <PageTitle title="Shelves" over="What is there, soonest to go off first; nothing past its use-by is planned with">
        <Link href="/shelves/new" className="btn btn-primary">
          Put something there
        </Link>
        <Link href="/shelves/count" className="btn">
          Count a shelf
        </Link>
        <Link href="/shelves/gift" className="btn">
          Take a gift
        </Link>
        <Link href="/cold-failed" className="btn">
          A fridge failed
        </Link>
      </PageTitle>
      <div className="flex min-w-0 flex-col gap-5">
        {there.length > A_SCREEN && (
          <form className="no-print flex items-end gap-2" aria-label="Find on the shelves">
            <Field label="Find on the shelves" name="find" type="search" defaultValue={find} width="w-64" />
            <button type="submit" className="btn">
              Find
            </button>
          </form>
        )}
        {there.length > 0 && found.length === 0 && <p>Nothing there is called so. Look under another name.</p>}
        {there.length === 0 && (
          <Empty title="Nothing is on the shelves">
            <p>Put something there, count a shelf, or check in a trip: what was bought lands here.</p>
          </Empty>
        )}
        {IN_ORDER.map((storage) => {
          const own = lots.filter(({ now }) => now.storage === storage);
          if (own.length === 0) return null;
          return (
            <section key={storage} className="sheet p-5" aria-labelledby={`on-${storage}`}>
              <h2 id={`on-${storage}`} className="mb-1 text-xl font-bold">
                {{ shelf: 'On the shelf', fridge: 'In the fridge', freezer: 'In the freezer' }[storage]}
              </h2>
              <ul className="divide-y divide-base-300">
                {own.map(({ id, name, ingredient, now, lastKind, place, origin, packGrams, allergens }) => {
                  const isPast = now.lastOpen < today;
                  const days = daysTo(today, now.lastOpen);
                  return (
                    <li key={id} id={`lot-${id}`} className="py-2">
                      <div className="flex flex-wrap items-baseline gap-x-4">
                        <b className="w-56">{name}</b>
                        <span className="w-44 tabular-nums">
                          {now.packs > 0 &&
                            packGrams &&
                            `${sayCount(now.packs, 'pack')} of ${sayGrams(rational(packGrams))}`}
                          {now.packs > 0 && now.loose > 0 && ' + '}
                          {now.loose > 0 && `${sayGrams(rational(now.loose))}${packGrams ? ' open' : ''}`}
                        </span>
                        <span className={`text-sm ${isPast || soon(now.lastOpen) ? 'font-semibold' : ''}`}>
                          {isPast
                            ? lastKind === 'use by'
                              ? `Past its use-by of ${say.longDate(now.lastOpen)}: write it off`
                              : `Past its best-before of ${say.longDate(now.lastOpen)}: look at it first`
                            : `${now.loose > 0 && packGrams ? 'once open, ' : ''}${lastKind} ${say.longDate(now.lastOpen)}${soon(now.lastOpen) ? `, ${days === 0 ? 'today' : `in ${sayCount(days, 'day')}`}` : ''}`}
                        </span>
                      </div>
                      <p className="text-sm">
                        {[name === ingredient ? '' : ingredient, place, origin === 'bought' ? '' : origin]
                          .filter(Boolean)
                          .join(' · ')}
                        {allergens === null && ' · label not read'}
                        {isCoordinator && (
                          <>
                            {' · '}
                            <Link href={`/shelves/${id}`} className="link" aria-label={`where it went: ${name}`}>
                              where it went
                            </Link>
                          </>
                        )}
                      </p>
                      {open === id ? (
                        <ActionForm
                          action={move.bind(null, id, v7())}
                          label={`What happened to ${name}`}
                          className="mt-2 flex flex-wrap items-end gap-2"
                        >
                          <Choice
                            label="It was"
                            name="kind"
                            defaultValue={isPast ? 'thrown away' : 'used'}
                            width="w-40"
                          >
                            {DOES.map(({ kind, say }) => (
                              <option key={kind} value={kind}>
                                {say}
                              </option>
                            ))}
                          </Choice>
                          {packGrams && (
                            <Field label="Packs" name="packs" type="number" min={0} defaultValue={0} width="w-20" />
                          )}
                          <Field
                            label="Grams"
                            name="grams"
                            type="number"
                            min={0}
                            defaultValue={isPast ? now.loose : 0}
                            width="w-24"
                          />
                          <Choice label="Where to (moved)" name="storage" width="w-32">
                            {STORAGES.map((to) => (
                              <option key={to}>{to}</option>
                            ))}
                          </Choice>
                          <Choice
                            label="Why (thrown away)"
                            name="reason"
                            defaultValue={isPast ? LOSS_REASONS[0] : ''}
                            width="w-44"
                          >
                            <option value="">say why</option>
                            {LOSS_REASONS.map((reason) => (
                              <option key={reason}>{reason}</option>
                            ))}
                          </Choice>
                          <button type="submit" className="btn" aria-label={`Note it: ${name}`}>
                            Note it
                          </button>
                        </ActionForm>
                      ) : (
                        <Link
                          href={`/shelves?lot=${id}#lot-${id}`}
                          scroll={false}
                          className="link text-sm font-semibold"
                          aria-label={`What happened to it: ${name}`}
                        >
                          What happened to it
                        </Link>
                      )}
                    </li>
                  );
                })}
              </ul>
            </section>
          );
        })}
        {lots.length < found.length && (
          <Link href="/shelves?all=1" prefetch={false} className="btn w-fit">
            Show all {found.length}, not only the {FIRST} that end first
          </Link>
        )}
        {refused.length > 0 && (
          <section className="sheet p-5" aria-labelledby="refused">
            <h2 id="refused" className="mb-1 text-lg font-bold">
              Gifts that were not taken
            </h2>
            <ul className="list-disc pl-5 text-sm">
              {refused.map(({ id, name, reasons, at }) => (
                <li key={id}>
                  {name}, {say.longDate(at.slice(0, 10))}: {reasons.join(', ')}
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </>
  );
}
