import Link from 'next/link';
import { v7 } from 'uuid';
import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import type { Hurt } from '@/core/classday/first-steps';
import { noteIncident, viewFirstSteps } from '@/services/classday/incidents';
import { HurtSteps } from '@/ui/classday/hurt-steps';
import { ActionForm } from '@/ui/form/action-form';
import { Field, TextArea, Tick } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Caution, PageTitle } from '@/ui/page';

export const metadata = { title: 'Hurt or unwell' };

async function note(sessionId: string, id: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(noteIncident, async () => {
    const { enrolmentId = '', hurt = '', words = '', told = '', hasCalled } = fields(data);
    // What is not one of the choices is refused by the service, with its place.
    const sent = { id, sessionId, enrolmentId, hurt: hurt as Hurt, words, told, hasCalled: hasCalled === 'on' };
    await call(noteIncident, sent);
    return 'Kept. Coordinators alone can read it, and have been told that there is something to read.';
  });
}

/** Somebody is hurt or unwell: what to do first, then what is written down. */
export default async function HurtPage({ params }: { params: Promise<{ sessionId: string }> }) {
  const { sessionId } = await params;
  const { session, number, steps, people } = await orNotFound(call(viewFirstSteps, { sessionId }));
  return (
    <>
      <PageTitle title="Hurt or unwell" over={session.title}>
        <Link href={`/live/${sessionId}`} prefetch={false} className="btn">
          Back to the class
        </Link>
      </PageTitle>
      <ActionForm action={note.bind(null, sessionId, v7())} label="What happened" className="max-w-3xl" clear>
        <HurtSteps number={number} steps={steps} people={people} />
        <h2 className="mb-2 text-xl font-bold">Afterwards, for the record</h2>
        <div className="flex flex-col gap-3">
          <TextArea label="What happened, when, and what was done" name="words" rows={4} maxLength={4000} />
          <Field label="Who was told, and when" name="told" maxLength={250} />
          <Tick label="The emergency number was called" name="hasCalled" />
          <button type="submit" className="btn btn-primary h-12">
            Keep it
          </button>
        </div>
      </ActionForm>
      <div className="mt-4">
        <Caution>
          These are usual first steps, no training: a first-aider, the family’s plan and the emergency service go before
          them. What is written here is read by coordinators alone.
        </Caution>
      </div>
    </>
  );
}
