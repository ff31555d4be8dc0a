import Link from 'next/link';
import { redirect } from 'next/navigation';
import { call } from '@/app/access';
import { attempt, fields, formOf, texts } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { SessionFrame } from '@/app/session-frame';
import { type Filling, slotsOf } from '@/core/recipes/recipe/slots';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { listTeachers } from '@/services/plan/courses';
import { listPlaces } from '@/services/plan/places';
import { addDish, editSession, fallBack, fillSlot, removeDish } from '@/services/plan/sessions';
import { splitSession } from '@/services/plan/split';
import { listRecipes } from '@/services/recipes/recipes';
import { viewSuits } from '@/services/recipes/suits';
import { ActionForm } from '@/ui/form/action-form';
import { DateField, TimeField } from '@/ui/form/dates';
import { Choice, Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Caution } from '@/ui/page';
import { SessionFields } from '@/ui/plan/session-fields';
import { FitFindings } from '@/ui/recipes/fit-findings';
import { putBack } from '../../../put-back';
import { PlanCheck } from '../../calendar/plan-check';
import { DishTravels } from './dish-travels';
import { Extras } from './extras';
import { Reserve } from './reserve';
import { WhoComes } from './who-comes';

export const metadata = { title: 'Session' };

async function edit(sessionId: string, version: number, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(editSession, async () => {
    await call(editSession, { ...formOf(editSession, data), sessionId, version });
    return 'Saved. The thread is counted back from the new start.';
  });
}

async function split(sessionId: string, version: number, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(splitSession, async () => {
    const dishIds = texts(data, 'dishIds');
    const id = await call(splitSession, { ...formOf(splitSession, data), sessionId, version, dishIds });
    redirect(`/sessions/${id}`);
  });
}

async function fallBackNow(sessionId: string, groupId: string, version: number): Promise<FormState> {
  'use server';
  return attempt(fallBack, async () => {
    await call(fallBack, { sessionId, ...(groupId ? { groupId } : {}), version });
    return 'Moved under a roof. Tell everyone; the calendar takes it back in one step.';
  });
}

async function choose(sessionId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(addDish, async () => {
    await call(addDish, { sessionId, recipeId: fields(data).recipeId ?? '' });
    return undefined;
  });
}

async function fill(
  sessionId: string,
  dishId: string,
  written: string,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(fillSlot, async () => {
    await call(fillSlot, { sessionId, dishId, written, chosen: fields(data).chosen ?? '' });
    return 'Filled. The kit sheet is calculated with it; every avoidance is checked again.';
  });
}

const filledWith = (fillings: readonly Filling[], written: string) =>
  fillings.find((each) => each.written === written)?.chosen ?? written;

async function takeOff(sessionId: string, dishId: string): Promise<FormState> {
  'use server';
  return attempt(removeDish, async () => {
    const id = await call(removeDish, { sessionId, dishId });
    return { message: 'The dish is taken off.', undo: putBack.bind(null, id) };
  });
}

export default async function Session({ params }: { params: Promise<{ sessionId: string }> }) {
  const { sessionId } = await params;
  const { bundle, sheet, hours, suits, reserve } = await orNotFound(call(viewSuits, { sessionId }));
  const recipes = await call(listRecipes, {});
  const { places } = await call(listPlaces, {});
  const teachers = await call(listTeachers, {});
  const { session, dishes } = bundle;
  // Where weather decides: the session itself, or one of its groups.
  const outdoors = [{ ...session, groupId: '', groupName: session.title }, ...session.sittings].flatMap((meeting) => {
    if (meeting.outdoor === null || meeting.status === 'cancelled') return [];
    const { fallbackPlaceId, decideHours } = meeting.outdoor;
    const fallback = places.find(({ id }) => id === fallbackPlaceId)?.name;
    return [{ ...meeting, fallback, decideHours }];
  });
  const free = recipes.filter((recipe) => !dishes.some((dish) => dish.recipeId === recipe.id));
  return (
    <SessionFrame bundle={bundle} sheet={sheet} hours={hours} current="plan" title="plan and dishes">
      <div className="grid gap-6 lg:grid-cols-2">
        <div className="flex min-w-0 flex-col gap-6">
          <section className="sheet p-5" id="dishes" aria-labelledby="dishes-title">
            <h2 id="dishes-title" className="mb-3 text-xl font-bold">
              Dishes
            </h2>
            {dishes.length === 0 && (
              <p className="mb-4">No dish is chosen yet. Choose one of your recipes, or bring one in from a file.</p>
            )}
            <ol className="mb-4 flex flex-col divide-y divide-base-300">
              {dishes.map((dish) => {
                const input = sheet.input.dishes.find((candidate) => candidate.id === dish.id);
                const fit = suits.find(({ recipeId }) => recipeId === dish.recipeId)?.fit;
                return (
                  <li key={dish.id} className="flex items-start justify-between gap-3 py-2">
                    <div>
                      <Link href={`/recipes/${dish.recipeId}`} className="link font-bold">
                        {dish.title}
                      </Link>
                      <span className="block text-sm">
                        {input?.recipe.lines.length} ingredients, {dish.serves === null ? 'written for' : 'here for'}{' '}
                        {input?.recipe.servings} servings
                      </span>
                      {slotsOf(wholeRecipe(dish.body).lines).map((slot) => (
                        <ActionForm
                          key={slot.written}
                          action={fill.bind(null, sessionId, dish.id, slot.written)}
                          label={`What fills ${slot.written} of ${dish.title}`}
                          className="my-1 flex flex-wrap items-end gap-2"
                        >
                          <Choice
                            label={slot.isSlot ? 'Any of these' : `Instead of ${slot.written}`}
                            name="chosen"
                            defaultValue={filledWith(dish.fillings, slot.written)}
                          >
                            {slot.foods.map((food) => (
                              <option key={food}>{food}</option>
                            ))}
                          </Choice>
                          <button type="submit" className="btn btn-sm">
                            Fill with it
                          </button>
                        </ActionForm>
                      ))}
                      {fit && <FitFindings fit={fit} />}
                      {input && (
                        <DishTravels
                          sessionId={sessionId}
                          dish={dish}
                          foods={[...new Set(input.recipe.lines.map(({ ingredient }) => ingredient))]}
                          written={wholeRecipe(dish.body).servings}
                          grams={suits.find(({ recipeId }) => recipeId === dish.recipeId)?.grams}
                        />
                      )}
                    </div>
                    <ActionForm
                      action={takeOff.bind(null, sessionId, dish.id)}
                      label={`Take ${dish.title} off this session`}
                    >
                      <button
                        type="submit"
                        className="btn btn-sm shrink-0 whitespace-nowrap"
                        aria-label={`Take ${dish.title} off this session`}
                      >
                        Take off
                      </button>
                    </ActionForm>
                  </li>
                );
              })}
            </ol>
            <ActionForm
              action={choose.bind(null, sessionId)}
              label="Choose a dish"
              className="flex flex-wrap items-end gap-2"
            >
              <Choice label="Add a dish" name="recipeId" width="min-w-56 flex-1" required defaultValue="">
                <option value="" disabled>
                  Choose a recipe
                </option>
                {free.map((recipe) => (
                  <option key={recipe.id} value={recipe.id}>
                    {recipe.title}
                  </option>
                ))}
              </Choice>
              <button type="submit" className="btn btn-primary">
                Add dish
              </button>
              <Link href={`/courses/${session.courseId}/dishes`} className="btn">
                See what suits
              </Link>
              <Link href={`/recipes/import?session=${sessionId}`} className="btn">
                Bring in a recipe file
              </Link>
            </ActionForm>
            {sheet.problems.length > 0 && (
              <div role="alert" className="mt-4 rounded-box border-l-4 border-error bg-error/10 p-3 text-sm">
                {sheet.problems.map((problem) => (
                  <p key={problem.where + problem.message}>
                    <b>{problem.where}:</b> {problem.message}
                  </p>
                ))}
              </div>
            )}
          </section>
          <section className="sheet h-fit p-5" aria-labelledby="plan-title">
            <h2 id="plan-title" className="mb-3 text-xl font-bold">
              Date, place and mode
            </h2>
            <ActionForm
              version={session.version}
              isUndoable
              action={edit.bind(null, sessionId, session.version)}
              label="Date, place and mode"
              className="flex flex-col gap-3"
            >
              <SessionFields session={session} places={places.map(({ name }) => name)} teachers={teachers} />
              <PlanCheck courseId={session.courseId} sessionId={sessionId} />
              <button type="submit" className="btn btn-primary w-fit">
                Save
              </button>
            </ActionForm>
          </section>
          {outdoors.map(({ groupId, groupName, place, fallback, decideHours }) => (
            <section key={groupId} className="sheet h-fit p-5" aria-label={`Weather: ${groupName}`}>
              <h2 className="mb-2 text-xl font-bold">Weather: {groupName}</h2>
              <p className="mb-3">
                {place} is outdoors. Decide {decideHours} hours before. Lightning, storm or high fire danger: not
                outdoors; follow your local fire rules.
              </p>
              {fallback ? (
                <ActionForm action={fallBackNow.bind(null, sessionId, groupId, session.version)} label="Bad weather">
                  <button type="submit" className="btn btn-primary">
                    Bad weather: take it to {fallback}
                  </button>
                </ActionForm>
              ) : (
                <p>
                  It has no fallback yet.{' '}
                  <Link href="/places" className="link">
                    Name one under Places
                  </Link>
                </p>
              )}
            </section>
          ))}
          {dishes.length > 1 && !bundle.sheet && (
            <details className="sheet h-fit p-5">
              <summary className="cursor-pointer text-xl font-bold">Split this session</summary>
              <p className="my-2 text-sm">
                Some dishes go to a new session of the course, with their shopping and packing; the roll and the groups
                are the same. The calendar takes it back in one step.
              </p>
              <ActionForm
                action={split.bind(null, sessionId, session.version)}
                label="Split this session"
                className="flex flex-col gap-3"
              >
                <fieldset className="flex flex-col gap-1">
                  <legend className="mb-1 text-sm font-semibold">Dishes that go</legend>
                  {dishes.map((dish) => (
                    <label key={dish.id} className="flex items-center gap-2">
                      <input type="checkbox" name="dishIds" value={dish.id} className="checkbox checkbox-sm" />
                      {dish.title}
                    </label>
                  ))}
                </fieldset>
                <Field
                  label="Title"
                  name="title"
                  required
                  maxLength={120}
                  defaultValue={`${session.title}, second part`}
                />
                <input type="hidden" name="mode" value={session.mode} />
                <div className="grid grid-cols-3 gap-2">
                  <DateField label="Date" name="date" required />
                  <TimeField label="Starts" name="startsAt" required defaultValue={session.startsAt} />
                  <Field
                    label="Minutes"
                    name="minutes"
                    type="number"
                    min={15}
                    max={720}
                    required
                    defaultValue={session.minutes}
                  />
                </div>
                <Field label="Place" name="place" required maxLength={120} list="places" defaultValue={session.place} />
                <PlanCheck courseId={session.courseId} />
                <button type="submit" className="btn btn-primary w-fit">
                  Split session
                </button>
              </ActionForm>
            </details>
          )}
        </div>
        <div className="flex min-w-0 flex-col gap-6">
          <Extras
            sessionId={sessionId}
            bundle={bundle}
            needSwapIn={suits.filter(({ fit }) => fit?.swapIn).map(({ recipeId }) => recipeId)}
          />
          <WhoComes sessionId={sessionId} bundle={bundle} />
          <Reserve expected={reserve} reserve={session.extras.reserve ?? 0} />
        </div>
        <div className="lg:col-span-2">
          <Caution>Cold food travels with an ice pack, from fridge to fridge within two hours.</Caution>
        </div>
      </div>
    </SessionFrame>
  );
}
