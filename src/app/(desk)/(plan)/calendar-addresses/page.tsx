import Link from 'next/link';
import { call } from '@/app/access';
import { attempt, fields } from '@/app/form';
import { saying } from '@/app/saying';
import { listCourses, listTeachers } from '@/services/plan/courses';
import { listFeeds, makeFeed, revokeFeed } from '@/services/plan/feeds';
import { listPlaces } from '@/services/plan/places';
import { ActionForm } from '@/ui/form/action-form';
import { Choice } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { PageTitle } from '@/ui/page';

export const metadata = { title: 'Share the calendar' };

async function make(_state: FormState | null, data: FormData): Promise<FormState> {
  'use server';
  return attempt(makeFeed, async () => {
    const { what = '', jobs } = fields(data);
    const [scope = '', scopeId = ''] = what.split(' ');
    const { token } = await call(makeFeed, { scope, scopeId, withJobs: jobs === 'on' });
    const address = process.env.PUBLIC_ADDRESS ?? '';
    return { message: 'Copy the address now, it is not shown again:', copy: `${address}/feeds/${token}.ics` };
  });
}

async function end(feedId: string): Promise<void> {
  'use server';
  await attempt(revokeFeed, async () => {
    await call(revokeFeed, { feedId });
    return undefined;
  });
}

export default async function CalendarAddresses() {
  const say = await saying();
  const feeds = await call(listFeeds, {});
  const courses = await call(listCourses, {});
  const { places } = await call(listPlaces, {});
  const teachers = await call(listTeachers, {});
  return (
    <>
      <PageTitle title="Share the calendar" over="Addresses that any calendar program can follow">
        <a href="/calendar.ics" className="btn">
          Save as a calendar file
        </a>
        <Link href="/calendar" className="btn">
          Calendar
        </Link>
      </PageTitle>
      <div className="grid gap-6 lg:grid-cols-2">
        <section className="sheet h-fit p-5" aria-labelledby="made">
          <h2 id="made" className="mb-2 text-xl font-bold">
            Addresses in use
          </h2>
          {feeds.length === 0 && <p>None. Make one beside this, and give it to those who should see the plan.</p>}
          <ul className="divide-y divide-base-300">
            {feeds.map((feed) => (
              <li key={feed.id} className="flex items-center justify-between gap-3 py-2">
                <span>
                  <b>{feed.what ?? 'The whole programme'}</b>
                  <span className="block text-sm">
                    {feed.scope}
                    {feed.withJobs ? ', with the jobs' : ''}, made {say.moment(feed.createdAt.toISOString())}
                    {feed.madeBy && ` by ${feed.madeBy}`}
                  </span>
                </span>
                <form action={end.bind(null, feed.id)}>
                  <button
                    type="submit"
                    className="btn btn-sm"
                    aria-label={`End the address of ${feed.what ?? 'the whole programme'}`}
                  >
                    End it
                  </button>
                </form>
              </li>
            ))}
          </ul>
        </section>
        <section className="sheet h-fit p-5" aria-labelledby="new">
          <h2 id="new" className="mb-2 text-xl font-bold">
            Make an address
          </h2>
          <ActionForm action={make} label="Make an address" className="flex flex-col gap-3">
            <Choice label="For" name="what" defaultValue="programme">
              <option value="programme">the whole programme</option>
              <optgroup label="A course">
                {courses.map(({ id, title }) => (
                  <option key={id} value={`course ${id}`}>
                    {title}
                  </option>
                ))}
              </optgroup>
              <optgroup label="A place">
                {places.map(({ id, name }) => (
                  <option key={id} value={`place ${id}`}>
                    {name}
                  </option>
                ))}
              </optgroup>
              <optgroup label="An instructor">
                {teachers.map(({ id, name }) => (
                  <option key={id} value={`instructor ${id}`}>
                    {name}
                  </option>
                ))}
              </optgroup>
            </Choice>
            <label className="flex items-center gap-2 text-sm">
              <input type="checkbox" name="jobs" className="checkbox checkbox-sm" /> With the jobs of the coming four
              weeks, as tasks
            </label>
            <button type="submit" className="btn btn-primary w-fit">
              Make address
            </button>
          </ActionForm>
          <p className="mt-3 text-sm">
            Whoever has the address sees when and where sessions are. No names of families, no needs. End it, and it
            answers no more.
          </p>
        </section>
      </div>
    </>
  );
}
