import { revalidatePath } from 'next/cache';
import Link from 'next/link';
import { v7 } from 'uuid';
import { call, requireMember } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { sayCount } from '@/core/quantity/say';
import type { AttendanceState } from '@/core/roll/attendance';
import { recordAllCame, recordAttendance, viewAttendance } from '@/services/classday/attendance';
import { noteComing } from '@/services/classday/coming-notes';

import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';

export const metadata = { title: 'Attendance' };

/** @param ids of each answer, made with the page: pressed twice, it is noted once */
async function mark(
  person: { sessionId: string; enrolmentId: string; anyway: boolean },
  ids: Readonly<Record<string, string>>,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  const answer = await attempt(recordAttendance, async () => {
    const { state = '' } = fields(data);
    await call(recordAttendance, { ...person, id: ids[state] ?? '', state });
    return undefined;
  });
  // Refused, because something is no longer as this page shows it: it shows it now.
  if (!answer.ok) revalidatePath(`/room/${person.sessionId}/attendance`);
  return answer;
}

async function allCame(sessionId: string, groupId: string | null): Promise<FormState> {
  'use server';
  return attempt(recordAllCame, async () => {
    const { noted } = await call(recordAllCame, { sessionId, groupId });
    return `${sayCount(noted, 'person', 'people')} noted as there.`;
  });
}

async function comes(
  sessionId: string,
  enrolmentId: string,
  kind: 'late' | 'left early' | 'fetched' | 'taken back',
  id: string,
  _state: FormState | null,
  data: FormData,
): Promise<FormState> {
  'use server';
  return attempt(noteComing, async () => {
    await call(noteComing, { id, sessionId, enrolmentId, kind, who: fields(data).who ?? '' });
    return undefined;
  });
}

export default async function Attendance({ params }: { params: Promise<{ sessionId: string }> }) {
  const say = await saying();
  const { sessionId } = await params;
  const { actor } = await requireMember();
  const { session, people } = await orNotFound(call(viewAttendance, { sessionId }));
  const count = (state: AttendanceState) => people.filter(({ seen }) => seen.includes(state)).length;
  const open = people.filter(({ seen }) => seen.length === 0).length;
  // One press for each group: groups may come at hours of their own.
  const waiting = people.filter(
    ({ questions, seen }) => questions.flat().includes('came') && !seen.includes('came') && !seen.includes('absent'),
  );
  const waitingGroups = [...new Set(waiting.map(({ groupId }) => groupId))];
  const states = [...new Set(people.flatMap(({ questions }) => questions.flat()))];
  return (
    <>
      <PageTitle
        title={`Attendance: ${session.title}`}
        over={`${session.courseTitle} · ${say.longDate(session.date)}, ${say.time(session.startsAt)} · ${session.place}`}
      >
        <Link href={`/room/${sessionId}`} className="btn">
          In the room
        </Link>
        {actor.role === 'coordinator' && count('not collected') > 0 && (
          <Link href={`/sessions/${sessionId}/not-fetched`} className="btn btn-primary">
            Kits not fetched
          </Link>
        )}
      </PageTitle>
      <p role="status" className="mb-3 text-lg">
        {states
          .map((state) => ({ state, people: count(state) }))
          .filter(({ people: some }) => some > 0)
          .map(({ state, people: some }) => `${some} ${state}`)
          .join(', ') || 'Nobody is noted yet'}
        {open > 0 && `; ${open} still open`}.
      </p>
      <div className="mb-3 flex flex-wrap gap-3">
        {waitingGroups.map((groupId) => {
          const these = waiting.filter((person) => person.groupId === groupId);
          const name = these[0]?.group || 'all';
          return (
            <ActionForm key={groupId} action={allCame.bind(null, sessionId, groupId)} label={`Came: ${name}`}>
              <button type="submit" className="btn">
                {waitingGroups.length > 1 && `${name}: `}
                {these.length < people.length ? 'The other ' : 'All '}
                {these.length} came
              </button>
            </ActionForm>
          );
        })}
      </div>
      <ul className="sheet divide-y divide-base-300">
        {people.map(({ id, name, group, questions, seen, isCalledBack, notes, collectors }) => (
          <li key={id} className="flex flex-wrap items-center justify-between gap-2 p-3">
            <span className="text-lg font-semibold">
              {name}
              {group && <span className="text-base font-normal">, {group}</span>}
              {isCalledBack && (
                <span className="block text-base text-error">
                  Kit called back: it is not handed out. Ask the coordinator.
                </span>
              )}
            </span>
            <ActionForm
              action={mark.bind(
                null,
                { sessionId, enrolmentId: id, anyway: isCalledBack },
                Object.fromEntries(questions.flat().map((state) => [state, v7()])),
              )}
              className="flex flex-wrap gap-3"
            >
              {questions.map((question) => (
                <span key={question[0]} className={isCalledBack ? 'flex flex-wrap gap-3' : 'join'}>
                  {question.map((state) => {
                    const say = isCalledBack && state === 'collected' ? 'they have it all the same' : state;
                    return (
                      <button
                        key={state}
                        type="submit"
                        name="state"
                        value={state}
                        className={`btn ${isCalledBack ? '' : 'join-item'} ${seen.includes(state) ? 'btn-primary' : ''}`}
                        aria-pressed={seen.includes(state)}
                        aria-label={`${name}: ${say}`}
                      >
                        {say}
                      </button>
                    );
                  })}
                </span>
              ))}
            </ActionForm>
            {questions.flat().includes('came') && !seen.includes('absent') && (
              <details className="w-full">
                <summary className="min-h-11 cursor-pointer text-sm">
                  {notes.length > 0
                    ? notes.map(({ kind, who, at }) => `${kind}${who && ` by ${who}`}, ${say.timeAt(at)}`).join('; ')
                    : 'Late, left early, fetched'}
                </summary>
                <div className="flex flex-wrap items-end gap-3">
                  {(['late', 'left early'] as const).map((kind) => (
                    <ActionForm
                      key={kind}
                      action={comes.bind(null, sessionId, id, kind, v7())}
                      label={`${name}: ${kind}`}
                    >
                      <button
                        type="submit"
                        className="btn"
                        aria-label={`${name} ${kind === 'late' ? 'came late' : kind}`}
                      >
                        {kind === 'late' ? 'Came late, now' : 'Left early, now'}
                      </button>
                    </ActionForm>
                  ))}
                  <ActionForm
                    action={comes.bind(null, sessionId, id, 'fetched', v7())}
                    label={`${name}: fetched`}
                    className="flex flex-wrap items-end gap-3"
                  >
                    <Field
                      label={collectors.length > 0 ? `Fetched by (may: ${collectors.join(', ')})` : 'Fetched by'}
                      name="who"
                      maxLength={120}
                    />
                    <button type="submit" className="btn" aria-label={`${name} was fetched`}>
                      Fetched, now
                    </button>
                  </ActionForm>
                  {notes.length > 0 && (
                    <ActionForm
                      action={comes.bind(null, sessionId, id, 'taken back', v7())}
                      label={`${name}: take back`}
                    >
                      <button type="submit" className="btn" aria-label={`Take back what was noted of ${name}`}>
                        Take back
                      </button>
                    </ActionForm>
                  )}
                </div>
              </details>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
