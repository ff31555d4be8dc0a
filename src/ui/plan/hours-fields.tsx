import { WEEKDAY_NAMES, type Weekday } from '@/core/plan/civil';
import type { OpenHours } from '@/core/plan/place';
import { TimeField } from '../form/dates';

interface Props {
  readonly legend: string;
  /** What the service calls these hours. */
  readonly name: string;
  readonly hours: readonly OpenHours[];
  /** The weekdays in the order of the programme's week. */
  readonly week: readonly Weekday[];
}

/** Hours of each weekday, as form fields; a weekday left empty has none. */
export function HoursFields({ legend, name, hours, week }: Props) {
  const open = (weekday: number): OpenHours | undefined =>
    hours.find(({ weekdays }) => (weekdays as readonly number[]).includes(weekday));
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="mb-1 text-sm font-semibold">{legend}</legend>
      {week.map((weekday) => {
        const at = weekday - 1;
        return (
          <div key={weekday} className="grid grid-cols-[5.5rem_1fr_1fr] items-start gap-2">
            <span className="mt-1 text-sm">{WEEKDAY_NAMES[at]}</span>
            <input type="hidden" name={`${name}[${at}].weekdays[0]`} value={weekday} />
            {(['from', 'to'] as const).map((end) => (
              <TimeField
                key={end}
                name={`${name}[${at}].${end}`}
                label={`${legend}: ${WEEKDAY_NAMES[at]} ${end}`}
                isHeaded
                className="input input-sm w-full"
                defaultValue={open(weekday)?.[end].replace('24:00', '00:00') ?? ''}
              />
            ))}
          </div>
        );
      })}
    </fieldset>
  );
}

/** What such fields send: null for a day that was left empty. */
export const hoursSent = <Hours extends { readonly from: string; readonly to: string }>(
  days: readonly (Hours | null)[],
): (Hours | null)[] => days.map((day) => (day && (day.from !== '' || day.to !== '') ? day : null));
