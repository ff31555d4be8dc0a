import { call } from '@/app/access';
import { attempt, formOf } from '@/app/form';
import { MODES } from '@/core/plan/mode';
import type { InputOf } from '@/services/gate/gate';
import type { viewSuits } from '@/services/recipes/suits';
import { setAway } from '@/services/roll/away';
import { ActionForm } from '@/ui/form/action-form';
import { Choice } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';

type Bundle = Awaited<ReturnType<typeof viewSuits>>['bundle'];

/** A way back leads to how everybody took part before. */
async function save(sessionId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(setAway, async () => {
    const before = await call(setAway, { ...formOf(setAway, data), sessionId });
    return { message: 'Written down.', undo: putBack.bind(null, sessionId, before) };
  });
}

async function putBack(sessionId: string, people: InputOf<typeof setAway>['people']): Promise<FormState> {
  'use server';
  return attempt(setAway, async () => {
    await call(setAway, { sessionId, people });
    return 'It is as it was before.';
  });
}

/** Who of the roll misses this session, or takes part another way. */
export function WhoComes({ sessionId, bundle: { enrolments, away } }: { sessionId: string; bundle: Bundle }) {
  const enrolled = enrolments
    .filter(({ status }) => status === 'enrolled')
    .sort((a, b) => a.name.localeCompare(b.name));
  if (enrolled.length === 0) return null;
  // A family with several children brings its adults once.
  const homes = new Map(enrolled.map(({ householdId, home }) => [householdId, home ?? {}]));
  const helpers = [...homes.values()].reduce((sum, home) => sum + (home.helpers ?? 0), 0);
  return (
    <section className="sheet h-fit p-5" aria-labelledby="who-comes">
      <h2 id="who-comes" className="mb-1 text-xl font-bold">
        Away this time
      </h2>
      {helpers > 0 && (
        <p className="mb-2 text-sm">
          {helpers} {helpers === 1 ? 'adult' : 'adults'} of their families come along and help.
        </p>
      )}
      <ul className="mb-3 flex flex-col gap-1">
        {away.flatMap(({ enrolmentId, mode }) => {
          const person = enrolled.find(({ id }) => id === enrolmentId);
          return person
            ? [
                <li key={enrolmentId} className="flex items-center gap-3">
                  <span>
                    <b>{person.name}</b> {mode === null ? 'does not come: no kit' : `takes part ${mode}`}
                  </span>
                  <ActionForm action={save.bind(null, sessionId)} label={`${person.name} as usual`}>
                    <input type="hidden" name="people[0].enrolmentId" value={enrolmentId} />
                    <input type="hidden" name="people[0].how" value="usual" />
                    <button type="submit" className="btn btn-xs" aria-label={`${person.name} comes as usual`}>
                      As usual
                    </button>
                  </ActionForm>
                </li>,
              ]
            : [];
        })}
      </ul>
      <ActionForm action={save.bind(null, sessionId)} label="Away this time" className="flex flex-wrap items-end gap-2">
        <Choice label="Who" name="people[0].enrolmentId" width="min-w-40 flex-1" required defaultValue="">
          <option value="" disabled>
            Choose a person
          </option>
          {enrolled.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Choice>
        <Choice label="How" name="people[0].how" defaultValue="away">
          <option value="away">does not come</option>
          {MODES.map((mode) => (
            <option key={mode}>{mode}</option>
          ))}
        </Choice>
        <button type="submit" className="btn">
          Save
        </button>
      </ActionForm>
    </section>
  );
}
