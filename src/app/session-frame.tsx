import Link from 'next/link';
import type { ReactNode } from 'react';
import { saying } from '@/app/saying';
import type { StageKey } from '@/core/stages/stages';
import { contextFor } from '@/services/runtime';
import type { Hours } from '@/services/sheet/load-programme';
import type { SessionSheet } from '@/services/sheet/session-sheet';
import { sessionThread } from '@/services/sheet/session-thread';
import { ToSettle } from '@/ui/classday/to-settle';
import { SessionThreadNav } from '@/ui/countdown/session-thread';
import { BelowAdults } from '@/ui/crew/below-adults';

import { requireMember } from './access';

type Bundle = Parameters<typeof sessionThread>[0];

/** The frame of every page of a session: what and when it is, and its thread. */
export async function SessionFrame({
  bundle,
  sheet,
  hours,
  current,
  title,
  actions,
  children,
}: {
  bundle: Bundle;
  sheet: SessionSheet;
  hours: Hours;
  /** Left out on pages of no single stage. */
  current?: StageKey;
  title: string;
  actions?: ReactNode;
  children: ReactNode;
}) {
  const say = await saying();
  const { actor, programme } = await requireMember();
  const { session } = bundle;
  const thread = sessionThread(bundle, sheet, programme, hours, contextFor(actor).clock());
  return (
    <>
      <div className="mb-4 flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
        <div>
          <p className="text-sm text-base-content/80">
            <Link href={`/courses/${session.courseId}`} className="link">
              {session.courseTitle}
            </Link>
            , session {session.number} · {say.longDate(session.date)}, {say.time(session.startsAt)} · {session.place} ·{' '}
            {session.mode}
            {session.sittings
              .filter(({ status }) => status === 'planned')
              .map(({ groupId, groupName, date, startsAt, place }) => (
                <span key={groupId} className="block">
                  also {groupName}: {say.longDate(date)}, {say.time(startsAt)} · {place}
                </span>
              ))}
          </p>
          <h1 className="text-3xl font-bold">
            {session.title}: {title}
          </h1>
        </div>
        <div className="no-print flex flex-wrap items-center gap-2">
          <Link href={`/room/${session.id}`} className="btn">
            In the room
          </Link>
          {actions}
        </div>
      </div>
      <SessionThreadNav session={session} knots={thread.knots} current={current} say={say} />
      {thread.below && (
        <BelowAdults why={thread.below} {...(current === 'crew' ? {} : { href: `/sessions/${session.id}/crew` })} />
      )}
      {thread.settle.length > 0 && current !== undefined && <ToSettle classes={[thread]} say={say} />}
      {children}
    </>
  );
}
