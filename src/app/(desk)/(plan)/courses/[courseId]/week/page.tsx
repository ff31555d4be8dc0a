import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { readQuery } from '@/app/query';
import { saying } from '@/app/saying';
import { addDays, WEEKDAY_NAMES, type Weekday, weekdayName } from '@/core/plan/civil';
import { ServiceError } from '@/services/errors';
import { viewCoursePlan } from '@/services/plan/courses';
import { findWeekPlace, type NamedWeekPlace } from '@/services/plan/season';
import { viewRoll } from '@/services/roll/roll';
import { DateField, TimeField } from '@/ui/form/dates';
import { Choice, Field } from '@/ui/form/field';
import { Empty, PageTitle } from '@/ui/page';

export const metadata = { title: 'Find a place in the week' };

type Query = Promise<Record<string, string | string[] | undefined>>;

export default async function Week({
  params,
  searchParams,
}: {
  params: Promise<{ courseId: string }>;
  searchParams: Query;
}) {
  const say = await saying();
  const { courseId } = await params;
  const query = await readQuery(searchParams, ['weekdays']);
  const { course, sessions, today } = await orNotFound(call(viewCoursePlan, { courseId }));
  const { people } = await call(viewRoll, { courseId, editing: '' });
  const one = (name: string, otherwise: string) =>
    typeof query[name] === 'string' && query[name] ? query[name] : otherwise;
  const days = [query.weekdays ?? ['1', '2', '3', '4', '5']].flat();
  const wish = {
    from: one('from', addDays(today, 7)),
    to: one('to', addDays(today, 7 + 12 * 7)),
    every: one('every', '1'),
    minutes: one('minutes', String(sessions[0]?.minutes ?? 90)),
    earliest: one('earliest', '15:00'),
    latest: one('latest', '19:00'),
    people: one('people', String(course.capacity ?? people.filter(({ status }) => status === 'enrolled').length)),
  };
  const anyInstructor = query.anyInstructor === 'on';
  let found: NamedWeekPlace[] = [];
  let problem = '';
  try {
    found = await call(findWeekPlace, { courseId, ...wish, weekdays: days, anyInstructor });
  } catch (error) {
    if (!(error instanceof ServiceError)) throw error;
    problem = error.problems[0]?.message ?? error.message;
  }
  return (
    <>
      <PageTitle title="Find a place in the week" over={course.title}>
        <Link href={`/courses/${courseId}`} className="btn">
          Back to the course
        </Link>
      </PageTitle>
      <div className="grid gap-6 lg:grid-cols-[22rem_minmax(0,1fr)]">
        <form className="sheet flex h-fit flex-col gap-3 p-5" aria-label="What the course needs">
          <div className="grid grid-cols-2 gap-2">
            <DateField label="First day" name="from" required defaultValue={wish.from} />
            <DateField label="Last day" name="to" required defaultValue={wish.to} />
            <Field
              label="Minutes"
              name="minutes"
              type="number"
              min={15}
              max={720}
              required
              defaultValue={wish.minutes}
            />
            <Field label="People" name="people" type="number" min={0} required defaultValue={wish.people} />
            <TimeField label="Not before" name="earliest" required defaultValue={wish.earliest} />
            <TimeField label="Over by" name="latest" required defaultValue={wish.latest} />
          </div>
          <Choice label="How often" name="every" defaultValue={wish.every}>
            <option value="1">every week</option>
            <option value="2">every second week</option>
            <option value="4">every fourth week</option>
          </Choice>
          <fieldset>
            <legend className="mb-1 text-sm font-semibold">Weekdays that would do</legend>
            <div className="flex flex-wrap gap-2">
              {say.week.map((weekday) => (
                <label key={weekday} className="flex items-center gap-1 text-sm">
                  <input
                    type="checkbox"
                    name="weekdays"
                    value={weekday}
                    className="checkbox checkbox-sm"
                    defaultChecked={days.includes(String(weekday))}
                  />
                  {WEEKDAY_NAMES[weekday - 1]?.slice(0, 3)}
                </label>
              ))}
            </div>
          </fieldset>
          <label className="flex items-center gap-2 text-sm">
            <input
              type="checkbox"
              name="anyInstructor"
              className="checkbox checkbox-sm"
              defaultChecked={anyInstructor}
            />
            Any instructor would do
          </label>
          <button type="submit" className="btn btn-primary w-fit">
            Find places
          </button>
        </form>
        <div className="flex flex-col gap-4">
          {problem && <p className="sheet p-5 font-semibold text-error">{problem}</p>}
          {!problem && found.length === 0 && (
            <Empty title="No place in the week was found">
              <p>
                No room is large enough, open long enough or free at these hours. Allow more weekdays or hours, count
                fewer people, or look at the places.
              </p>
              <Link href="/places" className="btn">
                Places
              </Link>
            </Empty>
          )}
          {found.map((place, index) => (
            <Found
              key={`${place.weekday}${place.placeId}`}
              courseId={courseId}
              place={place}
              rank={index + 1}
              wish={wish}
            />
          ))}
        </div>
      </div>
    </>
  );
}

async function Found({
  courseId,
  place,
  rank,
  wish,
}: {
  courseId: string;
  place: NamedWeekPlace;
  rank: number;
  wish: { from: string; to: string; minutes: string };
}) {
  const { weekday, startsAt, placeName, instructorId, instructorName } = place;
  const query = new URLSearchParams({
    weekday: String(weekday),
    startsAt,
    minutes: wish.minutes,
    place: placeName,
    from: wish.from,
    to: wish.to,
    ...(instructorId ? { instructorId } : {}),
  });
  const say = await saying();
  return (
    <section className="sheet flex flex-wrap items-center justify-between gap-4 p-5" aria-label={`Place ${rank}`}>
      <div className="min-w-0 flex-1">
        <h2 className="text-xl font-bold">
          {rank}. {weekdayName(weekday as Weekday)}s at {say.time(startsAt)}, {placeName}
          {instructorName ? `, with ${instructorName}` : ''}
        </h2>
        <ul className="list-disc pl-5 text-sm">
          {place.reasons.map((reason) => (
            <li key={reason}>{say.text(reason)}</li>
          ))}
        </ul>
        {place.why && <p className="text-sm">Before the next: {place.why}</p>}
      </div>
      <Link href={`/courses/${courseId}/season?${query}`} className={`btn ${rank === 1 ? 'btn-primary' : ''}`}>
        Plan the season here
      </Link>
    </section>
  );
}
