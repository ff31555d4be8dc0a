import type { Ingredient } from '@/core/reference/reference';
import { AVOIDANCES, avoidanceLabel, LATER_ALLERGENS, withoutCode } from '@/core/safety/avoidances';

/** What a label is asked for: the allergens it names, and what this very product is said to be without. */
export function LabelBoxes({ food, small }: { food: Ingredient; small?: boolean }) {
  const box = `checkbox ${small ? 'checkbox-xs' : 'checkbox-sm'}`;
  const natural = food.contains;
  const denied = [...natural, ...food.dietCheck];
  return (
    <>
      {/* Asked about here; a tick stands before it. */}
      {LATER_ALLERGENS.map((code) => (
        <input key={code} type="hidden" name="allergens" value={withoutCode(code)} />
      ))}
      <fieldset>
        <legend className="text-sm">Its label names (contains or may contain)</legend>
        <div className="flex flex-wrap gap-x-4">
          {AVOIDANCES.filter(({ kind }) => kind === 'allergen').map(({ code, label }) => (
            <label key={code} className="flex items-center gap-1.5 py-1 text-sm">
              <input type="checkbox" name="allergens" value={code} className={box} /> {label}
            </label>
          ))}
        </div>
      </fieldset>
      {denied.length > 0 && (
        <fieldset>
          <legend className="text-sm">This very product is without, as its pack says</legend>
          <div className="flex flex-wrap gap-x-4">
            {denied.map((code) => (
              <label key={code} className="flex items-center gap-1.5 py-1 text-sm">
                <input type="checkbox" name="allergens" value={withoutCode(code)} className={box} />
                {avoidanceLabel(code)}
                {natural.includes(code) && ', though it is usually made with it'}
              </label>
            ))}
          </div>
        </fieldset>
      )}
    </>
  );
}
