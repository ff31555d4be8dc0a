import { ADULT, type PlannedStep } from '@/core/recipes/steps/step-plan';
import type { StepSchedule } from '@/core/recipes/steps/step-schedule';

/**
 * Steps over the minutes they take, as bars: full while hands are on them, hatched while they go on alone. What each waits
 * for is said beside it, so that nothing is told by the drawing alone.
 */
export function StepBoard({ steps, schedule }: { steps: readonly PlannedStep[]; schedule: StepSchedule }) {
  const whole = Math.max(1, schedule.minutes);
  const at = (minutes: number) => `${(minutes / whole) * 100}%`;
  const every = whole > 120 ? 30 : whole > 45 ? 10 : 5;
  const marks = Array.from({ length: Math.floor(whole / every) + 1 }, (_, n) => n * every);
  return (
    <div className="text-sm">
      <div className="hidden gap-3 md:grid md:grid-cols-[16rem_minmax(0,1fr)]" aria-hidden="true">
        <span />
        <div className="relative h-5">
          {marks.map((mark) => (
            <span key={mark} className="absolute -translate-x-1/2 text-xs" style={{ left: at(mark) }}>
              {mark}
            </span>
          ))}
        </div>
      </div>
      <ol aria-label="Steps over the minutes">
        {steps.map((step, place) => {
          const time = schedule.steps[place];
          if (!time) return null;
          const { start, handsUntil, end, latest } = time;
          return (
            <li
              key={step.text}
              className="grid gap-x-3 border-t border-base-300 py-1.5 md:grid-cols-[16rem_minmax(0,1fr)]"
            >
              <span>
                <span className="font-semibold">
                  {place + 1}. {shorten(step.text)}
                </span>
                <span className="block text-xs">
                  {step.ahead
                    ? 'before the class'
                    : `minute ${start} to ${end}${latest > start ? `, at latest from ${latest}` : ', no minute to spare'}`}
                  {step.after.length > 0 && `, after ${step.after.map((before) => before + 1).join(', ')}`}
                  {step.fromAge >= ADULT && ', an adult'}
                </span>
              </span>
              <span className="relative hidden h-7 self-center md:block" aria-hidden="true">
                <span
                  className="absolute inset-y-0 rounded-field bg-primary"
                  style={{ left: at(start), width: at(handsUntil - start) }}
                />
                <span
                  className="step-alone absolute inset-y-0 rounded-field border border-primary"
                  style={{ left: at(handsUntil), width: at(end - handsUntil) }}
                  hidden={end === handsUntil}
                />
              </span>
            </li>
          );
        })}
      </ol>
      <p className="mt-2 flex flex-wrap gap-4 text-xs" aria-hidden="true">
        <span className="flex items-center gap-1.5">
          <span className="inline-block h-3 w-6 rounded-field bg-primary" /> hands on it
        </span>
        <span className="flex items-center gap-1.5">
          <span className="step-alone inline-block h-3 w-6 rounded-field border border-primary" /> it goes on alone
        </span>
      </p>
    </div>
  );
}

const shorten = (text: string) => (text.length > 60 ? `${text.slice(0, 58)}…` : text);
