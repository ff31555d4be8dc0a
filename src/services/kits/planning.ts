import { z } from 'zod';
import { whatItMakes } from '@/core/kits/figures/what-it-makes';
import { prepList } from '@/core/packing/prep/prep-list';
import { parseAmount } from '@/core/quantity/amount';
import { AmountError, divide, multiply, type Rational } from '@/core/quantity/rational';
import { readUnit } from '@/core/quantity/units';
import { type Reference, weightOf } from '@/core/reference/reference';
import { loadSessionBundles } from '@/store/session-bundles';
import { service } from '../gate/gate';
import { loadProducts } from '../sheet/load-products';
import { loadProgramme } from '../sheet/load-programme';
import { sessionSheet } from '../sheet/session-sheet';
import { sheetThatCounts } from './figures';
import { loadSheet } from './kit-sheet';

/** Reads "2 kg", "750 g", "3" (pieces) or "1 head" of a food as grams as bought. @throws AmountError when it cannot be read */
function readStock(text: string, food: string, reference: Reference): Rational {
  const [, amount = '', unit = ''] = /^\s*([\d\s./,]+?)\s*(\p{L}*)\s*$/u.exec(text) ?? [];
  if (amount === '') throw new AmountError(`"${text.slice(0, 40)}" is no amount: write 750 g, 2 kg or 3.`);
  const number = parseAmount(amount.replace(',', '.'));
  const key = readUnit(unit === '' ? 'each' : unit);
  const prepared =
    reference.measures.find((row) => row.ingredient === food && row.measure === key.key)?.preparation ?? '';
  const { grams } = weightOf(reference, food, prepared, key);
  const trimmed = /trimmed|peeled|without/.test(prepared)
    ? reference.yields.find((row) => row.ingredient === food)?.ediblePortion
    : undefined;
  const each = multiply(number, grams);
  return trimmed ? divide(each, parseAmount(trimmed)) : each;
}

export const viewStockOutcome = service({
  title: 'See how many kits a stock makes, and what rescues the rest',
  roles: ['coordinator'],
  input: z.object({
    sessionId: z.uuid(),
    /** What is there of each food, as people write it; a food left out limits nothing. */
    have: z.record(z.string().max(80), z.string().trim().max(40)).default({}),
  }),
  run: async (context, { sessionId, have }) => {
    const { bundle, sheet, hours, programme } = await loadSheet(context, sessionId);
    const counts = sheetThatCounts(sheet);
    const foods = counts?.content.totals ?? [];
    const problems: { where: string; message: string }[] = [];
    const stock = new Map<string, Rational>();
    for (const { ingredient } of foods) {
      const written = have[ingredient];
      if (!written) continue;
      try {
        stock.set(ingredient, readStock(written, ingredient, programme.reference));
      } catch (error) {
        if (!(error instanceof AmountError)) throw error;
        problems.push({ where: ingredient, message: error.message });
      }
    }
    const outcome =
      counts && stock.size > 0 ? whatItMakes(counts.sheet, stock, await loadProducts(context)) : undefined;
    return { bundle, sheet, hours, foods, problems, outcome };
  },
});

export const viewPrepList = service({
  title: 'See everything that is prepared on a day, by food and cut',
  roles: ['coordinator'],
  input: z.object({ date: z.iso.date('There is no such day in the calendar.') }),
  run: async (context, { date }) => {
    const { programme, meanings } = await loadProgramme(context);
    const bundles = await loadSessionBundles(context.store.db, context.actor.programmeId, { from: date, to: date });
    const sheets = bundles.flatMap((bundle) => {
      const counts = sheetThatCounts(sessionSheet(bundle, programme, meanings));
      const { id, title, startsAt } = bundle.session;
      const isLocked = bundle.sheet !== undefined;
      return counts && counts.content.rows.length > 0
        ? [{ id, session: `${startsAt} ${title}`, isLocked, content: counts.content }]
        : [];
    });
    return {
      date,
      sessions: sheets.map(({ id, session, isLocked }) => ({ id, title: session, isLocked })),
      parts: prepList(sheets),
      safetyProfile: programme.safetyProfile,
    };
  },
});
