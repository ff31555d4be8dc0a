'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import { useSaying } from '@/ui/saying';
import { DataTable, type TableColumn } from '@/ui/table/data-table';

export interface CrewLine {
  readonly id: string;
  readonly name: string;
  readonly contact: string;
  readonly isAdult: boolean;
  readonly skills: readonly { readonly skill: string; readonly until: string | null }[];
  /** When they have time, part by part; none where nothing was said. */
  readonly free: readonly string[];
  readonly atMost: string;
  /** The last day of an illness that is not over. */
  readonly sickUntil: string | null;
}

/** Everybody of the crew: what they can do and until when, and when they have time. */
export function CrewTable({ people, today, soon }: { people: readonly CrewLine[]; today: string; soon: string }) {
  const router = useRouter();
  const say = useSaying();
  const columns = useMemo<TableColumn<CrewLine>[]>(
    () => [
      {
        id: 'name',
        header: 'Name',
        isName: true,
        value: ({ name, contact }) => `${name} ${contact}`,
        show: ({ id, name, contact, isAdult, sickUntil }) => (
          <>
            <Link href={`/crew/${id}`} prefetch={false} className="link font-bold">
              {name}
            </Link>
            <span className="block text-sm font-normal">
              {[isAdult ? '' : 'minor', contact].filter(Boolean).join(', ')}
            </span>
            {sickUntil && (
              <span className="block text-sm font-semibold text-error">
                off all duties until {say.longDate(sickUntil)}, sick
              </span>
            )}
          </>
        ),
      },
      {
        id: 'skills',
        header: 'Can',
        value: ({ skills }) => skills.map(({ skill }) => skill).join(', '),
        show: ({ skills }) => (
          <ul>
            {skills.map(({ skill, until }) => (
              <li key={skill}>
                {skill}
                {until && (
                  <span className={until <= soon ? 'font-semibold' : ''}>
                    {until < today ? ', ended ' : ' until '}
                    {say.longDate(until)}
                    {until >= today && until <= soon && ': renew it'}
                  </span>
                )}
              </li>
            ))}
          </ul>
        ),
      },
      {
        id: 'free',
        header: 'Has time',
        value: ({ free }) => free.join(', '),
        show: ({ free }) =>
          free.length === 0 ? 'nothing said' : free.map((each) => <div key={each}>{say.text(each)}</div>),
      },
      { id: 'most', header: 'At most', value: ({ atMost }) => atMost },
    ],
    [say, today, soon],
  );
  return (
    <DataTable
      label="Crew"
      rows={people}
      idOf={({ id }) => id}
      columns={columns}
      find="Find by name or what they can do"
      open={({ id }) => router.push(`/crew/${id}`)}
    />
  );
}
