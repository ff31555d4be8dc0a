import Link from 'next/link';
import { v7 } from 'uuid';
import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { addToIncident, listIncidents } from '@/services/classday/incidents';

import { ActionForm } from '@/ui/form/action-form';
import { Field, TextArea } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Empty, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Incidents' };

async function add(incidentId: string, id: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(addToIncident, async () => {
    const { words = '', told = '' } = fields(data);
    await call(addToIncident, { id, incidentId, words, told });
    return 'Added.';
  });
}

/** What happened to somebody in a session, for coordinators alone. */
export default async function Incidents({ params }: { params: Promise<{ sessionId: string }> }) {
  const say = await saying();
  const { sessionId } = await params;
  const { session, incidents } = await orNotFound(call(listIncidents, { sessionId }));
  return (
    <>
      <PageTitle title={`Incidents: ${session.title}`} over={`${say.longDate(session.date)} · for coordinators alone`}>
        <Link href={`/room/${sessionId}`} className="btn">
          In the room
        </Link>
        <PrintButton />
      </PageTitle>
      {incidents.length === 0 && (
        <Empty title="Nothing was noted">
          <p>Whoever is in the room notes it under “Somebody is hurt or unwell”.</p>
        </Empty>
      )}
      {incidents.map(({ id, who, hurt, hasCalled, entries }) => (
        <section key={id} className="sheet keep-together mb-4 p-5" aria-label={`${hurt}${who && `: ${who}`}`}>
          <h2 className="text-xl font-bold">
            {hurt.charAt(0).toUpperCase() + hurt.slice(1)}
            {who && `: ${who}`}
          </h2>
          {hasCalled && <p className="font-semibold">The emergency number was called.</p>}
          {entries.map(({ words, told, at, by }) => (
            <div key={at + words} className="mt-2 border-t border-base-300 pt-2">
              <p className="text-sm">
                {say.moment(at)}, {by}
              </p>
              <p className="whitespace-pre-line">{words}</p>
              {told && <p>Told: {told}</p>}
            </div>
          ))}
          <ActionForm
            action={add.bind(null, id, v7())}
            label={`Add to ${hurt}`}
            className="no-print mt-3 flex flex-col gap-2"
            clear
          >
            <TextArea label="Add to it" name="words" rows={2} maxLength={4000} />
            <Field label="Who was told, and when" name="told" maxLength={250} />
            <button type="submit" className="btn self-start">
              Add
            </button>
          </ActionForm>
        </section>
      ))}
    </>
  );
}
