'use client';

import { DayPicker } from 'react-day-picker';
import { enGB, enUS } from 'react-day-picker/locale';
import type { Manner } from '@/core/plan/manner';
import type { MarkedDay } from '../saying';

const dayOf = (date: string) => new Date(`${date}T12:00:00`);

const dateOf = (day: Date) =>
  [day.getFullYear(), String(day.getMonth() + 1).padStart(2, '0'), String(day.getDate()).padStart(2, '0')].join('-');

interface Props {
  /** YYYY-MM-DD */
  readonly at: string | undefined;
  readonly manner: Manner;
  readonly marked: readonly MarkedDay[];
  readonly onChoose: (date: string) => void;
}

/** A month of days to choose from; those that are taken are marked, and say by what. */
export default function Calendar({ at, manner, marked, onChoose }: Props) {
  const says = new Map(marked.map(({ date, say }) => [date, say]));
  return (
    <DayPicker
      className="react-day-picker"
      mode="single"
      autoFocus
      locale={manner.dateOrder === 'month first' ? enUS : enGB}
      weekStartsOn={manner.firstWeekday === 7 ? 0 : 1}
      selected={at === undefined ? undefined : dayOf(at)}
      defaultMonth={at === undefined ? undefined : dayOf(at)}
      onSelect={(day) => day && onChoose(dateOf(day))}
      modifiers={{ marked: marked.map(({ date }) => dayOf(date)) }}
      modifiersClassNames={{ marked: 'underline decoration-2 decoration-warning' }}
      labels={{
        labelDayButton: (day) => {
          const name = day.toLocaleDateString(manner.dateOrder === 'month first' ? 'en-US' : 'en-GB', {
            weekday: 'long',
            day: 'numeric',
            month: 'long',
            year: 'numeric',
          });
          const say = says.get(dateOf(day));
          return say ? `${name}: ${say}` : name;
        },
      }}
    />
  );
}
