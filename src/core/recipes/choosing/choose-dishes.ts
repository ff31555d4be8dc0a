import { grownOnlyNow } from '../../reference/season';
import type { FitVerdict } from './fit';

/** What a dish brings to a course. */
export interface Candidate {
  readonly id: string;
  readonly title: string;
  readonly ingredients: readonly string[];
  readonly plateGroups: ReadonlySet<string>;
  readonly vegetableFamilies: ReadonlySet<string>;
  /** What steps teach: "knife", "oven", "whisk". */
  readonly skills: ReadonlySet<string>;
  /** Packs that are opened and not used up, by food, in grams left over for one class. */
  readonly leftOver: ReadonlyMap<string, number>;
  /** Everybody of the roll eats the same version. */
  readonly oneForAll: boolean;
  readonly refused: boolean;
  /** How many of those who tasted it would have more. */
  readonly votes?: Votes;
}

/** So many of so many would have more of a dish. */
export interface Votes {
  readonly more: number;
  readonly of: number;
}

/** Fewer votes say nothing of a dish. */
const LEAST_VOTES = 5;

/** A session that needs a dish, or has its dishes. */
export interface DishSession {
  readonly id: string;
  readonly date: string;
  /** Dishes chosen already, by id. */
  readonly chosen: readonly string[];
  /** Foods on the school's own menu that day. */
  readonly onMenu?: ReadonlySet<string>;
}

/** What is at hand or cheap while the course runs. */
export interface AtHand {
  readonly stock: ReadonlySet<string>;
  readonly offers: ReadonlySet<string>;
}

/** A dish proposed for a session, with what speaks for and against it. */
export interface Proposal {
  readonly dish: Candidate;
  readonly verdict: FitVerdict;
  readonly points: number;
  readonly reasons: readonly string[];
}

/** What each session is offered, the best first, and how the course would be covered if the first of each were taken. */
export interface DishPlan {
  readonly proposals: ReadonlyMap<string, readonly Proposal[]>;
  readonly order: readonly { readonly sessionId: string; readonly dishId: string }[];
}

/** Points of each reason: ours; what matters most is that it can be cooked, and that everybody can eat it. */
const POINTS = {
  fits: 30,
  'with care': 12,
  oneForAll: 8,
  group: 4,
  family: 6,
  skill: 3,
  stock: 7,
  offer: 3,
  menu: 5,
  season: 1,
  liked: 6,
  shared: 3,
  repeated: -40,
  proposedToo: -15,
  refused: -60,
} as const;

/** So many proposals are told for each session. */
const MOST_PROPOSALS = 5;

/**
 * Dishes for the sessions of a course, ranked with reasons. Sessions are gone through in order of time, each as if the best
 * were taken for those before it, so that dishes complete each other; then each choice is looked at once more with all
 * others in place.
 *
 * @param fitsOf how well a dish suits a session; asked once for each pair
 */
export function chooseDishes(
  sessions: readonly DishSession[],
  candidates: readonly Candidate[],
  atHand: AtHand,
  fitsOf: (dish: Candidate, session: DishSession) => FitVerdict,
): DishPlan {
  const byId = new Map(candidates.map((each) => [each.id, each]));
  const verdicts = new Map<string, FitVerdict>();
  const fits = (dish: Candidate, session: DishSession) => {
    const key = `${dish.id} ${session.id}`;
    const known = verdicts.get(key) ?? fitsOf(dish, session);
    verdicts.set(key, known);
    return known;
  };
  const taken = new Map(sessions.map(({ id, chosen }) => [id, chosen.flatMap((each) => byId.get(each) ?? [])]));
  const chosen = new Set(sessions.flatMap((session) => session.chosen));
  const open = sessions.filter(({ chosen }) => chosen.length === 0);
  const rank = (session: DishSession): Proposal[] => {
    const others = sessions.flatMap(({ id }) => (id === session.id ? [] : (taken.get(id) ?? [])));
    const course = coverageOf(others);
    return candidates
      .map((dish) => proposalOf(dish, session, others, course, atHand, fits(dish, session), chosen))
      .sort((a, b) => b.points - a.points || (a.dish.title < b.dish.title ? -1 : 1));
  };
  for (const session of [...open, ...open]) {
    const [best] = rank(session);
    if (best) taken.set(session.id, [best.dish]);
  }
  return {
    proposals: new Map(open.map((session) => [session.id, rank(session).slice(0, MOST_PROPOSALS)])),
    order: open.flatMap(({ id }) => (taken.get(id) ?? []).map((dish) => ({ sessionId: id, dishId: dish.id }))),
  };
}

/** What the dishes of a course cover: how often each plate group, vegetable family and skill, and each food. */
export interface Coverage {
  readonly groups: ReadonlyMap<string, number>;
  readonly families: ReadonlyMap<string, number>;
  readonly skills: ReadonlyMap<string, number>;
  readonly foods: ReadonlyMap<string, number>;
}

/** How often each thing occurs among dishes. */
export function coverageOf(dishes: readonly Candidate[]): Coverage {
  const count = (of: (dish: Candidate) => Iterable<string>) => {
    const counts = new Map<string, number>();
    for (const dish of dishes) for (const each of of(dish)) counts.set(each, (counts.get(each) ?? 0) + 1);
    return counts;
  };
  return {
    groups: count(({ plateGroups }) => plateGroups),
    families: count(({ vegetableFamilies }) => vegetableFamilies),
    skills: count(({ skills }) => skills),
    foods: count(({ ingredients }) => ingredients),
  };
}

function proposalOf(
  dish: Candidate,
  session: DishSession,
  others: readonly Candidate[],
  course: Coverage,
  { stock, offers }: AtHand,
  verdict: FitVerdict,
  chosen: ReadonlySet<string>,
): Proposal {
  const reasons: string[] = [];
  let points = verdict === 'does not fit' ? 0 : POINTS[verdict];
  const add = (each: number, times: number, say: string) => {
    if (times === 0) return;
    points += each * times;
    reasons.push(say);
  };
  const missing = (of: ReadonlySet<string>, covered: ReadonlyMap<string, number>) =>
    [...of].filter((each) => !covered.has(each));
  const groups = missing(dish.plateGroups, course.groups);
  const families = missing(dish.vegetableFamilies, course.families);
  const skills = missing(dish.skills, course.skills);
  if (dish.refused) add(POINTS.refused, 1, 'somebody on the roll could not eat it');
  else if (dish.oneForAll) add(POINTS.oneForAll, 1, 'one version for everybody on the roll');
  add(POINTS.family, families.length, `a vegetable family that the course lacks: ${families.join(', ')}`);
  add(POINTS.group, groups.length, `brings ${groups.join(', ')}, which no other session has`);
  add(POINTS.skill, skills.length, `a new skill: ${skills.join(', ')}`);
  if (dish.votes && dish.votes.of >= LEAST_VOTES && dish.votes.more * 2 > dish.votes.of)
    add(POINTS.liked, 1, `liked: ${dish.votes.more} of ${dish.votes.of} would have more`);
  const inStock = dish.ingredients.filter((food) => stock.has(food));
  add(POINTS.stock, inStock.length, `uses what is at hand: ${inStock.join(', ')}`);
  const onOffer = dish.ingredients.filter((food) => offers.has(food) && !stock.has(food));
  add(POINTS.offer, onOffer.length, `on offer: ${onOffer.join(', ')}`);
  const onMenu = dish.ingredients.filter((food) => session.onMenu?.has(food));
  add(POINTS.menu, Math.min(1, onMenu.length), `meets the school’s menu: ${onMenu.join(', ')}`);
  const inSeasonNow = dish.ingredients.filter((food) => grownOnlyNow(food, Number(session.date.slice(5, 7))));
  add(POINTS.season, Math.min(2, inSeasonNow.length), `in season: ${inSeasonNow.join(', ')}`);
  const elsewhere = new Set(others.flatMap(({ id, ingredients }) => (id === dish.id ? [] : ingredients)));
  const shared = [...dish.leftOver.keys()].filter((food) => elsewhere.has(food));
  add(
    POINTS.shared,
    Math.min(3, shared.length),
    `uses up packs opened for other sessions: ${shared.slice(0, 4).join(', ')}`,
  );
  if (chosen.has(dish.id)) add(POINTS.repeated, 1, 'in the course already');
  else if (others.some(({ id }) => id === dish.id)) add(POINTS.proposedToo, 1, 'proposed for another session too');
  return { dish, verdict, points, reasons };
}
