import type { ClassPlan, LiveTask } from '@/core/classday/live/class-plan';
import { nameOfStation } from '@/core/classday/run-sheet/stations';

/** Dishes are told apart by a letter and a pattern, in black and white too. */
const LOOKS = [
  'bg-primary text-primary-content',
  'bg-secondary text-secondary-content',
  'bg-base-300 text-base-content border border-base-content',
  'bg-info text-info-content',
] as const;

interface Props {
  readonly plan: ClassPlan;
  readonly dishes: readonly { readonly id: string; readonly title: string }[];
  /** What a pair of hands is called. */
  readonly nameOf: (hands: string) => string;
}

/** Who does what when: a line for each pair of hands, a block for each task; what goes on alone stands below its station. */
export function RunBoard({ plan, dishes, nameOf }: Props) {
  const { tasks, hands, minutes } = plan;
  const placeOf = (dish: string) =>
    Math.max(
      0,
      dishes.findIndex(({ title }) => title === dish),
    );
  const letter = (dish: string) => String.fromCharCode(65 + placeOf(dish));
  const part = (value: number) => `${(value / Math.max(1, minutes)) * 100}%`;
  const blocks = (own: readonly LiveTask[], isAlone: boolean) => {
    const isTwoHigh = isAlone && own.length > 1;
    return own.map((task, at) => (
      <span
        key={task.id}
        title={`${task.dish}: ${task.text}`}
        className={`absolute overflow-hidden rounded-field px-1 text-xs leading-7 whitespace-nowrap ${isAlone ? 'step-alone border border-base-content bg-base-100 font-semibold' : LOOKS[placeOf(task.dish) % LOOKS.length]}`}
        style={{
          left: part(isAlone ? task.start + task.on : task.start),
          width: `calc(${part(isAlone ? task.off : task.on)} - 2px)`,
          top: isTwoHigh && at % 2 === 1 ? '2rem' : '2px',
        }}
      >
        {letter(task.dish)} {task.text}
      </span>
    ));
  };
  const places = [...new Set(hands.map(({ at }) => at ?? ''))];
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys
    <section aria-label="Who does what when" className="overflow-x-auto" tabIndex={0}>
      <div className="min-w-xl">
        {places.map((place) => {
          const pairs = hands.filter(({ at = '' }) => at === place);
          const alone = tasks.filter(({ off, station }) => off > 0 && place === nameOfStation(station));
          return (
            <div key={place} className="border-t-2 border-base-content/40">
              {pairs.map(({ id }, at) => {
                const own = tasks.filter((task) => task.hands === id && task.on > 0);
                return (
                  <div key={id} className="flex items-center border-t border-base-300">
                    <span className="w-44 shrink-0 py-1 pr-2 text-sm">
                      {at === 0 && place.startsWith('station') && <b className="block">{place.replace('s', 'S')}</b>}
                      {nameOf(id)}
                    </span>
                    <span className="relative block h-9 grow">
                      {blocks(own, false)}
                      {own.length === 0 && <span className="text-sm leading-9">free</span>}
                    </span>
                  </div>
                );
              })}
              {alone.length > 0 && (
                <div className="flex items-center border-t border-base-300">
                  <span className="w-44 shrink-0 py-1 text-sm italic">by itself</span>
                  <span className={`relative block grow ${alone.length > 1 ? 'h-16' : 'h-9'}`}>
                    {blocks(alone, true)}
                  </span>
                </div>
              )}
            </div>
          );
        })}
      </div>
      <p className="mt-2 text-sm">
        {dishes.map(({ title }) => `${letter(title)}: ${title}`).join(', ')}. {minutes} minutes from left to right.
      </p>
    </section>
  );
}
