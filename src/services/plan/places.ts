import { z } from 'zod';
import { placeFields } from '@/contracts/plan';
import type { Place } from '@/core/plan/place';
import { nameKey } from '@/core/roll/name-key';
import {
  comingAt,
  forgetClosuresOf,
  forgetTravel,
  leavePlace,
  placeSessions,
  placeSittings,
  renamePlace,
  sessionsByPlace,
  travelOf,
} from '@/store/plan';
import { find, findOne, insert, remove, updateVersion } from '@/store/query';
import { type Db, isDuplicate } from '@/store/store';
import type { PlaceRow } from '@/store/tables/plan';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service } from '../gate/gate';
import { logTaken } from '../gate/taken';

/** A place as it is stored, with what it was read at. */
export interface KnownPlace extends Place {
  readonly version: number;
}

/** A stored place as the core knows it. */
export const placeFrom = (row: PlaceRow): KnownPlace => ({
  id: row.id,
  name: row.name,
  seats: row.seats,
  hours: row.hours,
  equipment: row.equipment,
  minutesBefore: row.minutesBefore,
  minutesAfter: row.minutesAfter,
  shared: row.shared === 1,
  outdoor: row.outdoor,
  version: row.version,
});

/** The place of a name, however it is capitalised; undefined when the programme has none of it. */
export const placeNamed = (db: Db, programmeId: string, name: string): Promise<PlaceRow | undefined> =>
  findOne(db, db.models.place, { programmeId, name });

export const listPlaces = service({
  title: 'See all places',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const places = (await find(db, db.models.place, { programmeId }, [['name', 'ASC']])).map(placeFrom);
    const travel = await travelOf(db, programmeId);
    const used = await sessionsByPlace(db, { programmeId, today: context.clock().toString().slice(0, 10) });
    const counts = new Map(used.map(({ placeId, sessions }) => [placeId, sessions]));
    return { places: places.map((place) => ({ ...place, sessions: counts.get(place.id) ?? 0 })), travel };
  },
});

const columns = ({ hours, equipment, shared, outdoor, ...rest }: z.output<typeof placeFields>) => ({
  ...rest,
  hours: hours,
  equipment: equipment,
  shared: shared ? 1 : 0,
  outdoor,
});

/** @throws ServiceError when the fallback is not a place of this programme under a roof */
async function checkFallback(context: Context, db: Db, { outdoor }: z.output<typeof placeFields>): Promise<void> {
  if (!outdoor?.fallbackPlaceId) return;
  const fallback = await findOne(db, db.models.place, {
    id: outdoor.fallbackPlaceId,
    programmeId: context.actor.programmeId,
  });
  if (!fallback) throw notFound('place');
  if (fallback.outdoor !== null) {
    const message = `${fallback.name} is outdoors too. Choose a place under a roof.`;
    throw new ServiceError('invalid', message, [{ where: 'outdoor.fallbackPlaceId', message }]);
  }
}

const taken = (name: string) =>
  new ServiceError('invalid', `There is a place called ${name} already. Give this one another name.`, [
    { where: 'name', message: 'Taken already.' },
  ]);

/** Names that differ in the case of their letters alone are one name for people. @throws ServiceError when it is taken */
async function refuseTaken(context: Context, db: Db, name: string, own?: string): Promise<void> {
  const places = await find(db, db.models.place, { programmeId: context.actor.programmeId });
  if (places.some((place) => place.id !== own && nameKey(place.name) === nameKey(name))) throw taken(name);
}

export const addPlace = service({
  title: 'Add a place',
  roles: ['coordinator'],
  input: placeFields,
  run: async (context, place) => {
    const { programmeId } = context.actor;
    try {
      return await context.store.transaction(async (db) => {
        await checkFallback(context, db, place);
        await refuseTaken(context, db, place.name);
        const id = context.ids();
        await insert(db, db.models.place, [{ id, programmeId, ...columns(place), version: 1 }]);
        // Sessions that already name it are held in it from now on.
        await placeSessions(db, { id, programmeId, name: place.name });
        await placeSittings(db, { id, programmeId, name: place.name });
        await logChange(context, db, 'added', 'place', id, { name: place.name });
        return id;
      });
    } catch (error) {
      if (isDuplicate(error)) throw taken(place.name);
      throw error;
    }
  },
});

export const editPlace = service({
  title: 'Change a place',
  roles: ['coordinator'],
  input: placeFields.extend({ placeId: z.uuid(), version: z.coerce.number().int() }),
  run: async (context, { placeId, version, ...place }) => {
    try {
      await context.store.transaction(async (db) => {
        await checkFallback(context, db, place);
        await refuseTaken(context, db, place.name, placeId);
        const own = await findOne(db, db.models.place, { id: placeId, programmeId: context.actor.programmeId });
        if (!own) throw notFound('place');
        if (!(await updateVersion(db, db.models.place, placeId, version, columns(place)))) throw stale('The place');
        await renamePlace(db, { placeId, name: place.name });
        await logChange(context, db, 'changed', 'place', placeId, place);
      });
    } catch (error) {
      if (isDuplicate(error)) throw taken(place.name);
      throw error;
    }
  },
});

export const removePlace = service({
  title: 'Take a place away',
  roles: ['coordinator'],
  input: z.object({ placeId: z.uuid() }),
  run: (context, { placeId }) =>
    context.store.transaction(async (db) => {
      const { programmeId } = context.actor;
      const place = await findOne(db, db.models.place, { id: placeId, programmeId });
      if (!place) throw notFound('place');
      const used = await comingAt(db, { placeId, today: context.clock().toString().slice(0, 10) });
      const [first] = used;
      if (first)
        throw new ServiceError(
          'invalid',
          `${place.name} is used by ${used.length === 1 ? 'one session' : `${used.length} sessions`} to come, the first is ${first.title} on ${first.date}. Move them to another place first.`,
        );
      const fallbacks = (await find(db, db.models.place, { programmeId })).filter(
        ({ outdoor }) => outdoor?.fallbackPlaceId === placeId,
      );
      if (fallbacks[0])
        throw new ServiceError(
          'invalid',
          `${fallbacks[0].name} falls back on ${place.name} in bad weather. Give it another fallback first.`,
        );
      const travel = [
        ...(await find(db, db.models.travel, { fromId: placeId })),
        ...(await find(db, db.models.travel, { toId: placeId })),
      ];
      const closureCalendar = await find(db, db.models.closureCalendar, { placeId });
      const closure = await find(db, db.models.closure, { calendarId: closureCalendar.map(({ id }) => id) });
      // What was held there keeps the name.
      await leavePlace(db, { placeId });
      await forgetTravel(db, { placeId });
      // Closures of this place alone go with it: without it they would close everything.
      await forgetClosuresOf(db, { placeId });
      await remove(db, db.models.closureCalendar, { placeId });
      await remove(db, db.models.place, { id: placeId });
      const taken = { place: [place], travel, closureCalendar, closure };
      return logTaken(context, db, 'place', placeId, place.name, taken);
    }),
});

export const setTravel = service({
  title: 'Say how long the way between two places takes',
  roles: ['coordinator'],
  input: z.object({
    fromId: z.uuid('Choose a place.'),
    toId: z.uuid('Choose a place.'),
    minutes: z.coerce.number('Write the minutes as a number.').int('Whole minutes.').min(0).max(600, 'At most 600.'),
  }),
  run: (context, { fromId, toId, minutes }) =>
    context.store.transaction(async (db) => {
      if (fromId === toId) throw new ServiceError('invalid', 'Choose two different places.');
      for (const id of [fromId, toId]) {
        const place = await findOne(db, db.models.place, { id, programmeId: context.actor.programmeId });
        if (!place) throw notFound('place');
      }
      const [from, to] = [fromId, toId].sort() as [string, string];
      await remove(db, db.models.travel, { fromId: from, toId: to });
      await insert(db, db.models.travel, [{ fromId: from, toId: to, minutes }]);
      await logChange(context, db, 'said how long', 'way', from, { to, minutes });
    }),
});
