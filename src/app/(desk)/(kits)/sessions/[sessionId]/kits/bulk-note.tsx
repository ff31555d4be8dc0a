import type { KitBulk } from '@/core/kits/figures/containers';
import type { SheetContent } from '@/core/kits/record/sheet-content';
import { sayCount } from '@/core/quantity/say';

const litres = (ml: number) => (ml < 1000 ? `${Math.round(ml / 10) * 10} ml` : `${(ml / 1000).toFixed(1)} l`);

/** "1.1 to 3.8 l", or the one where all are alike. */
function span(volumes: readonly number[]): string {
  const [least, most] = [litres(Math.min(...volumes)), litres(Math.max(...volumes))];
  return least === most ? least : `${least} to ${most}`;
}

/** How much room kits take in the car, the fridge and the cool box. */
export function BulkNote({ bulks, content }: { bulks: readonly KitBulk[]; content: SheetContent }) {
  if (bulks.length === 0) return null;
  const counts = new Map(content.variants.map(({ letter, participants }) => [letter, participants.length]));
  const all = (of: (bulk: KitBulk) => number) =>
    bulks.reduce((sum, bulk) => sum + of(bulk) * (counts.get(bulk.letter) ?? 0), 0);
  const kits = all(() => 1);
  const cold = bulks.filter(({ coldMl }) => coldMl > 0);
  return (
    <p className="text-sm">
      <b>Room:</b> {sayCount(kits, 'kit')} take about {litres(all(({ ml }) => ml))}
      {cold.length > 0 && `, ${litres(all(({ coldMl }) => coldMl))} of it cold`}. One kit{' '}
      {span(bulks.map(({ ml }) => ml))}
      {cold.length > 0 && `, cold ${span(cold.map(({ coldMl }) => coldMl))}`}.
    </p>
  );
}
