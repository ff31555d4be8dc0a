// npm run bench: figures for the heavy parts, each beside a stated baseline.
import { readRollXlsx } from '@/formats/roll/roll-xlsx';
import { accuracy } from './accuracy';
import { buyingFigures } from './buying';
import { course } from './course';
import { lookingBackFigures } from './looking-back';
import { measureRuns, say } from './measure';
import { packingFigures } from './packing';
import { conflicts, countdowns, placesInTheWeek } from './plan';
import { checks, proposals, readLines } from './recipes';
import { rosterFigures } from './roster';
import { routesFigures } from './routes';
import { runSheetFigures } from './run-sheet';
import { locked, manyNeeds, rollBook } from './sheet';

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
  const wide = course({ sessions: 12, participants: 500, lines: 25, profiles: 40 });
  say(
    'The same with 25 lines and 40 profiles',
    await measureRuns(() => wide.compute(wide.input), 30),
    `goal at most 20 ms; ${SPREADSHEET}`,
  );
  const large = course({ sessions: 12, participants: 5000, lines: 20, profiles: 12 });
  const ten = await measureRuns(() => large.compute(large.input), 15);
  say(
    'The same with 5,000 participants',
    ten,
    `goal at most ten times the time (${(ten.median / small.median).toFixed(1)} times here)`,
  );
}

/** One participant's need changes: the new sheet, and what differs from the locked one. */
async function oneNeed(): Promise<void> {
  const { change } = locked();
  say(
    'One need changed: new sheet of 500 participants × 25 lines × 40 profiles, and its differences',
    await measureRuns(change, 50),
    `goal at most 2 ms; ${SPREADSHEET}`,
  );
}

async function versions(): Promise<void> {
  const { run } = manyNeeds();
  const { isFewest, atMostFewer, avoids } = run();
  say(
    `Fewest versions for 40 profiles: ${avoids.length}, ${isFewest ? 'proven the fewest' : `at most ${atMostFewer} fewer`}`,
    await measureRuns(run, 5),
    'goal the optimum, or the gap told, within 2 s',
  );
}

async function workbook(): Promise<void> {
  const bytes = await rollBook(2000);
  say(
    'A workbook of 2,000 rows read',
    await measureRuns(() => readRollXlsx(bytes), 5),
    'goal at most 2 s, off the serving thread',
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
  for (const line of accuracy()) console.log(line);
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

/** Milliseconds of a fixed piece of work: the same machine is slower at one hour than at another. */
function pace(): string {
  const start = performance.now();
  let sum = 0;
  for (let n = 0; n < 1e8; n++) sum += n % 7;
  return `a fixed loop takes ${(performance.now() - start).toFixed(0)} ms now${sum > 0 ? '' : '!'}`;
}

console.log(`(${pace()})\n`);
await recalculation();
await oneNeed();
console.log(`(${pace()})\n`);
await versions();
await workbook();
await plan();
await recipes();
await buyingFigures();
await rosterFigures();
await packingFigures();
await routesFigures();
runSheetFigures();
await lookingBackFigures();
