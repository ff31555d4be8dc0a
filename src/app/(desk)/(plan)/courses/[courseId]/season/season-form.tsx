'use client';

import { useEffect, useState, useTransition } from 'react';
import type { Weekday } from '@/core/plan/civil';
import { FormMessage } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';
import { lay, preview } from './actions';
import { Draft, type Found } from './draft';
import { SeasonFields } from './season-fields';
import { cadenceOf, type Start, type Wanted } from './wanted';

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
  const [found, setFound] = useState<Found | null>(null);
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
  return (
    <div className="grid gap-6 lg:grid-cols-[22rem_minmax(0,1fr)]">
      <SeasonFields wanted={wanted} change={change} places={places} teachers={teachers} />
      <section className="sheet h-fit p-5" aria-labelledby="draft" aria-live="polite">
        <Draft found={found} titles={titles} setTitles={setTitles} />
        <FormMessage state={answer} />
        <button
          type="button"
          className="btn btn-primary mt-4"
          disabled={busy || fresh.length === 0}
          onClick={() => begin(async () => setAnswer(await lay(courseId, { ...planOf(), version })))}
        >
          Add {fresh.length} sessions
        </button>
      </section>
    </div>
  );
}
