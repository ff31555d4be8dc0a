import Link from 'next/link';
import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { setLessonNote, viewLessonNote } from '@/services/classday/follow-later';

import { ActionForm } from '@/ui/form/action-form';
import { TextArea } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';

export const metadata = { title: 'Cooked at home' };

async function write(sessionId: string, version: number, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setLessonNote, async () => {
    await call(setLessonNote, { sessionId, version, words: fields(data).words ?? '' });
    return 'Saved. Families see it on the page of their kit.';
  });
}

const USED = { programme: 'within the programme', public: 'also in public' } as const;

/** What families who cook at home are told, and what they said and sent. */
export default async function Lesson({ params }: { params: Promise<{ sessionId: string }> }) {
  const say = await saying();
  const { sessionId } = await params;
  const { session, words, version, said, pictures } = await orNotFound(call(viewLessonNote, { sessionId }));
  const cooked = said.filter(({ word }) => word === 'cooked').length;
  return (
    <>
      <PageTitle
        title={`Cooked at home: ${session.title}`}
        over={`${say.longDate(session.date)}${session.cookBy ? ` · cooked by ${say.longDate(session.cookBy)}` : ''}`}
      >
        <Link href={`/room/${sessionId}`} className="btn">
          In the room
        </Link>
      </PageTitle>
      <div className="grid gap-5 lg:grid-cols-2">
        <section className="sheet p-5" aria-labelledby="told">
          <h2 id="told" className="mb-2 text-xl font-bold">
            What families are told of the lesson
          </h2>
          <ActionForm
            version={version}
            isUndoable
            action={write.bind(null, sessionId, version)}
            label="Lesson note"
            className="flex flex-col gap-3"
          >
            <TextArea
              label="Notes, on the page of their kit"
              name="words"
              rows={10}
              maxLength={6000}
              defaultValue={words}
            />
            <button type="submit" className="btn btn-primary self-start">
              Save
            </button>
          </ActionForm>
        </section>
        <section className="sheet p-5" aria-labelledby="said">
          <h2 id="said" className="mb-2 text-xl font-bold">
            What they said
          </h2>
          {said.length === 0 ? (
            <p>Nothing yet. Each family is asked on the page of its kit.</p>
          ) : (
            <>
              <p className="mb-2">{cooked} cooked it.</p>
              <ul className="list-disc pl-5">
                {said.map(({ name, word, note, at }) => (
                  <li key={`${name}${at}`}>
                    <b>{name}</b> {word}
                    {note && `: “${note}”`}
                  </li>
                ))}
              </ul>
            </>
          )}
          {pictures.length > 0 && (
            <ul className="mt-4 grid grid-cols-2 gap-3">
              {pictures.map(({ id, name, consent, endsOn }) => (
                <li key={id}>
                  <img
                    src={`/api/cooked/${id}`}
                    alt={`What the family of ${name} cooked`}
                    className="w-full rounded-box"
                  />
                  <p className="text-sm">
                    {name}, {USED[consent]}, until {say.longDate(endsOn)}
                  </p>
                </li>
              ))}
            </ul>
          )}
        </section>
      </div>
    </>
  );
}
