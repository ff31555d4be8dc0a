import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { insert } from '@/store/query';
import type { Store } from '@/store/store';
import { cells, NOW, newProgramme, newSession, testStore } from '../../../tests/programme';
import * as account from '../access/account';
import * as doors from '../access/doors';
import * as members from '../access/members';
import * as secondStep from '../access/second-step';
import * as choices from '../buying/choices';
import * as lost from '../buying/lost';
import * as buyingPlan from '../buying/plan';
import * as priceFile from '../buying/price-file';
import * as receipt from '../buying/receipt';
import * as receipts from '../buying/receipts';
import * as buying from '../buying/shopping';
import * as shops from '../buying/shops';
import * as stock from '../buying/stock';
import * as takeOut from '../buying/take-out';
import * as trips from '../buying/trips';
import * as attendance from '../classday/attendance';
import * as classMinutes from '../classday/class-minutes';
import * as classWords from '../classday/class-words';
import * as comingNotes from '../classday/coming-notes';
import * as followLater from '../classday/follow-later';
import * as incidents from '../classday/incidents';
import * as liveClass from '../classday/live';
import * as onScreen from '../classday/on-screen';
import * as classday from '../classday/room';
import * as runSheet from '../classday/run-sheet';
import * as substitute from '../classday/substitute';
import * as tasting from '../classday/tasting';
import * as trouble from '../classday/trouble';
import * as closeOut from '../closeout/close-out';
import * as closing from '../closeout/closing';
import * as familyRecord from '../closeout/family-record';
import * as funders from '../closeout/funders';
import * as leftovers from '../closeout/leftovers';
import * as lessons from '../closeout/lessons/lessons';
import * as lookingBack from '../closeout/looking-back';
import * as reports from '../closeout/reports';
import * as computeBuying from '../compute/buying';
import * as compute from '../compute/kits';
import * as computeRoster from '../compute/roster';
import * as computeRoutes from '../compute/routes';
import * as computeRunSheet from '../compute/run-sheet';
import * as countdown from '../countdown/countdown';
import * as crewAsking from '../crew/asking';
import * as crewBusy from '../crew/busy';
import * as crewHours from '../crew/hours';
import * as crewOwn from '../crew/own-page';
import * as crewPeople from '../crew/people';
import * as crewPlaces from '../crew/places';
import * as crewRoster from '../crew/roster';
import * as sessionCrew from '../crew/session-crew';
import * as stepIn from '../crew/step-in';
import * as crewTable from '../crew/table';
import * as devices from '../equipment/equipment';
import * as find from '../find/find';
import * as handoutDoors from '../handout/doors';
import * as driving from '../handout/driving';
import * as handoutFamilies from '../handout/families';
import * as notFetched from '../handout/not-fetched';
import * as rounds from '../handout/rounds';
import * as handoutTable from '../handout/table';
import * as decide from '../kits/decide';
import * as kits from '../kits/kit-sheet';
import * as planning from '../kits/planning';
import * as rules from '../kits/rules';
import * as messages from '../messages/messages';
import * as bench from '../packing/bench';
import * as labels from '../packing/labels';
import * as packLine from '../packing/line';
import * as coldFailure from '../packing/made/cold-failure';
import * as madeLog from '../packing/made/log';
import * as made from '../packing/made/made';
import * as prep from '../packing/prep';
import * as calendar from '../plan/calendar';
import * as cancel from '../plan/cancel';
import * as changes from '../plan/changes';
import * as closures from '../plan/closures';
import * as courses from '../plan/courses';
import * as feeds from '../plan/feeds';
import * as groups from '../plan/groups';
import * as markedDays from '../plan/marked-days';
import * as places from '../plan/places';
import * as season from '../plan/season';
import * as sessions from '../plan/sessions';
import * as split from '../plan/split';
import * as households from '../privacy/households';
import * as firstRun from '../programme/first-run';
import * as programme from '../programme/programme';
import * as putBack from '../programme/put-back';
import * as drafts from '../recipes/drafts';
import * as history from '../recipes/history';
import * as products from '../recipes/products';
import * as recipes from '../recipes/recipes';
import * as table from '../recipes/reference-table';
import * as steps from '../recipes/steps';
import * as suits from '../recipes/suits';
import * as away from '../roll/away';
import * as home from '../roll/home';
import * as reserve from '../roll/reserve';
import * as roll from '../roll/roll';
import * as rollFile from '../roll/roll-file';
import * as work from '../work/jobs';
import { type Context, ROLES, type Role, SERVICES } from './gate';
import { MOST_AN_HOUR } from './security-log';

const MODULES = [
  account,
  doors,
  secondStep,
  members,
  devices,
  messages,
  households,
  work,
  classday,
  attendance,
  classMinutes,
  classWords,
  comingNotes,
  followLater,
  incidents,
  liveClass,
  onScreen,
  substitute,
  tasting,
  trouble,
  closeOut,
  closing,
  leftovers,
  find,
  familyRecord,
  lookingBack,
  funders,
  reports,
  lessons,
  runSheet,
  decide,
  away,
  home,
  notFetched,
  handoutDoors,
  handoutTable,
  handoutFamilies,
  driving,
  rounds,
  packLine,
  made,
  madeLog,
  coldFailure,
  prep,
  planning,
  rules,
  reserve,
  buying,
  buyingPlan,
  choices,
  receipt,
  receipts,
  lost,
  priceFile,
  shops,
  stock,
  takeOut,
  trips,
  compute,
  computeBuying,
  computeRoster,
  computeRoutes,
  computeRunSheet,
  countdown,
  crewAsking,
  crewBusy,
  crewHours,
  crewOwn,
  crewPeople,
  crewPlaces,
  crewRoster,
  sessionCrew,
  stepIn,
  crewTable,
  kits,
  bench,
  labels,
  calendar,
  cancel,
  changes,
  closures,
  courses,
  feeds,
  groups,
  places,
  season,
  sessions,
  split,
  programme,
  putBack,
  drafts,
  history,
  products,
  recipes,
  steps,
  suits,
  table,
  roll,
  rollFile,
  firstRun,
  markedDays,
];

let store: Store;
let own: Record<Role, Context>;
let foreign: Record<Role, Context>;
beforeAll(async () => {
  store = await testStore();
  own = await newProgramme(store);
  foreign = await newProgramme(store);
});
afterAll(() => store.close());

/** What everyone may do. */
const FOR_ALL = [
  'List what one may look for by its name: courses, sessions, people, recipes, foods, the crew',
  'See what is known of a session after it, to close it out',
  'Note what was left, bad or broken after a session, and how long its work took',
  'Close a session: what is noted of it teaches from then on',
  'Say what becomes of what is left of a lot after a session',
  'See a class while it runs: who does what now, and how it stands',
  'See what was said in a class since',
  'Say what happens in a class: begun, done, a temperature, what ran short, a question',
  'Plan the rest of a class again, from where it stands',
  'Cook with something else today: who is at the station is looked at again first',
  'See what ran short or was wrong in a class, and which kits can still be put right',
  'See what to do when somebody in the room is hurt or unwell, the family’s plan first',
  'Note that somebody was hurt or unwell, what was done, and who was told',
  'See what the children of a class may say of its dishes, and what they said',
  'Say what one thinks of a dish, with a name or without',
  'Note that somebody came late, left early, or was fetched, and by whom',
  'See whom of the roll a pasted list of names or a chat names',
  'Note that those who are in the call came',
  'See what families of a class on screen lack at home, and what will do instead',
  'Begin to watch something that was made: it cools, is kept, is heated again, or stands',
  'Hand kits out, or say that nobody came for them',
  'Note a temperature of something that was made',
  'Note what the scale says of a component, or of what is left in a bowl',
  'Say from the road what happened at the doors',
  'Say from which lot a food goes into the kits from now on',
  'Say how many pack a session side by side',
  'Say what became of something that was made: kept, served, thrown away',
  'Say which motions of a prep day are begun or done',
  'Serve or pack what was made ahead and kept',
  'See whether one drives a round today',
  'See which programmes one belongs to',
  'See the run sheet of a class: who does what when, and whether it fits',
  'See a bench as a line of packers, its pace, and what runs out',
  'See a round to the doors, on its day',
  'See the kits that are handed out at a table, and to whom',
  'See the plan of a prep day for the hands there are',
  'See what happened at a hand-out since',
  'See what is made ahead for a session, and its temperatures',
  'See what was done of a prep day since',
  'Begin to set up a code beside the password',
  'Calculate kits from a recipe, without saving',
  'Change one’s own password',
  'End one of one’s own sign-ins',
  'Get new recovery codes',
  'Note that all came of whom nothing is noted yet',
  'Note that somebody of the crew came, or went',
  'Note who came, fetched their kit, or cooked it',
  'Say yes or no to a duty of one’s own',
  'See one’s own duties',
  'See who of the crew is expected at a session, and who is there',
  'Plan the cheapest buying for a whole plan, without saving',
  'Work out the best roster, without saving',
  'Work out the best rounds to the doors, without saving',
  'Work out the best run sheet of a class, without saving',
  'Put something on a simulated instrument',
  'Read the scale, the probe and the scanner',
  'See the pack bench of a session',
  'See what those in the room must know about its children',
  'See what was ticked since',
  'See where one is signed in',
  'See whether one signs in with a code beside the password',
  'See which sessions can be packed or attended',
  'See who is expected, to note who came',
  'Sign in with a code beside the password from now on',
  'Sign in without a code again',
  'Sign out everywhere',
  'Tick components at the bench, or take ticks back',
];

/** What instructors may do besides. */
const FOR_INSTRUCTORS = [
  'Open a closed session again, with the reason',
  'Say how a class spends the minutes in which nobody cooks: opening, showing, eating, cleaning',
  'See what sessions teach, how sure it is, and what it would change',
  'Write what families who cook later are told of the lesson',
  'See what families who cook later are told, what they said, and their pictures',
  'See a picture that a family sent of what it cooked',
  'See a recipe',
  'See a recipe as a card for a family',
  'See the products of a food',
  'See the steps of a recipe, their order and the shortest time',
  'See a recipe with its versions, and what a serving costs',
  'See all recipes',
  'See all recipes with what one looks for them by',
  'See one food of the reference table, and how its weights came about',
  'See the reference table',
  'Take out a recipe as JSON-LD',
  'Take out a recipe as CSV',
];

/** What those at the shelf and at the door do besides: no roll, no family. */
const FOR_CREW = [
  'Attach a photograph of the receipt to a trip',
  'See the photograph of a trip’s receipt',
  'Check in what a trip brought: accept it, or refuse it with the reason',
  'Note what was counted on a shelf',
  'Print the label of something on a shelf',
  'See what a failed fridge or freezer touches, and what becomes of it',
  'Note what was taken, opened, moved, frozen, thawed or thrown away',
  'Put something on a shelf',
  'Say at the shelf what was taken, was not there, or was taken instead',
  'Say what a trip cost and who paid',
  'See a trip to a shop',
  'See the trips to come and those of the last days',
  'See what happened on a trip since',
  'See what stands on the shelves',
  'See what the shelves have for a session',
  'Take a gift of food, or refuse it with the reason',
  'Take off the shelves what a session’s kits are made of',
];

const PLACE = { name: 'Loft', seats: '', hours: [], equipment: {}, minutesBefore: 0, minutesAfter: 0, outdoor: null };

describe('the one gate', () => {
  it('knows every service, each under a title of its own', () => {
    const exported = MODULES.flatMap((module) => Object.values(module)).filter(
      (value) => typeof value === 'function' && 'roles' in value,
    );
    expect(new Set(SERVICES)).toEqual(new Set(exported));
    expect(new Set(SERVICES.map(({ title }) => title)).size).toBe(SERVICES.length);
  });

  it('lets coordinators do everything, instructors teach, and crew do what bench and room need', () => {
    const allowed = (role: Role) =>
      SERVICES.filter(({ roles }) => roles.includes(role))
        .map(({ title }) => title)
        .sort();
    expect(allowed('coordinator')).toEqual(SERVICES.map(({ title }) => title).sort());
    expect(allowed('instructor')).toEqual([...FOR_ALL, ...FOR_INSTRUCTORS].sort());
    expect(allowed('crew')).toEqual([...FOR_ALL, ...FOR_CREW].sort());
  });

  it('refuses a role it does not name before it looks at anything: it keeps that it was tried, and no more', async () => {
    for (const each of SERVICES) {
      for (const role of ROLES.filter((candidate) => !each.roles.includes(candidate))) {
        const before = store.queries();
        const input = new Proxy({}, { get: () => expect.fail(`${each.title} looked at what was sent`) });
        await expect(each(own[role], input), `${role}: ${each.title}`).rejects.toMatchObject({ kind: 'forbidden' });
        // Counting the event, and the event.
        expect(store.queries() - before, each.title).toBeLessThanOrEqual(3);
      }
    }
    const kept = await store.db.models.securityEvent.count({ where: { actorId: own.crew.actor.id, kind: 'refused' } });
    // Somebody who tries everything is kept so often in an hour, and no more.
    expect(kept).toBe(Math.min(MOST_AN_HOUR, SERVICES.filter(({ roles }) => !roles.includes('crew')).length));
  });

  it('names the place of every input it cannot use', async () => {
    await expect(
      sessions.addSession(own.coordinator, {
        courseId: 'x',
        title: '',
        date: '2026-02-29',
        startsAt: '25:00',
        minutes: 'ten',
        place: 'Boatshed',
        mode: 'flying',
      }),
    ).rejects.toMatchObject({
      kind: 'invalid',
      problems: [
        { where: 'courseId' },
        { where: 'title' },
        { where: 'date', message: 'There is no such day in the calendar.' },
        { where: 'startsAt' },
        { where: 'minutes' },
        { where: 'mode' },
      ],
    });
    await expect(bench.recordTicks(own.crew, { sessionId: v7(), ticks: [{ id: 'one' }] })).rejects.toMatchObject({
      problems: [{ where: 'ticks[0].id' }, {}, {}, {}],
    });
  });
});

describe('another programme', () => {
  it('is as if it were not there, for every service that names a course, session, recipe or person', async () => {
    const { courseId, sessionId, recipeId, people, basis } = await newSession(own.coordinator, [{ name: 'Ada' }]);
    const [enrolmentId] = people;
    await kits.lockKitSheet(own.coordinator, { sessionId, basis: await basis() });
    const { sheet } = await bench.viewBench(own.crew, { sessionId });
    const [kit] = sheet.kits;
    const [household] = await households.listHouseholds(own.coordinator, {});
    const job = await labels.sendToPrinter(own.coordinator, { sessionId, paper: 'a4' });
    await members.inviteMember(own.coordinator, { email: `${v7()}@example.test`, role: 'crew' });
    await members.makeToken(own.coordinator, { name: 'till', role: 'crew', days: 1 });
    const { invitations, tokens } = await members.listMembers(own.coordinator, {});
    const [invitation] = invitations;
    const [token] = tokens;
    const placeId = await places.addPlace(own.coordinator, PLACE);
    const closureId = await closures.addClosure(own.coordinator, {
      title: 'X',
      from: '2027-01-01',
      to: '2027-01-01',
      placeId,
    });
    const { calendars } = await closures.listClosures(own.coordinator, {});
    const shop = { name: 'Quay market', weekdays: [6], aisles: [], tripCost: '1.00' };
    const shopId = await shops.addShop(own.coordinator, shop);
    const lot = {
      id: v7(),
      ingredient: 'egg',
      packs: 1,
      packGrams: 350,
      storage: 'fridge',
      lastDay: '2026-12-10',
      lastKind: 'best before',
      origin: 'bought',
    };
    await stock.addLot(own.coordinator, lot);
    const crewId = await crewPeople.addCrewMember(own.coordinator, { name: 'X' });
    const tripId = v7();
    const trip = {
      id: tripId,
      programmeId: own.coordinator.actor.programmeId,
      shopId,
      day: '2026-11-21',
      state: 'to do' as const,
    };
    const blank = { paid: null, payer: '', seq: 0, at: new Date(), actorId: own.coordinator.actor.id };
    await insert(store.db, store.db.models.trip, [{ ...trip, ...blank }]);
    const roundId = v7();
    const round = { id: roundId, sessionId, date: '2026-11-20', crewId: null, driver: 'X', litres: null, isHome: 1 };
    const hours = { fromMinute: 900, toMinute: 1080, leaves: 900, stops: [], leftAt: null, endedAt: null };
    await insert(store.db, store.db.models.doorRound, [{ ...round, ...hours, toldLateAt: null, version: 1 }]);
    const feed = await feeds.makeFeed(own.coordinator, { scope: 'programme', scopeId: '' });
    await cancel.cancelSession(own.coordinator, { sessionId, version: 1, cancelled: false });
    const [change] = await changes.listChanges(own.coordinator, {});
    const slots = [{ startsAt: '10:00', minutes: 60 }];
    const laid = {
      cadence: { rule: 'FREQ=DAILY', slots },
      from: '2027-01-01',
      to: '',
      days: 2,
      onClosure: 'keep',
      place: 'X',
      modes: ['in person'],
      instructorId: '',
    };
    const plan = { title: 'X', date: '2026-12-01', startsAt: '10:00', minutes: 60, place: 'X', mode: 'in person' };
    const usual = { daysAfter: 1, startsAt: '10:00', place: 'X', instructorId: '' };
    const group = await groups.addGroup(own.coordinator, { courseId, name: 'B', firstName: 'A', ...usual });
    const row = [{ line: 2, cells: cells({ name: 'X' }) }];
    const tick = { id: v7(), kitId: kit?.id, component: kit?.components[0], action: 'packed' };
    const ics = new TextEncoder().encode('BEGIN:VCALENDAR\r\nVERSION:2.0\r\nEND:VCALENDAR');
    const inputs: Record<string, object> = {
      'Change a shop, its days and its aisles': { ...shop, shopId, version: 1 },
      'Write down what a product costs in a shop': { shopId, productId: v7(), price: '1.00' },
      'Add a product of a food with what it costs': {
        ingredient: 'egg',
        shopId,
        name: 'X',
        packGrams: 10,
        price: '1.00',
      },
      'Note what was taken, opened, moved, frozen, thawed or thrown away': {
        id: v7(),
        lotId: lot.id,
        kind: 'opened',
        packs: 1,
      },
      'Note what was counted on a shelf': { moves: [{ id: v7(), lotId: lot.id, packs: 1, grams: 0 }] },
      'See what the shelves have for a session': { sessionId },
      'Take off the shelves what a session’s kits are made of': { sessionId },
      'See where a lot went: its kits, families and dates': { lotId: lot.id },
      'Make a trip of a planned visit': { shopId, day: '2026-11-21' },
      'Say yes or no to a duty of one’s own': { promiseId: v7(), answer: 'yes' },
      'Note that somebody of the crew came, or went': { sessionId, crewId },
      'See who of the crew is expected at a session, and who is there': { sessionId },
      'Change when somebody of the crew came and went, or take it out': {
        sessionId,
        stayId: v7(),
        version: 1,
        came: 600,
        went: 660,
      },
      'See the crew of a session': { sessionId },
      'See a duty of a session: who is there and why, who could step in, and what would fill it': {
        sessionId,
        duty: 'lead',
      },
      'Note that somebody of the crew cannot come after all, or said yes or no by telephone': {
        promiseId: v7(),
        answer: 'no',
      },
      'Put somebody at a duty by hand, take them away, pin them, or rule them out': {
        changes: [{ sessionId, duty: 'lead', crewId, what: 'put' }],
      },
      'Change a duty of a session by hand, add one, or leave one out': { sessionId, duty: 'lead', reason: 'X' },
      'Have a duty of a session as it follows from the plan again': { sessionId, duty: 'lead' },
      'Ask several people for one place: whoever says yes first has it': {
        sessionId,
        duty: 'lead',
        crewIds: [crewId],
      },
      'Plan who does what, as well as can be done': { sessionId },
      'Publish a roster: ask everybody who is planned': { sessionId },
      'Remind those who were asked and have not answered': { sessionId },
      'See what the coming sessions need people for, and who does it': { sessionId },
      'Note from a calendar file when somebody of the crew is busy': { crewId, version: 1, bytes: ics },
      'Make or see the personal link of somebody of the crew': { crewId },
      'End the personal link of somebody of the crew': { crewId },
      'Change somebody of the crew': { crewId, version: 1, name: 'X' },
      'Note that somebody of the crew is sick, or well again': { crewId, version: 1, lastSymptom: null },
      'Take back that somebody of the crew was noted as sick: what they had promised is theirs again': {
        crewId,
        version: 1,
        sickUntil: null,
        theirs: [],
      },
      'Erase somebody of the crew': { crewId, version: 1 },
      'See a trip to a shop': { tripId },
      'Attach a photograph of the receipt to a trip': { tripId, bytes: new Uint8Array([0xff, 0xd8, 0xff, 0xe0]) },
      'See the photograph of a trip’s receipt': { tripId },
      'See what of a trip came short, and what would mend it': { tripId },
      'See what happened on a trip since': { tripId, after: 0 },
      'Say at the shelf what was taken, was not there, or was taken instead': {
        tripId,
        answers: [{ id: v7(), lineId: v7(), answer: { kind: 'not there' } }],
      },
      'Say what a trip cost and who paid': { tripId, paid: '1.00', payer: 'X' },
      'Check in what a trip brought: accept it, or refuse it with the reason': {
        tripId,
        lines: [
          { id: v7(), lineId: v7(), packs: 1, refused: 0, lastDay: '2026-12-10', lastKind: 'use by', storage: 'shelf' },
        ],
      },
      'Pin a product, leave out a visit or a shop, or set a budget, and plan again': {
        version: 1,
        change: { kind: 'shop', shopId, on: false },
      },
      'See the doors that kits go to, and the rounds there': { sessionId },
      'Say where a family’s door is, and when somebody is there': {
        householdId: household?.id,
        version: 1,
        point: '44, -68',
      },
      'Take the doors of a session out as CSV': { sessionId },
      'Plan the rounds to the doors': {
        sessionId,
        date: '2026-12-01',
        from: '15:00',
        to: '18:00',
        drivers: [{ name: 'X', from: '15:00', to: '18:00' }],
      },
      'Change by hand which doors a round goes to, and in which order': {
        sessionId,
        rounds: [{ id: v7(), version: 1, stops: [] }],
      },
      'Take a round away': { sessionId, roundId: v7() },
      'Write to the families when and where they get their kits': { sessionId },
      'See a round to the doors, on its day': { roundId },
      'Say from the road what happened at the doors': {
        roundId,
        events: [{ id: v7(), what: 'left', at: '2026-11-20T12:00:00Z' }],
      },
      'See the kits that are handed out at a table, and to whom': { sessionId },
      'See what happened at a hand-out since': { sessionId, after: 0 },
      'Hand kits out, or say that nobody came for them': {
        sessionId,
        events: [{ id: v7(), kitId: kit?.id, what: 'handed', at: '2026-11-20T12:00:00Z' }],
      },
      'See a bench as a line of packers, its pace, and what runs out': { sessionId },
      'Say how many pack a session side by side': { sessionId, packers: 4 },
      'Note what the scale says of a component, or of what is left in a bowl': {
        sessionId,
        id: v7(),
        kitId: kit?.id,
        component: kit?.components[0],
        grams: 10,
      },
      'Say from which lot a food goes into the kits from now on': { sessionId, id: v7(), lotId: lot.id },
      'See what is made ahead for a session, and its temperatures': { sessionId },
      'Begin to watch something that was made: it cools, is kept, is heated again, or stands': {
        sessionId,
        id: v7(),
        name: 'Stew',
        kind: 'cool',
      },
      'Note a temperature of something that was made': { sessionId, batchId: v7(), id: v7(), degrees: '41' },
      'Serve or pack what was made ahead and kept': { sessionId, id: v7(), lotId: lot.id, grams: 10 },
      'Print the label of something on a shelf': { lotId: lot.id },
      'Say what became of something that was made: kept, served, thrown away': {
        sessionId,
        batchId: v7(),
        version: 1,
        outcome: 'kept',
      },
      'See a session’s shopping list': { sessionId },
      'See the jobs of a session': { sessionId },
      'Mark a job done, or not done': { sessionId, job: 'buying', done: true },
      'Add a job that only one session has': {
        sessionId,
        title: 'X',
        stage: 'buying',
        minutes: 5,
        hours: 'any',
        before: 'packing',
      },
      'Take away a job that only one session has': { sessionId, job: v7() },
      'Show, hide or re-time a job of a session or of its whole course': {
        sessionId,
        job: 'thaw',
        for: 'course',
        on: true,
      },
      'See what moves with a session before moving it': { sessionId, date: '2026-12-01', startsAt: '10:00' },
      'See what hangs on a session before cancelling it': { sessionId },
      'See what stands against a session as it is being written': { courseId, ...plan },
      'Move a session, or one of its groups, to another day, hour or place': {
        sessionId,
        version: 1,
        date: '2026-12-01',
        startsAt: '10:00',
      },
      'Cancel a session or one of its groups, or hold it after all': { sessionId, version: 1, cancelled: true },
      'Take an outdoor session to its fallback: the weather is bad': { sessionId, version: 1 },
      'Split a session: some of its dishes on another day': {
        sessionId,
        version: 1,
        dishIds: [v7()],
        ...plan,
      },
      'Give a course to one more group': { courseId, name: 'Y', firstName: 'X', ...usual },
      'Change a group, and where it meets from now on': { groupId: group.id, version: 1, name: 'Y' },
      'Stop giving a course to a group': { groupId: group.id, version: 1 },
      'Take a way out of a conflict': { sessionId, version: 1, startsAt: '10:00' },
      'Take a change of the plan back': { changeId: change?.id },
      'Put back what was taken away': { changeId: change?.id },
      'Change a course': { courseId, version: 1, title: 'X', rollClosesDays: 5 },
      'See a course’s sessions with what stands against each': { courseId },
      'See a season before laying it down': { courseId, ...laid },
      'Lay down the sessions of a season': { courseId, version: 1, ...laid },
      'Repeat a course in another season': { courseId, title: 'X', from: '2027-01-01' },
      'Find a place in the week for a course': {
        courseId,
        from: '2027-01-01',
        to: '2027-02-01',
        minutes: 60,
        weekdays: [1],
        earliest: '10:00',
        latest: '12:00',
        people: 1,
      },
      'Change a place': { placeId, version: 1, ...PLACE },
      'Take a place away': { placeId },
      'Say how long the way between two places takes': { fromId: placeId, toId: v7(), minutes: 5 },
      'Take a closure away': { closureId },
      'Take a calendar of closures away': { calendarId: calendars[0]?.id },
      'End a calendar address': { feedId: feed.id },
      'Take out the plan as a calendar file': { scope: 'course', scopeId: courseId },
      'Make an address under which a calendar program reads the plan': { scope: 'place', scopeId: placeId },
      'Bring in the closures of a calendar file': {
        name: 'X',
        placeId,
        closures: [{ title: 'X', from: '2027-01-01', to: '2027-01-01' }],
      },
      'Add a closure of one’s own': { title: 'X', from: '2027-01-01', to: '2027-01-01', placeId },
      'See a session’s kit sheet': { sessionId },
      'Lock a kit sheet, or accept its differences': { sessionId, basis: '0'.repeat(64) },
      'Leave a kit out of a session, with a reason': { sessionId, enrolmentId, reason: 'because' },
      'Put a kit that was left out back in': { sessionId, enrolmentId },
      'Record the label of the product used': { sessionId, ingredient: 'egg', product: 'X', allergens: [] },
      'Take back a recorded label': { sessionId, ingredient: 'egg' },
      'See who is expected, to note who came': { sessionId },
      'Note that all came of whom nothing is noted yet': { sessionId },
      'Note who came, fetched their kit, or cooked it': { sessionId, id: v7(), enrolmentId, state: 'came' },
      'Refuse the differences of a locked kit sheet': { sessionId, basis: '0'.repeat(64), reason: 'because' },
      'Unlock a kit sheet, with a reason': { sessionId, revision: 1, reason: 'because' },
      'Say that somebody misses a session, or comes to it another way': {
        sessionId,
        people: [{ enrolmentId, how: 'away' }],
      },
      'Give the siblings of a household one kit, or several': { courseId, householdId: household?.id, share: true },
      'Compare one version for everybody with separate ones': { sessionId },
      'Say whether those who avoid different things share a version': { sessionId, versions: 'one' },
      'See what goes with the kits of a course beside measured food': { courseId },
      'Say what goes with the kits of a course beside measured food': { courseId, version: 1, rules: {} },
      'Say how the lines of a dish travel, and how many it serves here': {
        sessionId,
        dishId: v7(),
        ways: [],
        serves: 4,
      },
      'See how many kits a stock makes, and what rescues the rest': { sessionId },
      'See a household: who it is, and what it has at home': { householdId: household?.id },
      'Write down what a household has at home and agreed to': { householdId: household?.id, version: 1, home: {} },
      'See how a number came about': { sessionId, of: 'draft', variant: 'A', row: 0 },
      'Take out a kit sheet as CSV': { sessionId },
      'Take out a kit sheet as XLSX': { sessionId },
      'Take out a kit sheet as PDF': { sessionId },
      'See the kits that nobody fetched, and what may become of them': { sessionId },
      'Say what became of a kit that nobody fetched': { sessionId, id: v7(), kitId: kit?.id, fate: 'held' },
      'Say that people were asked, and avoid nothing more than is written': { courseId, enrolmentIds: [enrolmentId] },
      'See the pack bench of a session': { sessionId },
      'See what was ticked since': { sessionId, since: 0 },
      'Tick components at the bench, or take ticks back': { sessionId, ticks: [tick] },
      'Print the labels of a session': { sessionId, paper: 'a4' },
      'See the labels of a session': { sessionId, paper: 'a4' },
      'Send the labels of a session to the label printer': { sessionId, paper: 'a4' },
      'See a session with its dishes and how far it is': { sessionId },
      'See what those in the room must know about its children': { sessionId },
      'See the run sheet of a class: who does what when, and whether it fits': { sessionId },
      'See a class while it runs: who does what now, and how it stands': { sessionId },
      'See what was said in a class since': { sessionId, after: 0 },
      'Say what happens in a class: begun, done, a temperature, what ran short, a question': {
        sessionId,
        now: NOW.toString(),
        events: [{ id: v7(), what: 'short', item: 'egg', at: NOW.toString() }],
      },
      'Plan the rest of a class again, from where it stands': { sessionId, id: v7() },
      'Cook with something else today: who is at the station is looked at again first': {
        sessionId,
        id: v7(),
        food: 'egg',
        station: 'all',
      },
      'See what ran short or was wrong in a class, and which kits can still be put right': { sessionId },
      'See what to do when somebody in the room is hurt or unwell, the family’s plan first': { sessionId },
      'Note that somebody was hurt or unwell, what was done, and who was told': {
        id: v7(),
        sessionId,
        hurt: 'cut',
        words: 'A finger.',
        hasCalled: false,
      },
      'Add to what was noted of an incident': { id: v7(), incidentId: v7(), words: 'More.' },
      'See the incidents of a session': { sessionId },
      'See what is known of a session after it, to close it out': { sessionId },
      'Note what was left, bad or broken after a session, and how long its work took': {
        sessionId,
        notes: [{ id: v7(), what: 'note' }],
      },
      'See a report of past sessions: of a span, a course, a session, for a funder': { courseId },
      'Save a report as PDF, as a workbook, or as CSV': { courseId, as: 'csv' },
      'Write down who is reported to: their wording, period, currency and logo': {
        funderId: v7(),
        version: 1,
        name: 'X',
      },
      'Look back at a course: how it went, what to keep, what to change': { courseId },
      'See what differs between a course and the one it was repeated from': { courseId, fromId: courseId },
      'See what a family took part in, cooked and tried: its own record, on asking': { householdId: household?.id },
      'See somebody who is reported to': { funderId: v7() },
      'Take out somebody who is reported to': { funderId: v7() },
      'Close a session: what is noted of it teaches from then on': { sessionId, id: v7() },
      'Open a closed session again, with the reason': { sessionId, reason: 'X' },
      'Say what becomes of what is left of a lot after a session': {
        id: v7(),
        sessionId,
        lotId: lot.id,
        fate: 'kept',
      },
      'Take, change or refuse what sessions teach': {
        kind: 'amount',
        ofId: recipeId,
        item: 'egg',
        version: 1,
        word: 'taken',
        percent: 120,
      },
      'See what the children of a class may say of its dishes, and what they said': { sessionId },
      'Say what one thinks of a dish, with a name or without': {
        sessionId,
        events: [{ id: v7(), dishId: v7(), face: 'not yet' }],
      },
      'Note that somebody came late, left early, or was fetched, and by whom': {
        id: v7(),
        sessionId,
        enrolmentId,
        kind: 'late',
      },
      'See whom of the roll a pasted list of names or a chat names': { sessionId, pasted: 'Ada' },
      'Note that those who are in the call came': { sessionId, ids: [enrolmentId] },
      'See what families of a class on screen lack at home, and what will do instead': { sessionId },
      'Say how a class spends the minutes in which nobody cooks: opening, showing, eating, cleaning': {
        sessionId,
        opening: 10,
        demonstration: 5,
        eating: 15,
        cleaning: 15,
      },
      'Write what families who cook later are told of the lesson': { sessionId, version: 0, words: 'X' },
      'See what families who cook later are told, what they said, and their pictures': { sessionId },
      'See a picture that a family sent of what it cooked': { pictureId: v7() },
      'Take out all that is held about a household': { householdId: household?.id },
      'Erase a household': { householdId: household?.id, version: 1 },
      'See how far a job is': { jobId: job?.jobId },
      'Cancel a job': { jobId: job?.jobId },
      'Look at a print-out': { printOutId: v7() },
      'Take back an invitation': { linkId: invitation?.id },
      'Take back an API token': { tokenId: token?.id },
      'Change what a member may do': { memberId: own.crew.actor.id, version: 1, role: 'instructor' },
      'Remove a member, and sign them out everywhere': { memberId: own.crew.actor.id, version: 1 },
      'End one of one’s own sign-ins': { signInId: v7() },
      'See a course with its sessions': { courseId },
      'Add a session': { courseId, ...plan },
      'Change a session’s date, place or mode': { sessionId, version: 1, ...plan },
      'Choose a dish for a session': { sessionId, recipeId },
      'Take a dish off a session': { sessionId, dishId: v7() },
      'See a session, and whether its dishes suit the class': { sessionId },
      'Find dishes for the sessions of a course': { courseId },
      'Write down what the label of a product says': { productId: v7(), allergens: [] },
      'Take a product away': { productId: v7() },
      'Say that kits take the label of a product': { productId: v7(), use: true },
      'Say what is made beside the kits: swap-ins, tasters, crew, reserve': { sessionId, crew: 2 },
      'Choose what fills a flexible slot of a dish': { sessionId, dishId: v7(), written: 'carrot', chosen: 'kale' },
      'Correct the servings of a recipe by weighing a finished batch': {
        recipeId,
        version: 1,
        grams: 900,
        role: 'main',
        eater: 'adults',
      },
      'Take the newest version of a recipe into one that is made of it': { recipeId, version: 1, subId: v7() },
      'See a recipe': { recipeId },
      'Open a recipe for editing': { recipeId },
      'See the steps of a recipe, their order and the shortest time': { recipeId },
      'Settle how a step is planned, or read it from its words again': { recipeId, version: 1, step: 0 },
      'See a recipe with its versions, and what a serving costs': { recipeId },
      'Save the next version of a recipe, or a variation of it': {
        recipeId,
        version: 1,
        title: 'X',
        servings: 1,
        lines: [{ text: '1 cup milk' }],
        steps: [],
      },
      'See a recipe as a card for a family': { recipeId },
      'Confirm how many servings a recipe makes': { recipeId, version: 1, servings: 4 },
      'Say that a recipe is right as it is': { recipeId, version: 1, key: 'x' },
      'Take out a recipe as JSON-LD': { recipeId },
      'Take out a recipe as CSV': { recipeId },
      'See a course’s roll': { courseId },
      'Take out a roll as CSV': { courseId },
      'Take out a roll as XLSX': { courseId },
      'Read a roll file before saving it': { courseId, bytes: new Uint8Array([65]) },
      'Bring a roll in from a file': { courseId, rows: row },
      'Add a person to a roll': { courseId, cells: cells({ name: 'X' }) },
      'Change a person on a roll': { enrolmentId, version: 1, cells: cells({ name: 'X' }) },
      'Withdraw a person, enrol them, or put them on the waitlist': { enrolmentId, version: 1, status: 'withdrawn' },
      'Change the mode, the group or the servings of several people at once': {
        people: [{ enrolmentId, version: 1, servings: 2 }],
      },
      'Say for several people how they take part in the course’s next session': {
        courseId,
        enrolmentIds: [enrolmentId],
        how: 'away',
      },
      'Withdraw several people, or take a change of their status back': {
        people: [{ enrolmentId, version: 1 }],
        status: 'withdrawn',
      },
    };
    const named = new Set(Object.keys(inputs));
    const unnamed = SERVICES.filter(({ title }) => !named.has(title))
      .map(({ title }) => title)
      .sort();
    expect(unnamed).toEqual(
      [
        'See what sessions teach, how sure it is, and what it would change',
        'Write the programme’s own opening, fire and closing routines, and the number to call',
        'Bring points, addresses and hours of doors in as CSV',
        'Say where the kitchen is, and how quickly one drives from there',
        'Say which motions of a prep day are begun or done',
        'See all temperatures that were taken, for an inspector',
        'See whether one drives a round today',
        'See which programmes one belongs to',
        'See the plan of a prep day for the hands there are',
        'See what a failed fridge or freezer touches, and what becomes of it',
        'Throw away what a failed fridge or freezer spoilt, and pack the kits’ cold parts anew',
        'See what was done of a prep day since',
        'Take the temperatures out as CSV',
        'Add a course',
        'Add somebody to the crew',
        'Ask for more adults in a class than the table does',
        'Bring a crew in from a file',
        'Save the hours of the crew as a file, a statement or a certificate for each',
        'See one’s own duties',
        'See people against duties, to change by hand',
        'See the hours of the crew',
        'See the crew',
        'Take the crew out as CSV',
        'Add a food to the reference table',
        'Forget that some words are a name of a food',
        'Add a place',
        'Add a shop',
        'Add a product with its pack, price and label',
        'Begin to set up a code beside the password',
        'Bring in the public holidays of a country or region',
        'Get new recovery codes',
        'Say whether coordinators must sign in with a code beside the password',
        'See what happened at the doors',
        'See whether one signs in with a code beside the password',
        'Sign in with a code beside the password from now on',
        'Sign in without a code again',
        'Calculate kits from a recipe, without saving',
        'Change one’s own password',
        'Change the programme’s settings',
        'Invite somebody to the programme',
        'Keep a food for fewer days than the table says',
        'List what one may look for by its name: courses, sessions, people, recipes, foods, the crew',
        'Look into a calendar file before bringing it in',
        'Make an API token',
        'Bring prices in from a file',
        'Take the price book out as CSV',
        'Take the trips out as CSV, for the book-keeper',
        'See what must be used up, by what, and what was lost',
        'Plan the buying for all sessions of a span',
        'Plan the cheapest buying for a whole plan, without saving',
        'Work out the best roster, without saving',
        'Work out the best rounds to the doors, without saving',
        'Work out the best run sheet of a class, without saving',
        'Put something on a shelf',
        'Take a gift of food, or refuse it with the reason',
        'See the price book',
        'See the trips to come and those of the last days',
        'See what stands on the shelves',
        'See what to buy, when and where',
        'Put a measure of a food on the scale',
        'Put something on a simulated instrument',
        'Read a recipe file before saving it',
        'Read one line of a recipe again',
        'Read recipes from text or a file before saving them',
        'Read the scale for a weighing',
        'Read the scale, the probe and the scanner',
        'Save a recipe that was brought in line by line',
        'Save a recipe',
        'Say which containers kits are packed in',
        'See everything that is prepared on a day, by food and cut',
        'Say what a family’s words mean',
        'Say what a wasted kit and a child turned away cost',
        'Say when the programme usually does a job',
        'Say when the shops are open and the crew works',
        'See all closures',
        'See all courses',
        'See all households and how long their data is kept',
        'See all places',
        'See all recipes',
        'See all recipes with what one looks for them by',
        'See one food of the reference table, and how its weights came about',
        'See the calendar addresses',
        'See the calendar of all sessions',
        'See the countdown',
        'See the last changes of the plan',
        'See the outbox',
        'See the products of a food',
        'See the reference table',
        'See what families’ words mean',
        'See what lies in the label printer’s tray',
        'See which days are closed, and which have sessions',
        'See where one is signed in',
        'See which sessions can be packed or attended',
        'See who can teach',
        'See who looked at what people must avoid',
        'See who works with the programme',
        'Sign out everywhere',
        'Smell the slips of a recipe before saving it',
        'Take back a meaning',
        'See how far setting up has come, and what a country proposes',
        'See which steps of setting up are still open',
        'Say in which country the programme is: measures, money, dates and holidays follow',
        'Leave out a step of setting up, or take it up again',
        'Try the program with a sample course',
        'Take the sample away, with all that was done with it',
        'Try what else may fill the open lines of the dishes to be bought for',
      ].sort(),
    );
    const [mine, theirs] = [own.coordinator.actor.programmeId, foreign.coordinator.actor.programmeId];
    const logged = () => store.db.models.change.count({ where: { programmeId: [mine, theirs] } });
    const before = await logged();
    for (const each of SERVICES.filter(({ title }) => named.has(title))) {
      await expect(each(foreign.coordinator, inputs[each.title]), each.title).rejects.toMatchObject({
        kind: 'not-found',
      });
    }
    expect(await logged()).toBe(before);
    expect(await households.listHouseholds(foreign.coordinator, {})).toEqual([]);
    expect(await households.listLooks(foreign.coordinator, {})).toEqual([]);
    expect(await messages.listMessages(foreign.coordinator, {})).toEqual([]);
    expect(await courses.listCourses(foreign.coordinator, {})).toEqual([]);
    expect(await classday.listDuties(foreign.crew, {})).toEqual([]);
    expect((await countdown.viewCountdown(foreign.coordinator, {})).threads).toEqual([]);
    expect((await calendar.viewCalendar(foreign.coordinator, {})).sessions).toEqual([]);
    expect((await places.listPlaces(foreign.coordinator, {})).places).toEqual([]);
    expect((await closures.listClosures(foreign.coordinator, {})).calendars).toEqual([]);
    expect(await feeds.listFeeds(foreign.coordinator, {})).toEqual([]);
    expect((await planning.viewPrepList(foreign.coordinator, { date: '2026-11-26' })).sessions).toEqual([]);
    expect((await prep.viewPrepPlan(foreign.crew, { date: '2026-11-26' })).sessions).toEqual([]);
    const failed = { storage: 'fridge' as const, hours: 9, degrees: '20C' };
    expect((await coldFailure.viewColdFailure(foreign.coordinator, failed)).found?.lots).toEqual([]);
    expect((await madeLog.viewTemperatures(foreign.coordinator, {})).batches).toEqual([]);
    expect((await stock.viewStock(foreign.crew, {})).lots).toEqual([]);
    expect(await trips.listTrips(foreign.crew, {})).toEqual([]);
    expect((await shops.viewPriceBook(foreign.coordinator, {})).shops).toEqual([]);
    expect(await changes.listChanges(foreign.coordinator, {})).toEqual([]);
    await table.addFood(own.coordinator, {
      name: 'samphire',
      aisle: 'produce',
      storage: 'cold',
      daysWhole: 3,
      daysOpened: 1,
    });
    expect((await table.viewReference(foreign.coordinator, { search: 'samphire' })).foods).toEqual([]);
    expect((await courses.listTeachers(foreign.coordinator, {})).map(({ name }) => name)).toEqual([
      'coordinator',
      'instructor',
    ]);
  });
});
