import { minutesOfStay, quarterHours } from '@/core/crew/hours';
import { timeOf } from '@/core/plan/civil';
import { writeCsv } from '../csv';

/** Somebody's times at sessions, as a statement lists them. */
export interface HoursOf {
  readonly name: string;
  readonly minutes: number;
  readonly stays: readonly {
    readonly date: string;
    readonly title: string;
    readonly came: number;
    readonly went: number | null;
    readonly note: string;
  }[];
}

/** The hours of a crew as CSV: a line for each time, so that whoever counts them can add them up. */
export const writeHoursCsv = (people: readonly HoursOf[]): string =>
  writeCsv([
    ['name', 'date', 'session', 'came', 'went', 'hours', 'note'],
    ...people.flatMap(({ name, stays }) =>
      stays.map((stay) => [
        name,
        stay.date,
        stay.title,
        timeOf(stay.came),
        stay.went === null ? '' : timeOf(Math.min(stay.went, 1439)),
        quarterHours(minutesOfStay(stay)),
        stay.note,
      ]),
    ),
  ]);
