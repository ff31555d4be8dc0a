import Link from 'next/link';
import { listBenches } from '@/services/packing/bench';
import { sayLongDate } from '@/ui/dates';
import { Empty, PageTitle } from '@/ui/page';
import { call } from '../../access';

export const metadata = { title: 'Pack bench' };

export default async function Benches() {
  const sessions = await call(listBenches, {});
  return (
    <>
      <PageTitle title="What is to be packed" />
      {sessions.length === 0 ? (
        <Empty title="Nothing is ready to be packed">
          <p>A session appears here as soon as its kit sheet is locked.</p>
        </Empty>
      ) : (
        <ul className="grid gap-4 sm:grid-cols-2">
          {sessions.map((session) => (
            <li key={session.id} className="sheet flex flex-col gap-3 p-5">
              <div>
                <p className="text-sm">{session.courseTitle}</p>
                <h2 className="text-xl font-bold">{session.title}</h2>
                <p>
                  {sayLongDate(session.date)}, {session.startsAt} · {session.place}
                </p>
              </div>
              <Link
                href={`/bench/${session.id}`}
                className="btn btn-primary btn-lg w-fit"
                aria-label={`Pack ${session.title}`}
              >
                Pack
              </Link>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
