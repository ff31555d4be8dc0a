'use client';

import { Waiting } from '../buying/waiting';
import { useRoundWords } from './use-round';

/** Sends what a phone without a network kept of a round whose day is over; draws nothing of the round. */
export function SendLeftOver({ roundId, address }: { roundId: string; address: string }) {
  const { waiting, isCut, trouble } = useRoundWords(roundId, address);
  return <Waiting count={waiting} isCut={waiting > 0 && isCut} message={trouble} />;
}
