import { DAY } from '../plan/civil';
import { ALL, TAUGHT, WITH_KITS } from './modes';
import { type Frame, type Limits, plural, type Stage } from './stage';

/** Hours that food keeps before a session, cold: the usual caution, which a course may only make stricter. */
const COOKED_HOURS = 48;
const PACKED_HOURS = 24;
const HOME_HOURS = 48;

const keepsCold = ({ start, later }: Frame): Limits =>
  later
    ? {}
    : {
        notBefore: {
          at: start - COOKED_HOURS * 60,
          why: `what is cooked ahead keeps ${COOKED_HOURS} hours, cold`,
        },
      };

/** What is made ready and packed. */
export const packing: Stage<'packing'> = {
  key: 'packing',
  title: 'Pack',
  jobs: [
    {
      key: 'thaw',
      title: 'Ripen and thaw',
      after: ['buying', 'receive'],
      effort: { fixed: DAY },
      hours: 'any',
      modes: ALL,
      perGroup: true,
      few: false,
      onRequest: true,
    },
    {
      key: 'cook-ahead',
      title: 'Cook ahead, soak or marinate',
      after: ['buying', 'receive', 'thaw'],
      effort: { fixed: 90, perKit: 1 },
      hours: 'crew',
      modes: ALL,
      perGroup: true,
      few: false,
      onRequest: true,
      limits: keepsCold,
    },
    {
      key: 'swap-in',
      title: 'Make the swap-ins, cool them within two hours, chill',
      after: ['buying', 'receive', 'thaw'],
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
      after: ['buying', 'receive', 'thaw', 'cook-ahead'],
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
      why: `${kitsDone} of ${plural(kits, 'kit')} packed, ${ticksNeeded - ticks} components to go.`,
    };
  },
  doneGroups: ({ packedGroups = [] }) => packedGroups,
  page: ({ id }) => `/sessions/${id}/packing`,
  go: 'Go to packing',
};
