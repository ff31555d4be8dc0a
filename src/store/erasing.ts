import { Op } from 'sequelize';
import { change, execute, find, select } from './query';
import type { KitSheetRow } from './rows';
import type { Db } from './store';

/** Runs `work` with the database's leave to blank out what is otherwise only added to. */
export async function whileErasing<T>(db: Db, work: () => Promise<T>): Promise<T> {
  await execute(db, 'SET @logistra_erasing = 1', {});
  try {
    return await work();
  } finally {
    // The connection goes back to the pool: it must not keep the leave.
    await execute(db, 'SET @logistra_erasing = NULL', {});
  }
}

/** Every locked sheet that may name one of these people: those of their courses' sessions. */
export async function sheetsNaming(db: Db, enrolmentIds: readonly string[]): Promise<KitSheetRow[]> {
  const sessions = await select<{ id: string }>(
    db,
    'SELECT DISTINCT s.id FROM session s JOIN enrolment e ON e.course_id = s.course_id WHERE e.id IN (:enrolmentIds)',
    { enrolmentIds },
  );
  return find(db, db.models.kitSheet, { sessionId: { [Op.in]: sessions.map(({ id }) => id) } }, [
    ['sessionId', 'ASC'],
    ['revision', 'ASC'],
  ]);
}

/**
 * Blanks what the change log tells of people: who did what and when stays, what it was about goes.
 *
 * @param ids ids of the household and its people
 */
export async function blankChanges(db: Db, programmeId: string, ids: readonly string[]): Promise<number> {
  let blanked = 0;
  for (const id of ids) {
    blanked += await change(
      db,
      `UPDATE change_log SET detail = '{"erased":true}'
        WHERE programme_id = :programmeId AND (entity_id = :id OR detail LIKE :mention)`,
      { programmeId, id, mention: `%${id}%` },
    );
  }
  return blanked;
}
