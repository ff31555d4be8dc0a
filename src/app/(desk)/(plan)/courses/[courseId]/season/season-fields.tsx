'use client';

import { WEEKDAY_NAMES, type Weekday } from '@/core/plan/civil';
import { MODE_SAYS, MODES, type Mode } from '@/core/plan/mode';
import { DateField, TimeField } from '@/ui/form/dates';
import { Choice, Field } from '@/ui/form/field';
import { useSaying } from '@/ui/saying';
import { KINDS, type Wanted } from './wanted';

interface Props {
  readonly wanted: Wanted;
  readonly change: (part: Partial<Wanted>) => void;
  readonly places: readonly string[];
  readonly teachers: readonly { id: string; name: string }[];
}

/** What a season is to be: when it meets, where, and how. */
export function SeasonFields({ wanted, change, places, teachers }: Props) {
  return (
    <form
      className="sheet flex h-fit flex-col gap-3 p-5"
      aria-label="Season"
      onSubmit={(event) => event.preventDefault()}
    >
      <Choice
        label="It meets"
        value={wanted.kind}
        onChange={(event) => change({ kind: event.target.value as Wanted['kind'] })}
      >
        {Object.entries(KINDS).map(([kind, title]) => (
          <option key={kind} value={kind}>
            {title}
          </option>
        ))}
      </Choice>
      <CadenceFields wanted={wanted} change={change} />
      <Slots slots={wanted.slots} onChange={(slots) => change({ slots })} />
      <div className="grid grid-cols-2 gap-2">
        <DateField label="First day" defaultValue={wanted.from} onPick={(from) => change({ from })} />
        <DateField label="Last day" defaultValue={wanted.to} onPick={(to) => change({ to })} />
      </div>
      <Field
        label="Or so many days"
        type="number"
        min={1}
        max={400}
        value={wanted.days}
        hint="Empty: as many as the season holds"
        onChange={(event) => change({ days: event.target.value })}
      />
      <Choice
        label="A day that is closed is"
        value={wanted.onClosure}
        onChange={(event) => change({ onClosure: event.target.value })}
      >
        <option value="move">moved to the next free one</option>
        <option value="skip">skipped</option>
        <option value="keep">kept all the same</option>
      </Choice>
      <Field
        label="Place"
        list="season-places"
        value={wanted.place}
        maxLength={120}
        onChange={(event) => change({ place: event.target.value })}
      />
      <datalist id="season-places">
        {places.map((place) => (
          <option key={place} value={place} />
        ))}
      </datalist>
      <div className="grid grid-cols-2 items-start gap-2">
        <Choice
          label="Mode"
          hint={MODE_SAYS[wanted.modes[0] as Mode]}
          value={wanted.modes[0]}
          onChange={(event) => change({ modes: [event.target.value, ...wanted.modes.slice(1)] })}
        >
          {MODES.map((mode) => (
            <option key={mode}>{mode}</option>
          ))}
        </Choice>
        <Choice
          label="in turn with"
          value={wanted.modes[1] ?? ''}
          onChange={(event) =>
            change({ modes: [wanted.modes[0] as string, ...(event.target.value ? [event.target.value] : [])] })
          }
        >
          <option value="">none</option>
          {MODES.map((mode) => (
            <option key={mode}>{mode}</option>
          ))}
        </Choice>
      </div>
      <Choice
        label="Instructor"
        value={wanted.instructorId}
        onChange={(event) => change({ instructorId: event.target.value })}
      >
        <option value="">not decided</option>
        {teachers.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </Choice>
    </form>
  );
}

function CadenceFields({ wanted, change }: Pick<Props, 'wanted' | 'change'>) {
  const { week } = useSaying();
  const { kind, weekdays } = wanted;
  if (kind === 'single') return null;
  if (kind === 'dates')
    return (
      <label className="flex flex-col gap-1">
        <span className="text-sm font-semibold">Days</span>
        <textarea
          className="textarea w-full"
          rows={3}
          placeholder="2027-01-14, 2027-02-11"
          value={wanted.dates}
          onChange={(event) => change({ dates: event.target.value })}
        />
        <span className="text-xs">Written as YYYY-MM-DD, with commas or on lines of their own</span>
      </label>
    );
  if (kind === 'monthly')
    return (
      <div className="grid grid-cols-2 gap-2">
        <Choice label="On the" value={wanted.nth} onChange={(event) => change({ nth: Number(event.target.value) })}>
          {[
            [1, 'first'],
            [2, 'second'],
            [3, 'third'],
            [4, 'fourth'],
            [-1, 'last'],
          ].map(([nth, title]) => (
            <option key={nth} value={nth}>
              {title}
            </option>
          ))}
        </Choice>
        <Choice
          label="Weekday"
          value={weekdays[0]}
          onChange={(event) => change({ weekdays: [Number(event.target.value) as Weekday] })}
        >
          {week.map((weekday) => (
            <option key={weekday} value={weekday}>
              {WEEKDAY_NAMES[weekday - 1]}
            </option>
          ))}
        </Choice>
      </div>
    );
  const toggle = (weekday: Weekday) =>
    change({
      weekdays: weekdays.includes(weekday)
        ? weekdays.filter((each) => each !== weekday)
        : [...weekdays, weekday].sort(),
    });
  return (
    <>
      <fieldset>
        <legend className="mb-1 text-sm font-semibold">Weekdays</legend>
        <div className="flex flex-wrap gap-1">
          {week.map((weekday) => (
            <label key={weekday} className="flex items-center gap-1 text-sm">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={weekdays.includes(weekday)}
                onChange={() => toggle(weekday)}
              />
              {WEEKDAY_NAMES[weekday - 1]?.slice(0, 3)}
            </label>
          ))}
        </div>
      </fieldset>
      {kind === 'weekly' && (
        <Field
          label="Every how many weeks"
          type="number"
          min={1}
          max={8}
          value={wanted.every}
          onChange={(event) => change({ every: Number(event.target.value) || 1 })}
        />
      )}
    </>
  );
}

function Slots({ slots, onChange }: { slots: Wanted['slots']; onChange: (slots: Wanted['slots']) => void }) {
  const set = (index: number, part: Partial<Wanted['slots'][number]>) =>
    onChange(slots.map((slot, at) => (at === index ? { ...slot, ...part } : slot)));
  return (
    <div className="flex flex-col gap-2">
      {slots.map((slot, index) => (
        <div key={index} className="grid grid-cols-2 gap-2">
          <TimeField
            label={index === 0 ? 'Starts' : 'and starts'}
            defaultValue={slot.startsAt}
            onPick={(startsAt) => set(index, { startsAt })}
          />
          <Field
            label="Minutes"
            type="number"
            min={15}
            max={720}
            value={slot.minutes}
            onChange={(event) => set(index, { minutes: Number(event.target.value) })}
          />
        </div>
      ))}
      <span className="flex gap-2">
        {slots.length < 6 && (
          <button
            type="button"
            className="btn btn-xs"
            onClick={() => onChange([...slots, { startsAt: '13:00', minutes: slots[0]?.minutes ?? 90 }])}
          >
            Twice a day
          </button>
        )}
        {slots.length > 1 && (
          <button type="button" className="btn btn-xs" onClick={() => onChange(slots.slice(0, -1))}>
            Once less
          </button>
        )}
      </span>
    </div>
  );
}
