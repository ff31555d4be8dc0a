import { DAY } from '../plan/civil';
import { plural, type Stage } from './stage';

/** Hours before an online class by which the kits are in the homes. */
const HOME_BEFORE = 2;

/** How kits reach those who cook. */
export const handout: Stage<'handout'> = {
  key: 'handout',
  title: 'Hand out',
  jobs: [
    {
      key: 'handout',
      title: 'Hand out the kits',
      after: ['packing'],
      effort: { fixed: 0 },
      hours: 'any',
      modes: ['take-home'],
      perGroup: true,
      few: true,
      limits: ({ start }, { minutes }) => ({ at: start, minutes }),
    },
    {
      key: 'deliver',
      title: 'Deliver to the doors',
      after: ['packing'],
      effort: { fixed: 15, perKit: 8 },
      hours: 'crew',
      modes: ['live online'],
      perGroup: true,
      few: true,
      limits: ({ start }) => ({
        finishBy: { at: start - HOME_BEFORE * 60, why: `kits are in the homes ${HOME_BEFORE} hours before the class` },
      }),
    },
    {
      key: 'send-later',
      title: 'Hand out after the lesson',
      after: ['packing', 'classday'],
      effort: { fixed: 30, perKit: 2 },
      hours: 'crew',
      modes: ['follow-later'],
      perGroup: true,
      few: true,
      limits: ({ cookBy }) => ({ finishBy: { at: cookBy - DAY, why: 'families cook the day after they get it' } }),
    },
  ],
  standing: ({ handed = 0, kits }) =>
    handed > 0 && handed < kits
      ? { state: 'doing', why: `${handed} of ${plural(kits, 'kit')} handed out.` }
      : { state: 'can start', why: '' },
  page: ({ id }) => `/sessions/${id}/handout`,
  go: 'Go to the hand-out',
};
