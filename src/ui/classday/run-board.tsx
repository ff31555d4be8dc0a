export interface BoardTask {
  readonly id: string;
  readonly dish: string;
  readonly text: string;
  readonly on: number;
  readonly off: number;
  readonly start: number;
  readonly hands: string;
  readonly part: readonly [number, number] | null;
}

/** Dishes are told apart by a letter and a pattern, in black and white too. */
const LOOKS = [
  'bg-primary text-primary-content',
  'bg-secondary text-secondary-content',
  'bg-base-300 text-base-content border border-base-content',
  'bg-info text-info-content',
] as const;

/** Who does what when: a line for each pair of hands, a block for each task; what goes on alone stands below. */
export function RunBoard({
  hands,
  tasks,
  dishes,
  minutes,
}: {
  readonly hands: readonly { readonly id: string }[];
  readonly tasks: readonly BoardTask[];
  readonly dishes: readonly { readonly id: string; readonly title: string }[];
  readonly minutes: number;
}) {
  const letter = (dish: string) =>
    String.fromCharCode(
      65 +
        Math.max(
          0,
          dishes.findIndex(({ title }) => title === dish),
        ),
    );
  const look = (dish: string) =>
    LOOKS[
      Math.max(
        0,
        dishes.findIndex(({ title }) => title === dish),
      ) % LOOKS.length
    ];
  const part = (value: number) => `${(value / Math.max(1, minutes)) * 100}%`;
  const alone = tasks.filter(({ off }) => off > 0);
  const lines = [
    ...hands.map(({ id }) => ({
      id,
      own: tasks
        .filter((task) => task.hands === id && task.on > 0)
        .map((task) => ({ task, from: task.start, long: task.on })),
    })),
    ...(alone.length > 0
      ? [{ id: 'by itself', own: alone.map((task) => ({ task, from: task.start + task.on, long: task.off })) }]
      : []),
  ];
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys
    <section aria-label="Who does what when" className="overflow-x-auto" tabIndex={0}>
      <div className="min-w-xl">
        {lines.map(({ id, own }) => (
          <div key={id} className="flex items-center border-t border-base-300">
            <span className="w-40 shrink-0 py-1 text-sm font-semibold">{id}</span>
            <span className={`relative block grow ${id === 'by itself' ? 'h-16' : 'h-9'}`}>
              {own.map(({ task, from, long }, at) => (
                <span
                  key={task.id}
                  title={`${task.dish}: ${task.text}`}
                  className={`absolute overflow-hidden rounded-field px-1 text-xs leading-7 whitespace-nowrap ${look(task.dish)}`}
                  style={{
                    left: part(from),
                    width: `calc(${part(long)} - 2px)`,
                    top: id === 'by itself' && at % 2 === 1 ? '2rem' : '2px',
                  }}
                >
                  {letter(task.dish)} {task.text}
                </span>
              ))}
              {own.length === 0 && <span className="text-sm leading-9">free</span>}
            </span>
          </div>
        ))}
      </div>
      <p className="mt-2 text-sm">
        {dishes.map(({ title }) => `${letter(title)}: ${title}`).join(', ')}. {minutes} minutes from left to right.
      </p>
    </section>
  );
}
