'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import { useSaying } from '@/ui/saying';
import { DataTable, type TableColumn } from '@/ui/table/data-table';

export interface CourseLine {
  readonly id: string;
  readonly title: string;
  readonly audience: string;
  readonly sessions: number;
  readonly people: number;
  /** The next day on which it meets, YYYY-MM-DD. */
  readonly next: string | null;
}

/** All courses, the next to meet first. */
export function CoursesTable({ courses }: { courses: readonly CourseLine[] }) {
  const router = useRouter();
  const say = useSaying();
  const columns = useMemo<TableColumn<CourseLine>[]>(
    () => [
      {
        id: 'title',
        header: 'Course',
        isName: true,
        value: ({ title, audience }) => `${title} ${audience}`,
        show: ({ id, title, audience }) => (
          <>
            <Link href={`/courses/${id}`} className="link font-bold">
              {title}
            </Link>
            <span className="block text-sm font-normal">{audience}</span>
          </>
        ),
      },
      {
        id: 'next',
        header: 'Next session',
        isShort: true,
        value: ({ next }) => next ?? '9999',
        show: ({ next }) => (next ? say.shortDate(next) : 'none planned'),
      },
      { id: 'sessions', header: 'Sessions', isNumber: true, value: ({ sessions }) => sessions },
      { id: 'people', header: 'On the roll', isNumber: true, value: ({ people }) => people },
    ],
    [say],
  );
  return (
    <DataTable
      label="Courses"
      rows={courses}
      idOf={({ id }) => id}
      columns={columns}
      find="Find by name or audience"
      open={({ id }) => router.push(`/courses/${id}`)}
      actions={({ id, title }) => (
        <Link href={`/courses/${id}/roll`} className="btn btn-sm" aria-label={`Roll of ${title}`}>
          Roll
        </Link>
      )}
    />
  );
}
