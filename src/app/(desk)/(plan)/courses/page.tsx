import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { addCourse, listCourses } from '@/services/plan/courses';
import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { Empty, PageTitle } from '@/ui/page';
import { CoursesTable } from './courses-table';

export const metadata = { title: 'Courses' };

async function add(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(addCourse, async () => {
    const course = fields(data);
    await call(addCourse, { title: course.title ?? '', audience: course.audience ?? '' });
    return `${course.title} is added. Open it to add sessions and the roll.`;
  });
}

export default async function Courses() {
  const courses = await call(listCourses, {});
  return (
    <>
      <PageTitle title="Courses" />
      <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
        {courses.length === 0 ? (
          <Empty title="No course yet">
            <p>Add the first one beside this.</p>
          </Empty>
        ) : (
          <CoursesTable courses={courses} />
        )}
        <section className="sheet h-fit p-4" aria-labelledby="new-course">
          <h2 id="new-course" className="mb-3 text-xl font-bold">
            Add a course
          </h2>
          <ActionForm action={add} label="Add a course" clear className="flex flex-col gap-3">
            <Field label="Title" name="title" required maxLength={120} />
            <Field label="Audience" name="audience" maxLength={120} hint="For example: ages 7 to 10" />
            <button type="submit" className="btn btn-primary w-fit">
              Add course
            </button>
          </ActionForm>
        </section>
      </div>
    </>
  );
}
