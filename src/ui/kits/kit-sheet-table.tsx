import Link from 'next/link';
import type { CSSProperties } from 'react';
import { isSentCold } from '@/core/kits/figures/keeping';
import { findVariants } from '@/core/kits/record/find-variants';
import {
  COURSE_SUPPLIES,
  type SheetComponent,
  type SheetContent,
  type SheetPerson,
  type SheetVariant,
} from '@/core/kits/record/sheet-content';
import type { ExtraKind } from '@/core/kits/sheet/extras';
import { byGroup } from '@/core/kits/sheet/participant';
import { WHOLE } from '@/core/kits/supply/supplied';
import { plainSay } from '@/core/quantity/plain-words';
import { sayCount } from '@/core/quantity/say';
import { GridKeys } from '../table/grid-keys';

/** A sheet wider than its screen is pushed sideways: what a row is of stays. */
const STAYS = 'sticky left-0 z-1 bg-base-100 print:static';

/** Names beyond this many are folded away, so that a sheet for hundreds stays calm. */
const NAMES_SHOWN = 14;
/** How extras are told apart from the kits of the roll. */
const EXTRA_WORDS: Readonly<Record<ExtraKind, string>> = {
  'swap-in': 'swap-in batch',
  tasters: 'to taste',
  crew: 'for the crew',
  reserve: 'in reserve',
};
/** Variants side by side on one page; more start another table. */
const VARIANTS_ACROSS = 6;
/** So many are looked through at a glance; on a longer sheet one is looked for. */
const FEW_VARIANTS = 10;

interface SheetProps {
  readonly content: SheetContent;
  /** The address of the sheet, for what is pressed to be added to. */
  readonly base: string;
  readonly pressed: string | undefined;
}

/** The kit sheet: ingredients down by dish, variants across, people under each variant; every number opens its working. */
export function KitSheetTable({ find, ...sheet }: SheetProps & { find: string }) {
  const all = sheet.content.variants;
  const found = findVariants(all, find);
  const groups: SheetVariant[][] = [];
  for (let index = 0; index < found.length; index += VARIANTS_ACROSS)
    groups.push(found.slice(index, index + VARIANTS_ACROSS));
  const cold = coldRows(sheet.content);
  return (
    <div className="flex flex-col gap-4">
      {(all.length > FEW_VARIANTS || find !== '') && (
        <Finder find={find} base={sheet.base} found={found.length} all={all.length} />
      )}
      {groups.map((variants) => (
        <SheetPart key={variants[0]?.key} {...sheet} variants={variants} cold={cold} />
      ))}
    </div>
  );
}

/** On a long sheet, somebody's variant is looked for. */
function Finder({ find, base, found, all }: { find: string; base: string; found: number; all: number }) {
  const others = [...new URLSearchParams(base.slice(1))].filter(([name]) => name !== 'find');
  return (
    <search>
      <form className="no-print flex flex-wrap items-end gap-2">
        {others.map(([name, value]) => (
          <input key={name} type="hidden" name={name} value={value} />
        ))}
        <label className="flex flex-col gap-1">
          <span className="font-semibold">Find among {all} kinds of kit</span>
          <input
            name="find"
            defaultValue={find}
            className="input w-80"
            placeholder="a name, a letter, what is avoided"
            maxLength={100}
          />
        </label>
        <button type="submit" className="btn">
          Find
        </button>
        {find !== '' && (
          <Link href={`?${new URLSearchParams(others)}`} scroll={false} className="btn">
            Show all
          </Link>
        )}
      </form>
      {find !== '' && (
        <p role="status" className="mt-2">
          {found === 0
            ? `No kit has to do with “${find}”.`
            : `Only what was found for “${find}”: ${sayCount(found, 'kind of kit', 'kinds of kit')} of ${all}.`}
        </p>
      )}
    </search>
  );
}

function SheetPart({
  content,
  variants,
  base,
  pressed,
  cold,
}: SheetProps & { variants: readonly SheetVariant[]; cold: ReadonlySet<number> }) {
  /** What only an alternative brings along, or some kits get for the course, is shown where one of these holds it. */
  const isUsed = (dish: number, beside: number | undefined, place: number) =>
    (!beside && dish < content.input.dishes.length) ||
    variants.some(({ components }) => components?.some(({ row }) => row === place));
  return (
    <GridKeys className="sheet overflow-x-auto scroll-pl-36 sm:scroll-pl-52">
      {/* Each kind of kit keeps a column that can be read: a sheet wider than its screen is pushed sideways, its foods stay. */}
      <table
        className="table table-fixed min-w-(--sheet) print:min-w-0"
        style={{ '--sheet': `${9 + 7 * variants.length}rem` } as CSSProperties}
      >
        <caption className="sr-only">Kit sheet: what goes into one kit of each kind</caption>
        <thead>
          <tr className="whitespace-normal align-top text-base-content">
            <th scope="col" className={`${STAYS} w-36 sm:w-52`}>
              In one kit
            </th>
            {variants.map((variant) => (
              <th key={variant.key} scope="col" className="min-w-0">
                <span className="font-display text-2xl font-bold">{variant.letter}</span>
                <span className="ml-2 text-sm font-semibold">
                  {variant.extra ? EXTRA_WORDS[variant.extra] : sayCount(variant.participants.length, 'kit')}
                  {variant.extra === 'reserve' ? ` × ${variant.participants.length}` : ''}, feeding {variant.servings}
                </span>
                {variant.madeWithout.length > 0 && (
                  <span className="block font-bold">made without {variant.madeWithout.join(', ')}</span>
                )}
                {saySupply(variant).map((say) => (
                  <span key={say} className="block text-xs">
                    {say}
                  </span>
                ))}
                {variant.notFor && variant.notFor.length > 0 && (
                  <span className="block font-bold text-error">not for who avoids {variant.notFor.join(', ')}</span>
                )}
                {!variant.components && <span className="block font-bold text-error">refused</span>}
              </th>
            ))}
          </tr>
        </thead>
        {sectionsOf(content, isUsed).map((dish, index) => (
          <tbody key={dish.id}>
            <tr className="bg-base-200">
              <th scope="rowgroup" colSpan={variants.length + 1} className="font-display text-base">
                {dish.title}
              </th>
            </tr>
            {content.rows.map((row, place) =>
              row.dish === index && isUsed(row.dish, row.beside, place) ? (
                <tr key={`${place}${row.name}`} className="hover:bg-base-200/60">
                  <th scope="row" className={`${STAYS} font-normal`}>
                    {row.name}
                    {cold.has(place) && <span className="ml-1.5 text-xs font-semibold">cold</span>}
                  </th>
                  {variants.map((variant) => (
                    <td key={variant.key}>
                      <Cell
                        variant={variant}
                        component={variant.components?.find((candidate) => candidate.row === place)}
                        row={place}
                        isBeside={Boolean(row.beside) || index === content.input.dishes.length}
                        base={base}
                        pressed={pressed}
                      />
                    </td>
                  ))}
                </tr>
              ) : null,
            )}
          </tbody>
        ))}
        <tfoot>
          <tr className="whitespace-normal align-top text-base-content">
            <th scope="row" className={STAYS}>
              Weight of one kit
            </th>
            {variants.map((variant) => (
              <td key={variant.key}>{variant.components ? variant.sayGrams : '–'}</td>
            ))}
          </tr>
          <tr className="whitespace-normal align-top text-base-content">
            <th scope="row" className={STAYS}>
              Contains
            </th>
            {variants.map((variant) => (
              <td key={variant.key}>
                {variant.components && (variant.contains.join(', ') || 'no listed allergen')}
                {variant.mayContain.length > 0 && (
                  <span className="block text-xs font-normal">may contain {variant.mayContain.join(', ')}</span>
                )}
              </td>
            ))}
          </tr>
          {variants.some(({ steps }) => steps) && (
            <tr className="whitespace-normal align-top text-base-content">
              <th scope="row" className={STAYS}>
                Steps that differ
              </th>
              {variants.map((variant) => (
                <td key={variant.key} className="font-normal">
                  {variant.steps?.join('; ') ?? 'as written'}
                </td>
              ))}
            </tr>
          )}
          <tr className="whitespace-normal align-top text-base-content">
            <th scope="row" className={STAYS}>
              People
            </th>
            {variants.map((variant) => (
              <td key={variant.key} className="font-normal">
                <People people={variant.participants} />
              </td>
            ))}
          </tr>
        </tfoot>
      </table>
    </GridKeys>
  );
}

/** How a variant is filled, where that is not as for everybody. */
function saySupply({ supply }: SheetVariant): string[] {
  if (!supply) return [];
  const catchUp = [...(supply.jars ?? []), ...(supply.issues ?? [])].some(({ isCatchUp }) => isCatchUp);
  return [
    catchUp ? 'joined late: with catch-up' : '',
    supply.staples ? `own ${supply.staples.join(', ')}` : '',
    supply.box ? 'tops up their box' : '',
  ].filter(Boolean);
}

/** The rows of what travels cold in any kit. */
const coldRows = ({ variants, input }: SheetContent): ReadonlySet<number> =>
  new Set(
    variants.flatMap(({ components }) =>
      (components ?? []).flatMap((each) => (isSentCold(each, input.reference) ? [each.row] : [])),
    ),
  );

/** The dishes, and under them what goes with kits for the whole course. */
const sectionsOf = (
  { input, rows }: SheetContent,
  isUsed: (dish: number, beside: number | undefined, place: number) => boolean,
): readonly { id: string; title: string }[] =>
  rows.some(({ dish, beside }, place) => dish === input.dishes.length && isUsed(dish, beside, place))
    ? [...input.dishes, { id: 'course', title: COURSE_SUPPLIES }]
    : input.dishes;

function People({ people }: { people: readonly SheetPerson[] }) {
  return [...byGroup(people)].map(([group, own]) => (
    <div key={group}>
      {group && (
        <b>
          {group}: {sayCount(own.length, 'kit')}{' '}
        </b>
      )}
      <Names names={own.map(({ name }) => name)} />
    </div>
  ));
}

function Names({ names }: { names: readonly string[] }) {
  if (names.length <= NAMES_SHOWN) return names.join(', ');
  return (
    <details>
      <summary className="cursor-pointer">{names.length} people</summary>
      {names.join(', ')}
    </details>
  );
}

function Cell({
  variant,
  component,
  row,
  isBeside,
  base,
  pressed,
}: {
  variant: SheetVariant;
  component: SheetComponent | undefined;
  row: number;
  /** A row of what an alternative brings along: kits without that alternative have nothing in it. */
  isBeside: boolean;
  base: string;
  pressed: string | undefined;
}) {
  if (!component) {
    if (variant.components)
      return isBeside || variant.extra === 'swap-in' ? (
        <span aria-hidden="true">–</span>
      ) : (
        <span className="text-base-content/70">left out</span>
      );
    const refusal = variant.refusals.find((candidate) => candidate.row === row);
    return refusal ? (
      <span className="font-semibold text-error">no safe choice: {refusal.blockedBy.join(', ')}</span>
    ) : (
      <span aria-hidden="true">–</span>
    );
  }
  const address = `${variant.letter}.${row}`;
  return (
    <>
      {component.option > 0 && !isBeside && <span className="block text-xs font-bold">instead: {component.name}</span>}
      {component.product && <span className="block text-xs">only “{component.product}”</span>}
      {component.name === `${component.ingredient}, ${WHOLE}` && <span className="block text-xs">{WHOLE}</span>}
      <Link
        href={`${base}${base === '?' ? '' : '&'}working=${address}`}
        scroll={false}
        prefetch={false}
        aria-current={pressed === address ? 'true' : undefined}
        title={`How ${plainSay(component.say)} came about`}
        className="inline-block min-h-6 min-w-6 leading-6 underline decoration-dotted decoration-base-content/50 underline-offset-4 hover:decoration-solid aria-[current]:bg-accent aria-[current]:text-accent-content"
      >
        {plainSay(component.say)}
      </Link>
      {component.use && <span className="block text-xs font-semibold">{component.use}</span>}
      {component.from && <span className="block text-xs">{component.from}</span>}
      {component.isShared && <span className="block text-xs">at the station</span>}
      {component.isCatchUp && <span className="block text-xs font-bold">catch-up</span>}
      {component.sayGrams && !component.say.includes(component.sayGrams) && (
        <span className="block text-xs text-base-content/80">{component.sayGrams}</span>
      )}
    </>
  );
}
