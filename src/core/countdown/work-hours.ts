import { dayOf } from '../plan/civil';
import type { OpenHours } from '../plan/place';
import type { Rhythm, WorkHours } from '../stages/facts';
import { workHours } from './network';

/** When the shops are open and when the crew works, where a programme has not said so. */
export const USUAL_HOURS: { readonly shop: readonly OpenHours[]; readonly crew: readonly OpenHours[] } = {
  shop: [
    { weekdays: [1, 2, 3, 4, 5, 6], from: '08:00', to: '20:00' },
    { weekdays: [7], from: '10:00', to: '16:00' },
  ],
  crew: [{ weekdays: [1, 2, 3, 4, 5, 6], from: '08:00', to: '20:00' }],
};

/** Days on which the crew rests, first and last, YYYY-MM-DD. */
export interface RestDays {
  readonly from: string;
  readonly to: string;
}

/** The hours of a programme, made ready: shops go by their own days, the crew rests on closures. */
export function programmeHours(
  hours: { readonly shop?: readonly OpenHours[]; readonly crew?: readonly OpenHours[]; readonly rhythm?: Rhythm },
  rest: readonly RestDays[],
): { shop: WorkHours; crew: WorkHours; rhythm?: Rhythm } {
  const closed = new Set<number>();
  for (const { from, to } of rest) {
    const last = Math.min(dayOf(to), dayOf(from) + 2 * 366);
    for (let day = dayOf(from); day <= last; day++) closed.add(day);
  }
  return {
    shop: workHours('the shop', hours.shop ?? USUAL_HOURS.shop),
    crew: workHours('the crew', hours.crew ?? USUAL_HOURS.crew, closed),
    ...(hours.rhythm ? { rhythm: hours.rhythm } : {}),
  };
}
