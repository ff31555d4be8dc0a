import type { Findable } from '@/core/find/finder';
import { ROLES, type Role } from '@/services/gate/gate';

type Screen = readonly [title: string, href: string, words: string, roles?: readonly Role[]];

const DESK: readonly Role[] = ['coordinator'];
const COOKS: readonly Role[] = ['coordinator', 'instructor'];

/** Screens that are reached from anywhere, with other words for them. */
const SCREENS: readonly Screen[] = [
  ['Countdown', '/', 'home today jobs', DESK],
  ['Calendar', '/calendar', 'dates month week', DESK],
  ['Week sheet', '/week-sheet', 'print week', DESK],
  ['Courses', '/courses', 'classes seasons', DESK],
  ['Places', '/places', 'rooms kitchens venues', DESK],
  ['Closures', '/closures', 'holidays days off school', DESK],
  ['Calendar addresses', '/calendar-addresses', 'subscribe ics feed', DESK],
  ['Crew', '/crew', 'volunteers helpers staff', DESK],
  ['Roster', '/crew/roster', 'volunteers shifts duties', DESK],
  ['Hours of the crew', '/crew/hours', 'statement certificate volunteers', DESK],
  ['Buying', '/buying', 'shopping plan', DESK],
  ['Price book', '/buying/prices', 'prices shops offers', DESK],
  ['Nothing lost', '/buying/lost', 'waste thrown away use up', DESK],
  ['Shelves', '/shelves', 'stock pantry fridge lots', ['coordinator', 'crew']],
  ['Trips', '/trips', 'shopping shop', ['coordinator', 'crew']],
  ['Temperatures', '/temperatures', 'cooling log inspector', DESK],
  ['Recipes', '/recipes', 'dishes', COOKS],
  ['Table of foods', '/reference', 'weights allergens ingredients', COOKS],
  ['Lessons', '/lessons', 'learn left over short', COOKS],
  ['Reports', '/reports', 'funder figures attendance', DESK],
  ['Families’ data', '/families', 'households erase privacy', DESK],
  ['Programme', '/programme', 'settings routines rhythm', DESK],
  ['People', '/people', 'members invite tokens', DESK],
  ['Devices', '/devices', 'printer scale probe scanner messages outbox', DESK],
  ['Bench and class', '/duties', 'pack room today', ROLES],
  ['My duties', '/my', 'my shifts', ['instructor', 'crew']],
  ['Words', '/words', 'help glossary what means', ROLES],
  ['Guide for packers', '/guide', 'help first time print', ROLES],
  ['Account', '/account', 'password sign-in code', ROLES],
];

/** What is done often, by what it is called. */
const ACTIONS: readonly Screen[] = [
  ['Add a course', '/courses', 'new class', DESK],
  ['Bring in a recipe', '/recipes/import', 'paste new import', DESK],
  ['Add somebody to the crew', '/crew/new', 'new volunteer helper', DESK],
  ['Take a gift of food', '/shelves/gift', 'donation given', ['coordinator', 'crew']],
  ['Put something on a shelf', '/shelves/new', 'stock lot', ['coordinator', 'crew']],
  ['Count a shelf', '/shelves/count', 'stock inventory', ['coordinator', 'crew']],
  ['A fridge or freezer failed', '/cold-failed', 'power cut', ['coordinator', 'crew']],
  ['Add closures from a calendar file', '/closures/import', 'ics holidays', DESK],
];

const of = (kind: 'screen' | 'action', all: readonly Screen[], role: Role): Findable[] =>
  all.flatMap(([title, href, words, roles = ROLES]) =>
    roles.includes(role) ? [{ kind, title, beside: '', href, words }] : [],
  );

/** The screens and actions of a role, to be found by name. */
export const screensOf = (role: Role): Findable[] => [...of('screen', SCREENS, role), ...of('action', ACTIONS, role)];
