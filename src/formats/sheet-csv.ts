import { byGroup } from '@/core/kits/sheet';
import { COURSE_SUPPLIES, type SheetContent } from '@/core/kits/snapshot';
import { writeCsv } from './csv';

/**
 * A kit sheet as CSV: a row for each component and variant in the order of the sheet, then the totals to buy.
 * Grams are plain numbers, so that a spreadsheet can add them up.
 */
export function writeSheetCsv(content: SheetContent): string {
  const rows: (string | number)[][] = [
    [
      'part',
      'dish',
      'ingredient',
      'variant',
      'servings',
      'kits',
      'made without',
      'amount',
      'grams per kit',
      'grams in all kits',
      'grams to buy',
      'packs',
      'people',
      'groups',
    ],
  ];
  for (const variant of content.variants) {
    const people = variant.participants.map(({ name }) => name).join('; ');
    const groups = [...byGroup(variant.participants)]
      .flatMap(([group, own]) => (group ? [`${group}: ${own.length}`] : []))
      .join('; ');
    const count = variant.participants.length;
    const head = (part: string, dish: string, ingredient: string) => [
      part,
      dish,
      ingredient,
      variant.letter,
      variant.servings,
      count,
      variant.madeWithout.join(', '),
    ];
    if (!variant.components) {
      const why = [
        ...variant.refusals.map(
          ({ ingredient, blockedBy }) => `${ingredient}: holds or may hold ${blockedBy.join(', ')}`,
        ),
        ...variant.unknownWishes.map((wish) => `"${wish}" has no meaning yet`),
      ].join('; ');
      rows.push([...head('refused', '', ''), why, '', '', '', '', people, groups]);
      continue;
    }
    for (const component of variant.components) {
      const dish = content.input.dishes[content.rows[component.row]?.dish ?? -1]?.title ?? COURSE_SUPPLIES;
      const grams = toNumber(component.grams);
      rows.push([
        ...head('kit', dish, component.name),
        [component.say, component.from, component.isShared && 'at the station', component.isCatchUp && 'catch-up']
          .filter(Boolean)
          .join(', '),
        round(grams),
        round(grams * count),
        '',
        '',
        people,
        groups,
      ]);
    }
  }
  for (const total of content.totals) {
    const purchase = total.purchaseGrams ? round(toNumber(total.purchaseGrams)) : '';
    rows.push([
      'to buy',
      '',
      total.ingredient,
      '',
      '',
      '',
      '',
      '',
      '',
      round(toNumber(total.edibleGrams)),
      purchase,
      total.packs ?? '',
      '',
      '',
    ]);
  }
  return writeCsv(rows);
}

/** Shown figures only: exact arithmetic is over when a sheet is exported. */
const round = (grams: number) => Number(grams.toFixed(3));

function toNumber(exact: string): number {
  const [n = '0', d = '1'] = exact.split('/');
  return Number(n) / Number(d);
}
