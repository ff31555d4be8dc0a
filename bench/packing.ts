import { balanceLine, LINE_CLASSES } from '@/core/packing/line/line';
import type { Motion } from '@/core/packing/prep/motion';
import { planPrep } from '@/core/packing/prep/plan';
import { randomFrom } from '../scripts/random.mjs';
import { measureRuns, say } from './measure';

/** Five motions of each of twelve dishes, some for kits made without something, some raw. */
function motions(): Motion[] {
  const chance = randomFrom(3);
  return Array.from({ length: 60 }, (_, at) => ({
    key: `food ${at}|chopped|`,
    food: `food ${at}`,
    cut: 'chopped',
    phase: at % 10 === 0 ? 'without' : at % 15 === 1 ? 'raw' : 'rest',
    part: 0,
    grams: 1000,
    kits: 20,
    minutes: 2 + Math.floor(chance() * 30),
  }));
}

export async function packingFigures(): Promise<void> {
  const own = motions();
  const hands = Array.from({ length: 6 }, (_, at) => ({ id: String(at), name: String(at), raw: at < 3 }));
  const plan = planPrep(own, hands, 8);
  say(
    `A prep day of 12 dishes for 6 pairs of hands: ${plan?.minutes} minutes, ${plan?.proven ? 'proven' : `not below ${plan?.bound}`}`,
    await measureRuns(() => planPrep(own, hands, 8), 20),
    'goal at most 2 s, proven or with its bound',
  );
  const chance = randomFrom(4);
  const tasks = Array.from({ length: 25 }, (_, at) => ({
    id: `t${at}`,
    seconds: 20 + Math.floor(chance() * 400),
    class: LINE_CLASSES[at < 18 ? 0 : at < 23 ? 1 : 2] ?? ('any' as const),
  }));
  const { slowest, proven } = balanceLine(tasks, 6);
  say(
    `A line of 25 components and 6 stations: ${slowest} s at the slowest, ${proven ? 'proven' : 'not proven'}`,
    await measureRuns(() => balanceLine(tasks, 6), 20),
    'goal: best pace proven in at most 1 s',
  );
}
