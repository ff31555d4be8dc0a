import { z } from 'zod';
import { shoppingList } from '@/core/buying/shopping-list';
import { service } from '../gate/gate';
import { usedUpBy } from '../kits/figures';
import { loadSheet } from '../kits/kit-sheet';
import { markedDone } from '../sheet/session-thread';

export const viewShoppingList = service({
  title: 'See a session’s shopping list',
  roles: ['coordinator'],
  input: z.object({ sessionId: z.uuid() }),
  run: async (context, { sessionId }) => {
    const { bundle, sheet, hours, programme } = await loadSheet(context, sessionId);
    const content = sheet.locked?.content ?? sheet.draft;
    return {
      bundle,
      sheet,
      hours,
      aisles: content ? shoppingList(content.totals, content.input.products) : [],
      usedUp: usedUpBy(bundle, sheet, programme),
      done: markedDone(bundle.marks).has('buying'),
    };
  },
});
