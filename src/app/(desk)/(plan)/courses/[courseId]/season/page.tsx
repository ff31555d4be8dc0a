import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { readQuery } from '@/app/query';
import { viewCoursePlan } from '@/services/plan/courses';
import { PageTitle } from '@/ui/page';
import { SeasonForm } from './season-form';
import type { Start } from './wanted';

export const metadata = { title: 'Plan a season' };

type Query = Promise<
  Partial<Record<'weekday' | 'startsAt' | 'minutes' | 'place' | 'instructorId' | 'from' | 'to', string>>
>;

export default async function Season({
  params,
  searchParams,
}: {
  params: Promise<{ courseId: string }>;
  searchParams: Query;
}) {
  const { courseId } = await params;
  const given = await readQuery(searchParams);
  const { course, sessions, places, teachers, today } = await orNotFound(call(viewCoursePlan, { courseId }));
  const [last] = sessions;
  // What was found in the week, or else as the course began.
  const start: Start = {
    from: given.from ?? today,
    to: given.to ?? '',
    weekday: Number(given.weekday) || 4,
    startsAt: given.startsAt ?? last?.startsAt ?? '15:45',
    minutes: Number(given.minutes) || last?.minutes || 90,
    place: given.place ?? last?.place ?? places[0]?.name ?? '',
    mode: last?.mode ?? 'in person',
    instructorId: given.instructorId ?? course.instructorId ?? '',
    onClosure: course.onClosure,
  };
  return (
    <>
      <PageTitle title="Plan a season" over={course.title}>
        <Link href={`/courses/${courseId}/week`} className="btn">
          Find a place in the week
        </Link>
        <Link href={`/courses/${courseId}`} className="btn">
          Back to the course
        </Link>
      </PageTitle>
      <SeasonForm
        courseId={courseId}
        version={course.version}
        start={start}
        places={places.map(({ name }) => name)}
        teachers={teachers}
      />
    </>
  );
}
