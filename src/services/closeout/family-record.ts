import { z } from 'zod';
import { type Face, triesOf } from '@/core/classday/tasting';
import { wholeRecipe } from '@/core/recipes/recipe/sub-recipes';
import { type AttendanceState, attendanceNow } from '@/core/roll/attendance';
import { recordOf } from '@/store/reports';
import { service } from '../gate/gate';
import { logLook } from '../gate/looks';
import { loadHousehold } from '../roll/home';

/** One session of somebody, as their record tells it. */
interface RecordedSession {
  readonly sessionId: string;
  readonly date: string;
  readonly course: string;
  readonly title: string;
  readonly states: readonly AttendanceState[];
  readonly dishes: readonly { readonly title: string; readonly face: Face | null }[];
}

export const viewFamilyRecord = service({
  title: 'See what a family took part in, cooked and tried: its own record, on asking',
  roles: ['coordinator'],
  input: z.object({ householdId: z.uuid() }),
  run: async (context, { householdId }) => {
    const household = await loadHousehold(context, householdId, context.store.db);
    const { people, marks, tastings } = await recordOf(context.store.db, { householdId });
    await logLook(context, 'family record', householdId, people.length);
    const bodies = new Map(tastings.map(({ dishId, body }) => [dishId, body]));
    const foodsOf = (dishId: string) => {
      const body = bodies.get(dishId);
      return body ? [...new Set(wholeRecipe(body).lines.map(({ ingredient }) => ingredient))] : [];
    };
    return {
      household: { id: householdId, name: household.name },
      people: people.map(({ id, name, course }) => {
        const own = marks.filter(({ enrolmentId }) => enrolmentId === id);
        const sessions = [...new Map(own.map((mark) => [mark.sessionId, mark])).values()].map(
          ({ sessionId, date, title, dishes }): RecordedSession => ({
            sessionId,
            date,
            course,
            title,
            states: [...(attendanceNow(own.filter((mark) => mark.sessionId === sessionId)).get(id) ?? [])],
            dishes: (dishes ?? '')
              .split('|')
              .filter(Boolean)
              .map((dish) => {
                const [dishId = '', ...rest] = dish.split(':');
                const tasted = tastings.findLast((each) => each.enrolmentId === id && each.dishId === dishId);
                return { title: rest.join(':'), face: tasted?.face ?? null };
              }),
          }),
        );
        const tries = triesOf(tastings, foodsOf).get(id);
        return {
          id,
          name,
          course,
          sessions,
          tries: [...(tries ?? [])].map(([food, times]) => ({ food, times })).sort((a, b) => b.times - a.times),
        };
      }),
    };
  },
});
