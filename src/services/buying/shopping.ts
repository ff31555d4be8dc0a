import { z } from 'zod';
import { shoppingList } from '@/core/buying/shopping-list';
import { service } from '../access/gate';
import { markedDone } from '../countdown/session-thread';
import { kitFigures } from '../kits/figures';
import { loadSheet } from '../kits/kit-sheet';

export const viewShoppingList = service({
  title: 'See a session’s shopping list',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { bundle, sheet, hours, programme } = await loadSheet(context, sessionId);
    const content = sheet.locked?.content ?? sheet.draft;
    const figures = await kitFigures(context, bundle, sheet, programme);
    return {
      bundle,
      sheet,
      hours,
      aisles: content ? shoppingList(content.totals) : [],
      usedUp: figures?.consumables ?? [],
      done: markedDone(bundle.marks).has('buying'),
    };
  },
});
