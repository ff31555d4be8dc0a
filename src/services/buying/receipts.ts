import { z } from 'zod';
import { LARGEST_PICTURE, pictureKind } from '@/contracts/picture';
import { findOne, insert, remove } from '@/store/query';
import { notFound, ServiceError } from '../errors';
import { logChange } from '../gate/change-log';
import { nowOf, service } from '../gate/gate';

export const attachReceipt = service({
  title: 'Attach a photograph of the receipt to a trip',
  roles: ['coordinator', 'crew'],
  input: z.object({ tripId: z.uuid(), bytes: z.instanceof(Uint8Array) }),
  run: (context, { tripId, bytes }) =>
    context.store.transaction(async (db) => {
      const { programmeId, id: actorId } = context.actor;
      if (!(await findOne(db, db.models.trip, { id: tripId, programmeId }))) throw notFound('trip');
      const kind = pictureKind(bytes);
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
