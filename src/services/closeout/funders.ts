import { z } from 'zod';
import { pictureKind } from '@/contracts/picture';
import { civilDate } from '@/contracts/plan';
import { findOne, insert, remove, updateVersion } from '@/store/query';
import type { Db } from '@/store/store';
import { notFound, ServiceError, stale } from '../errors';
import { logChange } from '../gate/change-log';
import { type Context, service } from '../gate/gate';

/** A logo for the head of a page is far below it. */
export const LARGEST_LOGO = 500 * 1024;

/** Somebody who is reported to. @throws ServiceError when they are not the asker's */
export async function loadFunder(context: Context, id: string, db: Db = context.store.db) {
  const found = await findOne(db, db.models.funder, { id, programmeId: context.actor.programmeId });
  if (!found) throw notFound('funder');
  return found;
}

const rate = z
  .string()
  .trim()
  .regex(/^\d{1,6}([.,]\d{1,6})?$/, 'Write how much of theirs one of yours is, such as 0.92.')
  .transform((text) => text.replace(',', '.'))
  .refine((text) => Number(text) > 0, 'It is more than nothing.');

const day = z.union([z.literal(''), civilDate]).transform((value) => value || null);

export const saveFunder = service({
  title: 'Write down who is reported to: their wording, period, currency and logo',
  roles: ['coordinator'],
  input: z
    .object({
      /** '' for a new one. */
      funderId: z.union([z.literal(''), z.uuid()]).default(''),
      version: z.coerce.number().int().default(0),
      name: z.string().trim().min(1, 'They need a name.').max(120, 'At most 120 characters.'),
      intro: z.string().trim().max(3000, 'At most 3,000 characters.').default(''),
      words: z.record(z.string().max(80), z.string().trim().max(120, 'At most 120 characters.')).default({}),
      fromDay: day.default(null),
      toDay: day.default(null),
      currency: z
        .string()
        .trim()
        .regex(/^[\p{L}\p{Sc}.]{0,8}$/u, 'Up to eight letters, or a sign.')
        .default(''),
      rate: rate.default('1'),
      /** Left out: the logo stays. Empty: it is taken away. */
      logo: z.instanceof(Uint8Array).optional(),
    })
    .refine(({ fromDay, toDay }) => !fromDay || !toDay || fromDay <= toDay, {
      path: ['toDay'],
      message: 'It ends before it begins.',
    }),
  run: (context, { funderId, version, logo, words, ...values }) =>
    context.store.transaction(async (db) => {
      const kind = logo && logo.length > 0 ? pictureKind(logo) : '';
      if (logo && (logo.length > LARGEST_LOGO || kind === undefined || kind === 'image/webp'))
        throw new ServiceError('invalid', 'Nothing was saved yet.', [
          { where: 'logo', message: 'The logo is a PNG or JPEG of at most 500 kB.' },
        ]);
      const written = Object.fromEntries(Object.entries(words).filter(([, word]) => word !== ''));
      const picture = logo ? { logoKind: kind as '' | 'image/png' | 'image/jpeg', logo: Buffer.from(logo) } : {};
      const { programmeId } = context.actor;
      if (funderId === '') {
        const id = context.ids();
        const blank = { logoKind: '' as const, logo: Buffer.alloc(0) };
        await insert(db, db.models.funder, [
          { id, programmeId, ...blank, ...values, words: written, ...picture, version: 1 },
        ]);
        await logChange(context, db, 'added', 'funder', id, { name: values.name });
        return id;
      }
      await loadFunder(context, funderId, db);
      const saved = await updateVersion(db, db.models.funder, funderId, version, {
        ...values,
        words: written,
        ...picture,
      });
      if (!saved) throw stale('What they are told');
      await logChange(context, db, 'changed', 'funder', funderId, { name: values.name });
      return funderId;
    }),
});

export const removeFunder = service({
  title: 'Take out somebody who is reported to',
  roles: ['coordinator'],
  input: z.object({ funderId: z.uuid() }),
  run: (context, { funderId }) =>
    context.store.transaction(async (db) => {
      const { name } = await loadFunder(context, funderId, db);
      await remove(db, db.models.funder, { id: funderId });
      await logChange(context, db, 'took out', 'funder', funderId, { name });
    }),
});

export const viewFunder = service({
  title: 'See somebody who is reported to',
  roles: ['coordinator'],
  input: z.object({ funderId: z.uuid() }),
  run: async (context, { funderId }) => {
    const { logo, ...funder } = await loadFunder(context, funderId);
    return { ...funder, hasLogo: logo.length > 0 };
  },
});
