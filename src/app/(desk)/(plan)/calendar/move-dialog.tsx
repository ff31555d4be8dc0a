'use client';

import { useEffect, useMemo, useRef, useState, useTransition } from 'react';
import { FormMessage } from '@/ui/form/action-form';
import { DateField, TimeField } from '@/ui/form/dates';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { useSaying } from '@/ui/saying';
import { type MovePreview, move, previewMove } from './actions';

/** A session that is about to be moved, and where it would go. */
export interface Moving {
  readonly id: string;
  /** One of its groups beside the first; '' for the session as a whole. */
  readonly groupId: string;
  readonly title: string;
  readonly date: string;
  readonly startsAt: string;
  readonly place: string;
}

/** Shows what moves with a session before it is moved; the plan is asked as one types. */
export function MoveDialog({
  moving,
  places,
  onClose,
}: {
  moving: Moving;
  places: readonly string[];
  onClose: () => void;
}) {
  const dialog = useRef<HTMLDialogElement>(null);
  const [wanted, setWanted] = useState({ date: moving.date, startsAt: moving.startsAt, place: moving.place });
  const [found, setFound] = useState<{ preview: MovePreview } | { problem: string } | null>(null);
  const [answer, setAnswer] = useState<FormState | null>(null);
  const [busy, start] = useTransition();

  useEffect(() => {
    dialog.current?.showModal();
  }, []);

  const what = useMemo(
    () => ({ sessionId: moving.id, ...(moving.groupId ? { groupId: moving.groupId } : {}) }),
    [moving.id, moving.groupId],
  );
  useEffect(() => {
    let isLatest = true;
    const timer = setTimeout(async () => {
      const next = await previewMove({ ...what, ...wanted }).catch(() => ({
        problem: 'The server did not answer. Try again in a moment.',
      }));
      if (isLatest) setFound(next);
    }, 250);
    return () => {
      isLatest = false;
      clearTimeout(timer);
    };
  }, [what, wanted]);

  const [taken, setTaken] = useState(0);
  const preview = found && 'preview' in found ? found.preview : undefined;
  const change = (part: Partial<typeof wanted>) => {
    // A field that is left says once more what is there already.
    const next = { ...wanted, ...part };
    if (next.date === wanted.date && next.startsAt === wanted.startsAt && next.place === wanted.place) return;
    setAnswer(null);
    // What was said of another day says nothing of this one.
    setFound(null);
    setWanted((now) => ({ ...now, ...part }));
  };
  /** A way out that was offered: the fields show it from the start. */
  const take = (part: Partial<typeof wanted>) => {
    change(part);
    setTaken((times) => times + 1);
  };
  const confirm = () =>
    preview &&
    start(async () => {
      const state = await move({ ...what, version: preview.version, ...wanted });
      setAnswer(state);
      if (state.ok) onClose();
    });

  return (
    <dialog ref={dialog} className="modal" aria-labelledby="move-title" onClose={onClose}>
      <div className="modal-box max-w-2xl">
        <h2 id="move-title" className="mb-3 text-xl font-bold">
          Move {moving.title}
        </h2>
        <div className="grid grid-cols-2 gap-3 sm:grid-cols-[1fr_8rem_1.4fr]">
          <DateField
            key={`date ${taken}`}
            label="Date"
            defaultValue={wanted.date}
            onPick={(date) => change({ date })}
          />
          <TimeField
            key={`time ${taken}`}
            label="Starts"
            defaultValue={wanted.startsAt}
            onPick={(startsAt) => change({ startsAt })}
          />
          <Field
            label="Place"
            list="move-places"
            value={wanted.place}
            width="col-span-2 sm:col-span-1"
            onChange={(event) => change({ place: event.target.value })}
          />
          <datalist id="move-places">
            {places.map((place) => (
              <option key={place} value={place} />
            ))}
          </datalist>
        </div>
        <div aria-live="polite" className="mt-4 flex flex-col gap-3 text-sm">
          {found === null && <p>Looking at the plan …</p>}
          {found && 'problem' in found && <p className="font-semibold text-error">{found.problem}</p>}
          {preview && <Consequences preview={preview} onTake={take} />}
        </div>
        <FormMessage state={answer?.ok ? null : answer} />
        <div className="modal-action">
          <button type="button" className="btn" onClick={() => dialog.current?.close()}>
            Leave it
          </button>
          <button type="button" className="btn btn-primary" disabled={!preview || busy} onClick={confirm}>
            {preview && preview.conflicts.length > 0 ? 'Move it all the same' : 'Move it'}
          </button>
        </div>
      </div>
    </dialog>
  );
}

function Consequences({
  preview,
  onTake,
}: {
  preview: MovePreview;
  onTake: (change: { date?: string; startsAt?: string; place?: string }) => void;
}) {
  const { text, ...say } = useSaying();
  const effects = [
    preview.people > 0 ? `${preview.people} on the roll have to be told` : '',
    preview.locked ? 'the locked kit sheet stays, its labels carry the new date when they are printed again' : '',
    preview.bought ? 'what is bought already has to keep until then' : '',
    preview.packed ? 'packing has begun: cold parts have a clock' : '',
  ].filter(Boolean);
  return (
    <>
      {preview.conflicts.length === 0 ? (
        <p className="font-semibold text-success">Nothing stands against it.</p>
      ) : (
        <ul className="list-disc pl-5 font-semibold text-error">
          {preview.conflicts.map(({ say }) => (
            <li key={say}>{text(say)}</li>
          ))}
        </ul>
      )}
      {preview.fixes.length > 0 && (
        <div className="flex flex-wrap items-center gap-2">
          <span>This would work:</span>
          {preview.fixes
            .filter(({ change }) => change.date || change.startsAt)
            .map(({ say, change }) => (
              <button key={say} type="button" className="btn btn-sm" onClick={() => onTake(change)}>
                {text(say)}
              </button>
            ))}
          {preview.fixes
            .filter(({ change }) => change.placeId)
            .map(({ say }) => (
              <button
                key={say}
                type="button"
                className="btn btn-sm"
                onClick={() => onTake({ place: say.replace(/^Take /, '') })}
              >
                {say}
              </button>
            ))}
        </div>
      )}
      {preview.tooLate && (
        <p className="font-semibold text-error">Then it could not be ready in time: {text(preview.tooLate)}</p>
      )}
      {preview.along.length > 0 && (
        <p>
          {preview.along.map(({ groupName, date }) => `${groupName} goes along to ${say.shortDate(date)}`).join('; ')}.
        </p>
      )}
      {effects.length > 0 && <p>{`${effects.join('; ')}.`.replace(/^./, (letter) => letter.toUpperCase())}</p>}
      {preview.jobs.length > 0 && (
        <details open>
          <summary className="cursor-pointer font-semibold">
            {preview.jobs.length} jobs move with it, from {say.shortDate(preview.from.date)} to{' '}
            {say.shortDate(preview.to.date)}
          </summary>
          <table className="table table-sm mt-1">
            <thead>
              <tr>
                <th scope="col">Job</th>
                <th scope="col">Latest now</th>
                <th scope="col">Latest then</th>
              </tr>
            </thead>
            <tbody>
              {preview.jobs.map((job) => (
                <tr key={job.title}>
                  <td>{job.title}</td>
                  <td>{say.moment(job.from)}</td>
                  <td className={job.state === 'late' || job.state === 'cannot be met' ? 'font-bold text-error' : ''}>
                    {say.moment(job.to)}
                    {job.state === 'late' || job.state === 'cannot be met' ? ', too late' : ''}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      )}
    </>
  );
}
