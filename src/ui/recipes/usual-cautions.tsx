import { type CautionPlace, cautionsAt } from '@/core/recipes/steps/cautions';

/** The usual cautions of a place of work, folded away: who is at risk, from what, what to do, and whose advice it is. */
export function UsualCautions({ at }: { at: CautionPlace }) {
  return (
    <details className="no-print mt-4 text-sm">
      <summary className="cursor-pointer py-1 font-semibold">Usual cautions; the local code decides</summary>
      <ul className="flex flex-col gap-1">
        {cautionsAt(at).map(({ hazard, who, caution, source }) => (
          <li key={hazard}>
            <b>{hazard}</b>, {who}: {caution}. <span className="text-base-content/80">({source})</span>
          </li>
        ))}
      </ul>
    </details>
  );
}
