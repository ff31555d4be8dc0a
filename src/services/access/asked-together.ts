/** How long the first question waits for others, in milliseconds. */
const MOMENT = 8;

interface Waiting<Answer> {
  readonly key: string;
  readonly done: (answer: Answer | undefined) => void;
  readonly failed: (error: unknown) => void;
}

/**
 * Makes one question of many that are asked within a moment: twenty screens that tick ten times a second would ask the
 * database two hundred times who they are. Nothing is remembered: whoever is turned out is refused from the next
 * question on.
 *
 * @param askAll answers by key for all who wait; a key without an answer is unknown
 * @returns asks for one key
 */
export function askedTogether<Answer>(
  askAll: (keys: readonly string[]) => Promise<ReadonlyMap<string, Answer>>,
): (key: string) => Promise<Answer | undefined> {
  let waiting: Waiting<Answer>[] = [];
  const ask = async () => {
    const these = waiting;
    waiting = [];
    try {
      const answers = await askAll([...new Set(these.map(({ key }) => key))]);
      for (const { key, done } of these) done(answers.get(key));
    } catch (error) {
      for (const { failed } of these) failed(error);
    }
  };
  return (key) =>
    new Promise((done, failed) => {
      if (waiting.length === 0) setTimeout(ask, MOMENT);
      waiting.push({ key, done, failed });
    });
}
