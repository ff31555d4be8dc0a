'use client';

import Link from 'next/link';
import { useState, useTransition } from 'react';
import { LARGEST_FILE } from '@/contracts/files';
import { FormMessage } from '@/ui/form/action-form';
import { Choice, Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { sendForReading } from '@/ui/read-file';
import { useSaying } from '@/ui/saying';
import { saveImport } from './actions';

interface Preview {
  readonly name: string;
  readonly closures: readonly { title: string; from: string; to: string; hours?: { from: string; to: string } }[];
  readonly problems: readonly { where: string; message: string }[];
  readonly cutAt?: string;
}

/** A calendar file: chosen, read, each closure taken or left, then saved all at once. */
export function CalendarImport({ places }: { places: readonly { id: string; name: string }[] }) {
  const say = useSaying();
  const [preview, setPreview] = useState<Preview | null>(null);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [name, setName] = useState('');
  const [placeId, setPlaceId] = useState('');
  const [replaces, setReplaces] = useState(false);
  const [answer, setAnswer] = useState<FormState | null>(null);
  const [busy, start] = useTransition();

  const read = (file: File) =>
    start(async () => {
      setPreview(null);
      setLeft(new Set());
      setAnswer(null);
      if (file.size > LARGEST_FILE) {
        setAnswer({
          ok: false,
          message: `${file.name} is too large: a calendar has at most ${LARGEST_FILE / 1024 / 1024} MB. Export fewer years.`,
        });
        return;
      }
      const answered = await sendForReading<Preview>('/api/closures/preview', file);
      if ('refused' in answered) {
        setAnswer(answered.refused);
        return;
      }
      const { found } = answered;
      setPreview(found);
      setName(found.name || file.name.replace(/\.ics$/i, ''));
    });
  const taken = preview?.closures.filter((_, index) => !left.has(index)) ?? [];
  const toggle = (index: number) =>
    setLeft((now) => {
      const next = new Set(now);
      if (!next.delete(index)) next.add(index);
      return next;
    });

  if (answer?.ok) {
    return (
      <div className="sheet p-6">
        <FormMessage state={answer} />
        <Link href="/closures" className="btn btn-primary mt-4">
          See the closures
        </Link>
      </div>
    );
  }
  return (
    <div className="flex flex-col gap-5">
      <label className="sheet flex flex-col gap-1 p-5">
        <span className="font-semibold">Calendar file (.ics)</span>
        <input
          type="file"
          accept=".ics,text/calendar"
          className="file-input w-full max-w-md"
          disabled={busy}
          onChange={(event) => event.target.files?.[0] && read(event.target.files[0])}
        />
        <span className="text-sm">Nothing is saved until you have seen what is in it.</span>
      </label>
      <FormMessage state={answer} />
      {preview && preview.problems.length > 0 && (
        <FormMessage
          state={{
            ok: false,
            message: 'Some of the file could not be used. The rest is below.',
            problems: preview.problems,
          }}
        />
      )}
      {preview && preview.closures.length === 0 && (
        <p className="sheet p-5">There is no event between last month and three years from now in this file.</p>
      )}
      {preview && preview.closures.length > 0 && (
        <section className="sheet p-5" aria-labelledby="found">
          <h2 id="found" className="text-xl font-bold">
            {taken.length} of {preview.closures.length} closures
          </h2>
          {preview.cutAt && (
            <p className="text-sm">
              One event repeats without an end: it is followed to {say.longDate(preview.cutAt)}.
            </p>
          )}
          <div className="my-3 grid max-w-2xl gap-3 sm:grid-cols-2">
            <Field
              label="Name of the calendar"
              value={name}
              maxLength={120}
              onChange={(event) => setName(event.target.value)}
            />
            <Choice label="Closed is" value={placeId} onChange={(event) => setPlaceId(event.target.value)}>
              <option value="">everything</option>
              {places.map((place) => (
                <option key={place.id} value={place.id}>
                  {place.name} only
                </option>
              ))}
            </Choice>
          </div>
          <label className="mb-3 flex items-center gap-2">
            <input
              type="checkbox"
              className="checkbox"
              checked={replaces}
              onChange={(event) => setReplaces(event.target.checked)}
            />
            It replaces the calendar of this name
          </label>
          <ul className="grid max-h-96 gap-x-6 overflow-y-auto text-sm sm:grid-cols-2">
            {preview.closures.map((closure, index) => (
              <li key={`${closure.from}${closure.title}${closure.hours?.from ?? ''}`}>
                <label className="flex items-start gap-2 border-b border-base-300 py-1">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-sm mt-0.5"
                    checked={!left.has(index)}
                    onChange={() => toggle(index)}
                  />
                  <span>
                    <b>{closure.title || 'Closed'}</b>
                    <span className="block">
                      {say.span(closure.from, closure.to)}
                      {closure.hours ? `, ${say.time(closure.hours.from)} to ${say.time(closure.hours.to)}` : ''}
                    </span>
                  </span>
                </label>
              </li>
            ))}
          </ul>
          <button
            type="button"
            className="btn btn-primary mt-4"
            disabled={busy || taken.length === 0}
            onClick={() =>
              start(async () => setAnswer(await saveImport({ name, placeId, closures: [...taken], replaces })))
            }
          >
            Bring in {taken.length} closures
          </button>
        </section>
      )}
    </div>
  );
}
