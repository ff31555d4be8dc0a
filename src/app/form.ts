import { parse } from '@conform-to/dom';
import { revalidatePath } from 'next/cache';
import { unstable_rethrow } from 'next/navigation';
import { sayingFacts, sayingOf } from '@/core/plan/saying';
import { databaseTrouble, ServiceError } from '@/services/errors';
import { type Called, refuseRole, type Service } from '@/services/gate/gate';
import { logSecurity } from '@/services/gate/security-log';
import { contextFor } from '@/services/runtime';
import type { FormState } from '@/ui/form/form-state';
import { faultOf, log } from '@/watch/log';
import { currentMember, whoAsks } from './access';

/** What an action comes to: the sentence to show when it worked, what is to be copied, and the way back. */
type Said = string | Pick<FormState, 'message' | 'copy' | 'undo'> | undefined;

/**
 * Runs what a form asked for and answers in words: what worked, or what to mend where. Who asks, and whether the service is
 * theirs to call, is looked at before anything that was sent.
 *
 * @param service the use case that the form is for
 */
export async function attempt(service: Called, work: () => Promise<Said>): Promise<FormState> {
  const { actor } = await whoAsks(service);
  return inManner(
    await answering(async () => {
      await refuseRole(service, contextFor(actor));
      try {
        return await work();
      } catch (error) {
        if (error instanceof ServiceError && error.message === NOT_A_FORM)
          await logSecurity(contextFor(actor), 'sent what no page sends', {
            programmeId: actor.programmeId,
            actorId: actor.id,
            detail: service.title,
          });
        throw error;
      }
    }),
  );
}

/** An answer with its dates and times as the programme of the one who asks says them. */
async function inManner(state: FormState): Promise<FormState> {
  const member = await currentMember();
  if (!member) return state;
  const { text } = sayingOf(sayingFacts(member.programme));
  const problems = state.problems?.map((problem) => ({ ...problem, message: text(problem.message) }));
  return { ...state, ...(state.message ? { message: text(state.message) } : {}), ...(problems ? { problems } : {}) };
}

/** The same for somebody who is not signed in yet. */
export const attemptAtDoor = (work: () => Promise<Said>): Promise<FormState> => answering(work);

async function answering(work: () => Promise<Said>): Promise<FormState> {
  try {
    const said = await work();
    revalidatePath('/', 'layout');
    return { ok: true, ...(typeof said === 'string' ? { message: said } : said) };
  } catch (error) {
    unstable_rethrow(error);
    const known = error instanceof ServiceError ? error : databaseTrouble(error);
    if (known)
      return {
        ok: false,
        message: known.message,
        problems: known.problems,
        ...(known.kind === 'proof' ? { proof: true } : {}),
      };
    log().error(faultOf(error), 'a form failed');
    return { ok: false, message: 'Something went wrong on our side. Nothing was saved: try again.' };
  }
}

/** The fields of a form as plain text by name. */
export function fields(data: FormData): Record<string, string> {
  if (!(data instanceof FormData)) throw notAForm();
  return Object.fromEntries([...data].flatMap(([key, value]) => (typeof value === 'string' ? [[key, value]] : [])));
}

/**
 * What a form sent for a service, its fields named as the service's own (see `namesOf` in ui/names.ts): the field
 * "hours[0].from" is in the first of a list of objects. Everything is text; the service reads it, and refuses what it lacks.
 *
 * @param _service only for the type of what comes back
 * @example formOf(addPlace, data) //=> { name: 'Net loft', seats: '', hours: [{ from: '09:00', to: '17:00' }] }
 */
export function formOf<Input>(_service: Service<Input, unknown>, data: FormData): Input {
  if (!(data instanceof FormData) || [...data.keys()].some((name) => /\[\d{4,}\]/.test(name))) throw notAForm();
  return parse(data, { resolve: () => ({ value: null }) }).payload as Input;
}

/** The texts of fields that share a name: boxes that are ticked, choices that were added. */
export const texts = (data: FormData, name: string): string[] => data.getAll(name).map(String);

/** Whether a box is ticked. */
export const ticked = (data: FormData, name: string): boolean => data.get(name) === 'on';

/** What was filled in; an empty field gives nothing. */
export const given = (sent: Readonly<Record<string, unknown>> = {}): Record<string, string> =>
  Object.fromEntries(Object.entries(sent).filter((entry): entry is [string, string] => String(entry[1]).trim() !== ''));

/** What no page of ours sends: its parts are not where a form has them. */
const NOT_A_FORM = 'What was sent is not what this form sends. Load the page again, and try once more.';
const notAForm = () => new ServiceError('invalid', NOT_A_FORM);
