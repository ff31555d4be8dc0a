import { visit } from '@/app/access';
import { ownByLink } from '@/services/crew/own-page';
import { ServiceError } from '@/services/errors';
import { ownRounds, roundsToday } from '@/services/handout/driving';
import { KeptPage } from '@/ui/crew/kept-page';
import { RoundPage } from '@/ui/handout/round-page';
import { SendLeftOver } from '@/ui/handout/send-left-over';

export const metadata = { title: 'Your round', robots: { index: false }, referrer: 'no-referrer' as const };

/** The rounds of somebody of the crew today, behind their personal link. */
export default async function OwnRound({ params }: { params: Promise<{ secret: string }> }) {
  const { secret } = await params;
  const own = await ownByLink(await visit(), secret).catch((error: unknown) => {
    if (error instanceof ServiceError && error.kind !== 'limited') return undefined;
    throw error;
  });
  if (!own) return <h1 className="text-2xl font-bold">This page has ended</h1>;
  const rounds = await ownRounds(own.context, own.person);
  const wordsTo = (roundId: string) => `/my/${secret}/round/events?round=${roundId}`;
  const yesterday = await roundsToday(own.context, own.person.id, 1);
  return (
    <>
      <KeptPage />
      {rounds.length === 0 && (
        <>
          <h1 className="mb-2 text-2xl font-bold">No round today</h1>
          <p>The doors of a round are shown to its driver on its day.</p>
        </>
      )}
      {rounds.map((round) => (
        <RoundPage key={round.id} round={round} address={wordsTo(round.id)} />
      ))}
      {yesterday.map((id) => (
        <SendLeftOver key={id} roundId={id} address={wordsTo(id)} />
      ))}
      <p className="mt-6">
        <a className="link" href={`/my/${secret}`}>
          Your duties
        </a>
      </p>
    </>
  );
}
