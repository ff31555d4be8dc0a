import Link from 'next/link';
import { call } from '@/app/access';
import { attempt, formOf, given, ticked } from '@/app/form';
import { saying } from '@/app/saying';
import { EQUIPMENT_KINDS, sayEquipment, sayHours } from '@/core/plan/place';
import { addPlace, editPlace, type KnownPlace, listPlaces, removePlace, setTravel } from '@/services/plan/places';
import { ActionForm } from '@/ui/form/action-form';
import { Choice, Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Empty, PageTitle } from '@/ui/page';
import { hoursSent } from '@/ui/plan/hours-fields';
import { putBack as putBackTakenAway } from '../../put-back';
import { IS_OUTDOOR, PlaceFields } from './place-fields';
import { Ways } from './ways';

export const metadata = { title: 'Places' };

async function save(was: KnownPlace | null, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(addPlace, async () => {
    const sent = formOf(addPlace, data);
    const place = {
      ...sent,
      hours: hoursSent(sent.hours),
      equipment: given(sent.equipment),
      shared: ticked(data, 'shared'),
      outdoor: ticked(data, IS_OUTDOOR) ? sent.outdoor : null,
    };
    if (was === null) {
      await call(addPlace, place);
      return `${place.name} is added. Sessions that name it are held in it.`;
    }
    await call(editPlace, { ...place, placeId: was.id, version: was.version });
    return { message: `${place.name} is saved.`, undo: putBack.bind(null, was) };
  });
}

/** A place is as it was before it was saved; refused when somebody changed it since. */
async function putBack({ id, version, ...was }: KnownPlace): Promise<FormState> {
  'use server';
  return attempt(editPlace, async () => {
    await call(editPlace, { ...was, placeId: id, version: version + 1 });
    return `${was.name} is as before.`;
  });
}

async function takeAway(placeId: string, _state: FormState | null): Promise<FormState> {
  'use server';
  return attempt(removePlace, async () => {
    const id = await call(removePlace, { placeId });
    return { message: 'The place is taken away.', undo: putBackTakenAway.bind(null, id) };
  });
}

async function way(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setTravel, async () => {
    await call(setTravel, formOf(setTravel, data));
    return 'Saved. Instructors get that much time between two classes.';
  });
}

export default async function Places() {
  const say = await saying();
  const { places, travel } = await call(listPlaces, {});
  const nameOf = (id: string) => places.find((place) => place.id === id)?.name ?? '';
  const roofs = places.filter(({ outdoor }) => outdoor === null).map(({ id, name }) => ({ id, name }));
  return (
    <>
      <PageTitle title="Places" over="Rooms, their hours and what they hold: the plan is checked against them">
        <Link href="/calendar" className="btn">
          Calendar
        </Link>
      </PageTitle>
      <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div className="flex flex-col gap-4">
          {places.length === 0 && (
            <Empty title="No place yet">
              <p>
                Add the first one beside this: a kitchen, a classroom, a fire pit. Sessions that name it are held in it.
              </p>
            </Empty>
          )}
          {places.map((place) => (
            <section key={place.id} className="sheet p-5" aria-label={place.name}>
              <h2 className="text-xl font-bold">{place.name}</h2>
              <p className="text-sm">
                {place.seats === null ? 'Seats not counted' : `${place.seats} seats`}; {say.text(sayHours(place.hours))}
                ; {place.minutesBefore} minutes before and {place.minutesAfter} after each class
                {place.shared ? '; several classes at once' : ''};{' '}
                {place.sessions === 1 ? '1 session' : `${place.sessions} sessions`} to come
              </p>
              <p className="text-sm">
                {EQUIPMENT_KINDS.flatMap((kind) => {
                  const count = place.equipment[kind];
                  return count === undefined ? [] : [sayEquipment(kind, count)];
                }).join(', ') || 'Equipment not counted'}
              </p>
              {place.outdoor && (
                <p className="mt-1 text-sm">
                  Outdoors: {place.outdoor.fuel || 'fuel not said'}, {place.outdoor.waterLitres} litres of water carried
                  in, fire lit {place.outdoor.lightingMinutes} minutes before; weather decided{' '}
                  {place.outdoor.decideHours} hours before
                  {place.outdoor.fallbackPlaceId
                    ? `, else in ${nameOf(place.outdoor.fallbackPlaceId)}`
                    : '; no fallback: give it one'}
                  . Preparation stands well away from the fire; follow your local fire rules.
                </p>
              )}
              <details className="mt-3">
                <summary className="cursor-pointer font-semibold">Change or take away</summary>
                <ActionForm
                  version={place.version}
                  action={save.bind(null, place)}
                  label={`Change ${place.name}`}
                  className="mt-3 flex flex-col gap-3"
                >
                  <PlaceFields of={place} roofs={roofs.filter(({ id }) => id !== place.id)} />
                  <button type="submit" className="btn btn-primary w-fit">
                    Save
                  </button>
                </ActionForm>
                <ActionForm action={takeAway.bind(null, place.id)} label={`Take ${place.name} away`} className="mt-3">
                  <button type="submit" className="btn btn-sm" aria-label={`Take ${place.name} away`}>
                    Take this place away
                  </button>
                </ActionForm>
              </details>
            </section>
          ))}
          {places.length > 1 && (
            <section className="sheet p-5" aria-labelledby="ways">
              <h2 id="ways" className="mb-2 text-xl font-bold">
                Ways between them
              </h2>
              {travel.length === 0 ? (
                <p className="mb-3 text-sm">Nobody has said how long the ways take.</p>
              ) : (
                <Ways
                  ways={travel.map(({ fromId, toId, minutes }) => ({
                    from: nameOf(fromId),
                    to: nameOf(toId),
                    minutes,
                  }))}
                />
              )}
              <ActionForm action={way} label="A way" className="flex flex-wrap items-end gap-3">
                {(['fromId', 'toId'] as const).map((name, index) => (
                  <Choice
                    key={name}
                    label={index === 0 ? 'Between' : 'and'}
                    name={name}
                    defaultValue={places[index]?.id}
                  >
                    {places.map(({ id, name: title }) => (
                      <option key={id} value={id}>
                        {title}
                      </option>
                    ))}
                  </Choice>
                ))}
                <Field label="Minutes" name="minutes" type="number" min={0} max={600} required width="w-28" />
                <button type="submit" className="btn">
                  Save the way
                </button>
              </ActionForm>
            </section>
          )}
        </div>
        <section className="sheet h-fit p-5" aria-labelledby="new-place">
          <h2 id="new-place" className="mb-3 text-xl font-bold">
            Add a place
          </h2>
          <ActionForm action={save.bind(null, null)} label="Add a place" clear className="flex flex-col gap-3">
            <PlaceFields roofs={roofs} />
            <button type="submit" className="btn btn-primary w-fit">
              Add place
            </button>
          </ActionForm>
        </section>
      </div>
    </>
  );
}
