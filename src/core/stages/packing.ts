import { DAY } from '../plan/civil';
import { ALL, TAUGHT, WITH_KITS } from './modes';
import { type Frame, type Limits, plural, type Stage } from './stage';

/** Hours that food keeps before a session, cold: the usual caution, which a course may only make stricter. */
const COOKED_HOURS = 48;
const PACKED_HOURS = 24;
const HOME_HOURS = 48;
/** Days that ripe fruit keeps in a fridge, short on purpose. */
const RIPE_DAYS = 2;

/** "30 minutes", "24 hours" */
const sayLength = (minutes: number): string =>
  minutes < 120 ? `${minutes} minutes` : `${Math.floor(minutes / 60)} hours`;

const keepsCold = ({ start, later }: Frame): Limits =>
  later
    ? {}
    : {
        notBefore: {
          at: start - COOKED_HOURS * 60,
          why: `what is cooked ahead keeps ${COOKED_HOURS} hours, cold`,
        },
      };

/** One job for all foods of a kind: as long as the slowest takes. */
function longest<Each extends { readonly food: string }>(
  foods: readonly Each[] = [],
  minutesOf: (each: Each) => number,
  say: (foods: string) => string,
) {
  if (foods.length === 0) return undefined;
  return { title: say(foods.map(({ food }) => food).join(', ')), minutes: Math.max(...foods.map(minutesOf)) };
}

/** What is made ready and packed. */
export const packing: Stage<'packing'> = {
  key: 'packing',
  title: 'Pack',
  jobs: [
    {
      key: 'ripen',
      title: 'Look whether the fruit is ripe',
      // Bought hard, it came before the rest; what is hard still is bought ripe.
      after: [],
      effort: { fixed: 10 },
      hours: 'any',
      modes: ALL,
      few: false,
      onRequest: true,
      asked: ({ waiting }) =>
        longest(
          waiting?.ripens,
          () => 10,
          (foods) => `Look whether the ${foods} are ripe: chill what is, buy ripe what is not`,
        ),
      limits: ({ start }) => ({
        notBefore: { at: start - RIPE_DAYS * DAY, why: `ripe fruit keeps about ${RIPE_DAYS} days, chilled` },
      }),
    },
    {
      key: 'thaw',
      title: 'Thaw in the fridge',
      after: ['buying', 'receive'],
      effort: { fixed: DAY },
      hours: 'any',
      modes: ALL,
      perGroup: true,
      few: false,
      onRequest: true,
      asked: ({ waiting }) =>
        longest(
          waiting?.thaws,
          ({ hours }) => hours * 60,
          (foods) => `Thaw ${foods} in the fridge`,
        ),
    },
    {
      key: 'cook-ahead',
      title: 'Cook ahead, soak or marinate',
      after: ['buying', 'receive', 'ripen', 'thaw'],
      effort: { fixed: 90, perKit: 1 },
      hours: 'crew',
      modes: ALL,
      perGroup: true,
      few: false,
      onRequest: true,
      asked: ({ ahead }) =>
        ahead
          ? {
              title: ahead.most === null ? ahead.title : `${ahead.title} (no longer than ${sayLength(ahead.most)})`,
              minutes: ahead.hands,
            }
          : undefined,
      limits: keepsCold,
    },
    {
      // Apart from the hands: it runs through the night.
      key: 'stand',
      title: 'Let stand what was made ahead',
      after: ['cook-ahead'],
      effort: { fixed: 0 },
      hours: 'any',
      modes: ALL,
      perGroup: true,
      few: false,
      onRequest: true,
      asked: ({ ahead }) =>
        ahead && ahead.alone > 0 ? { title: `It stands: ${ahead.title}`, minutes: ahead.alone } : undefined,
    },
    {
      key: 'swap-in',
      title: 'Make the swap-ins, cool them within two hours, chill',
      after: ['buying', 'receive', 'ripen', 'thaw'],
      effort: { fixed: 90 },
      hours: 'crew',
      modes: TAUGHT,
      perGroup: true,
      few: true,
      swapIn: true,
      limits: keepsCold,
    },
    {
      key: 'packing',
      title: 'Pack',
      after: ['buying', 'receive', 'ripen', 'thaw', 'cook-ahead', 'stand'],
      effort: { fixed: 20, perKit: 3 },
      hours: 'crew',
      modes: WITH_KITS,
      perGroup: true,
      few: true,
      limits: ({ start, cookBy, online, later }) => {
        if (later) return { finishBy: { at: cookBy - DAY, why: 'families cook the day after they get it' } };
        if (online)
          return {
            notBefore: {
              at: start - HOME_HOURS * 60,
              why: `cold kits leave at most ${HOME_HOURS} hours before they are cooked`,
            },
            finishBy: { at: start, why: 'the class starts' },
          };
        return {
          notBefore: {
            at: start - PACKED_HOURS * 60,
            why: `cold food is packed at most ${PACKED_HOURS} hours ahead`,
          },
          finishBy: { at: start, why: 'the session starts' },
        };
      },
    },
  ],
  standing: ({ revision, kits, kitsDone, ticks, ticksNeeded }) => {
    if (revision === 0) return { state: 'due later', why: 'Packing starts from a locked kit sheet.' };
    if (kits > 0 && kitsDone === kits) return { state: 'done', why: `All ${plural(kits, 'kit')} packed.` };
    if (ticks === 0) return { state: 'can start', why: `${plural(kits, 'kit')} to pack.` };
    return {
      state: 'doing',
      why: `${kitsDone} of ${plural(kits, 'kit')} packed, ${ticksNeeded - ticks} ingredients to go.`,
    };
  },
  doneGroups: ({ packedGroups = [] }) => packedGroups,
  page: ({ id }) => `/sessions/${id}/packing`,
  go: 'Go to packing',
};
