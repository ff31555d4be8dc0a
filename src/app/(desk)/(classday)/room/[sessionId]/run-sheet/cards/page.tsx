import Link from 'next/link';
import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { saying } from '@/app/saying';
import { minutesOf } from '@/core/plan/civil';
import { viewRunSheet } from '@/services/classday/run-sheet';
import { SetOut } from '@/ui/classday/set-out';

import { Empty, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Station cards' };

interface Props {
  readonly params: Promise<{ sessionId: string }>;
  readonly searchParams: Promise<{ group?: string }>;
}

/** A card for each station, to lie on its table. */
export default async function Cards({ params, searchParams }: Props) {
  const say = await saying();
  const { sessionId } = await params;
  const { group = '' } = await searchParams;
  const { session, plan, stations, food, setOut, around, isOnScreen } = await orNotFound(
    call(viewRunSheet, { sessionId, sitting: group }),
  );
  const begins = minutesOf(session.startsAt) + around.opening + around.demonstration;
  return (
    <>
      <PageTitle
        title={`Station cards: ${session.title}`}
        over={`${session.courseTitle}${session.group && `, ${session.group}`} · ${say.longDate(session.date)}, ${say.time(session.startsAt)}`}
      >
        <Link href={`/room/${sessionId}/run-sheet${group ? `?group=${group}` : ''}`} className="btn">
          Run sheet
        </Link>
        <PrintButton />
      </PageTitle>
      {plan && setOut ? (
        <SetOut
          plan={plan}
          stations={stations}
          tools={setOut.tools}
          food={food}
          isOnScreen={isOnScreen}
          timeAt={(minute) => say.time(begins + minute)}
        />
      ) : (
        <Empty title="There are no cards yet">
          <p>They are made from the run sheet, and that from the steps of the dishes.</p>
        </Empty>
      )}
    </>
  );
}
