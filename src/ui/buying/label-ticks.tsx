import { AVOIDANCES, LATER_ALLERGENS, withoutCode } from '@/core/safety/avoidances';
import { Tick } from '../form/field';

const ALLERGENS = AVOIDANCES.filter(({ kind }) => kind === 'allergen');

/** What a label names, ticked off; and what a product is without though its food is usually made with it. */
export function LabelTicks({ wide = false }: { wide?: boolean }) {
  const grid = `grid grid-cols-2 gap-x-3 gap-y-2 ${wide ? 'sm:grid-cols-3' : ''}`;
  return (
    <>
      {/* Asked about here; a tick stands before it. */}
      {LATER_ALLERGENS.map((code) => (
        <input key={code} type="hidden" name="allergens" value={withoutCode(code)} />
      ))}
      <div className={grid}>
        {ALLERGENS.map(({ code, label }) => (
          <Tick key={code} label={label} name="allergens" value={code} />
        ))}
      </div>
      <details>
        <summary className="cursor-pointer text-sm">Without something that its food is usually made with</summary>
        <div className={`mt-2 ${grid}`}>
          {ALLERGENS.map(({ code, label }) => (
            <Tick key={code} label={`without ${label}`} name="allergens" value={withoutCode(code)} />
          ))}
        </div>
      </details>
    </>
  );
}
