import { call, requireMember } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { AVOIDANCES } from '@/core/safety/avoidances';
import { viewClass } from '@/services/classday/live';
import { LiveClass } from '@/ui/classday/live/live-class';

export const metadata = { title: 'Class' };

interface Props {
  readonly params: Promise<{ sessionId: string }>;
  readonly searchParams: Promise<{ group?: string; wall?: string }>;
}

/** A class while it runs. */
export default async function Live({ params, searchParams }: Props) {
  const { sessionId } = await params;
  const { group = '', wall } = await searchParams;
  await requireMember();
  const { around, session, ...view } = await orNotFound(call(viewClass, { sessionId, sitting: group }));
  return (
    <LiveClass
      key={`${session.id} ${session.sitting}`}
      session={session}
      profile={view.profile}
      before={around.opening + around.demonstration}
      isOnScreen={view.isOnScreen}
      plan={view.plan}
      routines={view.routines}
      people={view.people}
      mark={view.mark}
      changed={view.changed}
      unsafe={view.unsafe}
      foods={view.foods}
      avoidances={AVOIDANCES.map(({ code, label }) => [code, label] as const)}
      events={view.events}
      isWall={wall !== undefined}
    />
  );
}
