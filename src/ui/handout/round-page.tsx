import { type SayingFacts, sayingOf } from '@/core/plan/saying';

import { DriverRound, type RoundDoor } from './driver-round';

interface Props {
  readonly round: {
    readonly id: string;
    readonly title: string;
    readonly date: string;
    readonly says: SayingFacts;
    readonly leaves: number;
    readonly leftAt: string | null;
    readonly endedAt: string | null;
    readonly stops: readonly (Omit<RoundDoor, 'note'> & { readonly door: { readonly note?: string } })[];
    readonly standing: { readonly ahead: Parameters<typeof DriverRound>[0]['ahead'] };
  };
  /** Where its words are sent. */
  readonly address: string;
}

/** A round as its driver sees it. */
export function RoundPage({ round, address }: Props) {
  const { id, title, date, says, leaves, leftAt, endedAt, stops, standing } = round;
  return (
    <div className="max-w-xl">
      <h1 className="mb-3 text-2xl font-bold">To the doors, {sayingOf(says).longDate(date)}</h1>
      <DriverRound
        key={id}
        roundId={id}
        address={address}
        title={title}
        says={says}
        leaves={leaves}
        leftAt={leftAt}
        endedAt={endedAt}
        stops={stops.map(({ door, ...stop }) => ({ ...stop, note: door.note ?? '' }))}
        ahead={standing.ahead}
      />
    </div>
  );
}
