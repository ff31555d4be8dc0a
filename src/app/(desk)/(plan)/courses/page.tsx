import Link from 'next/link';
import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { saying } from '@/app/saying';
import { addCourse, listCourses } from '@/services/plan/courses';

import { ActionForm } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';

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
  const say = await saying();
  const courses = await call(listCourses, {});
  return (
    <>
      <PageTitle title="Courses" />
      <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
        <div className="sheet h-fit overflow-x-auto">
          <table className="table">
            <thead>
              <tr>
                <th scope="col">Course</th>
                <th scope="col">Next session</th>
                <th scope="col" className="text-right">
                  Sessions
                </th>
                <th scope="col" className="text-right">
                  On the roll
                </th>
                <th scope="col">
                  <span className="sr-only">Roll</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {courses.map((course) => (
                <tr key={course.id}>
                  <td>
                    <Link href={`/courses/${course.id}`} className="link font-bold">
                      {course.title}
                    </Link>
                    <span className="block text-sm">{course.audience}</span>
                  </td>
                  <td>{course.next ? say.shortDate(course.next) : 'none planned'}</td>
                  <td className="text-right">{course.sessions}</td>
                  <td className="text-right">{course.people}</td>
                  <td className="text-right">
                    <Link
                      href={`/courses/${course.id}/roll`}
                      className="btn btn-sm"
                      aria-label={`Roll of ${course.title}`}
                    >
                      Roll
                    </Link>
                  </td>
                </tr>
              ))}
              {courses.length === 0 && (
                <tr>
                  <td colSpan={5}>No course yet. Add the first one beside this.</td>
                </tr>
              )}
            </tbody>
          </table>
        </div>
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
