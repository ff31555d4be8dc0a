import Link from 'next/link';
import { redirect } from 'next/navigation';
import { attempt, fields } from '@/app/form';
import { orNotFound } from '@/app/or-not-found';
import { viewCourse } from '@/services/plan/courses';
import { addSession } from '@/services/plan/sessions';
import { ActionForm, type FormState } from '@/ui/action-form';
import { sayLongDate } from '@/ui/dates';
import { PageTitle } from '@/ui/page';
import { SessionFields } from '@/ui/session-fields';
import { call } from '../../../access';

export const metadata = { title: 'Course' };

async function add(courseId: string, _state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(async () => {
    const id = await call(addSession, { courseId, ...fields(data) } as never);
    redirect(`/sessions/${id}`);
  });
}

export default async function Course({ params }: { params: Promise<{ courseId: string }> }) {
  const { courseId } = await params;
  const { course, sessions } = await orNotFound(call(viewCourse, { courseId }));
  return (
    <>
      <PageTitle title={course.title} over={course.audience}>
        <Link href={`/courses/${courseId}/roll`} className="btn">
          Open the roll
        </Link>
      </PageTitle>
      <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <div className="sheet h-fit overflow-x-auto">
          <table className="table">
            <thead>
              <tr>
                <th scope="col">Session</th>
                <th scope="col">When</th>
                <th scope="col">Place</th>
                <th scope="col">Mode</th>
              </tr>
            </thead>
            <tbody>
              {sessions.map((session) => (
                <tr key={session.id}>
                  <td>
                    <Link href={`/sessions/${session.id}`} className="link font-bold">
                      {session.number}. {session.title}
                    </Link>
                  </td>
                  <td>
                    {sayLongDate(session.date)}, {session.startsAt}
                  </td>
                  <td>{session.place}</td>
                  <td>{session.mode}</td>
                </tr>
              ))}
              {sessions.length === 0 && (
                <tr>
                  <td colSpan={4}>No session yet. Add the first one beside this.</td>
                </tr>
              )}
            </tbody>
          </table>
        </div>
        <section className="sheet h-fit p-4" aria-labelledby="new-session">
          <h2 id="new-session" className="mb-3 text-xl font-bold">
            Add a session
          </h2>
          <ActionForm action={add.bind(null, courseId)} label="Add a session" className="flex flex-col gap-3">
            <SessionFields />
            <button type="submit" className="btn btn-primary w-fit">
              Add session
            </button>
          </ActionForm>
        </section>
      </div>
    </>
  );
}
