import { ALL } from './modes';
import { plural, type Stage } from './stage';

/** What each of them gets. */
export const kits: Stage<'kits'> = {
  key: 'kits',
  title: 'Kits',
  jobs: [
    {
      key: 'kits',
      title: 'Lock the kit sheet',
      after: ['recipes', 'roll'],
      effort: { fixed: 15 },
      hours: 'any',
      modes: ALL,
      few: true,
      byItself: true,
    },
  ],
  standing: ({ revision, differs, dishes, participants, refusedKits }) => {
    if (revision > 0 && !differs) return { state: 'done', why: `Locked, version ${revision}.` };
    if (revision > 0)
      return { state: 'doing', why: 'The roll, a dish or a label moved after the lock: look at the differences.' };
    if (dishes === 0 || participants === 0) return { state: 'due later', why: 'Needs dishes and a roll.' };
    return refusedKits
      ? { state: 'doing', why: `${plural(refusedKits, 'kit')} cannot be made safely yet.` }
      : { state: 'can start', why: 'Calculated and ready to be locked.' };
  },
  page: ({ id }) => `/sessions/${id}/kits`,
  go: 'Open the kit sheet',
};
