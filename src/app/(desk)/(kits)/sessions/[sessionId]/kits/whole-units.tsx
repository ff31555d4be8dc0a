import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { wholeUnits } from '@/core/kits/figures/whole-units';
import type { SheetContent } from '@/core/kits/record/sheet-content';
import type { LineWay } from '@/core/kits/supply/supplied';
import { sayCount } from '@/core/quantity/say';
import { setLineWays } from '@/services/kits/rules';
import { ActionForm } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';

interface Dish {
  readonly id: string;
  readonly ways: readonly LineWay[];
  readonly serves: number | null;
}

async function shareOut(
  sessionId: string,
  { id: dishId, ways, serves }: Dish,
  ingredient: string,
  _state: FormState | null,
): Promise<FormState> {
  'use server';
  return attempt(setLineWays, async () => {
    const others = ways.filter((each) => each.ingredient !== ingredient);
    await call(setLineWays, { sessionId, dishId, ways: [...others, { ingredient, way: 'shared out' }], serves });
    return {
      message: `${ingredient}: opened at the bench, each kit gets its part.`,
      undo: asBefore.bind(null, sessionId, { id: dishId, ways, serves }),
    };
  });
}

async function asBefore(sessionId: string, { id: dishId, ways, serves }: Dish): Promise<FormState> {
  'use server';
  return attempt(setLineWays, async () => {
    await call(setLineWays, { sessionId, dishId, ways: [...ways], serves });
    return 'Each kit gets it whole again.';
  });
}

/** What comes whole into small kits, with the other way to give it. */
export function WholeUnits({
  sessionId,
  content,
  dishes,
  isLocked,
}: {
  sessionId: string;
  content: SheetContent;
  dishes: readonly Dish[];
  isLocked: boolean;
}) {
  const found = wholeUnits(content);
  if (found.length === 0) return null;
  return (
    <section className="sheet p-4 text-sm" aria-labelledby="whole-units">
      <h2 id="whole-units" className="font-bold">
        Whole units in small kits
      </h2>
      <p>Labels say how much of each is used. Or open it at the bench and share it out between kits.</p>
      <ul className="mt-1 flex flex-col gap-1">
        {found.map(({ dishId, dish, ingredient, kits, use }) => {
          const own = dishes.find(({ id }) => id === dishId);
          return (
            <li key={`${dishId} ${ingredient}`} className="flex flex-wrap items-center gap-3">
              <span>
                <b>{ingredient}</b> of {dish}: {sayCount(kits, 'kit')} {kits === 1 ? 'gets' : 'get'} it whole; {use}.
              </span>
              {own && !isLocked && (
                <ActionForm
                  action={shareOut.bind(null, sessionId, own, ingredient)}
                  label={`Share out ${ingredient} of ${dish}`}
                  className="no-print"
                >
                  <button type="submit" className="btn btn-sm" aria-label={`Share it out: ${ingredient} of ${dish}`}>
                    Share it out
                  </button>
                </ActionForm>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
