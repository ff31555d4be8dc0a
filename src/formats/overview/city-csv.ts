import { sayShown } from '@/core/closeout/report/small-numbers';
import type { ProgrammeSeen } from '@/core/overview/city-figures';
import { writeMoney } from '@/core/quantity/money';
import { writeCsv } from '../csv';

/** What a city sees of its programmes as CSV: a line each, money in its currency. */
export const writeCityCsv = (programmes: readonly ProgrammeSeen[]): string =>
  writeCsv([
    [
      'programme',
      'sessions held',
      'sessions called off',
      'next session',
      'people',
      'attendance %',
      'kits',
      'kits called back',
      'crew hours',
      'currency',
      'spent',
      'budget',
      'spent for each kit',
      'worth a question',
    ],
    ...programmes.map((each) => [
      each.name,
      each.held,
      each.cancelled,
      each.next ?? '',
      sayShown(each.people),
      each.attendance ?? '',
      sayShown(each.kits),
      sayShown(each.calledBack),
      (each.crewMinutes / 60).toFixed(1),
      each.currency,
      writeMoney(each.spent),
      each.budget === null ? '' : writeMoney(each.budget),
      each.perKit === null ? '' : writeMoney(each.perKit),
      each.asks.join(' '),
    ]),
  ]);
