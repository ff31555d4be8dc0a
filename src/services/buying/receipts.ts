import { z } from 'zod';
import { findOne, insert, remove } from '@/store/query';
import type { TripReceiptRow } from '@/store/tables/buying';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { nowOf, service } from '../gate/gate';

/** A photograph that a phone made small is far below it. */
export const LARGEST_PICTURE = 3 * 1024 * 1024;

/** What kind of picture its first bytes say it is; undefined for anything else. */
function kindOf(bytes: Uint8Array): TripReceiptRow['kind'] | undefined {
  const starts = (at: number, ...wanted: readonly number[]) =>
    wanted.every((byte, place) => bytes[at + place] === byte);
  if (starts(0, 0xff, 0xd8, 0xff)) return 'image/jpeg';
  if (starts(0, 0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'image/png';
  if (starts(0, 0x52, 0x49, 0x46, 0x46) && starts(8, 0x57, 0x45, 0x42, 0x50)) return 'image/webp';
  return undefined;
}

export const attachReceipt = service({
  title: 'Attach a photograph of the receipt to a trip',
  roles: ['coordinator', 'crew'],
  input: z.object({ tripId: z.uuid(), bytes: z.instanceof(Uint8Array) }),
  run: (context, { tripId, bytes }) =>
    context.store.transaction(async (db) => {
      const { programmeId, id: actorId } = context.actor;
      if (!(await findOne(db, db.models.trip, { id: tripId, programmeId }))) throw notFound('trip');
      const kind = kindOf(bytes);
      if (!kind || bytes.length > LARGEST_PICTURE)
        throw new ServiceError(
          'invalid',
          'This is no picture that can be kept. Send a photograph as JPEG, PNG or WebP.',
        );
      await remove(db, db.models.tripReceipt, { tripId });
      const row = {
        id: context.ids(),
        programmeId,
        tripId,
        kind,
        picture: Buffer.from(bytes),
        at: nowOf(context),
        actorId,
      };
      await insert(db, db.models.tripReceipt, [row]);
      await logChange(context, db, 'attached the receipt', 'trip', tripId, { kind, size: bytes.length });
    }),
});

export const viewReceipt = service({
  title: 'See the photograph of a trip’s receipt',
  roles: ['coordinator', 'crew'],
  input: z.object({ tripId: z.uuid() }),
  run: async (context, { tripId }) => {
    const { programmeId } = context.actor;
    const { db } = context.store;
    const found = await findOne(db, db.models.tripReceipt, { tripId, programmeId });
    if (!found) throw notFound('receipt');
    return { kind: found.kind, picture: new Uint8Array(found.picture) };
  },
});
