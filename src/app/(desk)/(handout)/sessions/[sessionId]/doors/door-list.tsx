import { call } from '@/app/access';
import { attempt } from '@/app/form';
import { timeOf } from '@/core/plan/civil';
import { sayCount } from '@/core/quantity/say';
import { importDoors, type viewDoors } from '@/services/handout/doors';
import { ActionForm } from '@/ui/form/action-form';
import { TimeField } from '@/ui/form/dates';
import { Field, FileField } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { keepDoor } from '../../../keep-door';

async function bringIn(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(importDoors, async () => {
    const file = data.get('file');
    const bytes = file instanceof File ? new Uint8Array(await file.arrayBuffer()) : new Uint8Array();
    return `${sayCount(await call(importDoors, { bytes }), 'door was', 'doors were')} brought in.`;
  });
}

/** Where each door is and when somebody is there; and a file of them. */
export function DoorList({ doors }: { readonly doors: Awaited<ReturnType<typeof viewDoors>>['doors'] }) {
  return (
    <section className="no-print sheet p-5" aria-labelledby="doors">
      <h2 id="doors" className="mb-2 text-xl font-bold">
        Doors
      </h2>
      <ul className="divide-y divide-base-300">
        {doors.map(({ householdId, version, name, address, door }) => (
          <li key={householdId} className="py-2">
            <ActionForm
              action={keepDoor.bind(null, householdId, version)}
              label={`Door of ${name}`}
              className="flex flex-wrap items-end gap-3"
            >
              <span className="w-52">
                <b>{name}</b>
                <span className="block text-sm">{address || 'no address written'}</span>
              </span>
              <Field label="Point" name="point" width="w-48" defaultValue={door.at?.join(', ') ?? ''} />
              <TimeField
                label="There from"
                name="from"
                defaultValue={door.from === undefined ? '' : timeOf(door.from)}
              />
              <TimeField label="Until" name="to" defaultValue={door.to === undefined ? '' : timeOf(door.to)} />
              <Field label="For the driver" name="note" width="w-48" defaultValue={door.note ?? ''} />
              <button type="submit" className="btn" aria-label={`Keep: door of ${name}`}>
                Keep
              </button>
            </ActionForm>
          </li>
        ))}
      </ul>
      <ActionForm action={bringIn} label="Bring in doors" className="mt-3 flex flex-wrap items-end gap-3">
        <FileField label="Doors as CSV" name="file" accept=".csv,text/csv" required />
        <button type="submit" className="btn">
          Bring in
        </button>
        <span className="text-sm">
          Columns: name, address, point (or latitude and longitude), from, to, note. What is empty changes nothing.
        </span>
      </ActionForm>
    </section>
  );
}
