import type { KitBulk } from '@/core/kits/containers';

const litres = (ml: number) => (ml < 1000 ? `${Math.round(ml / 10) * 10} ml` : `${(ml / 1000).toFixed(1)} l`);

/** How much room kits take in the car, the fridge and the cool box. */
export function KitBulkNote({ bulks }: { bulks: readonly KitBulk[] }) {
  return (
    <p className="text-sm">
      <b>Room for one kit:</b>{' '}
      {bulks
        .map(
          ({ letter, ml, coldMl }) =>
            `${letter} about ${litres(ml)}${coldMl > 0 ? `, ${litres(coldMl)} of it cold` : ''}`,
        )
        .join('; ')}
      .
    </p>
  );
}
