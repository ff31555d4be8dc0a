import Link from 'next/link';
import { call, requireMember } from '@/app/access';
import { attempt, fields, formOf } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import type { Saying } from '@/core/plan/saying';

import type { Known, ServingFigures } from '@/core/recipes/recipe/cost';
import { EATERS, ROLES_OF_DISH } from '@/core/recipes/recipe/serving-size';
import { takeNewest } from '@/services/recipes/drafts';
import { viewHistory } from '@/services/recipes/history';
import { confirmServings, settleSlip, weighBatch } from '@/services/recipes/recipes';

import { ActionForm } from '@/ui/form/action-form';
import { Choice, Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';
import { RecipeLines } from '@/ui/recipes/recipe-lines';
import { SlipList } from '@/ui/recipes/slip-list';
import { SaveAs } from '@/ui/save-as';

export const metadata = { title: 'Recipe' };

async function confirm(
  recipeId: string,
  version: number,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(confirmServings, async () => {
    await call(confirmServings, { recipeId, version, servings: fields(data).servings });
    return 'Confirmed.';
  });
}

async function settle(recipeId: string, version: number, key: string): Promise<void> {
  'use server';
  await attempt(settleSlip, async () => {
    await call(settleSlip, { recipeId, version, key });
    return undefined;
  });
}

async function weigh(recipeId: string, version: number, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(weighBatch, async () => {
    const { servings, before } = await call(weighBatch, { ...formOf(weighBatch, data), recipeId, version });
    return servings === before
      ? `${servings} servings, as it was written.`
      : `${servings} servings; it was ${before}. Kits that are not locked are computed with it.`;
  });
}

async function takeSub(recipeId: string, version: number, subId: string): Promise<void> {
  'use server';
  await attempt(takeNewest, async () => {
    await call(takeNewest, { recipeId, version, subId });
    return undefined;
  });
}

export default async function Recipe({ params }: { params: Promise<{ recipeId: string }> }) {
  const say = await saying();
  const { recipeId } = await params;
  const { actor } = await requireMember();
  const history = await orNotFound(call(viewHistory, { recipeId }));
  const { title, body, version, slips, parent, figures } = history;
  return (
    <>
      <PageTitle title={title} over={`Written for ${body.servings} servings`}>
        {actor.role === 'coordinator' && (
          <Link href={`/recipes/${recipeId}/edit`} className="btn btn-primary">
            Edit
          </Link>
        )}
        <Link href={`/recipes/${recipeId}/steps`} className="btn">
          Plan its steps
        </Link>
        <Link href={`/recipes/${recipeId}/card`} className="btn">
          Family card
        </Link>
        <SaveAs
          files={[
            ['Recipe (JSON-LD)', `/recipes/${recipeId}/recipe.json`],
            ['CSV', `/recipes/${recipeId}/recipe.csv`],
          ]}
        />
      </PageTitle>
      {body.description && <p className="mb-4 max-w-prose">{body.description}</p>}
      {parent && (
        <p className="mb-4">
          A variation of{' '}
          <Link href={`/recipes/${parent.id}`} className="link">
            {parent.title}
          </Link>
          .
        </p>
      )}
      {figures && figures.cost.known + figures.saltMg.known > 0 && (
        <p className="mb-4">A serving: {sayFigures(figures, say)}.</p>
      )}
      {history.behind.length > 0 && (
        <section className="sheet mb-5 border-l-4 border-l-warning p-5" aria-labelledby="behind">
          <h2 id="behind" className="font-bold">
            Locked with an earlier version
          </h2>
          <p className="text-sm">Their kits stay as they were locked until the differences are accepted there.</p>
          <ul className="mt-1 list-disc pl-5">
            {history.behind.map((session) => (
              <li key={session.id}>
                <Link href={`/sessions/${session.id}/kits`} className="link">
                  {session.title}, {say.shortDate(session.date)}
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
      {body.estimated && (
        <section className="sheet mb-5 border-l-4 border-l-warning p-5" aria-label="Estimated servings">
          <p className="mb-2 font-semibold">
            {body.servings} servings are an estimate from its weight. Kits are not locked before somebody confirms them.
          </p>
          {actor.role === 'coordinator' && (
            <ActionForm
              action={confirm.bind(null, recipeId, version)}
              label="Confirm the servings"
              className="flex flex-wrap items-end gap-2"
            >
              <Field
                label="Servings"
                name="servings"
                type="number"
                min={1}
                max={500}
                required
                defaultValue={body.servings}
              />
              <button type="submit" className="btn btn-primary">
                Confirm
              </button>
            </ActionForm>
          )}
        </section>
      )}
      {slips.length > 0 && (
        <section className="sheet mb-5 p-5" aria-labelledby="slips">
          <h2 id="slips" className="mb-2 text-xl font-bold">
            What an experienced cook would ask
          </h2>
          <SlipList slips={slips}>
            {(slip) =>
              actor.role === 'coordinator' &&
              slip.kind !== 'unsafe' && (
                <form action={settle.bind(null, recipeId, version, slip.key)}>
                  <button type="submit" className="btn btn-sm" aria-label={`It is right as it is: ${slip.say}`}>
                    It is right as it is
                  </button>
                </form>
              )
            }
          </SlipList>
        </section>
      )}
      <div className="grid gap-6 lg:grid-cols-2">
        <section className="sheet p-5" aria-labelledby="lines">
          <h2 id="lines" className="mb-2 text-xl font-bold">
            Ingredients
          </h2>
          <RecipeLines lines={body.lines} />
          {history.madeOf.length > 0 && (
            <ul className="mt-3 border-t border-base-300 pt-3" aria-label="Made of other recipes">
              {history.madeOf.map((sub) => (
                <li key={sub.id} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1">
                  <span>
                    <b>{sub.servings} servings</b> of{' '}
                    <Link href={`/recipes/${sub.id}`} className="link">
                      {sub.title}
                    </Link>
                    , version {sub.version}
                  </span>
                  {sub.newest > sub.version && actor.role === 'coordinator' && (
                    <form action={takeSub.bind(null, recipeId, version, sub.id)}>
                      <button type="submit" className="btn btn-sm">
                        Take version {sub.newest} of {sub.title}
                      </button>
                    </form>
                  )}
                </li>
              ))}
            </ul>
          )}
        </section>
        <section className="sheet h-fit p-5" aria-labelledby="steps">
          <h2 id="steps" className="mb-2 text-xl font-bold">
            Steps
          </h2>
          {body.steps.length === 0 && <p>The file named no steps.</p>}
          <ol className="flex list-decimal flex-col gap-2 pl-5">
            {body.steps.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
        </section>
        {actor.role === 'coordinator' && (
          <section className="sheet h-fit p-5 lg:col-span-2" aria-labelledby="weigh">
            <h2 id="weigh" className="mb-1 text-xl font-bold">
              Weigh a finished batch
            </h2>
            <p className="mb-3 text-sm">
              {body.weighed
                ? `On ${say.shortDate(body.weighed.on)} a batch weighed ${body.weighed.grams} g (${body.weighed.by}).`
                : 'Nobody has weighed it yet. The weight says better than any estimate how many it serves.'}
            </p>
            <ActionForm
              action={weigh.bind(null, recipeId, version)}
              label="Weigh a finished batch"
              className="flex flex-wrap items-end gap-2"
            >
              <Field label="Grams, without the pot" name="grams" type="number" min={20} required />
              <Field label="Times the recipe" name="times" type="number" min={0.1} step={0.1} defaultValue={1} />
              <Choice label="At the table" name="role" defaultValue="main">
                {ROLES_OF_DISH.map((role) => (
                  <option key={role}>{role}</option>
                ))}
              </Choice>
              <Choice label="For" name="eater" defaultValue="children">
                {EATERS.map((eater) => (
                  <option key={eater}>{eater}</option>
                ))}
              </Choice>
              <button type="submit" className="btn">
                Correct the servings
              </button>
            </ActionForm>
          </section>
        )}
        <section className="sheet h-fit p-5 lg:col-span-2" aria-labelledby="versions">
          <h2 id="versions" className="mb-2 text-xl font-bold">
            Versions
          </h2>
          <ol className="flex flex-col divide-y divide-base-300">
            {history.versions.map(({ version: number, at, byName, what }, index) => (
              <li key={number} className="py-2">
                <span className="font-semibold">Version {number}</span>
                <span className="text-sm">
                  {' '}
                  {say.moment(at.toISOString())}
                  {byName ? `, ${byName}` : ''}
                </span>
                {what.length === 0 && index < history.versions.length - 1 && (
                  <p className="text-sm">Confirmed or found right as it is; nothing that is cooked changed.</p>
                )}
                <ul className="list-disc pl-5 text-sm">
                  {what.map((each) => (
                    <li key={each}>{each}</li>
                  ))}
                </ul>
              </li>
            ))}
          </ol>
          {history.variations.length > 0 && (
            <p className="mt-2 text-sm">
              Variations:{' '}
              {history.variations.map(({ id, title: name }, index) => (
                <span key={id}>
                  {index > 0 && ', '}
                  <Link href={`/recipes/${id}`} className="link">
                    {name}
                  </Link>
                </span>
              ))}
            </p>
          )}
        </section>
      </div>
    </>
  );
}

/** Salt or energy of a few of its foods says nothing of a dish. */
const tells = ({ known, of }: Known) => known > 0 && known >= 0.75 * of;

/** What a serving costs and holds, each with how many of its foods are known. */
function sayFigures({ cost, saltMg, energyKj }: ServingFigures, say: Saying): string {
  const of = ({ known, of: all }: Known) => (known < all ? `, from ${known} of ${all} foods` : '');
  return [
    cost.known > 0 ? `costs ${say.money(cost.perServing)}${of(cost)}` : '',
    tells(saltMg) ? `${(saltMg.perServing / 1000).toFixed(1)} g salt${of(saltMg)}` : '',
    tells(energyKj) ? `${energyKj.perServing} kJ${of(energyKj)}` : '',
  ]
    .filter(Boolean)
    .join('; ');
}
