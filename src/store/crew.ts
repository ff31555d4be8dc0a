// What the crew's services ask of the database beyond single rows.
import { hold } from './hold';
import { change, columnsOf, select } from './sql';
import type { Db } from './store';
import type { PromiseRow } from './tables/crew';

/** What somebody of the crew is planned for, asked or has promised, in sessions from a day on, with each session's title. */
export const promisesOf = (db: Db, values: { crewId: string; from: string }) =>
  select<PromiseRow & { sessionTitle: string; courseTitle: string }>(
    db,
    `SELECT ${columnsOf(db.models.promise, 'x')}, s.title AS sessionTitle, c.title AS courseTitle
       FROM promise x JOIN session s ON s.id = x.session_id JOIN course c ON c.id = s.course_id
      WHERE x.crew_id = :crewId AND s.status = 'planned' AND s.date >= :from ORDER BY s.date, x.id`,
    values,
  );

/** Ids of sessions from a day on that concern somebody of the crew: they hold a place of it, or somebody offers one. */
export const sessionsOfCrew = (db: Db, values: { programmeId: string; crewId: string; from: string }) =>
  select<{ id: string }>(
    db,
    `SELECT DISTINCT s.id FROM promise x JOIN session s ON s.id = x.session_id
            JOIN course c ON c.id = s.course_id
      WHERE c.programme_id = :programmeId AND (x.crew_id = :crewId OR x.is_offered = 1)
        AND x.state IN ('planned', 'asked', 'accepted') AND s.status = 'planned' AND s.date >= :from`,
    values,
  );

/** Ends every link to the page of somebody of the crew. @returns how many were open */
export const endCrewLinks = (db: Db, values: { crewId: string; now: Date }): Promise<number> =>
  change(db, 'UPDATE access_link SET used_at = :now WHERE crew_id = :crewId AND used_at IS NULL', values);

/** Hours of the crew between two days, with who and at which session. */
export const hoursBetween = (db: Db, values: { programmeId: string; from: string; to: string }) =>
  select<{
    id: string;
    sessionId: string;
    crewId: string;
    name: string;
    title: string;
    date: string;
    came: number;
    went: number | null;
    note: string;
    version: number;
  }>(
    db,
    `SELECT h.id, h.session_id AS sessionId, h.crew_id AS crewId, m.name, CONCAT(c.title, ': ', s.title) AS title,
            h.date, h.came, h.went, h.note, h.version
       FROM crew_hours h JOIN crew_member m ON m.id = h.crew_id JOIN session s ON s.id = h.session_id
            JOIN course c ON c.id = s.course_id
      WHERE c.programme_id = :programmeId AND h.date BETWEEN :from AND :to AND m.erased_at IS NULL
      ORDER BY m.name, h.date, h.came`,
    values,
  );

/** Takes out all that is kept of somebody's helping: what they were asked and promised, their hours, messages and links. */
export async function eraseCrewTraces(db: Db, values: { crewId: string; now: Date }): Promise<void> {
  await endCrewLinks(db, values);
  for (const table of ['promise', 'crew_hours', 'message'])
    await change(db, `DELETE FROM ${table} WHERE crew_id = :crewId`, values);
}

/** Sessions from a day on at which somebody holds a place. */
export const heldSessions = (db: Db, values: { crewId: string; from: string }) =>
  select<{ id: string }>(
    db,
    `SELECT DISTINCT s.id FROM promise x JOIN session s ON s.id = x.session_id
      WHERE x.crew_id = :crewId AND x.state IN ('planned', 'asked', 'accepted') AND s.status = 'planned' AND s.date >= :from`,
    values,
  );

/**
 * A promise with its session and its person held for the rest of the transaction: asked for before anything else is read, so that two
 * who answer at one moment, or one who answers twice, see each other.
 */
export async function holdPromise(
  db: Db,
  values: { programmeId: string; promiseId: string },
): Promise<{ sessionId: string; crewId: string }[]> {
  const held = await select<{ sessionId: string; crewId: string }>(
    db,
    `SELECT x.session_id AS sessionId, x.crew_id AS crewId FROM promise x JOIN session s ON s.id = x.session_id
       JOIN crew_member m ON m.id = x.crew_id WHERE x.id = :promiseId AND m.programme_id = :programmeId`,
    values,
  );
  for (const { sessionId, crewId } of held) {
    await hold(db, 'session', [sessionId]);
    await hold(db, 'crew_member', [crewId]);
    await hold(db, 'promise', [values.promiseId]);
  }
  return held;
}

/** Somebody of the crew, held for the rest of the transaction. */
export const holdCrewMember = (db: Db, values: { crewId: string }) => hold(db, 'crew_member', [values.crewId]);
