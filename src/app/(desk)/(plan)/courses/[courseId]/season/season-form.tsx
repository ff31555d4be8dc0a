'use client';

import { TriangleAlert } from 'lucide-react';
import { useEffect, useState, useTransition } from 'react';
import { type CadenceChoice, ruleOf } from '@/core/plan/cadence-rule';
import { WEEKDAY_NAMES, WEEKDAYS, type Weekday } from '@/core/plan/civil';
import { MODES } from '@/core/plan/mode';
import type { SeasonDraft } from '@/services/plan/season';
import { sayLongDate, sayShortDate } from '@/ui/dates';
import { FormMessage } from '@/ui/form/action-form';
import { Choice, Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { lay, preview } from './actions';

/** What the form starts from. */
export interface Start {
  readonly from: string;
  readonly to: string;
  readonly weekday: number;
  readonly startsAt: string;
  readonly minutes: number;
  readonly place: string;
  readonly mode: string;
  readonly instructorId: string;
  readonly onClosure: string;
}

const KINDS = {
  weekly: 'on the same weekdays',
  daily: 'every day: a camp',
  monthly: 'once a month: a theme',
  single: 'once: a workshop',
  dates: 'on days picked by hand',
} as const;

interface Wanted {
  readonly kind: keyof typeof KINDS;
  readonly every: number;
  readonly weekdays: readonly Weekday[];
  readonly nth: number;
  readonly dates: string;
  readonly slots: readonly { startsAt: string; minutes: number }[];
  readonly from: string;
  readonly to: string;
  readonly days: string;
  readonly onClosure: string;
  readonly place: string;
  readonly modes: readonly string[];
  readonly instructorId: string;
}

function cadenceOf(wanted: Wanted) {
  const { kind, every, weekdays, nth } = wanted;
  if (kind === 'dates')
    return { rule: null, dates: wanted.dates.split(/[\s,;]+/).filter(Boolean), slots: wanted.slots };
  const [weekday = 1] = weekdays;
  const choice: CadenceChoice =
    kind === 'monthly'
      ? { kind, nth, weekday }
      : kind === 'single'
        ? { kind }
        : kind === 'daily'
          ? { kind, weekdays }
          : { kind, every, weekdays };
  return { rule: ruleOf(choice), dates: [], slots: wanted.slots };
}

/** A season, drawn as one types: days lost to closures, what collides, and the titles of the sessions. */
export function SeasonForm({
  courseId,
  version,
  start,
  places,
  teachers,
}: {
  courseId: string;
  version: number;
  start: Start;
  places: readonly string[];
  teachers: readonly { id: string; name: string }[];
}) {
  const [wanted, setWanted] = useState<Wanted>({
    kind: 'weekly',
    every: 1,
    weekdays: [start.weekday as Weekday],
    nth: 1,
    dates: '',
    slots: [{ startsAt: start.startsAt, minutes: start.minutes }],
    from: start.from,
    to: start.to,
    days: start.to ? '' : '8',
    onClosure: start.onClosure,
    place: start.place,
    modes: [start.mode],
    instructorId: start.instructorId,
  });
  const [titles, setTitles] = useState<readonly string[]>([]);
  const [found, setFound] = useState<{ draft: SeasonDraft } | { problem: string } | null>(null);
  const [answer, setAnswer] = useState<FormState | null>(null);
  const [busy, begin] = useTransition();
  const change = (part: Partial<Wanted>) => {
    setAnswer(null);
    setWanted((now) => ({ ...now, ...part }));
  };
  const planOf = () => {
    const { from, to, days, onClosure, place, modes, instructorId } = wanted;
    return {
      courseId,
      cadence: cadenceOf(wanted),
      from,
      to,
      days,
      onClosure,
      titles,
      place,
      modes,
      instructorId: instructorId || null,
    };
  };

  // Titles do not move days: only the rest is asked again.
  useEffect(() => {
    let isLatest = true;
    const timer = setTimeout(async () => {
      const next = await preview(planOf()).catch(() => ({
        problem: 'The server did not answer. Try again in a moment.',
      }));
      if (isLatest) setFound(next);
    }, 300);
    return () => {
      isLatest = false;
      clearTimeout(timer);
    };
  }, [wanted]);

  const draft = found && 'draft' in found ? found.draft : undefined;
  const fresh = draft?.sessions.filter(({ isThere }) => !isThere) ?? [];
  const clashes = fresh.filter(({ conflicts }) => conflicts.length > 0);
  return (
    <div className="grid gap-6 lg:grid-cols-[22rem_minmax(0,1fr)]">
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
          <Field
            label="First day"
            type="date"
            value={wanted.from}
            onChange={(event) => change({ from: event.target.value })}
          />
          <Field
            label="Last day"
            type="date"
            value={wanted.to}
            onChange={(event) => change({ to: event.target.value })}
          />
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
        <div className="grid grid-cols-2 gap-2">
          <Choice
            label="Mode"
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
      <section className="sheet h-fit p-5" aria-labelledby="draft" aria-live="polite">
        <h2 id="draft" className="text-xl font-bold">
          {draft ? `${fresh.length} sessions` : 'The season'}
          {draft &&
            fresh.length > 0 &&
            `, ${sayShortDate(fresh[0]?.date ?? '')} to ${sayLongDate(fresh.at(-1)?.date ?? '')}`}
        </h2>
        {found === null && <p>Looking at the plan …</p>}
        {found && 'problem' in found && <p className="font-semibold text-error">{found.problem}</p>}
        {draft && <Lost lost={draft.lost} />}
        {clashes.length > 0 && (
          <p className="mt-2 flex gap-1.5 text-sm font-semibold text-error">
            <TriangleAlert size={16} className="mt-0.5 shrink-0" aria-hidden="true" />
            {clashes.length === 1 ? 'One session collides' : `${clashes.length} sessions collide`} with something.
            Choose another hour or place, or lay it down and settle them one by one.
          </p>
        )}
        {draft && (
          <ol className="mt-3 flex max-h-[32rem] flex-col divide-y divide-base-300 overflow-y-auto">
            {draft.sessions.slice(0, 120).map((session, index) => (
              <li
                key={session.date + session.startsAt}
                className="grid grid-cols-[9rem_minmax(0,1fr)] items-center gap-3 py-1.5"
              >
                <span className="text-sm">
                  <b>{sayShortDate(session.date)}</b>, {session.startsAt}
                  <span className="block">{session.mode}</span>
                </span>
                <span>
                  {session.isThere ? (
                    <span className="text-sm">The course meets then already.</span>
                  ) : (
                    <input
                      className="input input-sm w-full"
                      aria-label={`Title of ${sayShortDate(session.date)}, ${session.startsAt}`}
                      placeholder={session.title}
                      maxLength={120}
                      value={titles[index] ?? ''}
                      onChange={(event) =>
                        setTitles((all) =>
                          Object.assign(
                            Array.from({ length: Math.max(all.length, index + 1) }, (_, n) => all[n] ?? ''),
                            { [index]: event.target.value },
                          ),
                        )
                      }
                    />
                  )}
                  {session.because && <span className="block text-sm">{session.because}</span>}
                  {session.conflicts.map(({ say }) => (
                    <span key={say} className="block text-sm font-semibold text-error">
                      {say}
                    </span>
                  ))}
                </span>
              </li>
            ))}
          </ol>
        )}
        {draft && draft.sessions.length > 120 && <p className="text-sm">… and {draft.sessions.length - 120} more.</p>}
        <FormMessage state={answer} />
        <button
          type="button"
          className="btn btn-primary mt-4"
          disabled={busy || fresh.length === 0}
          onClick={() => begin(async () => setAnswer(await lay(courseId, { ...planOf(), version })))}
        >
          Lay down {fresh.length} sessions
        </button>
      </section>
    </div>
  );
}

function Lost({ lost }: { lost: SeasonDraft['lost'] }) {
  if (lost.length === 0) return null;
  return (
    <details className="mt-1 text-sm" open={lost.length <= 4}>
      <summary className="cursor-pointer font-semibold">{lost.length} days of the cadence are closed</summary>
      <ul className="list-disc pl-5">
        {lost.map(({ date, because, became, to }) => (
          <li key={date}>
            {sayShortDate(date)}: {because}; {became}
            {to ? ` to ${sayShortDate(to)}` : ''}
          </li>
        ))}
      </ul>
    </details>
  );
}

function CadenceFields({ wanted, change }: { wanted: Wanted; change: (part: Partial<Wanted>) => void }) {
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
          {WEEKDAYS.map((weekday) => (
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
          {WEEKDAYS.map((weekday) => (
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
          <Field
            label={index === 0 ? 'Starts' : 'and starts'}
            type="time"
            value={slot.startsAt}
            onChange={(event) => set(index, { startsAt: event.target.value })}
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
