// npm run bench: figures for the heavy parts, each beside a stated baseline.
import { course } from './course';
import { measureRuns, say } from './measure';
import { conflicts, countdowns, placesInTheWeek } from './plan';
import { checks, proposals, readLines } from './recipes';

/** What a lean spreadsheet of the same model needs, for comparison. */
const SPREADSHEET = 'a lean spreadsheet of the same model: about 340 ms, one changed cell 40 to 80 ms';

async function recalculation(): Promise<void> {
  const { compute, input } = course({ sessions: 12, participants: 500, lines: 20, profiles: 12 });
  const small = await measureRuns(() => compute(input), 30);
  say(
    'Whole recalculation, 12 sessions × 500 participants × 20 lines × 12 variants',
    small,
    `goal at most 20 ms and 200 MB; ${SPREADSHEET}`,
  );
  const large = course({ sessions: 12, participants: 5000, lines: 20, profiles: 12 });
  const ten = await measureRuns(() => large.compute(large.input), 15);
  say(
    'The same with 5,000 participants',
    ten,
    `goal at most ten times the time (${(ten.median / small.median).toFixed(1)} times here)`,
  );
}

async function plan(): Promise<void> {
  say('Conflicts of 60 courses × 12 sessions', await measureRuns(conflicts(), 50), 'goal at most 50 ms');
  say(
    'Best places in the week for one course, over a season',
    await measureRuns(placesInTheWeek(), 20),
    'goal at most 300 ms',
  );
  say('Countdown of 200 sessions × 14 jobs', await measureRuns(countdowns(), 50), 'goal at most 50 ms');
}

async function recipes(): Promise<void> {
  say(
    '1,000 ingredient lines read and matched against 1,000 foods',
    await measureRuns(readLines(), 20),
    'goal at most 300 ms',
  );
  say('All checks on one recipe', await measureRuns(checks(), 200), 'goal at most 5 ms');
  say(
    'Dishes proposed for a course of 10 sessions from 300 recipes',
    await measureRuns(proposals(), 10),
    'goal at most 2 s',
  );
}

await recalculation();
await plan();
await recipes();
