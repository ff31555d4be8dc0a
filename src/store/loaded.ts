import { DataTypes } from 'sequelize';
import { type LoadedKey, type LoadedRow, ownedTables } from './models';
import { select } from './sql';
import type { Db } from './store';
import type { Column } from './tables/table';

/** The rows of one session in a table that is loaded with sessions, oldest first. */
export type RowsOfSession = <Key extends LoadedKey>(key: Key, sessionId: string) => readonly LoadedRow<Key>[];

/**
 * The rows of all tables that are loaded with a session (`loads` in their definition), in one query however many there are.
 *
 * @param of "FROM … WHERE …" over a table called x: the sessions that are meant
 */
export async function loadWithSessions(
  db: Db,
  of: (table: string) => string,
  values: Record<string, unknown>,
): Promise<RowsOfSession> {
  const tables = ownedTables(db.models).filter(
    ({ ownership }) => ownership.belongs === 'sessionId' && ownership.loads === true,
  );
  const rows = await select<{ kind: LoadedKey; sessionId: string; fields: string }>(
    db,
    `${tables
      .map(({ key, table, columns }) => {
        const fields = Object.entries(columns).map(([column, { field }]) => `'${column}', x.${field}`);
        const at = columns.at ? 'x.at' : 'NULL';
        return `SELECT '${key}' AS kind, x.session_id AS sessionId, CAST(JSON_OBJECT(${fields.join(', ')}) AS CHAR) AS fields,
            ${at} AS at, ${columns.id ? 'x.id' : 'NULL'} AS id FROM ${of(String(table.getTableName()))}`;
      })
      .join(' UNION ALL ')} ORDER BY at, id`,
    values,
  );
  const readers = new Map<string, (fields: Record<string, unknown>) => unknown>(
    tables.map(({ key, columns }) => [key, rowReader(columns)]),
  );
  const groups = new Map<string, unknown[]>();
  for (const { kind, sessionId, fields } of rows) {
    const place = `${kind} ${sessionId}`;
    const group = groups.get(place) ?? [];
    group.push(readers.get(kind)?.(JSON.parse(fields) as Record<string, unknown>));
    groups.set(place, group);
  }
  return <Key extends LoadedKey>(key: Key, sessionId: string) =>
    (groups.get(`${key} ${sessionId}`) ?? []) as LoadedRow<Key>[];
}

/** Makes a row of what JSON says of it: a moment is text there. */
function rowReader(columns: Readonly<Record<string, Column<unknown>>>) {
  const moments = Object.entries(columns).flatMap(([name, { type }]) => (type instanceof DataTypes.DATE ? [name] : []));
  return (fields: Record<string, unknown>): unknown => {
    for (const name of moments) {
      const text = fields[name];
      if (typeof text === 'string') fields[name] = new Date(`${text.replace(' ', 'T')}Z`);
    }
    return fields;
  };
}
