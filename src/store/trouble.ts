/** The database's own code of an error, or ''. */
export function codeOf(error: unknown): string {
  const { parent, code } = (error ?? {}) as { parent?: { code?: unknown }; code?: unknown };
  const said = parent?.code ?? code;
  return typeof said === 'string' ? said : '';
}

const AWAY = new Set([
  'PROTOCOL_CONNECTION_LOST',
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ER_SERVER_SHUTDOWN',
  // A node of a cluster that has lost the others, or is not level with them yet, answers nothing; it was leaving while it saved.
  'ER_UNKNOWN_COM_ERROR',
  'ER_ERROR_DURING_COMMIT',
  'ER_NORMAL_SHUTDOWN',
]);

/** No room to write, or leave to: what can be read can still be read. */
const CLOSED = new Set([
  'ER_RECORD_FILE_FULL',
  'ER_DISK_FULL',
  'ER_ERROR_ON_WRITE',
  'ER_OUT_OF_RESOURCES',
  'ER_OPTION_PREVENTS_STATEMENT',
  'ER_CANT_EXECUTE_IN_READ_ONLY_TRANSACTION',
  'ER_READ_ONLY_MODE',
  'ER_GET_ERRNO',
]);

/**
 * What is the matter with the database, going by an error: it does not answer, or it takes nothing in.
 *
 * @returns undefined when the error is about something else
 */
export function troubleOf(error: unknown): 'away' | 'takes nothing in' | undefined {
  const code = codeOf(error);
  if (CLOSED.has(code)) return 'takes nothing in';
  if (AWAY.has(code)) return 'away';
  const name = (error as Error | null)?.name ?? '';
  const text = (error as Error | null)?.message ?? '';
  // A pool that has just lost its connections says so in words only.
  if (/^Sequelize(Connection|HostNot|AccessDenied)/.test(name) || /closed state|connection.*closed/i.test(text))
    return 'away';
  return undefined;
}
