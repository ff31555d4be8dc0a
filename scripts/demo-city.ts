// The demo's city: two neighbours of its programme, one of them run by somebody who teaches here, and who looks over all three.
import { v7 } from 'uuid';
import { hashPassword } from '@/services/access/passwords';
import { recordAttendance, viewAttendance } from '@/services/classday/attendance';
import type { Context, Role } from '@/services/gate/gate';
import { contextFor, surroundings } from '@/services/runtime';
import { accountFor, addMember } from '@/store/accounts';
import { freshProgramme } from '@/store/fresh';
import { find, insert, update } from '@/store/query';
import type { Store } from '@/store/store';
import type { ProgrammeRow } from '@/store/tables/programme';

export interface DemoCity<Course> {
  readonly city: string;
  readonly overseers: readonly {
    readonly name: string;
    readonly email: string;
    readonly password: string;
    readonly of: 'city' | 'installation';
  }[];
  readonly neighbours: readonly {
    readonly name: string;
    readonly members: readonly { readonly name: string; readonly email: string; readonly role: Role }[];
    readonly places: readonly string[];
    readonly recipes: readonly string[];
    readonly course: Course;
    /** Who stayed away from its past sessions. */
    readonly absent: readonly string[];
  }[];
}

/**
 * Loads the city around the demo's programme.
 *
 * @param fill loads places, recipes and the course of a neighbour
 */
export async function loadCity<Course>(
  store: Store,
  demo: DemoCity<Course>,
  like: Pick<ProgrammeRow, 'id' | 'timeZone' | 'country' | 'currency'>,
  fill: (context: Context, neighbour: DemoCity<Course>['neighbours'][number]) => Promise<void>,
): Promise<void> {
  const { db } = store;
  const cityId = v7();
  await insert(db, db.models.city, [{ id: cityId, name: demo.city }]);
  await update(db, db.models.programme, { id: like.id }, { cityId });
  for (const neighbour of demo.neighbours) {
    const id = v7();
    const { timeZone, country, currency } = like;
    await insert(db, db.models.programme, [
      freshProgramme({ id, cityId, name: neighbour.name, timeZone, country, currency }),
    ]);
    const members = [];
    for (const member of neighbour.members) members.push(await addMember(db, { ...member, id: v7(), programmeId: id }));
    const context = contextFor({
      id: members[0]?.id ?? '',
      programmeId: id,
      role: 'coordinator',
      name: members[0]?.name ?? '',
    });
    await fill(context, neighbour);
    await seePast(context, neighbour.absent);
  }
  const createdAt = new Date();
  for (const { name, email, password, of } of demo.overseers) {
    const accountId = await accountFor(db, {
      email,
      id: v7(),
      passwordHash: await hashPassword(surroundings(), password),
    });
    const row = { id: v7(), accountId, cityId: of === 'city' ? cityId : null, name, createdAt };
    await insert(db, db.models.overseer, [row]);
  }
}

/** Who came to the sessions that are over. */
async function seePast(context: Context, absent: readonly string[]): Promise<void> {
  const { db } = context.store;
  const courses = await find(db, db.models.course, { programmeId: context.actor.programmeId });
  const today = context.clock().toString().slice(0, 10);
  for (const session of await find(db, db.models.session, { courseId: courses.map(({ id }) => id) })) {
    if (session.date >= today) continue;
    const { people } = await viewAttendance(context, { sessionId: session.id });
    for (const { id: enrolmentId, name } of people) {
      const state = absent.includes(name) ? 'absent' : 'came';
      await recordAttendance(context, { sessionId: session.id, id: v7(), enrolmentId, state });
    }
  }
}
