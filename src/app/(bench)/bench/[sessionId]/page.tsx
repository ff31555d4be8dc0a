import { call, requireMember } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { viewBench } from '@/services/packing/bench';
import { PackBench } from '@/ui/packing/pack-bench';

export const metadata = { title: 'Pack bench' };

export default async function Bench({ params }: { params: Promise<{ sessionId: string }> }) {
  const { sessionId } = await params;
  const { actor } = await requireMember();
  const { sheet, events } = await orNotFound(call(viewBench, { sessionId }));
  const leave = actor.role === 'coordinator' ? `/sessions/${sessionId}/packing` : '/duties';
  return <PackBench key={sheet.revision} sheet={sheet} events={events} leave={leave} />;
}
