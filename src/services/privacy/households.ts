import { Temporal } from 'temporal-polyfill';
import { z } from 'zod';
import { withoutPeople } from '@/core/kits/record/erased-sheet';
import type { LockedSheet } from '@/core/kits/record/locked-sheet';
import { ERASED, type WordsToErase, withoutWords, wordsToErase } from '@/core/roll/erased-words';
import {
  blankChanges,
  blankExclusions,
  blankHousehold,
  blankMessages,
  blankPeople,
  blankSaid,
  changesAbout,
  dropPrintOuts,
  endFamilyLinks,
  eraseWords,
  namesOfOthers,
  rewriteSheet,
  rowsOf,
  sheetsNaming,
  whileErasing,
} from '@/store/erasing';
import { ownedTables } from '@/store/models';
import { holdProgramme } from '@/store/programme';
import { find } from '@/store/query';
import { householdsOf } from '@/store/roll';
import type { Db } from '@/store/store';
import type { EnrolmentRow, HouseholdRow } from '@/store/tables/roll';
import { stale } from '../errors';
import { logChange } from '../gate/change-log';
import { nowOf, service } from '../gate/gate';
import { logLook } from '../gate/looks';
import { loadHousehold } from '../roll/home';
import { syncCallBacks } from '../sheet/call-backs';
import { loadProgramme } from '../sheet/load-programme';
import { fingerprint } from '../sheet/session-sheet';

/** A household with what decides how long its data is kept. */
export interface HouseholdEntry {
  readonly id: string;
  readonly name: string;
  readonly version: number;
  readonly people: number;
  /** Titles of its courses, with commas: they tell two families of one name apart. */
  readonly courses: string;
  /** The last civil day on which it eats of a session of any of its courses, or the day it was entered. */
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
    const rows = await householdsOf(context.store.db, { programmeId: context.actor.programmeId });
    const today = context.clock().toZonedDateTimeISO(timeZone).toPlainDate();
    return rows.map((row) => {
      const eraseFrom = Temporal.PlainDate.from(row.lastDate).add({ months: retentionMonths });
      return { ...row, eraseFrom: eraseFrom.toString(), isDue: Temporal.PlainDate.compare(eraseFrom, today) <= 0 };
    });
  },
});

/** All that is held about a household, by the declarations of the tables: nothing is left out because it is new. */
export const exportHousehold = service({
  title: 'Take out all that is held about a household',
  roles: ['coordinator'],
  input: z.object({ householdId: z.uuid() }),
  run: async (context, { householdId }) => {
    const { db } = context.store;
    const { programmeId } = context.actor;
    const { name, contact, address, home, createdAt } = await loadHousehold(context, householdId, db);
    const enrolments = await find(db, db.models.enrolment, { householdId }, [['id', 'ASC']]);
    const ids = enrolments.map(({ id }) => id);
    const courses = await find(db, db.models.course, { id: enrolments.map(({ courseId }) => courseId) });
    const records: Record<string, unknown[]> = {};
    for (const each of ownedTables(db.models)) {
      if (each.ownership.of === undefined || each.key === 'household' || each.key === 'enrolment') continue;
      records[each.key] = await rowsOf(db, each, householdId, ids);
    }
    const sessions = await sessionsNamed(db, records);
    const changes = await changesAbout(db, programmeId, [householdId, ...ids]);
    const looks = await find(db, db.models.needLook, { programmeId, entityId: [householdId, ...ids] }, [['at', 'ASC']]);
    await logLook(context, 'household', householdId, enrolments.length);
    return {
      household: { id: householdId, name, contact, address, home, since: createdAt },
      people: enrolments.map(({ needs, courseId, householdId: _, version: __, ...person }) => ({
        ...person,
        avoids: needs,
        course: courses.find((course) => course.id === courseId)?.title ?? '',
      })),
      records,
      sessions: sessions.map(({ id, title, date }) => ({ id, title, date })),
      changes: changes.map(({ detail, ...entry }) => ({ ...entry, detail })),
      lookedAtBy: looks.map(({ at, actorName, page }) => ({ at, actorName, page })),
    };
  },
});

/** The sessions that records are of, so that whoever reads them knows when that was. */
const sessionsNamed = (db: Db, records: Readonly<Record<string, readonly unknown[]>>) => {
  const ids = Object.values(records).flatMap((rows) =>
    rows.flatMap((row) => (row as { sessionId?: string }).sessionId ?? []),
  );
  return find(db, db.models.session, { id: [...new Set(ids)] }, [['date', 'ASC']]);
};

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
      // Labels that are being laid into the tray now wait, or are there to be taken away.
      await holdProgramme(db, { programmeId });
      const enrolments = await find(db, db.models.enrolment, { householdId });
      const ids = enrolments.map(({ id }) => id);
      // Read before anything is blanked: what it was called before stands in the log alone.
      const changes = await changesAbout(db, programmeId, [householdId, ...ids]);
      const words = await wordsOf(db, household, enrolments, changes);
      await blankHousehold(db, { householdId, name: ERASED, now: nowOf(context) });
      await blankMessages(db, {
        householdId,
        name: ERASED,
      });
      await endFamilyLinks(db, { householdId, now: nowOf(context) });
      const { entries, sheets } = await whileErasing(db, async () => {
        const blanked = await blankChanges(
          db,
          changes.map(({ id }) => id),
        );
        const rewritten = ids.length > 0 ? await erasePeople(db, ids, words) : 0;
        await eraseWords(db, programmeId, { log: [...words.sure, ...words.likely], notes: words.sure }, withoutWords);
        return { entries: blanked, sheets: rewritten };
      });
      for (const courseId of new Set(enrolments.map((row) => row.courseId))) {
        await syncCallBacks(context, db, { courseId });
      }
      const counts = { people: ids.length, sheets, entries };
      await logChange(context, db, 'erased', 'household', householdId, counts);
      return counts;
    }),
});

/** What a household is known by: as it stands, and as the log tells that it was. */
async function wordsOf(
  db: Db,
  household: HouseholdRow,
  enrolments: readonly EnrolmentRow[],
  changes: readonly { readonly detail: unknown }[],
): Promise<WordsToErase> {
  const details = changes.flatMap(({ detail }) => {
    const { before, after, ...entry } = detail as Record<string, unknown>;
    return [before, after, entry].filter((part) => typeof part === 'object' && part !== null) as Detail[];
  });
  type Detail = Readonly<Record<string, unknown>>;
  const were = (...keys: string[]) =>
    details.flatMap((part) => keys.flatMap((key) => (typeof part[key] === 'string' ? [part[key]] : [])));
  const others = await namesOfOthers(db, { programmeId: household.programmeId, id: household.id });
  const messages = await find(db, db.models.message, { householdId: household.id });
  return wordsToErase(
    {
      names: [household.name, ...enrolments.map(({ name }) => name), ...were('name', 'household')],
      others: [
        ...[household.contact, household.address, ...enrolments.map(({ actionPlan }) => actionPlan)],
        ...messages.map(({ sentTo }) => sentTo),
        ...were('contact', 'address', 'plan', 'actionPlan'),
      ],
    },
    others.map(({ name }) => name),
  );
}

/** Takes people out of rows, locked sheets and printed labels; what counts them stays. @returns sheets changed */
async function erasePeople(db: Db, ids: readonly string[], words: WordsToErase): Promise<number> {
  await blankPeople(db, { ids, name: ERASED });
  await blankExclusions(db, { ids, name: ERASED });
  await blankSaid(db, ids);
  const people = new Set(ids);
  let changed = 0;
  for (const { id, snapshot } of await sheetsNaming(db, ids)) {
    const before = JSON.parse(snapshot) as LockedSheet;
    const text = withoutWords(JSON.stringify(withoutPeople(before, people)), words.sure);
    const mark = fingerprint(JSON.parse(text) as LockedSheet);
    if (mark === fingerprint(before)) continue;
    changed += await rewriteSheet(db, {
      id,
      text,
      mark,
    });
  }
  // After the sheets: labels that are being made now wait for these rows, and find that they are no longer right.
  await dropPrintOuts(db, { ids });
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
