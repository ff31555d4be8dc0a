import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { type LineWay, WAYS, type Way } from '@/core/kits/supply/supplied';
import { EATERS, estimateServings, ROLES_OF_DISH } from '@/core/recipes/recipe/serving-size';
import { setLineWays } from '@/services/kits/rules';
import { ActionForm } from '@/ui/form/action-form';
import { Choice, Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';

const WAY_WORDS: Readonly<Record<Way, string>> = {
  measured: 'measured into the kit',
  whole: 'whole, cut at class',
  station: 'shared at the station',
  'shared out': 'opened, shared out between kits',
};

/** Names of fields that say how a food travels. */
const WAY = 'way ';

async function save(sessionId: string, dishId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setLineWays, async () => {
    const { serves = '', ...sent } = fields(data);
    const ways = Object.entries(sent).flatMap(([name, way]) =>
      name.startsWith(WAY) ? [{ ingredient: name.slice(WAY.length), way }] : [],
    );
    await call(setLineWays, { sessionId, dishId, ways, serves: serves === '' ? null : serves });
    return 'Saved. The kit sheet follows.';
  });
}

/** How the lines of a dish travel in this session, and how many of this class it serves. */
export function DishTravels({
  sessionId,
  dish,
  foods,
  written,
  grams,
}: {
  sessionId: string;
  dish: {
    readonly id: string;
    readonly title: string;
    readonly ways: readonly LineWay[];
    readonly serves: number | null;
  };
  foods: readonly string[];
  /** Servings that the recipe is written for. */
  written: number;
  /** Edible grams of a whole batch; undefined while it cannot be computed. */
  grams: number | undefined;
}) {
  const ways = new Map(dish.ways.map(({ ingredient, way }) => [ingredient, way]));
  const changed = ways.size > 0 || dish.serves !== null;
  return (
    <details className="mt-1" open={changed}>
      <summary className="cursor-pointer text-sm font-semibold">How it travels and how many it serves</summary>
      <ActionForm
        action={save.bind(null, sessionId, dish.id)}
        label={`How ${dish.title} travels`}
        className="mt-2 flex flex-col gap-3"
      >
        <div className="grid gap-2 sm:grid-cols-2">
          {foods.map((food) => (
            <Choice key={food} label={food} name={`${WAY}${food}`} defaultValue={ways.get(food) ?? 'measured'}>
              {WAYS.map((way) => (
                <option key={way} value={way}>
                  {WAY_WORDS[way]}
                </option>
              ))}
            </Choice>
          ))}
        </div>
        <Field
          label="Serves here"
          name="serves"
          type="number"
          min={1}
          max={500}
          defaultValue={dish.serves ?? ''}
          hint={`Empty: ${written}, as it is written. A batch makes about ${sayServings(grams)}.`}
        />
        <p className="text-xs text-base-content/80">
          Shared at the station counts for who cooks in the room, whole for who is old enough to cut; everybody else
          gets it measured.
        </p>
        <button type="submit" className="btn btn-sm w-fit">
          Save
        </button>
      </ActionForm>
    </details>
  );
}

/** Servings of a batch by what the dish is and who eats it: "14 sides or 5 mains for children, 10 or 3 for adults". */
function sayServings(grams: number | undefined): string {
  if (grams === undefined || grams <= 0) return 'as many as its recipe says';
  return EATERS.filter((eater) => eater !== 'small children')
    .map((eater, at) => {
      const counts = ROLES_OF_DISH.map((role) => {
        const count = estimateServings(grams, role, eater);
        return at === 0 ? `${count} ${role}${count === 1 ? '' : 's'}` : String(count);
      });
      return `${counts.slice(0, -1).join(', ')} or ${counts.at(-1)} for ${eater}`;
    })
    .join('; ');
}
