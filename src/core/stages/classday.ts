import { TAUGHT } from './modes';
import type { Stage } from './stage';

/** The class itself. */
export const classday: Stage<'classday'> = {
  key: 'classday',
  title: 'Class',
  jobs: [
    {
      key: 'set-up',
      title: 'Set up the room',
      after: ['packing', 'buying'],
      effort: { fixed: 30 },
      hours: 'any',
      modes: ['in person', 'demonstration'],
      perGroup: true,
      few: false,
      limits: ({ start }) => ({ notBefore: { at: start - 180, why: 'the room is set up on the day' } }),
    },
    {
      key: 'weather',
      title: 'Decide on the weather, tell everyone',
      after: [],
      effort: { fixed: 20 },
      hours: 'any',
      modes: TAUGHT,
      perGroup: true,
      few: true,
      outdoor: true,
      limits: ({ start }, { outdoor }) => {
        const hours = outdoor?.decideHours ?? 24;
        return { finishBy: { at: start - hours * 60, why: `the weather is decided on ${hours} hours before` } };
      },
    },
    {
      key: 'carry-in',
      title: 'Carry in fuel and water',
      after: ['weather'],
      effort: { fixed: 45 },
      hours: 'crew',
      modes: TAUGHT,
      perGroup: true,
      few: true,
      outdoor: true,
    },
    {
      key: 'fire',
      title: 'Light the fire, watch it',
      after: ['carry-in'],
      effort: { fixed: 60 },
      hours: 'any',
      modes: TAUGHT,
      perGroup: true,
      few: true,
      outdoor: true,
      limits: ({ start }, { outdoor }) => {
        const minutes = outdoor?.lightingMinutes ?? 60;
        return {
          notBefore: { at: start - minutes - 60, why: 'a fire is never left alone' },
          finishBy: { at: start, why: 'the class starts' },
          minutes,
        };
      },
    },
    {
      key: 'reheat',
      title: 'Reheat the swap-ins through, once',
      after: ['swap-in', 'set-up'],
      effort: { fixed: 30 },
      hours: 'any',
      modes: TAUGHT,
      perGroup: true,
      few: true,
      swapIn: true,
      limits: ({ start }) => ({
        notBefore: { at: start - 120, why: 'what is reheated is kept hot, two hours at most' },
      }),
    },
    {
      key: 'classday',
      title: 'Teach',
      byTheClock: true,
      after: ['set-up', 'deliver', 'fire', 'swap-in', 'reheat'],
      effort: { fixed: 0 },
      hours: 'any',
      modes: TAUGHT,
      perGroup: true,
      few: true,
      limits: ({ start }, { minutes }) => ({ at: start, minutes }),
    },
  ],
  countsTo: 'start',
  page: ({ id }) => `/room/${id}/run-sheet`,
  go: 'Open the run sheet',
};
