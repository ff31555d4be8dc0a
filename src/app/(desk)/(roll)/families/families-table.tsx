'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import type { HouseholdEntry } from '@/services/privacy/households';
import { ActionForm } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';
import { useSaying } from '@/ui/saying';
import { DataTable, type TableColumn } from '@/ui/table/data-table';

interface Props {
  readonly label: string;
  readonly families: readonly HouseholdEntry[];
  readonly erase: (householdId: string, version: number) => Promise<FormState>;
}

/** Households, with how long what they told is kept; taken out and erased one by one. */
export function FamiliesTable({ label, families, erase }: Props) {
  const router = useRouter();
  const say = useSaying();
  const columns = useMemo<TableColumn<HouseholdEntry>[]>(
    () => [
      {
        id: 'name',
        header: 'Household',
        isName: true,
        value: ({ name }) => name,
        show: ({ id, name }) => (
          <Link href={`/families/${id}`} prefetch={false} className="link font-bold">
            {name}
          </Link>
        ),
      },
      { id: 'people', header: 'On rolls', isNumber: true, value: ({ people }) => people },
      { id: 'courses', header: 'Courses', value: ({ courses }) => courses },
      {
        id: 'last',
        header: 'Last session',
        isShort: true,
        value: ({ lastDate }) => lastDate,
        show: ({ lastDate }) => say.yearDate(lastDate),
      },
      {
        id: 'kept',
        header: 'Kept until',
        isShort: true,
        value: ({ eraseFrom }) => eraseFrom,
        show: ({ eraseFrom }) => say.yearDate(eraseFrom),
      },
    ],
    [say],
  );
  return (
    <DataTable
      label={label}
      rows={families}
      idOf={({ id }) => id}
      columns={columns}
      find="Find by name"
      open={({ id }) => router.push(`/families/${id}`)}
      actions={({ id, name, version }) => (
        <span className="flex flex-wrap justify-end gap-2 md:not-has-[details[open]]:flex-nowrap">
          <a
            href={`/families/${id}/export.json`}
            className="btn btn-sm whitespace-nowrap"
            aria-label={`Save what is held about ${name} as a file`}
          >
            Save as file
          </a>
          {/* In the row, which grows: what hangs over a table that scrolls is cut off at its edge. */}
          <details className="open:w-full open:text-right">
            <summary className="btn btn-sm" aria-label={`Erase ${name}`}>
              Erase
            </summary>
            <div className="mt-2 ml-auto max-w-72 text-left text-wrap">
              <p className="mb-3 text-sm">
                Name, contact, address, needs and plan go for good, from rolls, locked sheets and the log. This cannot
                be taken back. Copies in backups go when those are deleted.
              </p>
              <ActionForm action={erase.bind(null, id, version)}>
                <button type="submit" className="btn btn-sm btn-error">
                  Erase {name}
                </button>
              </ActionForm>
            </div>
          </details>
        </span>
      )}
    />
  );
}
