'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import type { Saying } from '@/core/plan/saying';
import type { RecipeOverview } from '@/core/recipes/choosing/recipe-overview';
import { useSaying } from '@/ui/saying';
import { DataTable, type TableColumn } from '@/ui/table/data-table';
import { useAddress } from '@/ui/table/use-address';

/** A recipe in the list. */
export interface RecipeLine {
  readonly id: string;
  readonly title: string;
  readonly description: string;
  readonly servings: number;
  readonly sessions: number;
  /** The last day on which it is or was cooked, YYYY-MM-DD. */
  readonly lastUsed: string | null;
  /** Null where it cannot be computed with. */
  readonly overview: RecipeOverview | null;
}

const HEATS = [
  ['none', 'no heat at all'],
  ['no oven', 'no oven'],
  ['oven', 'with the oven'],
] as const;

/** Whether a recipe is among those that are looked for; one that cannot be computed with only where nothing is asked. */
function fits({ overview }: RecipeLine, asked: Readonly<Record<string, string | undefined>>): boolean {
  const { season, free, heat, minutes } = asked;
  if (!overview) return !season && !free && !heat && !minutes;
  if (season && overview.outOfSeason.length > 0) return false;
  if (free && overview.holds.includes(free)) return false;
  if (minutes && overview.handsOn + overview.handsOff > Number(minutes)) return false;
  if (heat === 'none') return overview.heat.length === 0;
  if (heat === 'no oven') return !overview.heat.includes('oven');
  return heat !== 'oven' || overview.heat.includes('oven');
}

/** All recipes: found by title, food, season, need, minutes, heat, cost and when they were cooked last. */
export function RecipesTable({ recipes }: { recipes: readonly RecipeLine[] }) {
  const [address, setAddress] = useAddress();
  const router = useRouter();
  const say = useSaying();
  const { season, free, heat, minutes } = address;
  const rows = useMemo(
    () => recipes.filter((recipe) => fits(recipe, { season, free, heat, minutes })),
    [recipes, season, free, heat, minutes],
  );
  const columns = useMemo(() => columnsOf(say), [say]);
  const holds = useMemo(() => [...new Set(recipes.flatMap(({ overview }) => overview?.holds ?? []))].sort(), [recipes]);
  const choice = (label: string, name: string, value: string, options: readonly (readonly [string, string])[]) => (
    <label className="flex flex-col gap-1">
      <span className="text-sm font-semibold">{label}</span>
      <select
        className="select w-40"
        value={value}
        onChange={({ currentTarget }) => setAddress({ [name]: currentTarget.value })}
      >
        <option value="">any</option>
        {options.map(([key, title]) => (
          <option key={key} value={key}>
            {title}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <DataTable
      label="Recipes"
      rows={rows}
      of={recipes.length}
      idOf={({ id }) => id}
      columns={columns}
      find="Find by name or food"
      open={({ id }) => router.push(`/recipes/${id}`)}
      choices={
        <>
          {choice('Season', 'season', season ?? '', [['now', 'in season now']])}
          {choice(
            'Without',
            'free',
            free ?? '',
            holds.map((each) => [each, each]),
          )}
          {choice('Heat', 'heat', heat ?? '', HEATS)}
          {choice('Takes', 'minutes', minutes ?? '', [
            ['20', 'at most 20 min'],
            ['40', 'at most 40 min'],
            ['60', 'at most an hour'],
            ['90', 'at most 90 min'],
          ])}
        </>
      }
    />
  );
}

const columnsOf = (say: Saying): TableColumn<RecipeLine>[] => [
  {
    id: 'title',
    header: 'Recipe',
    isName: true,
    // Its foods are found with it, and not shown.
    value: ({ title, overview }) => `${title} ${overview?.foods.join(' ') ?? ''}`,
    show: ({ id, title, description }) => (
      <>
        <Link href={`/recipes/${id}`} prefetch={false} className="link font-bold">
          {title}
        </Link>
        {description && <span className="block text-sm font-normal">{description}</span>}
      </>
    ),
  },
  { id: 'servings', header: 'Servings', isNumber: true, value: ({ servings }) => servings },
  {
    id: 'minutes',
    header: 'Minutes',
    isNumber: true,
    value: ({ overview }) => (overview ? overview.handsOn + overview.handsOff : -1),
    show: ({ overview }) =>
      overview && (
        <>
          {overview.handsOn}
          {overview.handsOff > 0 && <span className="block text-xs">and {overview.handsOff} by itself</span>}
        </>
      ),
  },
  {
    id: 'heat',
    header: 'Heat',
    isShort: true,
    value: ({ overview }) => overview?.heat.join(', ') ?? '',
    show: ({ overview }) => (overview ? overview.heat.join(', ') || 'none' : ''),
  },
  {
    id: 'holds',
    header: 'Holds, or may',
    value: ({ overview }) => overview?.holds.join(', ') ?? '',
    show: ({ overview }) => <span className="text-sm">{overview?.holds.join(', ')}</span>,
  },
  {
    id: 'season',
    header: 'Out of season',
    value: ({ overview }) => overview?.outOfSeason.join(', ') ?? '',
    show: ({ overview }) => <span className="text-sm">{overview?.outOfSeason.join(', ')}</span>,
  },
  {
    id: 'cost',
    header: 'A serving',
    isNumber: true,
    value: ({ overview }) => overview?.cost ?? -1,
    show: ({ overview }) => (overview?.cost == null ? '' : say.money(overview.cost)),
  },
  {
    id: 'last',
    header: 'Cooked last',
    isShort: true,
    value: ({ lastUsed }) => lastUsed ?? '',
    show: ({ lastUsed, sessions }) =>
      lastUsed ? (
        <>
          {say.shortDate(lastUsed)}
          <span className="block text-xs">{sessions === 1 ? 'one session' : `${sessions} sessions`}</span>
        </>
      ) : (
        'never'
      ),
  },
];
