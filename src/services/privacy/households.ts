import { Temporal } from 'temporal-polyfill';
import { z } from 'zod';
import { ERASED, withoutPeople } from '@/core/kits/erased-sheet';
import type { LockedSheet } from '@/core/kits/locked-sheet';
import { blankChanges, sheetsNaming, whileErasing } from '@/store/erasing';
import { change, find, select } from '@/store/query';
import type { Db } from '@/store/store';
import { logChange } from '../access/change-log';
import { nowOf, service } from '../access/gate';
import { logLook } from '../access/looks';
import { stale } from '../errors';
import { fingerprint } from '../kits/session-sheet';
import { syncCallBacks } from '../packing/call-backs';
import { loadProgramme } from '../programme/load';
import { loadHousehold } from '../roll/home';

/** A household with what decides how long its data is kept. */
export interface HouseholdEntry {
  readonly id: string;
  readonly name: string;
  readonly version: number;
  readonly people: number;
  /** Civil date of the last session of any of its courses, or of the day it was entered. */
  readonly lastDate: string;
  /** Civil date from which its data is due to be erased. */
  readonly eraseFrom: string;
  readonly isDue: boolean;
}

export const listHouseholds = service({
  title: 'See all households and how long their data is kept',
  roles: ['coordinator'],
  input: z.object({}),
  run: async (context): Promise<HouseholdEntry[]> => {
    const { retentionMonths, timeZone } = (await loadProgramme(context)).programme;
    const rows = await select<{ id: string; name: string; version: number; people: number; lastDate: string }>(
      context.store.db,
      `SELECT h.id, h.name, h.version, COUNT(DISTINCT e.id) AS people,
              DATE_FORMAT(COALESCE(MAX(s.date), DATE(h.created_at)), '%Y-%m-%d') AS lastDate
         FROM household h LEFT JOIN enrolment e ON e.household_id = h.id LEFT JOIN session s ON s.course_id = e.course_id
        WHERE h.programme_id = :programmeId AND h.erased_at IS NULL
        GROUP BY h.id, h.name, h.version, h.created_at ORDER BY h.name`,
      { programmeId: context.actor.programmeId },
    );
    const today = context.clock().toZonedDateTimeISO(timeZone).toPlainDate();
    return rows.map((row) => {
      const eraseFrom = Temporal.PlainDate.from(row.lastDate).add({ months: retentionMonths });
      return { ...row, eraseFrom: eraseFrom.toString(), isDue: Temporal.PlainDate.compare(eraseFrom, today) <= 0 };
    });
  },
});

export const exportHousehold = service({
  title: 'Take out all that is held about a household',
  roles: ['coordinator'],
  input: z.object({ householdId: z.uuid() }),
  run: async (context, { householdId }) => {
    const { db } = context.store;
    const { name, contact, address, home, createdAt } = await loadHousehold(context, householdId, db);
    const enrolments = await find(db, db.models.enrolment, { householdId }, [['id', 'ASC']]);
    const ids = enrolments.map(({ id }) => id);
    const of = async <T extends object>(sql: string): Promise<T[]> =>
      ids.length > 0 ? select<T>(db, sql, { ids }) : [];
    const courses = await of<{ id: string; title: string }>(
      'SELECT DISTINCT c.id, c.title FROM course c JOIN enrolment e ON e.course_id = c.id WHERE e.id IN (:ids)',
    );
    const kits = await of(
      `SELECT k.enrolment_id AS enrolmentId, k.number, s.title AS session, s.date FROM kit k JOIN session s ON s.id = k.session_id
        WHERE k.enrolment_id IN (:ids) ORDER BY s.date`,
    );
    const leftOut = await of(
      `SELECT x.enrolment_id AS enrolmentId, x.reason, s.title AS session, s.date FROM kit_exclusion x
         JOIN session s ON s.id = x.session_id WHERE x.enrolment_id IN (:ids) ORDER BY s.date`,
    );
    const attendance = await of(
      `SELECT a.enrolment_id AS enrolmentId, a.state, a.at, s.title AS session, s.date FROM attendance a
         JOIN session s ON s.id = a.session_id WHERE a.enrolment_id IN (:ids) ORDER BY a.at`,
    );
    const changes = await select<{ at: Date; action: string; detail: string }>(
      db,
      'SELECT at, action, detail FROM change_log WHERE programme_id = :programmeId AND entity_id IN (:all) ORDER BY at',
      { programmeId: context.actor.programmeId, all: [householdId, ...ids] },
    );
    const messages = contact
      ? await find(db, db.models.message, { programmeId: context.actor.programmeId, sentTo: contact })
      : [];
    await logLook(context, 'household', householdId, enrolments.length);
    return {
      household: { id: householdId, name, contact, address, home: JSON.parse(home) as unknown, since: createdAt },
      people: enrolments.map(({ wishes, courseId, householdId: _, version: __, ...person }) => ({
        ...person,
        avoids: JSON.parse(wishes) as string[],
        course: courses.find((course) => course.id === courseId)?.title ?? '',
      })),
      kits,
      leftOut,
      attendance,
      changes: changes.map(({ detail, ...entry }) => ({ ...entry, detail: JSON.parse(detail) as unknown })),
      messages: messages.map(({ sentTo, subject, body, createdAt: at }) => ({ sentTo, subject, body, at })),
    };
  },
});

export const eraseHousehold = service({
  title: 'Erase a household',
  roles: ['coordinator'],
  proof: true,
  input: z.object({ householdId: z.uuid(), version: z.coerce.number().int() }),
  run: (context, { householdId, version }) =>
    context.store.transaction(async (db) => {
      const household = await loadHousehold(context, householdId, db);
      if (household.version !== version) throw stale(household.name);
      const { programmeId } = context.actor;
      const enrolments = await find(db, db.models.enrolment, { householdId });
      const ids = enrolments.map(({ id }) => id);
      const now = nowOf(context);
      await change(
        db,
        `UPDATE household SET name = :name, contact = '', address = '', home = '{}', erased_at = :now, version = version + 1 WHERE id = :householdId`,
        { householdId, name: ERASED, now },
      );
      const sheets = ids.length > 0 ? await erasePeople(db, ids) : 0;
      if (household.contact) {
        await change(
          db,
          `UPDATE message SET sent_to = '', subject = :name, body = '' WHERE programme_id = :programmeId AND sent_to = :contact`,
          { programmeId, contact: household.contact, name: ERASED },
        );
      }
      // Answers kept for requests that are sent again may hold names.
      await change(db, 'DELETE FROM idempotent_reply WHERE programme_id = :programmeId', { programmeId });
      const entries = await whileErasing(db, () => blankChanges(db, programmeId, [householdId, ...ids]));
      for (const courseId of new Set(enrolments.map((row) => row.courseId))) {
        await syncCallBacks(context, db, { courseId });
      }
      const counts = { people: ids.length, sheets, entries };
      await logChange(context, db, 'erased', 'household', householdId, counts);
      return counts;
    }),
});

/** Takes people out of rows, locked sheets and printed labels; what counts them stays. @returns sheets changed */
async function erasePeople(db: Db, ids: readonly string[]): Promise<number> {
  await change(
    db,
    `UPDATE enrolment SET name = :name, age = NULL, wishes = '[]', action_plan = '', status = 'erased', version = version + 1
      WHERE id IN (:ids)`,
    { ids, name: ERASED },
  );
  await change(db, 'UPDATE kit_exclusion SET reason = :name WHERE enrolment_id IN (:ids)', { ids, name: ERASED });
  await change(
    db,
    'DELETE FROM print_out WHERE session_id IN (SELECT session_id FROM kit WHERE enrolment_id IN (:ids))',
    { ids },
  );
  const people = new Set(ids);
  let changed = 0;
  await whileErasing(db, async () => {
    for (const { id, snapshot } of await sheetsNaming(db, ids)) {
      const before = JSON.parse(snapshot) as LockedSheet;
      const after = withoutPeople(before, people);
      const mark = fingerprint(after);
      if (mark === fingerprint(before)) continue;
      changed += await change(db, 'UPDATE kit_sheet SET snapshot = :text, fingerprint = :mark WHERE id = :id', {
        id,
        text: JSON.stringify(after),
        mark,
      });
    }
  });
  return changed;
}

export const listLooks = service({
  title: 'See who looked at what people must avoid',
  roles: ['coordinator'],
  input: z.object({}),
  run: (context) =>
    find(
      context.store.db,
      context.store.db.models.needLook,
      { programmeId: context.actor.programmeId },
      [['at', 'DESC']],
      100,
    ),
});
