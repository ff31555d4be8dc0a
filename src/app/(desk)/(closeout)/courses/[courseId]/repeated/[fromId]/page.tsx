import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { sayCount } from '@/core/quantity/say';
import { viewRepeated } from '@/services/closeout/looking-back';

import { PageTitle } from '@/ui/page';

export const metadata = { title: 'Repeated course' };

/** A course that was repeated: what differs from the one before. */
export default async function Repeated({ params }: { params: Promise<{ courseId: string; fromId: string }> }) {
  const say = await saying();
  const { courseId, fromId } = await params;
  const { course, from, dates, recipes, waiting } = await orNotFound(call(viewRepeated, { courseId, fromId }));
  return (
    <>
      <PageTitle title={`What differs: ${course.title}`} over={`Repeated from ${from.title}`}>
        <Link href={`/courses/${courseId}`} className="btn btn-primary">
          Open the course
        </Link>
      </PageTitle>
      <div className="grid gap-5 lg:grid-cols-2">
        <section className="sheet p-5" aria-labelledby="dates">
          <h2 id="dates" className="mb-2 text-xl font-bold">
            Dates
          </h2>
          <ul className="divide-y divide-base-300">
            {dates.map(({ title, before, after, because, isOther, when }) => (
              <li key={`${title}${before}`} className="py-1.5">
                <b>{title}</b>: {say.longDate(before)} → {after ? say.longDate(after) : 'no room left in the season'}
                {isOther && `, ${when}`}
                {because && <span className="block text-sm">{say.text(because)}</span>}
              </li>
            ))}
          </ul>
        </section>
        <section className="sheet p-5" aria-labelledby="recipes">
          <h2 id="recipes" className="mb-2 text-xl font-bold">
            Recipes
          </h2>
          {recipes.length === 0 && <p>They are as they were cooked.</p>}
          {recipes.map(({ title, says }) => (
            <div key={title} className="mb-3">
              <b>{title}</b>
              <ul className="list-disc pl-5">
                {says.map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
            </div>
          ))}
          <p className="mt-2 text-sm">
            The roll starts empty. What its jobs take, the minutes of a class and the order of the dishes are taken
            over.{' '}
            {waiting > 0 && (
              <Link href="/lessons" className="link">
                {sayCount(waiting, 'lesson waits', 'lessons wait')} to be decided first.
              </Link>
            )}
          </p>
        </section>
      </div>
    </>
  );
}
