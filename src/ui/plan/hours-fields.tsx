import { WEEKDAY_NAMES, WEEKDAYS } from '@/core/plan/civil';
import type { OpenHours } from '@/core/plan/place';

/** Hours of each weekday, as form fields; a weekday left empty has none. @param prefix tells two sets in one form apart */
export function HoursFields({
  legend,
  prefix = '',
  hours,
}: {
  legend: string;
  prefix?: string;
  hours: readonly OpenHours[];
}) {
  const open = (weekday: number): OpenHours | undefined =>
    hours.find(({ weekdays }) => (weekdays as readonly number[]).includes(weekday));
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="mb-1 text-sm font-semibold">{legend}</legend>
      {WEEKDAYS.map((weekday) => (
        <div key={weekday} className="grid grid-cols-[5.5rem_1fr_1fr] items-center gap-2">
          <span className="text-sm">{WEEKDAY_NAMES[weekday - 1]}</span>
          {(['from', 'to'] as const).map((end) => (
            <input
              key={end}
              type="time"
              name={`${prefix}${end}${weekday}`}
              aria-label={`${legend}: ${WEEKDAY_NAMES[weekday - 1]} ${end}`}
              className="input input-sm w-full"
              defaultValue={open(weekday)?.[end].replace('24:00', '00:00') ?? ''}
            />
          ))}
        </div>
      ))}
    </fieldset>
  );
}

/** What such fields send, weekdays of the same hours together. An end at 00:00 is the end of the day. */
export function hoursOf(
  sent: Readonly<Record<string, string>>,
  prefix = '',
): { weekdays: number[]; from: string; to: string }[] {
  const hours: { weekdays: number[]; from: string; to: string }[] = [];
  for (const weekday of WEEKDAYS) {
    const [from, to] = [sent[`${prefix}from${weekday}`] ?? '', sent[`${prefix}to${weekday}`] ?? ''];
    if (from === '' && to === '') continue;
    const end = to === '00:00' ? '24:00' : to;
    const same = hours.find((each) => each.from === from && each.to === end);
    if (same) same.weekdays.push(weekday);
    else hours.push({ weekdays: [weekday], from, to: end });
  }
  return hours;
}
