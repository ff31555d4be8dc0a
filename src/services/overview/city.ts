import { z } from 'zod';
import { lookAtCity } from '@/core/overview/city-figures';
import { addDays } from '@/core/plan/civil';
import { currencyOf } from '@/core/quantity/money';
import { writeCityCsv } from '@/formats/overview/city-csv';
import { cityRows } from '@/store/overview';
import { type Overseeing, overseeing } from '../gate/overseeing';

/** Days that are looked ahead for a next session. */
const AHEAD = 21;
/** Days that are looked at where nobody says which. */
const USUAL_SPAN = 90;
/** The longest span, in days: about two years. */
const LONGEST = 750;

const day = z.iso.date('Write a date, such as 2026-11-30.');

/** Which days a city looks at: those that were chosen, else the last three months. */
export const spanOf = (today: string, sent: { from?: string | undefined; to?: string | undefined }) => ({
  from: day.safeParse(sent.from).data ?? addDays(today, -USUAL_SPAN),
  to: day.safeParse(sent.to).data ?? today,
});

export const viewCity = overseeing({
  title: 'Look over the programmes of a city, in counts and money',
  of: 'city',
  input: z
    .object({ cityId: z.string().max(36), from: day, to: day })
    .refine(({ from, to }) => from <= to, { path: ['to'], message: 'The last day lies before the first.' })
    .refine(({ from, to }) => to <= addDays(from, LONGEST), { path: ['to'], message: 'At most two years.' }),
  run: async ({ clock, store }, { cityId, from, to }) => {
    // A city's programmes may lie in several zones: its day is Greenwich's, and a session of tonight counts tomorrow at the latest.
    const today = clock().toString().slice(0, 10);
    const rows = await cityRows(store.db, { cityId, from, to, today, soon: addDays(today, AHEAD) });
    return lookAtCity(
      rows.map(({ safetyProfile, currency, ...row }) => ({
        ...row,
        currency: currencyOf({ currency, safetyProfile }),
      })),
    );
  },
});

/** The same as a file. */
export const saveCity = async (context: Overseeing, input: Parameters<typeof viewCity>[1]): Promise<string> =>
  writeCityCsv((await viewCity(context, input)).programmes);
