import type { RecipeBody } from '@/contracts/recipe';
import { leastOfKilogram, worth } from '@/core/buying/nothing-lost';
import { FACES, type Face, triesOf, votesOf } from '@/core/classday/tasting';
import { FOOD_GROUPS } from '@/core/closeout/report/report';
import type { ReportFacts, ReportPerson, ReportSession, Seen } from '@/core/closeout/report/report-facts';
import { minutesOfStay } from '@/core/crew/hours';
import { civilOf } from '@/core/plan/civil';
import { civilIn } from '@/core/plan/clock';
import type { Mode } from '@/core/plan/mode';
import { type Product, servingFigures } from '@/core/recipes/recipe/cost';
import { packedLines, readRecipe } from '@/core/recipes/recipe/recipe';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { findIngredient, type Reference } from '@/core/reference/reference';
import { type AttendanceState, attendanceNow } from '@/core/roll/attendance';
import { nameKey } from '@/core/roll/name-key';
import { pricesNow } from '@/store/buying';
import { find } from '@/store/query';
import {
  type ReportScope,
  reportDishes,
  reportMoves,
  reportPeople,
  reportSeen,
  reportSessions,
  reportStays,
  reportTastings,
} from '@/store/reports';
import { bySession, groupedBy } from '@/store/session-bundles';
import type { ProductRow } from '@/store/tables/recipes';
import { pricesOfFoods } from '../buying/food-prices';
import type { Context } from '../gate/gate';
import { memoryOf } from '../memory';
import { productFrom } from '../sheet/load-products';
import type { Programme } from '../sheet/load-programme';
import { fingerprint } from '../sheet/session-sheet';

type Rows<Of extends (...args: never) => Promise<readonly unknown[]>> = Awaited<ReturnType<Of>>;

const sum = <T>(all: readonly T[], of: (each: T) => number): number => all.reduce((total, each) => total + of(each), 0);
const some = (values: readonly string[]) => [...new Set(values.filter((value) => value !== '' && value !== 'other'))];

/** What a recipe brings to a report. */
interface RecipeFacts {
  readonly foods: readonly string[];
  readonly plateGroups: readonly string[];
  readonly vegetableFamilies: readonly string[];
  /** Minor units of a serving, as far as products are known; null where none is. */
  readonly costOfServing: number | null;
}

const isFood = (group: string) => FOOD_GROUPS.some((each) => each === group);

function recipeFacts(body: RecipeBody, reference: Reference, products: readonly Product[]): RecipeFacts {
  const whole = wholeRecipe(body);
  const lines = packedLines(whole.lines, reference);
  const foods = some(lines.map(({ ingredient }) => ingredient));
  const known = foods.flatMap((food) => findIngredient(reference, food) ?? []);
  const reading = readRecipe({ servings: whole.servings, lines }, reference, new Map());
  const cost = 'problems' in reading ? undefined : servingFigures(reading.recipe, products).cost;
  return {
    // Salt, oil and sugar are in the dish; nobody tries them.
    foods: some(known.filter(({ plateGroup }) => isFood(plateGroup)).map(({ name }) => name)),
    plateGroups: some(known.map(({ plateGroup }) => plateGroup)),
    vegetableFamilies: some(known.map(({ vegetableFamily }) => vegetableFamily)),
    costOfServing: cost && cost.known > 0 ? cost.perServing : null,
  };
}

/** What recipes bring, worked out before. */
const KNOWN = memoryOf<RecipeFacts>(500);

/** The rolls by enrolment, and everybody once: the same name twice in a family is one person on two rolls. */
function peopleOf(rolls: Rows<typeof reportPeople>) {
  const numbers = new Map<string, number>();
  const people: ReportPerson[] = [];
  const rollOf = new Map<string, { person: number; servings: number }>();
  for (const { id, householdId, name, age, servings } of rolls) {
    // Who was erased has no name, and is somebody by themselves.
    const key = name === '' ? id : `${householdId} ${nameKey(name)}`;
    const person = numbers.get(key) ?? numbers.size;
    if (!numbers.has(key)) people.push({ person, age });
    numbers.set(key, person);
    rollOf.set(id, { person, servings });
  }
  return { people, rollOf };
}

/** What lots that were taken, given or lost are worth: bought ones by what they cost, gifts by what is asked for the food where it is least. */
function worthOf(prices: Rows<typeof pricesNow>, products: readonly ProductRow[]) {
  const kilogram = leastOfKilogram(pricesOfFoods(prices, products));
  return ({ packs, grams, packGrams, price, origin, ingredient }: Rows<typeof reportMoves>[number]) => {
    const weight = Number(packs) * (packGrams ?? 0) + Number(grams);
    const isGift = origin === 'given' || origin === 'garden';
    return {
      grams: weight,
      isGift,
      bought: isGift ? 0 : worth(weight, { price, packGrams }),
      given: isGift ? Math.round((weight * (kilogram.get(ingredient) ?? 0)) / 1000) : 0,
    };
  };
}

const seenIn = (
  rows: readonly Rows<typeof reportSeen>[number][],
  rollOf: ReadonlyMap<string, { person: number; servings: number }>,
) =>
  rows.flatMap(({ enrolmentId, states }): Seen[] => {
    const row = rollOf.get(enrolmentId);
    const marks = states.split('|').map((state) => ({ enrolmentId, state: state as AttendanceState }));
    return row ? [[row.person, row.servings, [...(attendanceNow(marks).get(enrolmentId) ?? [])]]] : [];
  });

/** Everything that a report of these sessions is made of, without a name in it: nine queries, however many there are. */
export async function loadReportFacts(
  context: Context,
  { timeZone, reference }: Pick<Programme, 'timeZone' | 'reference'>,
  scope: ReportScope,
): Promise<ReportFacts> {
  const { db } = context.store;
  const { programmeId } = context.actor;
  const [all, seen, rolls, tastings, stays, { dishes, recipes }, moves, prices, products] = await Promise.all([
    reportSessions(db, scope),
    reportSeen(db, scope),
    reportPeople(db, scope),
    reportTastings(db, scope),
    reportStays(db, scope),
    reportDishes(db, scope),
    reportMoves(db, scope),
    pricesNow(db, programmeId),
    find(db, db.models.product, { programmeId }),
  ]);
  const { people, rollOf } = peopleOf(rolls);
  const bought = products.map(productFrom);
  const mark = fingerprint(
    products.map(({ ingredient, name, packGrams, price }) => [ingredient, name, packGrams, price]),
  );
  const recipeOf = new Map(
    [...recipes].map(([id, body]) => {
      const make = () => recipeFacts(body, reference, bought);
      return [id, KNOWN.of(`${mark}${fingerprint(body)}`, make)] as const;
    }),
  );
  const worthIn = worthOf(prices, products);
  const values = moves.map((move) => ({ sessionId: move.sessionId, kind: move.kind, ...worthIn(move) }));
  const [seenOf, tastedOf, staysOf, dishesOf] = [
    bySession(seen),
    bySession(tastings),
    bySession(stays),
    bySession(dishes),
  ];
  const used = values.filter(({ kind }) => kind === 'used');
  const usedOf = groupedBy(used, ({ sessionId }) => sessionId ?? '');
  const crew = new Map([...new Set(stays.map(({ crewId }) => crewId))].map((id, at) => [id, at]));
  const now = civilIn(context.clock().toString(), timeZone);
  const isHeld = ({ date, startsAt, minutes, status }: (typeof all)[number]) =>
    status === 'planned' && civilOf(date, startsAt) + minutes <= civilOf(now.date, now.time);

  const sessions = all
    .filter(isHeld)
    .map(({ startsAt: _, status: __, kits, incidents, mode, ...session }): ReportSession => {
      const { id } = session;
      const own = dishesOf(id);
      const cooked = own.flatMap(({ recipeId }) => recipeOf.get(recipeId) ?? []);
      const foodsOf = new Map(own.map((dish) => [dish.id, recipeOf.get(dish.recipeId)?.foods ?? []]));
      const tasted = tastedOf(id);
      const votes = own.map((dish) => votesOf(tasted, dish.id));
      const there = seenIn(seenOf(id), rollOf);
      const taken = usedOf(id);
      const priced = cooked.flatMap(({ costOfServing }) => costOfServing ?? []);
      const eaten = sum(there, (one) => one[1]);
      return {
        ...session,
        mode: mode as Mode,
        kits: Number(kits),
        incidents: Number(incidents),
        seen: there,
        plateGroups: some(cooked.flatMap(({ plateGroups }) => plateGroups)),
        vegetableFamilies: some(cooked.flatMap(({ vegetableFamilies }) => vegetableFamilies)),
        votes: Object.fromEntries(FACES.map((face) => [face, sum(votes, (each) => each[face])])) as Record<
          Face,
          number
        >,
        tries: sum(
          [
            ...triesOf(
              tasted.map((each) => ({ ...each, sessionId: id })),
              (dish) => foodsOf.get(dish) ?? [],
            ).values(),
          ],
          (foods) => foods.size,
        ),
        stays: staysOf(id).map((stay) => [crew.get(stay.crewId) ?? 0, minutesOfStay(stay)] as const),
        bought:
          taken.length > 0
            ? sum(taken, (each) => each.bought)
            : priced.length > 0
              ? sum(priced, (cost) => cost * eaten)
              : null,
        given: sum(taken, (each) => each.given),
        isEstimated: taken.length === 0,
      };
    });
  const isSpan = scope.courseId === '' && scope.sessionId === '';
  const gifts = isSpan ? values.filter(({ kind }) => kind === 'received') : used.filter(({ isGift }) => isGift);
  return {
    sessions,
    cancelled: all.filter(({ status }) => status === 'cancelled').length,
    people,
    givenGrams: sum(gifts, ({ grams }) => grams),
    lostGrams: sum(
      values.filter(({ kind }) => kind === 'thrown away'),
      ({ grams }) => grams,
    ),
  };
}
