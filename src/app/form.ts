import { revalidatePath } from 'next/cache';
import { unstable_rethrow } from 'next/navigation';
import { databaseTrouble, ServiceError } from '@/services/errors';
import type { FormState } from '@/ui/action-form';

/**
 * Runs what a form asked for and answers in words: what worked, or what to mend where.
 *
 * @param work returns the sentence to show when it worked, and beside it what is to be copied, if anything
 */
export async function attempt(
  work: () => Promise<string | Pick<FormState, 'message' | 'copy'> | undefined>,
): Promise<FormState> {
  try {
    const said = await work();
    revalidatePath('/', 'layout');
    return { ok: true, ...(typeof said === 'string' ? { message: said } : said) };
  } catch (error) {
    unstable_rethrow(error);
    const known = error instanceof ServiceError ? error : databaseTrouble(error);
    if (known) return { ok: false, message: known.message, problems: known.problems };
    console.error(error);
    return { ok: false, message: 'Something went wrong on our side. Nothing was saved: try again.' };
  }
}

/** The fields of a form as plain text by name. */
export const fields = (data: FormData): Record<string, string> =>
  Object.fromEntries([...data].flatMap(([key, value]) => (typeof value === 'string' ? [[key, value]] : [])));
