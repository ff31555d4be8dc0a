'use client';

import { useRef, useState, useTransition } from 'react';
import type { Saying } from '@/core/plan/saying';
import { FormMessage } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { useSaying } from '@/ui/saying';
import { type CancelPreview, cancel, lookAtCancelling } from '../../calendar/actions';
import type { Moving } from '../../calendar/move-dialog';

type Found = { preview: CancelPreview } | { problem: string } | null;

/** Shows what hangs on a session before it is cancelled. */
export function CancelButton({ session }: { session: Moving }) {
  const say = useSaying();
  const dialog = useRef<HTMLDialogElement>(null);
  const [found, setFound] = useState<Found>(null);
  const [because, setBecause] = useState('');
  const [answer, setAnswer] = useState<FormState | null>(null);
  const [busy, start] = useTransition();
  const what = { sessionId: session.id, ...(session.groupId ? { groupId: session.groupId } : {}) };
  const titleId = `cancel-${session.id}${session.groupId}`;

  const open = () => {
    setFound(null);
    setAnswer(null);
    dialog.current?.showModal();
    start(async () =>
      setFound(
        await lookAtCancelling(what).catch(() => ({ problem: 'The server did not answer. Try again in a moment.' })),
      ),
    );
  };
  const preview = found && 'preview' in found ? found.preview : undefined;
  const confirm = () =>
    preview &&
    start(async () => {
      const state = await cancel({ ...what, version: preview.version, cancelled: true, because });
      setAnswer(state);
      if (state.ok) dialog.current?.close();
    });

  return (
    <>
      <button type="button" className="btn btn-sm" onClick={open} aria-label={`Cancel ${session.title}`}>
        Cancel
      </button>
      <dialog ref={dialog} className="modal" aria-labelledby={titleId}>
        <div className="modal-box whitespace-normal">
          <h2 id={titleId} className="mb-3 text-xl font-bold">
            Cancel {session.title}, {say.shortDate(session.date)}
          </h2>
          <div aria-live="polite" className="flex flex-col gap-3 text-sm">
            {found === null && <p>Looking at what hangs on it …</p>}
            {found && 'problem' in found && <p className="font-semibold text-error">{found.problem}</p>}
            {preview && (
              <ul className="list-disc pl-5">
                {consequences(preview, say).map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
            )}
          </div>
          {!session.groupId && (
            <Field
              label="Why, for those who ask later"
              value={because}
              maxLength={200}
              width="mt-4"
              onChange={(event) => setBecause(event.target.value)}
            />
          )}
          <FormMessage state={answer?.ok ? null : answer} />
          <div className="modal-action">
            <button type="button" className="btn" onClick={() => dialog.current?.close()}>
              Leave it
            </button>
            <button type="button" className="btn btn-primary" disabled={!preview || busy} onClick={confirm}>
              Cancel the session
            </button>
          </div>
        </div>
      </dialog>
    </>
  );
}

/** Everything that cancelling brings, a sentence each. */
function consequences(preview: CancelPreview, say: Saying): string[] {
  const { people, along, bought, packed, locked, dishes, jobs, place, date, startsAt, minutes } = preview;
  return [
    people > 0 ? `${people} on the roll have to be told; their places on the course stay.` : '',
    along.length > 0
      ? `Its other groups do not meet either: ${along.map((each) => `${each.groupName}, ${say.shortDate(each.date)}`).join('; ')}.`
      : '',
    bought ? 'The shopping is done: see what keeps for another session, and what can be given away in time.' : '',
    packed
      ? 'Packing has begun: cold parts have a clock, and kits must not be handed out by mistake.'
      : locked
        ? 'Its kit sheet is locked; the sheet stays as it is, in case the session is held after all.'
        : '',
    dishes.length > 0
      ? `Not cooked then: ${dishes.join(', ')}. Choose ${dishes.length > 1 ? 'them' : 'it'} for another session, if ${dishes.length > 1 ? 'they are' : 'it is'} still to be taught.`
      : '',
    jobs.length > 0 ? `${jobs.length} open jobs fall away: ${jobs.join(', ')}.` : '',
    place ? `${place} is free on ${say.shortDate(date)} from ${say.time(startsAt)}, for ${minutes} minutes.` : '',
    'It can be held after all, and the calendar takes the change back in one step.',
  ].filter(Boolean);
}

/** Holds a cancelled session after all. */
export function HoldButton({ session }: { session: Moving & { readonly version: number } }) {
  const [answer, setAnswer] = useState<FormState | null>(null);
  const [busy, start] = useTransition();
  const { id, groupId, version, title } = session;
  const hold = () =>
    start(async () =>
      setAnswer(await cancel({ sessionId: id, ...(groupId ? { groupId } : {}), version, cancelled: false })),
    );
  return (
    <span>
      <button type="button" className="btn btn-sm" disabled={busy} onClick={hold} aria-label={`Hold ${title}`}>
        Hold it
      </button>
      <FormMessage state={answer?.ok ? null : answer} />
    </span>
  );
}
