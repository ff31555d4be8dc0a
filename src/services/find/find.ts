import { z } from 'zod';
import type { Findable } from '@/core/find/finder';
import { addDays } from '@/core/plan/civil';
import { sayingFacts, sayingOf } from '@/core/plan/saying';
import { findRows } from '@/store/find';
import { isRoomOpen } from '../classday/entry';
import { ROLES, service } from '../gate/gate';
import { loadProgramme } from '../sheet/load-programme';

/** Sessions of so many days before today are found, and of all days to come. */
const DAYS_BACK = 120;

/** Where each kind is gone to. */
const HREF = {
  course: (id: string) => `/courses/${id}`,
  session: (id: string) => `/sessions/${id}`,
  person: (id: string, of: string) => `/courses/${of}/roll?show=all&edit=${id}`,
  recipe: (id: string) => `/recipes/${id}`,
  crew: (id: string) => `/crew/${id}`,
} as const;

export const listFindable = service({
  title: 'List what one may look for by its name: courses, sessions, people, recipes, foods, the crew',
  roles: ROLES,
  input: z.object({}),
  run: async (context): Promise<Findable[]> => {
    const { role, programmeId } = context.actor;
    const { programme } = await loadProgramme(context);
    const say = sayingOf(sayingFacts(programme));
    const now = context.clock().toZonedDateTimeISO(programme.timeZone).toPlainDate();
    const rows = await findRows(context.store.db, { programmeId, from: addDays(now.toString(), -DAYS_BACK) });
    const isForDesk = role === 'coordinator';
    const found = rows.flatMap(({ kind, id, title, beside, of, date }): Findable[] => {
      // Names of families and of the crew are the coordinators'; a class is opened by whoever is in it, in its time.
      if ((kind === 'person' || kind === 'crew' || kind === 'course') && !isForDesk) return [];
      if (kind === 'recipe' && role === 'crew') return [];
      if (kind === 'session' && !isForDesk) {
        if (!date || !isRoomOpen(date, date, now)) return [];
        return [{ kind, title, beside: `${beside}, ${say.shortDate(date)}`, href: `/room/${id}` }];
      }
      return [
        { kind, title, beside: date ? `${beside}, ${say.shortDate(date)}` : beside, href: HREF[kind](id, of ?? '') },
      ];
    });
    const foods = programme.reference.ingredients.map(
      ({ name }): Findable => ({
        kind: 'food',
        title: name,
        beside: '',
        href: `/reference/${encodeURIComponent(name)}`,
      }),
    );
    return role === 'crew' ? found : [...found, ...foods];
  },
});
