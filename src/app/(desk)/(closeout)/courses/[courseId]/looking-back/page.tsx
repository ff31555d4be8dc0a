import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { sayCount } from '@/core/quantity/say';
import { lookBack } from '@/services/closeout/looking-back';

import { PageTitle } from '@/ui/page';

export const metadata = { title: 'Looking back' };

/** A course when it is over: how it went, what to keep, what to change. */
export default async function LookingBack({ params }: { params: Promise<{ courseId: string }> }) {
  const say = await saying();
  const { courseId } = await params;
  const { course, figures, keep, change, lessons, said, notClosed } = await orNotFound(call(lookBack, { courseId }));
  return (
    <>
      <PageTitle title={`Looking back: ${course.title}`}>
        <Link href={`/reports?courseId=${courseId}`} className="btn btn-primary">
          Its report
        </Link>
        <Link href="/lessons" className="btn">
          {lessons > 0 ? sayCount(lessons, 'lesson waits', 'lessons wait') : 'Lessons'}
        </Link>
        <Link href={`/courses/${courseId}#repeat`} className="btn">
          Repeat it
        </Link>
      </PageTitle>
      <dl className="sheet mb-5 flex flex-wrap gap-x-8 gap-y-3 p-5">
        {figures.map(({ key, label, said: value }) => (
          <div key={key}>
            <dt className="text-sm">{label}</dt>
            <dd className="text-xl font-bold tabular-nums">{value}</dd>
          </div>
        ))}
      </dl>
      {notClosed.length > 0 && (
        <section className="mb-5 rounded-box border-l-4 border-warning bg-warning/10 p-3" aria-label="Not closed yet">
          Not closed yet, and teaching nothing:{' '}
          {notClosed.map(({ id, title, date }, at) => (
            <span key={id}>
              {at > 0 && '; '}
              <Link href={`/room/${id}/close`} className="link">
                {title}, {say.longDate(date)}
              </Link>
            </span>
          ))}
        </section>
      )}
      <div className="grid gap-5 lg:grid-cols-2">
        <List title="Keep" lines={keep} none="Nothing was said yet that speaks for anything." />
        <List title="Change" lines={change} none="Nothing speaks for a change." />
      </div>
      {said.length > 0 && (
        <section className="sheet mt-5 p-5" aria-labelledby="said">
          <h2 id="said" className="mb-2 text-xl font-bold">
            To remember
          </h2>
          <ul className="list-disc pl-5">
            {said.map(({ session, words }) => (
              <li key={`${session}${words}`}>
                {session}: {words}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

function List({ title, lines, none }: { title: string; lines: readonly string[]; none: string }) {
  return (
    <section className="sheet p-5" aria-label={title}>
      <h2 className="mb-2 text-xl font-bold">{title}</h2>
      {lines.length === 0 ? (
        <p>{none}</p>
      ) : (
        <ul className="list-disc pl-5">
          {lines.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
    </section>
  );
}
