import { notFound } from 'next/navigation';
import { ServiceError } from '@/services/errors';

/** What a service answers; what is not there, or not the asker's, leads to the page that says so. */
export async function orNotFound<T>(answer: Promise<T>): Promise<T> {
  try {
    return await answer;
  } catch (error) {
    // An address with a broken id is refused as invalid input: for a reader it is a page that is not there.
    if (error instanceof ServiceError && (error.kind === 'not-found' || error.kind === 'invalid')) notFound();
    throw error;
  }
}
