// Looks for an unsafe kit through the services: random programmes, random operations, several at once; judged after each step.
import { execFileSync } from 'node:child_process';
import ExcelJS from 'exceljs';
import { Temporal } from 'temporal-polyfill';
import { v7 } from 'uuid';
import { OPERATIONS } from '@/app/api/v1/operations';
import { kitsToHold } from '@/core/kits/record/judgement';
import { packedNow } from '@/core/packing/progress';
import type { WrittenLine } from '@/core/recipes/recipe/recipe';
import { makeBuyingPlan, viewBuyingPlan } from '@/services/buying/plan';
import { receiveTrip } from '@/services/buying/receipt';
import { addShop, fillHole, viewPriceBook } from '@/services/buying/shops';
import { addLot } from '@/services/buying/stock';
import { takeForSession } from '@/services/buying/take-out';
import { answerTrip, makeTrip, viewTrip } from '@/services/buying/trips';
import { recordAttendance, viewAttendance } from '@/services/classday/attendance';
import { viewRoom } from '@/services/classday/room';
import { ServiceError } from '@/services/errors';
import type { Context } from '@/services/gate/gate';
import { decideKit, viewNotFetched } from '@/services/handout/not-fetched';
import { refuseDifferences, unlockSheet } from '@/services/kits/decide';
import {
  exportSheet,
  exportSheetBook,
  exportSheetPdf,
  forgetLabel,
  leaveOut,
  lockKitSheet,
  putBack,
  recordLabel,
  viewKitSheet,
} from '@/services/kits/kit-sheet';
import { setKitRules, setLineWays, viewKitRules } from '@/services/kits/rules';
import { recordTicks, viewBench } from '@/services/packing/bench';
import { labelsToPrint } from '@/services/packing/labels';
import { cancelSession } from '@/services/plan/cancel';
import { listChanges, undoChange } from '@/services/plan/changes';
import { addCourse } from '@/services/plan/courses';
import { addGroup } from '@/services/plan/groups';
import {
  addDish,
  addSession,
  editSession,
  loadBundle,
  moveSession,
  removeDish,
  setExtras,
} from '@/services/plan/sessions';
import { splitSession } from '@/services/plan/split';
import { forgetMeaning, giveMeaning } from '@/services/programme/programme';
import { editRecipe, saveEdited } from '@/services/recipes/drafts';
import { addProduct, removeProduct, setKitLabel } from '@/services/recipes/products';
import { saveRecipe } from '@/services/recipes/recipes';
import { setAway, shareKit } from '@/services/roll/away';
import { setHome } from '@/services/roll/home';
import { addPerson, editPerson, setStatus } from '@/services/roll/roll';
import { readSnapshot } from '@/services/sheet/session-sheet';
import { takenFor } from '@/services/sheet/taken';
import { find } from '@/store/query';
import type { Store } from '@/store/store';
import type { SessionRow } from '@/store/tables/plan';
import type { EnrolmentRow } from '@/store/tables/roll';
import { codeOf } from '@/store/trouble';
import { randomFrom } from '../../scripts/random.mjs';
import { cells, newProgramme } from '../programme';
import { FOODS, Judge, NEEDS } from './judge';

const line = (ingredient: string, amount: string, unit: string, preparation = '', more: object = {}): WrittenLine =>
  ({ ingredient, amount, unit, ...(preparation ? { preparation } : {}), ...more }) as WrittenLine;

const DISHES: readonly WrittenLine[][] = [
  [
    line('plain yogurt', '1', 'cup', '', { alternatives: [line('firm tofu', '2/3', 'cup', 'cubed')] }),
    line('egg', '1', 'each', 'large, without shell', { scaling: 'whole' }),
    line('ground cumin', '1', 'tsp'),
  ],
  [
    line('plain wheat flour', '1', 'cup', '', { alternatives: [line('rice flour', '1', 'cup')] }),
    line('olive oil', '2', 'Tbsp'),
    line('carrot', '1', 'cup', 'chopped'),
  ],
  [
    line('peanut butter', '2', 'Tbsp', '', { alternatives: [line('sunflower seeds', '1/4', 'cup'), { omit: true }] }),
    line('honey', '1', 'Tbsp', '', { alternatives: [{ omit: true }] }),
    line('cherry tomato', '1', 'cup', 'whole'),
  ],
  [
    line('walnuts', '1/4', 'cup', 'chopped', { alternatives: [{ omit: true }] }),
    line('carrot', '1', 'cup', 'grated'),
    line('olive oil', '1', 'Tbsp'),
  ],
];

const ALLERGENS = ['MILK', 'EGG', 'NUT', 'PEANUT', 'WHEAT', 'GLUTEN', 'SOY', 'SESAME', 'MUSTARD'];

/** The kit sheet as other programs get it. */
const API = OPERATIONS.find(({ method, path }) => method === 'GET' && path === '/sessions/{sessionId}/kit-sheet');

interface ToldSheet {
  readonly kits: readonly { readonly id: string; readonly calledBack?: boolean }[];
}

/** A PDF as another program reads it. */
const textOfPdf = (bytes: Uint8Array): string =>
  execFileSync('pdftotext', ['-layout', '-', '-'], { input: Buffer.from(bytes), encoding: 'utf8' }).replace(
    /\s+/g,
    ' ',
  );

/** All cells of a workbook. */
async function textOfWorkbook(bytes: Uint8Array): Promise<string> {
  const book = new ExcelJS.Workbook();
  await book.xlsx.load(bytes.buffer as ArrayBuffer);
  return book.worksheets.flatMap((sheet) => sheet.getSheetValues().flat()).join(' ');
}

/** How many steps a programme lives. */
const LIFE = 120;

export interface SearchOutcome {
  readonly steps: number;
  readonly done: number;
  readonly refused: number;
  /** Operations that were tried at least ten times, and refused each time: the search says nothing of what they do. */
  readonly neverDone: readonly string[];
  /** Kits looked at after all steps together, and how many of them were called back. */
  readonly kits: number;
  readonly held: number;
  readonly texts: number;
  readonly found: readonly string[];
}

/**
 * Takes random steps.
 *
 * @param most findings after which it stops
 */
export async function searchServices(
  store: Store,
  { seed, steps, most = 5 }: { seed: number; steps: number; most?: number },
): Promise<SearchOutcome> {
  const chance = randomFrom(seed);
  const total = { steps: 0, done: 0, refused: 0, kits: 0, held: 0, texts: 0, found: [] as string[] };
  const tried = new Map<string, number>();
  const done = new Set<string>();
  while (total.steps < steps && total.found.length < most) {
    const world = await World.make(store, chance);
    const log: string[] = [];
    for (let step = 0; step < LIFE && total.steps < steps && total.found.length < most; step++) {
      total.steps++;
      const count = chance() < 0.15 ? 2 + Math.floor(chance() * 2) : 1;
      const acts = Array.from({ length: count }, () => world.act());
      const ended = await Promise.allSettled(acts.map(([, run]) => run()));
      for (const [at, end] of ended.entries()) {
        const name = acts[at]?.[0] ?? '';
        tried.set(name, (tried.get(name) ?? 0) + 1);
        if (end.status === 'fulfilled') {
          total.done++;
          done.add(name);
        } else if (end.reason instanceof ServiceError) total.refused++;
        else
          total.found.push(
            // The stack of an error of the database says nothing of what the database said.
            `step ${total.steps}, ${name}: ${end.reason} ${codeOf(end.reason)} ${end.reason instanceof Error ? end.reason.stack : ''}`,
          );
        log.push(`${name}${end.status === 'fulfilled' ? '' : ' (refused)'}`);
      }
      const { kits, held, texts, found } = await world.look();
      total.kits += kits;
      total.held += held;
      total.texts += texts;
      for (const each of found) total.found.push(`step ${total.steps}: ${each}\n   after ${log.slice(-12).join('; ')}`);
    }
  }
  const neverDone = [...tried].flatMap(([name, times]) => (times >= 10 && !done.has(name) ? [name] : []));
  return { ...total, neverDone };
}

/** One programme, and what can be done in it. */
class World {
  private readonly products: string[] = [];

  private constructor(
    private readonly context: Context,
    private readonly crew: Context,
    private readonly chance: () => number,
    /** Hours that have passed since it began. */
    private readonly clock: { hours: number },
    private readonly judge: Judge,
    private readonly courseId: string,
    private readonly recipes: readonly string[],
  ) {}

  static async make(store: Store, chance: () => number): Promise<World> {
    const own = await newProgramme(store);
    const start = Temporal.Instant.from('2026-11-20T12:00:00Z');
    const clock = { hours: 0 };
    const at = (context: Context): Context => ({ ...context, clock: () => start.add({ hours: clock.hours }) });
    const context = at(own.coordinator);
    const courseId = await addCourse(context, { title: `Course ${v7()}`, audience: '' });
    const recipes: string[] = [];
    for (const lines of DISHES)
      recipes.push(await saveRecipe(context, { title: `Dish ${v7()}`, body: { servings: 2, lines, steps: [] } }));
    const judge = new Judge(store.sequelize, context.actor.programmeId);
    const world = new World(context, at(own.crew), chance, clock, judge, courseId, recipes);
    for (let at = 0; at < 3; at++) await world.newSession(at);
    for (let at = 0; at < 6; at++) await world.newPerson();
    await world.changeSupplies(0.6);
    for (let at = 0; at < 2; at++) await world.changeHome();
    return world;
  }

  private readonly upTo = (most: number) => Math.floor(this.chance() * (most + 1));
  private readonly oneOf = <T>(list: readonly T[]): T => {
    const found = list[Math.floor(this.chance() * list.length)];
    if (found === undefined) throw new ServiceError('not-found', 'There is none to choose.');
    return found;
  };
  private readonly some = <T>(list: readonly T[], part: number): T[] => list.filter(() => this.chance() < part);

  private async newSession(at: number): Promise<void> {
    const date = Temporal.PlainDate.from('2026-11-26')
      .add({ days: 7 * at })
      .toString();
    const mode = this.oneOf(['in person', 'take-home', 'take-home', 'live online']);
    const plan = { title: `Session ${at}`, date, startsAt: '16:00', minutes: 90, place: 'Boatshed', mode };
    const sessionId = await addSession(this.context, { courseId: this.courseId, ...plan });
    for (const recipeId of this.some(this.recipes, 0.5)) await addDish(this.context, { sessionId, recipeId });
  }

  private readonly need = () => this.some(Object.keys(NEEDS), 0.06).join('; ');
  private readonly age = () => (this.chance() < 0.5 ? '' : String(this.upTo(9)));

  private async newPerson(): Promise<void> {
    const household = this.chance() < 0.4 ? this.oneOf(['Finch', 'Oduya']) : '';
    const written = {
      name: `Person ${v7().slice(-8)}`,
      age: this.age(),
      servings: '1',
      avoids: this.need(),
      household,
    };
    await addPerson(this.context, {
      courseId: this.courseId,
      cells: cells(written),
      status: this.chance() < 0.2 ? 'waitlisted' : 'enrolled',
    });
  }

  private readonly people = () =>
    find(this.context.store.db, this.context.store.db.models.enrolment, { courseId: this.courseId }, [['id', 'ASC']]);
  private readonly sessions = () =>
    find(this.context.store.db, this.context.store.db.models.session, { courseId: this.courseId, status: 'planned' }, [
      ['id', 'ASC'],
    ]);
  private readonly session = async () => this.oneOf(await this.sessions());
  private readonly person = async () => this.oneOf(await this.people());
  private readonly label = (food: string) => [
    ...(this.chance() < 0.9 ? (FOODS[food]?.made ?? []) : (FOODS[food]?.made ?? []).map((code) => `no:${code}`)),
    ...this.some(
      ALLERGENS.filter((code) => !FOODS[food]?.made.includes(code)),
      0.12,
    ),
    ...this.some(
      (FOODS[food]?.dietCheck ?? []).map((code) => `no:${code}`),
      0.5,
    ),
  ];

  /** A random operation: its name, and the doing of it. */
  act(): readonly [string, () => Promise<unknown>] {
    const { context } = this;
    const acts: readonly (readonly [number, string, () => Promise<unknown>])[] = [
      [6, 'need', () => this.changeNeed()],
      [2, 'person', () => this.newPerson()],
      [2, 'status', () => this.changeStatus()],
      [
        2,
        'meaning',
        () =>
          giveMeaning(context, {
            word: this.oneOf(['moonroot', 'sea thrift']),
            ...(this.chance() < 0.2 ? { nothing: true } : { codes: [this.oneOf(ALLERGENS)] }),
          }),
      ],
      [1, 'no meaning', () => forgetMeaning(context, { word: this.oneOf(['moonroot', 'sea thrift']) })],
      [6, 'label', () => this.readLabel()],
      [
        1,
        'label back',
        async () =>
          forgetLabel(context, {
            sessionId: (await this.session()).id,
            ingredient: this.oneOf(Object.keys(FOODS)),
          }),
      ],
      [3, 'on a shelf', () => this.putOnShelf()],
      [3, 'off the shelves', async () => takeForSession(this.crew, { sessionId: (await this.session()).id })],
      [1, 'trip', () => this.makeTripAndReceive()],
      [2, 'product', () => this.newProduct()],
      [
        2,
        'product in kits',
        async () => setKitLabel(context, { productId: this.oneOf(this.products), use: this.chance() < 0.7 }),
      ],
      [1, 'product gone', async () => removeProduct(context, { productId: this.oneOf(this.products) })],
      [2, 'recipe', () => this.changeRecipe()],
      [
        2,
        'dish',
        async () => addDish(context, { sessionId: (await this.session()).id, recipeId: this.oneOf(this.recipes) }),
      ],
      [1, 'dish off', () => this.dishOff()],
      [6, 'lock', () => this.lock()],
      [1, 'unlock', () => this.unlock()],
      [
        1,
        'refuse',
        async () => {
          const { id } = await this.session();
          const { sheet } = await viewKitSheet(context, { sessionId: id });
          await refuseDifferences(context, { sessionId: id, basis: sheet.basis, reason: 'as it is' });
        },
      ],
      [12, 'ticks', () => this.tick()],
      [
        1,
        'away',
        async () =>
          setAway(context, {
            sessionId: (await this.session()).id,
            people: [
              { enrolmentId: (await this.person()).id, how: this.oneOf(['away', 'usual', 'usual', 'take-home']) },
            ],
          }),
      ],
      [
        1,
        'left out',
        async () =>
          leaveOut(context, {
            sessionId: (await this.session()).id,
            enrolmentId: (await this.person()).id,
            reason: 'not this time',
          }),
      ],
      [
        1,
        'put back',
        async () => putBack(context, { sessionId: (await this.session()).id, enrolmentId: (await this.person()).id }),
      ],
      [2, 'moved', () => this.move()],
      [
        1,
        'mode',
        async () => this.edit(await this.session(), { mode: this.oneOf(['in person', 'take-home', 'live online']) }),
      ],
      [
        1,
        'cook-by',
        async () => {
          const session = await this.session();
          const last = Temporal.PlainDate.from(session.date).add({ days: this.upTo(5) });
          await this.edit(session, { cookBy: this.chance() < 0.3 ? '' : last.toString() });
        },
      ],
      [1, 'split', () => this.split()],
      [2, 'undo', async () => undoChange(context, { changeId: this.oneOf(await listChanges(context, {})).id })],
      [
        1,
        'cancelled',
        async () => {
          const { id, version } = await this.session();
          await cancelSession(context, { sessionId: id, version, cancelled: true, because: 'storm' });
        },
      ],
      [
        1,
        'group',
        () =>
          addGroup(context, {
            courseId: this.courseId,
            name: `Group ${v7().slice(-4)}`,
            firstName: 'First',
            daysAfter: this.upTo(3),
            startsAt: '10:00',
            place: 'Boatshed',
            instructorId: null,
          }),
      ],
      [1, 'home', () => this.changeHome()],
      [
        1,
        'siblings',
        async () =>
          shareKit(context, {
            courseId: this.courseId,
            householdId: (await this.person()).householdId,
            share: this.chance() < 0.7,
          }),
      ],
      [1, 'supplies', () => this.changeSupplies()],
      [1, 'ways', () => this.changeWays()],
      [
        1,
        'extras',
        async () =>
          setExtras(context, {
            sessionId: (await this.session()).id,
            reserve: this.upTo(2),
            tasters: this.upTo(2),
            crew: this.upTo(2),
          }),
      ],
      [2, 'not collected', () => this.notCollected()],
      [2, 'given away', () => this.giveAway()],
      [2, 'taken over', () => this.takeOver()],
      [1, 'cooked days later', () => this.daysLater()],
      [
        2,
        'time',
        async () => {
          this.clock.hours += this.upTo(18);
        },
      ],
    ];
    const sum = acts.reduce((all, [weight]) => all + weight, 0);
    let at = this.chance() * sum;
    for (const [weight, name, run] of acts) {
      at -= weight;
      if (at < 0) return [name, run];
    }
    return ['nothing', async () => undefined];
  }

  private async changeNeed(of?: EnrolmentRow): Promise<void> {
    const person = of ?? (await this.person());
    const groups = await find(this.context.store.db, this.context.store.db.models.courseGroup, {
      courseId: this.courseId,
    });
    const group = groups.length > 0 ? this.oneOf(groups).name : '';
    const [household] = await find(this.context.store.db, this.context.store.db.models.household, {
      id: person.householdId,
    });
    const written = {
      name: person.name,
      age: this.age(),
      servings: String(person.servings),
      avoids: this.need(),
      group,
      household: household?.name ?? '',
    };
    await editPerson(this.context, { enrolmentId: person.id, version: person.version, cells: cells(written) });
  }

  private async changeStatus(): Promise<void> {
    const { id, version } = await this.person();
    await setStatus(this.context, {
      enrolmentId: id,
      version,
      status: this.oneOf(['enrolled', 'enrolled', 'withdrawn', 'waitlisted']),
    });
  }

  /** Mostly of a food that goes into the session's kits. */
  private async readLabel(of?: string): Promise<void> {
    const id = of ?? (await this.session()).id;
    const { dishes } = await loadBundle(this.context, id);
    const inside = dishes.flatMap(({ body }) =>
      (body as { lines: { ingredient: string }[] }).lines.map(({ ingredient }) => ingredient),
    );
    const ingredient = this.oneOf(inside.length > 0 && this.chance() < 0.9 ? inside : Object.keys(FOODS));
    const product = `Pack ${this.upTo(3)}`;
    await recordLabel(this.context, { sessionId: id, ingredient, product, allergens: this.label(ingredient) });
  }

  private async newProduct(): Promise<void> {
    const ingredient = this.oneOf(Object.keys(FOODS));
    const name = `Product ${v7()}`;
    await addProduct(this.context, {
      ingredient,
      name,
      packGrams: '500',
      price: '',
      labelRead: true,
      allergens: this.label(ingredient),
    });
    const { db } = this.context.store;
    const [made] = await find(db, db.models.product, { name, programmeId: this.context.actor.programmeId });
    if (made) this.products.push(made.id);
  }

  private async changeRecipe(): Promise<void> {
    const recipeId = this.oneOf(this.recipes);
    const draft = await editRecipe(this.context, { recipeId });
    const other = this.oneOf(this.oneOf(DISHES));
    const kept = draft.lines.filter(() => this.chance() < 0.8);
    const added = this.chance() < 0.5 ? [{ section: '', text: `${other.ingredient}`, settled: other, items: [] }] : [];
    await saveEdited(this.context, { ...draft, lines: [...kept, ...added], recipeId });
  }

  private async dishOff(): Promise<void> {
    const { id } = await this.session();
    const { dishes } = await loadBundle(this.context, id);
    await removeDish(this.context, { sessionId: id, dishId: this.oneOf(dishes).id });
  }

  /** Whoever cannot get a kit is mostly left out, so that the others get theirs. */
  private async lock(): Promise<void> {
    const { id } = await this.session();
    const draft = async () => (await viewKitSheet(this.context, { sessionId: id })).sheet;
    const refused = (await draft()).draft?.variants.filter(({ components }) => !components) ?? [];
    for (const { participants } of this.chance() < 0.8 ? refused : [])
      for (const { id: enrolmentId } of participants)
        await leaveOut(this.context, { sessionId: id, enrolmentId, reason: 'cannot be made' });
    const sheet = await draft();
    await lockKitSheet(this.context, { sessionId: id, basis: sheet.basis });
  }

  private async unlock(): Promise<void> {
    const { id } = await this.session();
    const { bundle } = await viewKitSheet(this.context, { sessionId: id });
    await unlockSheet(this.context, {
      sessionId: id,
      revision: bundle.sheet?.revision ?? 0,
      reason: 'to change it',
    });
  }

  private async tick(): Promise<void> {
    const { id } = await this.session();
    const { sheet, events } = await viewBench(this.crew, { sessionId: id });
    const kit = this.oneOf(sheet.kits);
    const known = [
      ...new Set([
        ...kit.components,
        ...events.filter((event) => event.kitId === kit.id && event.component).map(({ component }) => component),
      ]),
    ];
    const ticks = this.some(known, 0.6).map((component) => ({
      id: v7(),
      kitId: kit.id,
      component,
      action: this.chance() < 0.7 ? 'packed' : 'undone',
    }));
    await recordTicks(this.crew, { sessionId: id, ticks });
  }

  private async move(): Promise<void> {
    const { id, version, date } = await this.session();
    const to = Temporal.PlainDate.from(date)
      .add({ days: this.upTo(6) - 3 })
      .toString();
    await moveSession(this.context, { sessionId: id, version, date: to, startsAt: '15:00' });
  }

  private async split(): Promise<void> {
    const { id, version, date } = await this.session();
    const { dishes } = await loadBundle(this.context, id);
    const to = {
      title: 'Part',
      date: Temporal.PlainDate.from(date).add({ days: 1 }).toString(),
      startsAt: '16:00',
      minutes: 60,
      place: 'Boatshed',
    };
    await this.readLabel(id);
    const read = await this.labelled(id);
    const dishIds = [this.oneOf(dishes).id];
    const part = await splitSession(this.context, { sessionId: id, version, ...to, dishIds });
    // Whoever read a label for these dishes read it for both parts.
    const [kept, there] = [await this.labelled(id), await this.labelled(part)];
    const lost = read.filter((food) => kept.includes(food) && !there.includes(food));
    if (lost.length > 0) throw new Error(`the split lost the labels of ${lost.join(', ')}`);
  }

  /** Something with a label that was read, which may hold what nobody looks for in its food. */
  private async putOnShelf(): Promise<void> {
    const ingredient = this.oneOf(Object.keys(FOODS));
    await addLot(this.crew, {
      id: v7(),
      ingredient,
      name: `Lot ${v7().slice(-6)}`,
      packs: 0,
      packGrams: null,
      grams: 200 + this.upTo(2000),
      storage: 'shelf',
      lastDay: '2027-06-01',
      lastKind: 'best before',
      origin: 'bought',
      labelRead: true,
      allergens: this.label(ingredient),
    });
  }

  /** To the shop: what was planned, or something else in its place whose label says what it says; then it is checked in. */
  private async makeTripAndReceive(): Promise<void> {
    const { shops } = await viewPriceBook(this.context, {});
    const weekdays = [1, 2, 3, 4, 5, 6, 7];
    const shopId =
      shops[0]?.id ?? (await addShop(this.context, { name: 'Shop', weekdays, aisles: [], tripCost: '1.00' }));
    if (shops.length === 0)
      for (const ingredient of Object.keys(FOODS))
        await fillHole(this.context, {
          ingredient,
          shopId,
          name: `Usual ${ingredient}`,
          packGrams: 500,
          price: '1.00',
          soldBy: 'pack',
        });
    const toDay = this.context
      .clock()
      .add({ hours: 30 * 24 })
      .toString()
      .slice(0, 10);
    await makeBuyingPlan(this.context, { toDay });
    const { plan } = await viewBuyingPlan(this.context, {});
    const visit = this.oneOf(plan?.planned.trips ?? []);
    const tripId = await makeTrip(this.context, { shopId, day: visit.day });
    const { lines } = await viewTrip(this.crew, { tripId });
    for (const { id: lineId, body } of lines) {
      const hand = {
        name: `Other ${v7().slice(-6)}`,
        packGrams: 400,
        price: 90,
        label: this.chance() < 0.8 ? this.label(body.ingredient) : null,
      };
      const answer =
        this.chance() < 0.5
          ? { kind: 'taken', packs: body.packs, price: body.price }
          : { kind: 'instead', packs: body.packs, hand };
      await answerTrip(this.crew, { tripId, answers: [{ id: v7(), lineId, answer }] });
    }
    const on = { lastDay: '2027-06-01', lastKind: 'best before', storage: 'shelf', refused: 0 };
    await receiveTrip(this.crew, {
      tripId,
      lines: lines.map(({ id: lineId, body }) => ({ id: v7(), lineId, packs: body.packs, ...on })),
    });
  }

  private async changeHome(): Promise<void> {
    const { householdId } = await this.person();
    const { db } = this.context.store;
    const [household] = await find(db, db.models.household, { id: householdId });
    const home = {
      staples: this.some(Object.keys(FOODS), 0.2),
      box: this.some(Object.keys(FOODS), 0.15).map((ingredient) => ({ ingredient, grams: '40' })),
    };
    await setHome(this.context, { householdId, version: household?.version, home });
  }

  /** A jar of oil that goes out once and is drawn down, and spoons; or neither. */
  private async changeSupplies(likely = 0.7): Promise<void> {
    const { course } = await viewKitRules(this.context, { courseId: this.courseId });
    const jar = { id: 'oil', kind: 'jar', name: 'olive oil', grams: '90', from: 1 };
    const spoons = { id: 'spoons', kind: 'issue once', name: 'measuring spoons', from: 1 };
    const rules = { supplies: this.chance() < likely ? [jar, spoons] : [], cutsFrom: 8 };
    await setKitRules(this.context, { courseId: this.courseId, version: course.version, rules });
  }

  private async changeWays(): Promise<void> {
    const { id } = await this.session();
    const { dishes } = await loadBundle(this.context, id);
    const dish = this.oneOf(dishes);
    const foods = (dish.body as { lines: { ingredient: string }[] }).lines.map(({ ingredient }) => ingredient);
    const ways = [...new Set(foods)].map((ingredient) => ({
      ingredient,
      way: this.oneOf(['measured', 'whole', 'station']),
    }));
    await setLineWays(this.context, { sessionId: id, dishId: dish.id, ways, serves: null });
  }

  private async notCollected(): Promise<void> {
    const { id } = await this.session();
    await recordAttendance(this.context, {
      sessionId: id,
      id: v7(),
      enrolmentId: (await this.person()).id,
      state: this.oneOf(['not collected', 'collected', 'came']),
    });
  }

  /** To anybody, mostly after it was noted that nobody fetched it. */
  private async giveAway(): Promise<void> {
    const { id: sessionId } = await this.session();
    const { sheet } = await viewKitSheet(this.context, { sessionId });
    const { id: kitId, enrolmentId } = this.oneOf(sheet.locked?.kits ?? []);
    if (this.chance() < 0.7)
      await recordAttendance(this.context, { sessionId, id: v7(), enrolmentId, state: 'not collected' });
    await decideKit(this.context, {
      sessionId,
      id: v7(),
      kitId,
      fate: this.oneOf(['given away', 'given away', 'held', 'taken apart']),
      toId: (await this.person()).id,
    });
  }

  private async edit(session: SessionRow, change: object): Promise<void> {
    const { id: sessionId, version, title, date, startsAt, minutes, place, mode } = session;
    const whole = { sessionId, version, title, date, startsAt, minutes, place, mode };
    await editSession(this.context, { ...whole, ...change });
  }

  private readonly labelled = async (sessionId: string) => {
    const { db } = this.context.store;
    return (await find(db, db.models.productLabel, { sessionId })).map(({ ingredient }) => ingredient);
  };

  /** A kit that nobody fetched goes to one of those it is offered to, who then mostly tells a need. */
  private async takeOver(): Promise<void> {
    const { id: sessionId } = await this.session();
    const { sheet } = await viewKitSheet(this.context, { sessionId });
    const { enrolmentId } = this.oneOf(sheet.locked?.kits ?? []);
    await recordAttendance(this.context, { sessionId, id: v7(), enrolmentId, state: 'not collected' });
    const { kits } = await viewNotFetched(this.context, { sessionId });
    const kit = this.oneOf(kits.filter(({ takers }) => takers.length > 0));
    const taker = this.oneOf(kit.takers);
    const given = { sessionId, id: v7(), kitId: kit.id, fate: 'given away', toId: taker.id };
    await decideKit(this.context, given);
    if (this.chance() < 0.6) await this.changeNeed((await this.people()).find(({ id }) => id === taker.id));
  }

  /** A session whose own date is past, and whose families cook, or whose second group meets, days after it. */
  private async daysLater(): Promise<void> {
    const packed = await find(this.context.store.db, this.context.store.db.models.kitSheet, {});
    const session = this.oneOf(
      (await this.sessions()).filter(({ id }) => packed.some(({ sessionId }) => sessionId === id)),
    );
    const own = Temporal.PlainDate.from(session.date);
    await this.edit(session, { cookBy: own.add({ days: 5 }).toString() });
    const now = this.context.clock().toZonedDateTimeISO('UTC');
    const hours = now.until(own.add({ days: 4 }).toZonedDateTime('UTC')).total('hours');
    if (hours > 0) this.clock.hours += Math.ceil(hours);
    for (let at = 0; at < 4; at++) await this.changeNeed();
  }

  /** Every kit, and the texts about those of one session. */
  async look(): Promise<{ kits: number; held: number; texts: number; found: string[] }> {
    const today = this.context.clock().toString().slice(0, 10);
    const verdicts = await this.judge.verdicts(today);
    const found: string[] = [];
    for (const { sessionId, number, name, isHeld, why, isSure, kitId } of verdicts) {
      if (why.length > 0 && !isHeld)
        found.push(`kit ${number} of ${name} in ${sessionId.slice(-6)} goes on, although ${why.join('; ')}`);
      if (why.length === 0 && isHeld && isSure)
        found.push(
          `kit ${number} of ${name} in ${sessionId.slice(-6)} is called back for nothing${await this.ownWords(sessionId, kitId)}`,
        );
    }
    let texts = 0;
    const looked = verdicts.length > 0 ? verdicts[this.upTo(verdicts.length - 1)] : undefined;
    if (looked) texts = await this.lookAtTexts(looked.sessionId, verdicts, found);
    return { kits: verdicts.length, held: verdicts.filter(({ isHeld }) => isHeld).length, texts, found };
  }

  /** What the product itself says of a kit that the judge finds safe: for whoever looks into it. */
  private async ownWords(sessionId: string, kitId: string): Promise<string> {
    const { bundle, sheet, programme } = await viewKitSheet(this.context, { sessionId });
    if (!bundle.sheet) return '';
    const facts = {
      reference: programme.reference,
      labels: new Map(Object.entries(sheet.input.labels)),
      taken: await takenFor(this.context, this.context.store.db, [sessionId]),
    };
    const hold = kitsToHold(readSnapshot(bundle.sheet), sheet.participants, facts, packedNow(bundle.events));
    return `: ${hold.get(kitId)?.join('; ') ?? 'and the product finds nothing either'}`;
  }

  private async lookAtTexts(
    sessionId: string,
    all: Awaited<ReturnType<Judge['verdicts']>>,
    found: string[],
  ): Promise<number> {
    const kits = all.filter((verdict) => verdict.sessionId === sessionId);
    const { bundle, sheet } = await viewKitSheet(this.context, { sessionId });
    if (!sheet.locked || !bundle.sheet) return 0;
    const { labels } = await labelsToPrint(this.context, { sessionId, paper: 'a4' });
    const { text } = await exportSheet(this.context, { sessionId });
    const reply = await API?.run(this.context, { params: { sessionId }, query: {}, accepts: () => false } as never);
    const told = new Map(
      (reply && 'json' in reply ? (reply.json as ToldSheet).kits : []).map(({ id, calledBack }) => [id, calledBack]),
    );
    for (const { kitId, number, isHeld, toName } of kits) {
      const label = labels.find((each) => each.kitId === kitId);
      for (const word of toName)
        if (label && !label.allergens.includes(word))
          found.push(`the label of kit ${number} does not say ${word}: ${label.allergens}`);
      if (isHeld !== Boolean(label?.madeWithout.startsWith('CALLED BACK')))
        found.push(`the label of kit ${number} ${isHeld ? 'does not say' : 'says'} that it is called back`);
      if (isHeld !== Boolean(told.get(kitId)))
        found.push(`the API says of kit ${number} that it is ${isHeld ? 'not ' : ''}called back`);
      if (isHeld && !text.includes('called back')) found.push(`the CSV does not say that kit ${number} is called back`);
    }
    for (const { number, madeWithout, kitId } of labels) {
      // What a label promises must be so: by the judge's own table, what may be in the kit is none of it.
      const inside = kits.find((kit) => kit.kitId === kitId)?.toName ?? [];
      const promised = /^Made without (.+)\.$/.exec(madeWithout)?.[1]?.split(', ') ?? [];
      const broken = promised.filter((word) => inside.includes(word));
      if (broken.length > 0) found.push(`the label of kit ${number} promises it is made without ${broken.join(', ')}`);
    }
    const stopped = kits.filter(({ isHeld }) => isHeld);
    if (this.chance() < 0.02 && stopped.length > 0) {
      const files = {
        PDF: textOfPdf((await exportSheetPdf(this.context, { sessionId })).bytes),
        workbook: await textOfWorkbook((await exportSheetBook(this.context, { sessionId })).bytes),
      };
      for (const [file, said] of Object.entries(files))
        for (const { number, name } of stopped)
          if (!said.includes('CALLED BACK') || !said.includes(`${number} ${name}`))
            found.push(`the ${file} does not say that kit ${number} of ${name} is called back`);
    }
    try {
      const seen = await viewAttendance(this.context, { sessionId });
      const room = await viewRoom(this.context, { sessionId });
      for (const { id, name, needs } of await this.people()) {
        const told = room.people.find((each) => each.id === id);
        const unsaid = needs.filter((need) => told && !told.avoids.some(({ asWritten }) => asWritten === need));
        if (unsaid.length > 0) found.push(`the room is not told that ${name} wrote ${unsaid.join(', ')}`);
        if (needs.length > 0 && !told && seen.people.some((each) => each.id === id))
          found.push(`the room is not told of ${name}`);
      }
      const byPerson = new Map(sheet.locked.kits.map(({ id, enrolmentId }) => [enrolmentId, id]));
      for (const { id, isCalledBack, name } of seen.people) {
        const kit = kits.find(({ kitId }) => kitId === byPerson.get(id));
        if (kit && kit.isHeld !== isCalledBack)
          found.push(`at the door ${name} is ${isCalledBack ? '' : 'not '}told to be called back`);
      }
    } catch (error) {
      // The room opens shortly before the class.
      if (!(error instanceof ServiceError)) throw error;
    }
    return kits.length;
  }
}
