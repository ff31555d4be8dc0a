import type { ClassPlan } from '@/core/classday/live/class-plan';
import { type Missing, type Spell, type StationTools, sayTools } from '@/core/classday/set-out';
import type { StationFood } from '@/core/classday/station-food';
import { sayNamed } from '@/core/quantity/plain-words';
import { StationPicture } from './station-picture';

export interface SetOutStation {
  readonly number: number;
  readonly pairs: readonly { readonly id: string; readonly children: readonly string[] }[];
}

interface Props {
  readonly plan: ClassPlan;
  readonly stations: readonly SetOutStation[];
  readonly tools: readonly StationTools[];
  readonly food: readonly StationFood[];
  readonly isOnScreen: boolean;
  readonly timeAt: (minute: number) => string;
}

/** Each station with its picture, its food measured, and its tasks in order. */
export function SetOut({ plan, stations, tools, food, isOnScreen, timeAt }: Props) {
  return (
    <div className="grid gap-4 lg:grid-cols-2 print:grid-cols-1">
      {stations.map(({ number, pairs }) => {
        const own = plan.tasks.filter(({ station }) => station === number).sort((a, b) => a.start - b.start);
        const has = tools.find(({ station }) => station === number);
        const foods = food.find(({ station }) => station === number);
        const title = isOnScreen ? 'At home' : `Station ${number}`;
        const withTools = pairs.map(({ id, children }) => ({
          id,
          names: children,
          tools: [...new Set(own.filter(({ hands }) => hands === id).flatMap((task) => task.tools))],
        }));
        const nameOf = (hands: string) => pairs.find(({ id }) => id === hands)?.children.join(' + ') || hands;
        return (
          <section key={number} aria-label={title} className="sheet keep-together p-4">
            <h3 className="text-xl font-bold">{title}</h3>
            <StationPicture title={title} pairs={withTools} heats={has?.heats ?? []} />
            <p className="mb-2">
              <b>Lay out:</b>{' '}
              {[
                ...(has?.tools ?? []).map(({ tool, count }) => sayTools(tool, count)),
                'a bowl for scraps',
                'a fork',
              ].join(', ')}
              .
            </p>
            {foods && foods.foods.length > 0 && (
              <p className="mb-2">
                <b>Measure:</b>{' '}
                {foods.foods
                  .map(
                    ({ say, name, written, food: here }) =>
                      `${sayNamed(say, name)}${here === written ? '' : ` instead of ${written}`}`,
                  )
                  .join('; ')}
                .{foods.without.length > 0 && ` Without ${foods.without.map(({ written }) => written).join(', ')}.`}
                {foods.madeWithout.length > 0 && <b> Made without {foods.madeWithout.join(', ')}.</b>}
              </p>
            )}
            {foods?.refusals.map(({ dish, food: refused, holds }) => (
              <p key={`${dish}${refused}`} role="alert" className="mb-2 font-semibold text-error">
                {dish}: nothing safe stands in for {refused}
                {holds.length > 0 && ` (somebody who eats of it must avoid ${holds.join(', ')})`}.
              </p>
            ))}
            {foods?.unknown.map((need) => (
              <p key={need} role="alert" className="mb-2 font-semibold text-error">
                Nobody has said yet what “{need}” means: ask before class.
              </p>
            ))}
            <ol className="flex flex-col gap-1">
              {own.map(({ id, start, text, hands, part, inside, wash, notes }) => (
                <li key={id} className="flex gap-3">
                  <span className="w-20 shrink-0 tabular-nums">{timeAt(start)}</span>
                  <span>
                    {text} {notes && <b>{notes} </b>}
                    {part && (
                      <b>
                        Part {part[0]} of {part[1]}.
                      </b>
                    )}
                    {inside && <b> At least {inside.said} inside.</b>}
                    {wash && <b> Then hands with soap: {wash}.</b>}
                    <span className="block text-sm">{hands ? nameOf(hands) : 'by itself'}</span>
                  </span>
                </li>
              ))}
              {own.length === 0 && <li>Nothing of its own: it helps, lays the tables, washes up.</li>}
            </ol>
          </section>
        );
      })}
    </div>
  );
}

interface CheckProps {
  readonly missing: readonly Missing[];
  readonly uncounted: readonly { readonly tool: string; readonly needed: number }[];
  readonly idle: readonly Spell[];
  readonly nameOf: (hands: string) => string;
  readonly timeAt: (minute: number) => string;
}

/** Those who wait from and to the same minute. */
function together(idle: readonly Spell[]): { from: number; to: number; hands: string[] }[] {
  const spells = new Map<string, { from: number; to: number; hands: string[] }>();
  for (const { hands, from, to } of idle) {
    const own = spells.get(`${from} ${to}`) ?? { from, to, hands: [] };
    own.hands.push(hands);
    spells.set(`${from} ${to}`, own);
  }
  return [...spells.values()].sort((a, b) => a.from - b.from || a.to - b.to);
}

const at = (station: number | null) => (station === null ? 'the adults' : `station ${station}`);

/** What is not there and who has nothing to do, with ways out: days before, not in the class. */
export function SetOutCheck({ missing, uncounted, idle, nameOf, timeAt }: CheckProps) {
  if (missing.length + uncounted.length + idle.length === 0)
    return <p>The place has every tool that lies out at once, and nobody waits for long.</p>;
  return (
    <ul className="flex list-disc flex-col gap-2 pl-5">
      {missing.map(({ tool, needed, counted = 0, turns, ways }) => (
        <li key={tool}>
          <b>
            {sayTools(tool, counted)}, and {needed} would lie out at once.
          </b>{' '}
          {ways.join('; ')}.
          {turns.length > 0 && (
            <span className="block text-sm">
              {turns.map(({ minute, from, to }) => `${timeAt(minute)} from ${at(from)} to ${at(to)}`).join('; ')}
            </span>
          )}
        </li>
      ))}
      {uncounted.length > 0 && (
        <li>
          The place does not count these: look that they are there.{' '}
          {uncounted.map(({ tool, needed }) => sayTools(tool, needed)).join(', ')}.
        </li>
      )}
      {together(idle).map(({ hands, from, to }) => (
        <li key={`${from} ${to}`}>
          <b>
            Nothing to do from {timeAt(from)} to {timeAt(to)}:
          </b>{' '}
          {hands.map(nameOf).join(', ')}. Let them take turns with the others at their station, lay the tables, or wash
          up.
        </li>
      ))}
    </ul>
  );
}
