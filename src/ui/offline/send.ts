import { ofThisPage } from '../page-of';
import type { Answer, Queued } from './queue';

interface Words {
  /** Said where nobody answers, where one is signed out, and where nothing else is said of a refusal. */
  readonly noAnswer: string;
  readonly signedOut: string;
  readonly refused: string;
}

/**
 * Sends events of a queue to an address, and says what the server said of them.
 *
 * @param body what is sent of some events
 * @param hear told what the server answered when it took them
 */
export const sendingTo =
  <Event extends Queued>(
    address: string,
    body: (events: readonly Event[]) => unknown,
    { noAnswer, signedOut, refused }: Words,
    hear?: (answer: unknown) => void,
  ) =>
  async (events: readonly Event[]): Promise<Answer> => {
    const response = await fetch(address, {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...ofThisPage() },
      body: JSON.stringify(body(events)),
      // A connection that hangs must not hold up the others.
      signal: AbortSignal.timeout(8000),
    }).catch(() => null);
    if (!response) return { kind: 'unanswered', message: noAnswer, isCut: true };
    if (response.status === 401) return { kind: 'unanswered', message: signedOut, isCut: false };
    if (response.status >= 500) return { kind: 'unanswered', message: noAnswer, isCut: false };
    if (response.ok) {
      if (hear) hear(await response.json().catch(() => null));
      return { kind: 'saved' };
    }
    const said = await response.json().catch(() => null);
    return { kind: 'refused', message: said?.title ?? refused };
  };
