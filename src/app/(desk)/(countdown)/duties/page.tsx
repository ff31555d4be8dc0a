import Link from 'next/link';
import { call } from '@/app/access';
import { saying } from '@/app/saying';
import { listDuties } from '@/services/classday/room';

import { Empty, PageTitle } from '@/ui/page';

export const metadata = { title: 'Bench and class' };

export default async function Duties() {
  const say = await saying();
  const sessions = await call(listDuties, {});
  return (
    <>
      <PageTitle title="Bench and class" />
      {sessions.length === 0 ? (
        <Empty title="Nothing to pack, and no class soon">
          <p>
            A session appears here as soon as its kit sheet is locked, and from two days before its class: then you see
            what the children in the room must avoid.
          </p>
        </Empty>
      ) : (
        <ul className="grid gap-4 sm:grid-cols-2">
          {sessions.map((session) => (
            <li key={`${session.id} ${session.groupId}`} className="sheet flex flex-col gap-3 p-5">
              <div>
                <p className="text-sm">{session.courseTitle}</p>
                <h2 className="text-xl font-bold">{session.title}</h2>
                <p>
                  {say.longDate(session.date)}, {say.time(session.startsAt)} · {session.place}
                </p>
              </div>
              <div className="flex flex-wrap gap-2">
                {session.canPack && (
                  <Link
                    href={`/bench/${session.id}`}
                    className="btn btn-primary btn-lg w-fit"
                    aria-label={`Pack ${session.title}`}
                  >
                    Pack
                  </Link>
                )}
                {session.canPack && session.roomIsOpen && (
                  <>
                    <Link
                      href={`/table/${session.id}`}
                      className="btn btn-lg w-fit"
                      aria-label={`Hand out ${session.title}`}
                    >
                      Hand out
                    </Link>
                    <Link
                      href={`/made/${session.id}`}
                      className="btn btn-lg w-fit"
                      aria-label={`Made ahead for ${session.title}`}
                    >
                      Made ahead
                    </Link>
                  </>
                )}
                {session.roomIsOpen && (
                  <Link
                    href={`/room/${session.id}`}
                    className="btn btn-lg w-fit"
                    aria-label={`In the room: ${session.title}`}
                  >
                    In the room
                  </Link>
                )}
              </div>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
