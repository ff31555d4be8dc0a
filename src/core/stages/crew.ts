import { DAY } from '../plan/civil';
import { ALL } from './modes';
import { plural, type Stage } from './stage';

/** Days before a session by which its crew is to be known. */
const CREW_DAYS = 3;

/** Who does what. */
export const crew: Stage<'crew'> = {
  key: 'crew',
  title: 'Crew',
  jobs: [
    {
      key: 'crew',
      title: 'Confirm the crew',
      after: [],
      effort: { fixed: 30 },
      hours: 'any',
      modes: ALL,
      few: false,
      // Where somebody was planned or asked, a small class has it too.
      asked: ({ crewPlaces: standing }) => (standing ? { title: 'Confirm the crew', minutes: 30 } : undefined),
      // Once people are asked, somebody who drops out on the last day can still be stood in for.
      limits: ({ start }, { crewPlaces }) => ({
        finishBy: crewPlaces
          ? { at: start, why: 'it starts' }
          : { at: start - CREW_DAYS * DAY, why: `the crew is known ${CREW_DAYS} days before` },
      }),
    },
  ],
  standing: ({ crewPlaces: standing, marked }) => {
    if (!standing)
      return marked.has('crew')
        ? { state: 'done', why: 'The crew is confirmed.' }
        : { state: 'can start', why: 'Nobody is planned for its duties yet.' };
    const { places, accepted, asked, planned, empty } = standing;
    if (accepted === places) return { state: 'done', why: `${plural(places, 'place')}, all promised.` };
    const parts = [
      `${accepted} of ${plural(places, 'place')} promised`,
      ...(asked > 0 ? [`${asked} asked`] : []),
      ...(planned > 0 ? [`${planned} planned`] : []),
      ...(empty > 0 ? [`${empty} empty`] : []),
    ];
    return { state: 'doing', why: `${parts.join(', ')}.` };
  },
  page: ({ id }) => `/sessions/${id}/crew`,
  go: 'Open the crew',
};
