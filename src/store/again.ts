/** Lock wait timeout, deadlock: safe to run again from the start. */
const RETRY = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD']);

/** The database's own code of an error, or ''. */
export function codeOf(error: unknown): string {
  const parent = (error as { parent?: { code?: unknown } } | null)?.parent;
  return typeof parent?.code === 'string' ? parent.code : '';
}

/** Does a whole unit of work, and again where it stood in another's way: at most five times. */
export async function again<Result>(work: () => Promise<Result>): Promise<Result> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await work();
    } catch (error) {
      if (attempt >= 5 || !RETRY.has(codeOf(error))) throw error;
    }
  }
}
