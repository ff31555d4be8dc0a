'use client';

import { useState } from 'react';
import { MoveDialog, type Moving } from '../../calendar/move-dialog';

/** Opens what would move with a session, before it is moved. */
export function MoveButton({ session, places }: { session: Moving; places: readonly string[] }) {
  const [open, setOpen] = useState(false);
  const { id, groupId, title, date, startsAt, place } = session;
  return (
    <>
      <button type="button" className="btn btn-sm" onClick={() => setOpen(true)} aria-label={`Move ${title}`}>
        Move
      </button>
      {open && (
        <MoveDialog
          moving={{ id, groupId, title, date, startsAt, place }}
          places={places}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  );
}
