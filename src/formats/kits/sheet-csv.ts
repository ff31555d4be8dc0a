import { COURSE_SUPPLIES, type SheetContent, whyRefused } from '@/core/kits/record/sheet-content';
import { byGroup } from '@/core/kits/sheet/participant';
import { plainSay } from '@/core/quantity/plain-words';
import { fromText, toNumber } from '@/core/quantity/rational';
import { writeCsv } from '../csv';

/**
 * A kit sheet as CSV: a row for each component and variant in the order of the sheet, then the totals to buy.
 * Grams are plain numbers, so that a spreadsheet can add them up.
 *
 * @param calledBack whose kits are called back: "3 Ada"; told first
 */
export function writeSheetCsv(content: SheetContent, calledBack: readonly string[] = []): string {
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
  for (const kit of calledBack)
    rows.push(['called back', '', '', '', '', '', '', 'do not hand out', '', '', '', '', kit, '']);
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
      rows.push([...head('refused', '', ''), whyRefused(variant).join('; '), '', '', '', '', people, groups]);
      continue;
    }
    for (const component of variant.components) {
      const dish = content.input.dishes[content.rows[component.row]?.dish ?? -1]?.title ?? COURSE_SUPPLIES;
      const grams = toNumber(fromText(component.grams));
      rows.push([
        ...head('kit', dish, component.name),
        [
          plainSay(component.say),
          component.use,
          component.product && `only “${component.product}”`,
          component.from,
          component.isShared && 'at the station',
          component.isCatchUp && 'catch-up',
        ]
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
    const purchase = total.purchaseGrams ? round(toNumber(fromText(total.purchaseGrams))) : '';
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
      round(toNumber(fromText(total.edibleGrams))),
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
