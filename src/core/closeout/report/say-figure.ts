import { quarterHours } from '../../crew/hours';
import type { Saying } from '../../plan/saying';
import { sayMoney } from '../../quantity/money';
import type { Figure, Unit } from './report';
import { sayShown } from './small-numbers';

/** What somebody who is reported to counts money in, and how much of it one of the programme's is. */
export interface OtherMoney {
  readonly currency: string;
  readonly rate: number;
}

/** A figure of money in somebody else's; any other as it is. */
export function inMoney(figure: Figure, { rate }: OtherMoney): Figure {
  if (figure.unit !== 'money') return figure;
  const { value, parts } = figure;
  return {
    ...figure,
    value: value === null ? null : value * rate,
    ...(parts ? { parts: parts.map((part) => ({ ...part, value: part.value * rate })) } : {}),
  };
}

/**
 * A value as it is read: "82 %", "123.5 hours", "1.2 kg"; money with its currency, where one is said.
 *
 * @param value in what its unit is kept in: thousandths, minutes, grams, minor units
 * @example
 * sayValue(667, 'percent') //=> '67 %'
 * sayValue(1234, 'kilograms') //=> '1.2 kg'
 */
export function sayValue(value: number, unit: Unit, currency = ''): string {
  switch (unit) {
    case 'percent':
      return `${Math.round(value / 10)} %`;
    case 'hours':
      return `${quarterHours(value)} hours`;
    case 'money':
      return sayMoney(Math.round(value), currency);
    case 'kilograms':
      return `${(value / 1000).toFixed(1)} kg`;
    default:
      return String(value);
  }
}

/** A figure as it is read; in words where it is hidden, or nothing tells. */
export const sayFigure = ({ value, unit, hidden }: Pick<Figure, 'value' | 'unit' | 'hidden'>, currency = ''): string =>
  hidden ? sayShown(hidden) : value === null ? 'not known' : sayValue(value, unit, currency);

/** What stands between two days, for charts. */
export interface Bar {
  readonly label: string;
  readonly value: number;
}

/** More bars than this are months, not sessions. */
const MOST_BARS = 24;

/** Attendance of sessions in per cent, in order; by month where there are many. */
export function attendanceBars(
  parts: NonNullable<Figure['parts']>,
  sessions: ReadonlyMap<string, { readonly title: string; readonly date: string }>,
  say: Saying,
): Bar[] {
  const isLong = parts.length > MOST_BARS;
  const sums = new Map<string, { yes: number; of: number }>();
  for (const { sessionId, value, of = 0 } of parts) {
    const session = sessions.get(sessionId);
    if (!session || of === 0) continue;
    const label = isLong ? session.date.slice(0, 7) : `${say.shortDate(session.date)} ${session.title}`;
    const { yes, of: all } = sums.get(label) ?? { yes: 0, of: 0 };
    sums.set(label, { yes: yes + value, of: all + of });
  }
  return [...sums].map(([label, { yes, of }]) => ({ label, value: Math.round((100 * yes) / of) }));
}

/**
 * What a chart of shares says, as one would say it.
 *
 * @example
 * sayBars([{ label: 'October', value: 80 }, { label: 'November', value: 60 }], '%') //=> 'Most in October (80 %), least in November (60 %).'
 */
export function sayBars(bars: readonly Bar[], unit: string): string {
  const [first, ...others] = bars;
  if (!first) return 'Nothing was noted.';
  if (others.length === 0) return `${first.label}: ${first.value} ${unit}.`;
  const most = bars.reduce((best, bar) => (bar.value > best.value ? bar : best));
  const least = bars.reduce((best, bar) => (bar.value < best.value ? bar : best));
  if (most.value === least.value) return `The same each time: ${most.value} ${unit}.`;
  return `Most in ${most.label} (${most.value} ${unit}), least in ${least.label} (${least.value} ${unit}).`;
}
