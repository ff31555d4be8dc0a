import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { setExtras } from '@/services/plan/sessions';
import type { viewSuits } from '@/services/recipes/suits';
import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';

type Bundle = Awaited<ReturnType<typeof viewSuits>>['bundle'];

async function save(sessionId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setExtras, async () => {
    const { tasters, crew, reserve, reserveServings, ...rest } = fields(data);
    const swapIns = Object.fromEntries(
      Object.entries(rest).flatMap(([name, value]) => (name.startsWith('swap-in ') ? [[name.slice(8), value]] : [])),
    );
    await call(setExtras, { sessionId, tasters, crew, reserve, reserveServings, swapIns });
    return 'Saved. They are bought, packed and labelled with the kits.';
  });
}

/** What is made beside the kits of the roll: forgotten on paper, counted here. */
export function Extras({
  sessionId,
  bundle: { session, dishes },
  needSwapIn,
}: {
  sessionId: string;
  bundle: Bundle;
  /** Recipes that do not fit into the class without a batch made earlier. */
  needSwapIn: readonly string[];
}) {
  const { tasters = 0, crew = 0, reserve = 0, reserveServings = 1 } = session.extras;
  const number = (label: string, name: string, value: number, hint?: string, min = 0) => (
    <Field key={name} label={label} name={name} type="number" min={min} max={200} defaultValue={value} hint={hint} />
  );
  return (
    <section className="sheet h-fit p-5" aria-labelledby="extras-title">
      <h2 id="extras-title" className="mb-1 text-xl font-bold">
        Beside the kits
      </h2>
      <p className="mb-3 text-sm">
        Made without what anybody on the roll must avoid, where the dishes allow it; the kit sheet says where not.
      </p>
      <ActionForm action={save.bind(null, sessionId)} label="Beside the kits" className="flex flex-col gap-3">
        <div className="grid grid-cols-2 gap-3">
          {number('Portions to taste', 'tasters', tasters)}
          {number('Portions for the crew', 'crew', crew)}
          {number('Kits in reserve', 'reserve', reserve)}
          {number('Servings of a reserve kit', 'reserveServings', reserveServings, undefined, 1)}
        </div>
        {dishes.map((dish) =>
          number(
            `Swap-in of ${dish.title}, servings`,
            `swap-in ${dish.id}`,
            dish.swapIn,
            needSwapIn.includes(dish.recipeId) && dish.swapIn === 0
              ? 'It does not fit into the class without one: so many servings are made earlier, cooled and reheated.'
              : 'Finished before class; 0 for none.',
          ),
        )}
        <button type="submit" className="btn btn-primary w-fit">
          Save
        </button>
      </ActionForm>
    </section>
  );
}
