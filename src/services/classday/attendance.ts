import { z } from 'zod';
import { handedNow, STILL_HERE } from '@/core/handout/handing';
import type { LockedSheet } from '@/core/kits/record/locked-sheet';
import { calledBackNow } from '@/core/packing/progress';
import type { Mode } from '@/core/plan/mode';
import { ATTENDANCE_STATES, attendanceNow, questionsOf } from '@/core/roll/attendance';
import { callBackEvents } from '@/store/bench';
import { handedSince, holdHandOut } from '@/store/handout';
import { holdSessions } from '@/store/plan';
import { find, findOne, insert } from '@/store/query';
import type { SessionBundle } from '@/store/session-bundles';
import { type Db, isDuplicate } from '@/store/store';
import type { ComingNoteRow } from '@/store/tables/classday';
import type { KitRow } from '@/store/tables/kits';
import { ServiceError } from '../errors';
import { type Context, nowOf, ROLES, service } from '../gate/gate';
import { logLook } from '../gate/looks';
import { recordHandings } from '../handout/record';
import { groupNameOf, readSnapshot } from '../sheet/session-sheet';
import { openRoom } from './room';

export const viewAttendance = service({
  title: 'See who is expected, to note who came',
  roles: ROLES,
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { bundle, coming } = await openRoom(context, sessionId);
    const { session } = bundle;
    const { db } = context.store;
    const marks = await find(db, db.models.attendance, { sessionId }, [
      ['at', 'ASC'],
      ['id', 'ASC'],
    ]);
    const seen = attendanceNow(marks);
    const held = heldPeople(bundle);
    const notes = comingNotesNow(
      await find(db, db.models.comingNote, { sessionId }, [
        ['at', 'ASC'],
        ['id', 'ASC'],
      ]),
    );
    await logLook(context, 'attendance', sessionId, coming.length);
    const { title, courseTitle, date, startsAt, place } = session;
    return {
      session: { id: sessionId, title, courseTitle, date, startsAt, place },
      /** By name alone: what they must avoid is shown to those in the room, elsewhere. */
      people: coming
        .map(({ id, name, mode, groupId, home }) => ({
          id,
          name,
          groupId,
          group: groupNameOf(groupId, session) ?? '',
          questions: questionsOf((mode ?? session.mode) as Mode),
          seen: [...(seen.get(id) ?? [])],
          /** Why is for the coordinator: here it is enough that it does not go. */
          isCalledBack: held.has(id),
          notes: notes.get(id) ?? [],
          /** Who may fetch them, as the family named them. */
          collectors: home?.collectors ?? [],
        }))
        .sort((a, b) => a.group.localeCompare(b.group) || a.name.localeCompare(b.name)),
    };
  },
});

/** Late, left early, fetched: the newest of each; what was taken back is not there. */
function comingNotesNow(rows: readonly ComingNoteRow[]) {
  const notes = new Map<string, { kind: 'late' | 'left early' | 'fetched'; who: string; at: string }[]>();
  for (const { enrolmentId, kind, who, at } of rows) {
    if (kind === 'taken back') {
      notes.delete(enrolmentId);
      continue;
    }
    const others = (notes.get(enrolmentId) ?? []).filter((note) => note.kind !== kind);
    notes.set(enrolmentId, [...others, { kind, who, at: at.toISOString() }]);
  }
  return notes;
}

/** Whose kits are called back. */
function heldPeople({ events, sheet }: Pick<SessionBundle, 'events' | 'sheet'>): ReadonlySet<string> {
  const held = calledBackNow(events);
  const kits = sheet && held.size > 0 ? readSnapshot(sheet).kits : [];
  return new Set(kits.filter(({ id }) => held.has(id)).map(({ enrolmentId }) => enrolmentId));
}

export const recordAttendance = service({
  title: 'Note who came, fetched their kit, or cooked it',
  roles: ROLES,
  input: z.object({
    sessionId: z.uuid(),
    /** Made by whoever sends it: sent twice, it is noted once. */
    id: z.uuid(),
    enrolmentId: z.uuid(),
    state: z.enum(ATTENDANCE_STATES),
    /** A second, deliberate answer: a kit that is called back was handed over all the same. */
    anyway: z.boolean().default(false),
  }),
  run: async (context, { sessionId, id, enrolmentId, state, anyway }) => {
    const { coming, bundle } = await openRoom(context, sessionId);
    const person = coming.find((each) => each.id === enrolmentId);
    if (!person) throw new ServiceError('not-found', 'This person is not expected at this session.');
    const mode = (person.mode ?? bundle.session.mode) as Mode;
    if (!questionsOf(mode).flat().includes(state))
      throw new ServiceError('invalid', `“${state}” says nothing of somebody who takes part ${mode}.`);
    const locked = bundle.sheet && readSnapshot(bundle.sheet);
    const { db: reading } = context.store;
    // A kit that left the sheet meanwhile is there all the same.
    const kit = await findOne(reading, reading.models.kit, { sessionId, enrolmentId });
    try {
      await context.store.transaction(async (db) => {
        if (locked && kit && (state === 'collected' || state === 'not collected'))
          return noteKit(context, db, { sessionId, id, locked, kit, name: person.name, state, anyway });
        const row = { id, sessionId, enrolmentId, state, at: nowOf(context), actorId: context.actor.id };
        await insert(db, db.models.attendance, [row]);
      });
    } catch (error) {
      if (!isDuplicate(error)) throw error;
    }
  },
});

export const recordAllCame = service({
  title: 'Note that all came of whom nothing is noted yet',
  roles: ROLES,
  /** A group alone, where groups come at hours of their own; null for all. */
  input: z.object({ sessionId: z.uuid(), groupId: z.uuid().nullable().default(null) }),
  run: async (context, { sessionId, groupId }) => {
    const { coming, bundle } = await openRoom(context, sessionId);
    const asked = coming.filter(
      (person) =>
        (groupId === null || person.groupId === groupId) &&
        questionsOf((person.mode ?? bundle.session.mode) as Mode)
          .flat()
          .includes('came'),
    );
    return context.store.transaction(async (db) => {
      // Pressed twice at once, it is noted once.
      await holdSessions(db, context.actor.programmeId, [sessionId]);
      const marks = await find(db, db.models.attendance, { sessionId });
      const said = new Set(
        marks.filter(({ state }) => state === 'came' || state === 'absent').map(({ enrolmentId }) => enrolmentId),
      );
      const open = asked.filter(({ id }) => !said.has(id));
      const made = { sessionId, state: 'came' as const, at: nowOf(context), actorId: context.actor.id };
      if (open.length > 0)
        await insert(
          db,
          db.models.attendance,
          open.map((person) => ({ ...made, id: context.ids(), enrolmentId: person.id })),
        );
      return { noted: open.length };
    });
  },
});

/** Whether a kit was fetched is said once, for the table and the roll. */
async function noteKit(
  context: Context,
  db: Db,
  answer: {
    readonly sessionId: string;
    readonly id: string;
    readonly locked: LockedSheet;
    readonly kit: KitRow;
    readonly name: string;
    readonly state: 'collected' | 'not collected';
    /** A second, deliberate answer. */
    readonly anyway: boolean;
  },
): Promise<void> {
  const { sessionId, id, locked, kit, name, state, anyway } = answer;
  // A call-back of this moment waits for this answer, or is seen by it.
  await holdHandOut(db, sessionId);
  const events = await handedSince(db, sessionId, 0);
  if (events.some((event) => event.id === id)) return;
  const { state: now, by } = handedNow(events).get(kit.id) ?? STILL_HERE;
  const isHeld = calledBackNow(await callBackEvents(db, sessionId)).has(kit.id);
  if (state === 'collected' && isHeld && !anyway)
    throw new ServiceError(
      'invalid',
      `The kit of ${name} is called back: it is not handed out. Ask the coordinator. If they have it already, say so: they must be told at once.`,
      [{ where: 'called back', message: name }],
    );
  if (state === 'collected' && now === 'gone') return;
  const slip = state === 'not collected' && now === 'gone' ? (by?.id ?? '') : '';
  const what = state === 'collected' ? 'handed' : slip ? 'undone' : 'not there';
  const at = context.clock().toString();
  const isOnSheet = locked.kits.some((each) => each.id === kit.id);
  const sent = { id, kitId: kit.id, what, who: '', item: slip, at, wasAway: anyway || !isOnSheet } as const;
  await recordHandings(context, db, sessionId, locked, [sent]);
}
