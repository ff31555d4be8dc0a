import { call } from '@/app/access';
import { orNotFound } from '@/app/or-not-found';
import { viewRound } from '@/services/handout/driving';
import { RoundPage } from '@/ui/handout/round-page';

export const metadata = { title: 'Round to the doors' };

/** A round, for who drives it and is signed in. */
export default async function Round({ params }: { params: Promise<{ roundId: string }> }) {
  const { roundId } = await params;
  const round = await orNotFound(call(viewRound, { roundId }));
  return <RoundPage round={round} address={`/api/rounds/${roundId}/events`} />;
}
