import type { Connection } from 'mysql2';
import type { Transaction } from 'sequelize';

/**
 * Connections that have the leave to blank out what is otherwise only added to. A transaction that the database takes back gives
 * its connection to the next at once: then the leave is taken from it before anybody can use it.
 */
const withLeave = new WeakSet<object>();

const connectionOf = (transaction: Transaction) => (transaction as unknown as { connection: Connection }).connection;

const say = (connection: Connection, value: '1' | 'NULL') =>
  new Promise<void>((resolve, reject) => {
    connection.query(`SET @logistra_erasing = ${value}`, (error) => (error ? reject(error) : resolve()));
  });

/** Gives a transaction's connection the leave to erase. */
export function giveLeave(transaction: Transaction): Promise<void> {
  const connection = connectionOf(transaction);
  withLeave.add(connection);
  return say(connection, '1');
}

/** Takes the leave from a connection, where it has it; one that does not hear it is ended, and nobody uses it again. */
export async function takeLeave(connection: Connection): Promise<void> {
  if (!withLeave.has(connection)) return;
  await say(connection, 'NULL').catch(() => connection.destroy());
  withLeave.delete(connection);
}

/** Takes the leave from a transaction's connection, unless that is somebody else's by now, who took it then. */
export const endLeave = (transaction: Transaction): Promise<void> =>
  (transaction as unknown as { finished?: string }).finished ? Promise.resolve() : takeLeave(connectionOf(transaction));
