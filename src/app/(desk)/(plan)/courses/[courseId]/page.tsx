import Link from 'next/link';
import { redirect } from 'next/navigation';
import { call } from '@/app/access';
import { attempt, formOf, given } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { sayCadence } from '@/core/plan/cadence-rule';
import { MODES } from '@/core/plan/mode';
import { EQUIPMENT, EQUIPMENT_KINDS } from '@/core/plan/place';
import { writeMoney } from '@/core/quantity/money';
import { WAITLIST_RULES } from '@/core/roll/waitlist';
import { listChanges } from '@/services/plan/changes';
import { editCourse, viewCourse, viewCoursePlan } from '@/services/plan/courses';
import { repeatCourse } from '@/services/plan/season';
import { addSession } from '@/services/plan/sessions';
import { ActionForm } from '@/ui/form/action-form';
import { DateField } from '@/ui/form/dates';
import { Choice, Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { MoneyField } from '@/ui/form/money-field';
import { PageTitle } from '@/ui/page';
import { SessionFields } from '@/ui/plan/session-fields';
import { UndoBar } from '@/ui/undo-bar';
import { undo } from '../../calendar/actions';
import { PlanCheck } from '../../calendar/plan-check';
import { Groups } from './groups';
import { SessionsTable } from './sessions-table';

export const metadata = { title: 'Course' };

async function add(courseId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(addSession, async () => {
    const id = await call(addSession, { ...formOf(addSession, data), courseId });
    redirect(`/sessions/${id}`);
  });
}

async function edit(courseId: string, version: number, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(editCourse, async () => {
    const sent = formOf(editCourse, data);
    const budget = String(sent.budgetCents ?? '');
    const { course: was } = await call(viewCourse, { courseId });
    await call(editCourse, {
      ...sent,
      courseId,
      version,
      uses: given(sent.uses),
      modePlaces: given(sent.modePlaces),
      budgetCents: budget === '' ? '' : Math.round(Number(budget.replace(',', '.')) * 100),
    });
    return { message: `${was.title} is saved.`, undo: putBack.bind(null, courseId, version + 1, was) };
  });
}

type Course = Awaited<ReturnType<typeof viewCourse>>['course'];

/** A course is as it was before it was saved; refused when somebody changed it since. */
async function putBack(courseId: string, version: number, was: Course): Promise<FormState> {
  'use server';
  return attempt(editCourse, async () => {
    await call(editCourse, { ...was, courseId, version });
    return `${was.title} is as before.`;
  });
}

async function repeat(courseId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(repeatCourse, async () => {
    const { id } = await call(repeatCourse, { ...formOf(repeatCourse, data), courseId });
    redirect(`/courses/${id}/repeated/${courseId}`);
  });
}

export default async function CoursePage({ params }: { params: Promise<{ courseId: string }> }) {
  const say = await saying();
  const { courseId } = await params;
  const { course, sessions, groups, sittings, conflicts, teachers, places, today } = await orNotFound(
    call(viewCoursePlan, { courseId }),
  );
  const [change] = await call(listChanges, {});
  const { cadence } = course;
  const uses: Record<string, number> = course.uses;
  const room = course.modePlaces;
  const names = places.map(({ name }) => name);
  return (
    <>
      <PageTitle
        title={course.title}
        over={[
          course.audience,
          cadence && sayCadence(cadence),
          course.seasonTo && `until ${say.longDate(course.seasonTo)}`,
        ]
          .filter(Boolean)
          .join(' · ')}
      >
        <Link href={`/courses/${courseId}/season`} className="btn btn-primary">
          Plan a season
        </Link>
        <Link href={`/crew/roster?course=${courseId}`} prefetch={false} className="btn">
          Crew
        </Link>
        <Link href={`/courses/${courseId}/week`} className="btn">
          Find a place in the week
        </Link>
        <Link href={`/courses/${courseId}/dishes`} className="btn">
          Choose dishes
        </Link>
        <Link href={`/courses/${courseId}/roll`} className="btn">
          Open the roll
        </Link>
        <Link href={`/courses/${courseId}/supplies`} className="btn">
          Supplies
        </Link>
        <Link href={`/courses/${courseId}/looking-back`} prefetch={false} className="btn">
          Look back
        </Link>
        <a href={`/calendar.ics?course=${courseId}`} className="btn">
          Calendar file
        </a>
      </PageTitle>
      <UndoBar change={change} action={undo} />
      <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <SessionsTable
          sessions={sessions}
          groups={groups}
          sittings={sittings}
          conflicts={conflicts}
          places={names}
          today={today}
        />
        <div className="flex flex-col gap-5">
          <section className="sheet p-4" aria-labelledby="new-session">
            <h2 id="new-session" className="mb-3 text-xl font-bold">
              Add a session
            </h2>
            <ActionForm action={add.bind(null, courseId)} label="Add a session" className="flex flex-col gap-3">
              <SessionFields places={names} teachers={teachers} />
              <PlanCheck courseId={courseId} />
              <button type="submit" className="btn btn-primary w-fit">
                Add session
              </button>
            </ActionForm>
          </section>
          <details className="sheet p-4">
            <summary className="cursor-pointer text-xl font-bold">The course</summary>
            <ActionForm
              version={course.version}
              action={edit.bind(null, courseId, course.version)}
              label="The course"
              className="mt-3 flex flex-col gap-3"
            >
              <Field label="Title" name="title" required maxLength={120} defaultValue={course.title} />
              <Field label="Audience" name="audience" maxLength={120} defaultValue={course.audience} />
              <div className="grid grid-cols-2 gap-2">
                <Field
                  label={groups.length > 0 ? 'Room in each group' : 'Room for'}
                  name="capacity"
                  type="number"
                  min={0}
                  defaultValue={course.capacity ?? ''}
                  hint="people; empty: no limit"
                />
                <MoneyField
                  label="Budget per kit"
                  name="budgetCents"
                  pattern="\d+([.,]\d{1,2})?"
                  defaultValue={course.budgetCents === null ? '' : writeMoney(course.budgetCents)}
                />
              </div>
              <details open={Object.keys(room).length > 0}>
                <summary className="cursor-pointer text-sm font-semibold">Room in each mode</summary>
                <p className="mt-1 text-xs">For people with a mode of their own on the roll; empty: no limit.</p>
                <div className="mt-2 grid grid-cols-2 gap-2">
                  {MODES.map((mode) => (
                    <Field
                      key={mode}
                      label={mode}
                      name={`modePlaces.${mode}`}
                      type="number"
                      min={0}
                      defaultValue={room[mode] ?? ''}
                    />
                  ))}
                </div>
              </details>
              <Choice label="A free place goes to" name="waitlistRule" defaultValue={course.waitlistRule}>
                {WAITLIST_RULES.map((rule) => (
                  <option key={rule}>{rule}</option>
                ))}
              </Choice>
              <Choice label="Instructor" name="instructorId" defaultValue={course.instructorId ?? ''}>
                <option value="">not decided</option>
                {teachers.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </Choice>
              <Field
                label="The roll closes, days before"
                name="rollClosesDays"
                type="number"
                min={0}
                max={60}
                required
                defaultValue={course.rollClosesDays}
              />
              <details open={Object.keys(uses).length > 0}>
                <summary className="cursor-pointer text-sm font-semibold">What a class of it needs</summary>
                <div className="mt-2 grid grid-cols-2 gap-2">
                  {EQUIPMENT_KINDS.map((kind) => (
                    <Field
                      key={kind}
                      label={`${EQUIPMENT[kind][0]?.toUpperCase()}${EQUIPMENT[kind].slice(1)}`}
                      name={kind}
                      type="number"
                      min={0}
                      defaultValue={uses[kind] ?? ''}
                    />
                  ))}
                </div>
              </details>
              <label className="flex flex-col gap-1">
                <span className="text-sm font-semibold">Notes</span>
                <textarea
                  name="notes"
                  className="textarea w-full"
                  rows={3}
                  maxLength={4000}
                  defaultValue={course.notes}
                />
              </label>
              <button type="submit" className="btn btn-primary w-fit">
                Save course
              </button>
            </ActionForm>
          </details>
          <Groups courseId={courseId} groups={groups} places={names} teachers={teachers} />
          {sessions.length > 0 && (
            <details id="repeat" className="sheet p-4">
              <summary className="cursor-pointer text-xl font-bold">Repeat it in another season</summary>
              <ActionForm
                action={repeat.bind(null, courseId)}
                label="Repeat the course"
                className="mt-3 flex flex-col gap-3"
              >
                <Field label="Title" name="title" required maxLength={120} defaultValue={course.title} />
                <DateField
                  label="First day"
                  name="from"
                  required
                  hint="Same weekdays and hours, titles and dishes, around the closures; the roll starts empty"
                />
                <button type="submit" className="btn btn-primary w-fit">
                  Repeat course
                </button>
              </ActionForm>
            </details>
          )}
        </div>
      </div>
    </>
  );
}
