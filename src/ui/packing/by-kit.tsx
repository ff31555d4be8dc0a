import type { BenchSheet } from '@/core/packing/progress';
import { plainSay } from '@/core/quantity/plain-words';
import { packOf } from './pack-of';

interface Props {
  readonly sheet: BenchSheet;
  readonly index: number;
  readonly go: (index: number) => void;
  readonly packed: ReadonlyMap<string, ReadonlySet<string>>;
  readonly calledBack: ReadonlySet<string>;
  readonly tick: (changes: readonly { kitId: string; component: string; action: 'packed' | 'undone' }[]) => void;
  readonly seen: ReadonlySet<string>;
  readonly see: (pack: string) => void;
}

/** One kit at a time: everything that goes into it, each ticked with one press. */
export function ByKit({ sheet, index, go, packed, calledBack, tick, seen, see }: Props) {
  const kit = sheet.kits[index];
  const variant = sheet.variants.find(({ letter }) => letter === kit?.variant);
  if (!kit || !variant) return null;
  const inside = packed.get(kit.id);
  const isHeld = calledBack.has(kit.id);
  const isDone = (id: string, components: readonly string[]) =>
    components.every((component) => packed.get(id)?.has(component));
  return (
    <>
      <div className="mb-4 flex flex-wrap items-center gap-x-5 gap-y-2">
        <h2 className="text-5xl font-bold tabular-nums">Kit {kit.number}</h2>
        <span className="font-display text-5xl font-bold text-secondary">{variant.letter}</span>
        <span className="text-xl">
          {variant.servings} {variant.servings === 1 ? 'serving' : 'servings'}
        </span>
        {kit.group && <span className="text-xl">{kit.group}</span>}
        {variant.madeWithout.length > 0 && (
          <span className="rounded-field border-2 border-warning px-3 py-1 text-lg font-bold">
            made without {variant.madeWithout.join(', ')}
          </span>
        )}
        {isHeld && <span className="text-2xl font-bold text-error">called back: set it apart</span>}
      </div>
      <ul className="grid gap-3 md:grid-cols-2">
        {variant.components.map((component) => {
          const isIn = inside?.has(component.key) ?? false;
          const asked =
            component.product && !isIn && !seen.has(packOf(component) ?? '') ? component.product : undefined;
          return (
            <li key={component.key}>
              <button
                type="button"
                aria-pressed={isIn}
                disabled={isHeld}
                onClick={() =>
                  asked
                    ? see(packOf(component) ?? '')
                    : tick([{ kitId: kit.id, component: component.key, action: isIn ? 'undone' : 'packed' }])
                }
                className={`flex min-h-20 w-full cursor-pointer items-center gap-4 rounded-box border-2 px-4 py-2 text-left ${isIn ? 'border-success bg-success text-success-content' : 'border-base-content/70 bg-base-200'}`}
              >
                <span className="flex-1">
                  <span className="block text-2xl font-bold">{plainSay(component.say)}</span>
                  <span className="block text-lg">
                    {component.name}
                    {component.option > 0 && ' (instead)'}
                    {component.from && `, ${component.from}`}
                    {component.use && `, ${component.use}`}
                    {component.product && (
                      <span className="block font-bold">
                        {asked ? `Is the pack “${asked}”? Press when you see it.` : `only “${component.product}”`}
                      </span>
                    )}
                    {variant.into[component.key] && ` · into ${variant.into[component.key]}`}
                  </span>
                </span>
                <span className="text-lg font-bold">{isIn ? '✓ in' : component.sayGrams}</span>
              </button>
            </li>
          );
        })}
      </ul>
      <details className="mt-4">
        <summary className="cursor-pointer py-3 text-lg font-semibold">All kits</summary>
        <ol className="flex flex-wrap gap-2">
          {sheet.kits.map((other, place) => (
            <li key={other.id}>
              <button
                type="button"
                className={`btn h-12 min-w-16 ${place === index ? 'btn-primary' : ''}`}
                onClick={() => go(place)}
              >
                {other.number} {other.variant}{' '}
                {calledBack.has(other.id) ? 'stop' : isDone(other.id, other.components) ? '✓' : ''}
              </button>
            </li>
          ))}
        </ol>
      </details>
    </>
  );
}
