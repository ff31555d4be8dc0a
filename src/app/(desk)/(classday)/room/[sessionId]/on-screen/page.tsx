import Link from 'next/link';
import { call } from '@/app/access';
import { attempt, fields, texts } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { sayCount } from '@/core/quantity/say';
import { matchThere, recordThere, viewAtHome } from '@/services/classday/on-screen';
import { WhoIsThere } from '@/ui/classday/who-is-there';
import type { FormState } from '@/ui/form/form-state';
import { Caution, PageTitle } from '@/ui/page';

export const metadata = { title: 'On screen' };

async function match(sessionId: string, data: FormData) {
  'use server';
  return call(matchThere, { sessionId, pasted: fields(data).pasted ?? '' });
}

async function record(sessionId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(recordThere, async () => {
    const { noted } = await call(recordThere, { sessionId, ids: texts(data, 'id') });
    return `${sayCount(noted, 'person', 'people')} noted as there.`;
  });
}

/** Who is in the call, and what homes lack. */
export default async function OnScreen({ params }: { params: Promise<{ sessionId: string }> }) {
  const { sessionId } = await params;
  const { heats, tools, probed, families } = await orNotFound(call(viewAtHome, { sessionId }));
  const lacking = families.filter(({ lacks }) => lacks.length > 0);
  const unasked = families.filter(({ isAsked }) => !isAsked);
  return (
    <>
      <PageTitle title="On screen">
        <Link href={`/live/${sessionId}`} prefetch={false} className="btn btn-primary">
          Run the class
        </Link>
        <Link href={`/room/${sessionId}`} className="btn">
          In the room
        </Link>
      </PageTitle>
      <div className="grid gap-5 lg:grid-cols-2">
        <section className="sheet p-5" aria-labelledby="there">
          <h2 id="there" className="mb-2 text-xl font-bold">
            Who is there
          </h2>
          <WhoIsThere match={match.bind(null, sessionId)} record={record.bind(null, sessionId)} />
        </section>
        <section className="sheet p-5" aria-labelledby="homes">
          <h2 id="homes" className="mb-2 text-xl font-bold">
            At their homes
          </h2>
          <p className="mb-2">The dishes need {[...heats, ...tools].join(', ') || 'nothing that a home may lack'}.</p>
          {probed.map(({ title, kind, said }) => (
            <p
              key={title}
              role="alert"
              className="mb-2 rounded-box border-l-4 border-error bg-error/10 p-3 font-semibold"
            >
              {title} holds {kind}, which is safe only at {said} inside: without a thermometer at home it is no home
              dish.
            </p>
          ))}
          <ul className="flex list-disc flex-col gap-1 pl-5">
            {lacking.map(({ id, name, lacks }) => (
              <li key={id}>
                <b>{name}</b> lacks{' '}
                {lacks
                  .map(({ what, instead }) => `${what}${instead ? ` (${instead})` : ' (nothing here will do)'}`)
                  .join('; ')}
              </li>
            ))}
          </ul>
          {lacking.length === 0 && <p>Nobody who was asked lacks anything.</p>}
          {unasked.length > 0 && <p className="mt-2">Not asked yet: {unasked.map(({ name }) => name).join(', ')}.</p>}
        </section>
      </div>
      <div className="mt-4">
        <Caution>
          A grown-up stands beside each child who cooks at home: ask to see them before knives and heat.
        </Caution>
      </div>
    </>
  );
}
