import { Temporal } from 'temporal-polyfill';
import { z } from 'zod';
import { sentWeight } from '@/contracts/bench';
import { labelledFor } from '@/core/buying/take-out';
import type { LockedSheet } from '@/core/kits/record/locked-sheet';
import { balanceLine, LINE_CLASSES } from '@/core/packing/line/line';
import { lineTasks, setOut } from '@/core/packing/line/line-tasks';
import { paceOf } from '@/core/packing/line/pace';
import { type BowlNow, runningOut } from '@/core/packing/line/running-out';
import { type BenchSheet, benchSheet, packedNow } from '@/core/packing/progress';
import { TOLERANCE } from '@/core/quantity/measure';
import { fromText, toNumber } from '@/core/quantity/rational';
import { itemAt } from '@/core/recipes/recipe/choice';
import { readRecipe } from '@/core/recipes/recipe/recipe';
import { findIngredient } from '@/core/reference/reference';
import { blockersOf } from '@/core/safety/avoidances';
import { eventsSince, latestTicks, setPackLine } from '@/store/bench';
import { find, findOne, insert } from '@/store/query';
import { lotsNow } from '../buying/stock';
import { notFound, ServiceError } from '../errors';
import { type Context, nowOf, ROLES, service } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';
import { takenFor } from '../sheet/taken';
import { loadLocked } from './locked';

/** Minutes whose ticks say the pace. */
const LATELY = 20;
/** A weight of a bowl is noted under this, in the place of a component. */
const BOWL = 'bowl|';

/** A bench as a line of so many packers. */
export function lineOf(sheet: BenchSheet, locked: LockedSheet, packers: number) {
  const tasks = lineTasks(sheet, locked);
  const answer = balanceLine(tasks, packers);
  const order = (id: string) => {
    const task = tasks.find((each) => each.id === id);
    return [LINE_CLASSES.indexOf(task?.class ?? 'any'), sheet.rows.findIndex(({ row }) => String(row) === id)] as const;
  };
  const stations = answer.stations.map((ids) =>
    [...ids]
      .sort((a, b) => order(a)[0] - order(b)[0] || order(a)[1] - order(b)[1])
      .map((id) => {
        const task = tasks.find((each) => each.id === id);
        return { row: Number(id), name: task?.name ?? '', seconds: task?.seconds ?? 0 };
      }),
  );
  const longest = [...tasks].sort((a, b) => b.seconds - a.seconds)[0];
  const all = tasks.reduce((sum, { seconds }) => sum + seconds, 0);
  const kits = sheet.kits.length;
  const minutes = Math.ceil(answer.slowest / 60);
  const because =
    longest && longest.seconds === answer.slowest
      ? `“${longest.name}” alone takes ${Math.round(longest.seconds / Math.max(1, longest.kits))} s a kit: no line is quicker while one station does it.`
      : `${Math.round(all / Math.max(1, kits))} s of work a kit among ${packers}: ${answer.slowest === Math.ceil(all / packers) ? 'shared evenly' : 'what is cold and what is raw must come by last'}.`;
  return {
    packers,
    stations,
    slowest: answer.slowest,
    kitsAnHour: answer.slowest > 0 ? Math.round((kits * 3600) / answer.slowest) : 0,
    minutes,
    proven: answer.proven,
    because,
    setOut: setOut(sheet),
  };
}

export const viewLine = service({
  title: 'See a bench as a line of packers, its pace, and what runs out',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { db } = context.store;
    const { locked, revision } = await loadLocked(context, sessionId);
    const saved = await findOne(db, db.models.packLine, { sessionId });
    const sheet = benchSheet(locked, revision);
    const line = lineOf(sheet, locked, saved?.packers ?? 1);
    const since = new Date(nowOf(context).getTime() - LATELY * 60_000);
    const { ticks, first } = await latestTicks(db, { sessionId, since });
    const minutes = first ? Math.min(LATELY, (nowOf(context).getTime() - first.getTime()) / 60_000) : 0;
    const packed = packedNow(await eventsSince(db, sessionId, 0));
    const rows = line.stations.flat().map(({ row }) => ({
      row,
      keys: new Set(
        sheet.variants.flatMap(({ components }) => components.filter((each) => each.row === row).map(({ key }) => key)),
      ),
    }));
    const pace = paceOf(sheet.kits, packed, rows, ticks, minutes);
    const done = pace.minutesLeft === undefined ? undefined : context.clock().add({ minutes: pace.minutesLeft });
    const { programme } = await loadProgramme(context);
    const start = Temporal.PlainDateTime.from(`${locked.session.date}T${locked.session.startsAt}`)
      .toZonedDateTime(programme.timeZone)
      .toInstant();
    return {
      line,
      pace: {
        ...pace,
        heldUpBy: pace.heldUpBy && {
          ...pace.heldUpBy,
          name: sheet.rows.find(({ row }) => row === pace.heldUpBy?.row)?.name ?? '',
        },
        doneAt: done?.toString() ?? null,
        /** It is all packed only after the session begins. */
        isLate: done !== undefined && Temporal.Instant.compare(done, start) > 0,
      },
      runningOut: await whatRunsOut(context, sheet, locked, packed),
    };
  },
});

/** Foods at the bench that do not reach for the kits that still wait for them. */
async function whatRunsOut(
  context: Context,
  sheet: BenchSheet,
  locked: LockedSheet,
  packed: ReadonlyMap<string, ReadonlySet<string>>,
) {
  const { db } = context.store;
  const { id: sessionId } = sheet.session;
  const taken = await takenFor(context, db, [sessionId]);
  const bowls = await find(db, db.models.weighingIn, { sessionId, kitId: sessionId }, [['at', 'ASC']]);
  if (taken.length === 0 && bowls.length === 0) return [];
  const { programme } = await loadProgramme(context);
  const events = await eventsSince(db, sessionId, 0);
  const foods = new Set([
    ...taken.map(({ ingredient }) => ingredient),
    ...bowls.map(({ component }) => component.slice(BOWL.length)),
  ]);
  const byLetter = new Map(sheet.variants.map((variant) => [variant.letter, variant]));
  const gramsOf = (kitId: string, key: string) => {
    const variant = byLetter.get(sheet.kits.find(({ id }) => id === kitId)?.variant ?? '');
    const component = variant?.components.find((each) => each.key === key);
    return component ? { food: component.ingredient, grams: toNumber(fromText(component.grams)) } : undefined;
  };
  const lots = await lotsNow(context, db, programme.reference);
  return [...foods].flatMap((food) => {
    const waiting = sheet.kits.flatMap(({ id, number, variant }) => {
      const own = byLetter
        .get(variant)
        ?.components.filter(
          (each) => each.ingredient === food && each.sealedUnits === undefined && !packed.get(id)?.has(each.key),
        );
      const grams = (own ?? []).reduce((sum, each) => sum + toNumber(fromText(each.grams)), 0);
      const [first] = own ?? [];
      if (!first || grams === 0) return [];
      return [
        {
          id,
          number,
          variant,
          grams,
          row: first.row,
          isReserve: isReserve(locked, id),
          tolerance: toleranceOf(locked, first.row),
        },
      ];
    });
    if (waiting.length === 0) return [];
    const bowl = bowls.filter(({ component }) => component === `${BOWL}${food}`).at(-1);
    // What was ticked since is out of the bowl; what was ticked before its weight was taken was out of it already.
    const out = events
      .filter(({ action, at }) => action === 'packed' && (!bowl || at > bowl.at))
      .reduce((sum, { kitId, component }) => {
        const what = gramsOf(kitId, component);
        return what?.food === food && packed.get(kitId)?.has(component) ? sum + what.grams : sum;
      }, 0);
    const had = bowl
      ? bowl.tenths / 10
      : taken.filter(({ ingredient }) => ingredient === food).reduce((sum, { grams }) => sum + grams, 0);
    if (!bowl && had === 0) return [];
    const avoided = [...new Set(waiting.flatMap(({ variant }) => avoidsOf(locked, variant)))];
    const known = findIngredient(programme.reference, food);
    const now: BowlNow = {
      food,
      grams: Math.max(0, had - out),
      waiting,
      lots: known
        ? lots
            .filter((lot) => lot.ingredient === food && labelledFor(known, lot.allergens, avoided))
            .map(({ name, now: { grams } }) => ({ name, grams }))
        : [],
      instead: insteadOf(locked, waiting[0]?.row ?? -1, avoided, food),
    };
    return runningOut(now) ?? [];
  });
}

const avoidsOf = (locked: LockedSheet, letter: string): readonly string[] =>
  locked.content.variants.find((variant) => variant.letter === letter)?.avoids ?? [];

/** A kit that is for nobody of the roll yet. */
const isReserve = ({ kits, content }: LockedSheet, kitId: string): boolean => {
  const letter = kits.find(({ id }) => id === kitId)?.variant;
  return content.variants.find((variant) => variant.letter === letter)?.extra === 'reserve';
};

const lineAt = ({ content }: LockedSheet, row: number) => {
  const at = content.rows[row];
  const dish = at && content.input.dishes[at.dish];
  if (!dish || !at) return undefined;
  const reading = readRecipe(dish.recipe, content.input.reference);
  return 'recipe' in reading ? reading.recipe.lines[at.line] : undefined;
};

/** How much less a line's measure may be. */
const toleranceOf = (locked: LockedSheet, row: number): number =>
  toNumber(TOLERANCE[lineAt(locked, row)?.written?.precision ?? 'normal']);

/** What the recipe lets stand in for a food, that holds nothing these kits avoid. */
function insteadOf(locked: LockedSheet, row: number, avoided: readonly string[], food: string): string[] {
  const line = lineAt(locked, row);
  if (!line) return [];
  return [0, ...line.alternatives.map((_, at) => at + 1)].flatMap((option) => {
    const item = itemAt(line, option);
    if (!item || item.ingredient.name === food) return [];
    return blockersOf(item.holdings, avoided).length === 0 ? [item.ingredient.name] : [];
  });
}

export const setPackers = service({
  title: 'Say how many pack a session side by side',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid(), packers: z.coerce.number().int().min(1).max(8, 'At most 8 stations.') }),
  run: async (context, { sessionId, packers }) => {
    await loadLocked(context, sessionId);
    await setPackLine(context.store.db, { sessionId, packers });
  },
});

export const weighIn = service({
  title: 'Note what the scale says of a component, or of what is left in a bowl',
  roles: ROLES,
  input: sentWeight,
  run: async (context, { sessionId, id, kitId, component, grams, food }) => {
    const { locked } = await loadLocked(context, sessionId);
    const { db } = context.store;
    if (kitId && !locked.kits.some((kit) => kit.id === kitId)) throw notFound('kit');
    if (!kitId && !food) throw new ServiceError('invalid', 'Say which kit, or which bowl.');
    const said = kitId ? verdictOn(locked, kitId, component, grams) : undefined;
    if (await findOne(db, db.models.weighingIn, { id })) return said;
    await insert(db, db.models.weighingIn, [
      {
        id,
        sessionId,
        kitId: kitId ?? sessionId,
        component: kitId ? component : `${BOWL}${food}`,
        tenths: Math.round(grams * 10),
        at: nowOf(context),
        actorId: context.actor.id,
      },
    ]);
    return said;
  },
});

/** A weight beside its aim: right within what its line allows. */
function verdictOn(locked: LockedSheet, kitId: string, key: string, grams: number) {
  const letter = locked.kits.find(({ id }) => id === kitId)?.variant;
  const component = locked.content.variants
    .find((variant) => variant.letter === letter)
    ?.components?.find((each) => each.key === key);
  if (!component) throw notFound('component');
  const aim = toNumber(fromText(component.grams));
  const allowed = aim * toleranceOf(locked, component.row);
  const verdict = Math.abs(grams - aim) <= allowed ? 'right' : grams > aim ? 'too much' : 'too little';
  return { aim: component.sayGrams, verdict } as const;
}

export const packFromLot = service({
  title: 'Say from which lot a food goes into the kits from now on',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid(), id: z.uuid(), lotId: z.uuid() }),
  run: async (context, { sessionId, id, lotId }) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const { locked } = await loadLocked(context, sessionId);
    const lot = await findOne(db, db.models.stockLot, { id: lotId, programmeId });
    if (!lot) throw notFound('lot');
    const own = locked.content.variants.flatMap(({ letter, avoids, components }) =>
      (components ?? []).some(({ ingredient }) => ingredient === lot.ingredient) ? [{ letter, avoids }] : [],
    );
    if (own.length === 0)
      throw new ServiceError('invalid', `No kit of this session holds ${lot.ingredient}: this is another lot’s code.`);
    const { programme } = await loadProgramme(context);
    const food = findIngredient(programme.reference, lot.ingredient);
    const unsafe = own.filter(({ avoids }) => !food || !labelledFor(food, lot.allergens, avoids));
    const events = await eventsSince(db, sessionId, 0);
    if (!(await findOne(db, db.models.benchLot, { id })))
      await insert(db, db.models.benchLot, [
        {
          id,
          sessionId,
          ingredient: lot.ingredient,
          lotId,
          fromSeq: events.at(-1)?.seq ?? 0,
          at: nowOf(context),
          actorId: context.actor.id,
        },
      ]);
    return { food: lot.ingredient, name: lot.name, notFor: unsafe.map(({ letter }) => letter) };
  },
});
