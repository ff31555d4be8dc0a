import { timeOf } from '@/core/plan/civil';
import type { Saying } from '@/core/plan/saying';

import { ActionForm } from '../form/action-form';
import { Field } from '../form/field';
import type { FormState } from '../form/form-state';

interface Duty {
  readonly promiseId: string;
  readonly session: string;
  readonly title: string;
  readonly date: string;
  readonly from: number;
  readonly to: number;
  readonly place: string;
}

interface OwnDuty extends Duty {
  readonly state: string;
  readonly isOffered: boolean;
  readonly before?: {
    readonly date: string;
    readonly from: number;
    readonly to: number;
    readonly place: string;
  } | null;
  readonly what: string;
  readonly bring: readonly string[];
  readonly steps: readonly string[];
  readonly beside: readonly string[];
  readonly lead?: { readonly name: string; readonly contact: string };
}

type Action = (state: FormState | null, data: FormData) => Promise<FormState>;

const end = (to: number) => timeOf(Math.min(to, 1439));

function When({ duty, say }: { duty: Duty; say: Saying }) {
  return (
    <p>
      <b className="text-lg">
        {say.longDate(duty.date)}, {say.time(duty.from)} to {say.time(end(duty.to))}
      </b>
      <span className="block">
        {duty.place} · {duty.session}
      </span>
    </p>
  );
}

/** Somebody's own duties: what is asked of them, what they promised, and what to know for it. */
export function OwnDuties({
  duties,
  answer,
  say,
}: {
  duties: readonly OwnDuty[];
  answer: (promiseId: string) => Action;
  say: Saying;
}) {
  if (duties.length === 0) return <p>Nothing is asked of you just now. Thank you for being there.</p>;
  return (
    <ul className="flex flex-col gap-5">
      {duties.map((duty) => (
        <li key={duty.promiseId} className="rounded-box border border-base-300 p-4">
          <h2 className="text-xl font-bold">{duty.title}</h2>
          <When duty={duty} say={say} />
          {duty.before && (
            <p className="my-2 rounded-box border-l-4 border-warning bg-warning/10 p-2 font-semibold">
              It moved: you were told {say.longDate(duty.before.date)}, {say.time(duty.before.from)} to{' '}
              {say.time(end(duty.before.to))}, {duty.before.place}.
            </p>
          )}
          <p className="my-2 font-semibold">
            {duty.state === 'accepted' ? '● You said yes.' : '◐ Can you do it?'}
            {duty.isOffered && ' You would give it away; it is yours until somebody takes it.'}
          </p>
          <Answer duty={duty} action={answer(duty.promiseId)} />
          <details className="mt-3" open={duty.state === 'accepted'}>
            <summary className="cursor-pointer font-semibold">What to do, wear and bring</summary>
            <p className="mt-1">{duty.what}</p>
            <ul className="list-disc pl-5">
              {duty.bring.map((each) => (
                <li key={each}>{each}</li>
              ))}
            </ul>
            {duty.steps.length > 0 && (
              <>
                <p className="mt-2 font-semibold">Where you are wanted:</p>
                <ol className="list-decimal pl-5 text-sm">
                  {duty.steps.map((step, at) => (
                    <li key={`${at} ${step}`}>{step}</li>
                  ))}
                </ol>
              </>
            )}
          </details>
          {duty.beside.length > 0 && <p className="mt-2 text-sm">With {duty.beside.join(', ')}.</p>}
          {duty.lead && (
            <p className="mt-2 text-sm">
              Questions, or something is wrong: {duty.lead.name}
              {duty.lead.contact && `, ${duty.lead.contact}`}, who leads.
            </p>
          )}
        </li>
      ))}
    </ul>
  );
}

function Answer({ duty, action }: { duty: OwnDuty; action: Action }) {
  const isMine = duty.state === 'accepted' && !duty.before;
  return (
    <ActionForm action={action} label={`Answer: ${duty.title}`} className="flex flex-col gap-3">
      {!isMine && (
        <div className="flex gap-3">
          <button type="submit" name="answer" value="yes" className="btn btn-primary h-11 grow">
            Yes, I will
          </button>
          <button type="submit" name="answer" value="no" className="btn h-11 grow">
            No, I cannot
          </button>
        </div>
      )}
      {isMine && (
        <div className="flex flex-wrap gap-3">
          <button type="submit" name="answer" value={duty.isOffered ? 'keep' : 'offer'} className="btn h-11">
            {duty.isOffered ? 'I keep it after all' : 'I would give it away'}
          </button>
          <button type="submit" name="answer" value="no" className="btn h-11">
            I cannot come after all
          </button>
        </div>
      )}
      <Field label="Something to say (may be left empty)" name="note" maxLength={200} />
    </ActionForm>
  );
}

/** What others would give away, and this person could take. */
export function Offers({
  offers,
  take,
  say,
}: {
  offers: readonly (Duty & { readonly who: string })[];
  take: (promiseId: string) => Action;
  say: Saying;
}) {
  if (offers.length === 0) return null;
  return (
    <section aria-labelledby="offers" className="mt-6">
      <h2 id="offers" className="text-xl font-bold">
        Would you take one of these?
      </h2>
      <ul className="mt-2 flex flex-col gap-4">
        {offers.map((offer) => (
          <li key={offer.promiseId} className="rounded-box border border-base-300 p-4">
            <b>{offer.title}</b>, of {offer.who}
            <When duty={offer} say={say} />
            <ActionForm action={take(offer.promiseId)} label={`Take: ${offer.title}`} className="mt-2">
              <button type="submit" className="btn h-11" aria-label={`I take it: ${offer.title}`}>
                I take it
              </button>
            </ActionForm>
          </li>
        ))}
      </ul>
    </section>
  );
}
