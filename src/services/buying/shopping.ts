import { z } from 'zod';
import { shoppingList } from '@/core/buying/shopping-list';
import { execute, insert } from '@/store/query';
import { logChange } from '../access/change-log';
import { service } from '../access/gate';
import { loadSheet } from '../kits/kit-sheet';
import { loadBundle } from '../plan/sessions';

export const viewShoppingList = service({
  title: 'See a session’s shopping list',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { bundle, sheet } = await loadSheet(context, sessionId);
    const content = sheet.locked?.content ?? sheet.draft;
    return {
      bundle,
      sheet,
      aisles: content ? shoppingList(content.totals) : [],
      done: isMarked(bundle.marks, 'buying'),
    };
  },
});

/** Whether a stage was last marked done. Marks are in order of time. */
export const isMarked = (marks: readonly { stage: string; done: number }[], stage: string): boolean =>
  marks.filter((mark) => mark.stage === stage).at(-1)?.done === 1;

export const markShopping = service({
  title: 'Mark the shopping done, or not done',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid(), done: z.boolean() }),
  run: (context, { sessionId, done }) =>
    context.store.transaction(async (db) => {
      await execute(db, 'SELECT id FROM session WHERE id = :sessionId FOR UPDATE', { sessionId });
      await loadBundle(context, sessionId, db);
      const mark = { id: context.ids(), sessionId, stage: 'buying', done: done ? 1 : 0, actorId: context.actor.id };
      await insert(db, db.models.stageMark, [{ ...mark, at: new Date(context.clock().epochMilliseconds) }]);
      await logChange(context, db, done ? 'marked done' : 'marked not done', 'session', sessionId, { stage: 'buying' });
    }),
});
