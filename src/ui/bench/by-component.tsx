import type { BenchKit, BenchSheet } from '@/core/packing/progress';
import { KitPlace } from './kit-place';
import { packOf } from './pack-of';

type Tick = (changes: readonly { kitId: string; component: string; action: 'packed' | 'undone' }[]) => void;

interface Props {
  readonly sheet: BenchSheet;
  readonly index: number;
  readonly go: (index: number) => void;
  readonly packed: ReadonlyMap<string, ReadonlySet<string>>;
  readonly calledBack: ReadonlySet<string>;
  readonly tick: Tick;
  /** Products that somebody at this screen has seen to be the ones whose labels were read. */
  readonly seen: ReadonlySet<string>;
  readonly see: (pack: string) => void;
}

/** One component through all kits: what, how much into which, how many left, and who is different and why. */
export function ByComponent({ sheet, index, go, packed, calledBack, tick, seen, see }: Props) {
  const step = sheet.rows[index];
  if (!step) return null;
  const groups = sheet.variants
    .map((variant) => ({
      variant,
      component: variant.components.find((candidate) => candidate.row === step.row),
      kits: sheet.kits.filter((kit) => kit.variant === variant.letter),
    }))
    .filter(({ component }) => component || !step.isBeside)
    // Kits made without something first: they are closed and set apart before it comes out.
    .sort((a, b) => Number(b.variant.madeWithout.length > 0) - Number(a.variant.madeWithout.length > 0));
  const isIn = (kit: BenchKit, key: string) => packed.get(kit.id)?.has(key) ?? false;
  const stateOf = (kit: BenchKit, key: string | undefined) => {
    if (calledBack.has(kit.id)) return 'held';
    return key === undefined ? 'without' : isIn(kit, key) ? 'in' : 'open';
  };
  return (
    <>
      <div className="mb-4 flex flex-wrap items-baseline gap-x-4">
        <h2 className="text-4xl font-bold md:text-5xl">{step.name}</h2>
        <p className="text-lg">{step.dish}</p>
      </div>
      <div className="flex flex-col gap-4">
        {groups.map(({ variant, component, kits }) => {
          // Any other brand may hold what a kit must not: the question comes before the first tick.
          const asked = component?.product && !seen.has(packOf(component) ?? '') ? component.product : undefined;
          const open = component ? kits.filter((kit) => !isIn(kit, component.key) && !calledBack.has(kit.id)) : [];
          return (
            <section
              key={variant.letter}
              aria-label={`Variant ${variant.letter}`}
              className="rounded-box border border-base-300 bg-base-200 p-4"
            >
              <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
                <span className="font-display text-4xl font-bold text-secondary">{variant.letter}</span>
                {component ? (
                  <p>
                    <span className="text-4xl font-bold tabular-nums md:text-6xl">{component.say}</span>
                    {!component.say.includes(component.sayGrams) && (
                      <span className="ml-3 text-2xl">{component.sayGrams}</span>
                    )}
                    {component.from && <span className="ml-3 text-2xl">{component.from}</span>}
                    {component.option > 0 && component.name !== step.name && (
                      <span className="ml-3 text-2xl font-bold text-primary">{component.name} instead</span>
                    )}
                    {variant.into[component.key] && (
                      <span className="ml-3 text-2xl">into {variant.into[component.key]}</span>
                    )}
                  </p>
                ) : (
                  <p className="text-3xl font-bold text-primary">leave out</p>
                )}
                {variant.madeWithout.length > 0 && (
                  <span className="rounded-field border-2 border-warning px-3 py-1 text-lg font-bold">
                    made without {variant.madeWithout.join(', ')}
                  </span>
                )}
                {component && asked && (
                  <span className="flex items-center gap-3 rounded-field border-2 border-warning px-3 py-1 text-xl font-bold">
                    Is the pack “{asked}”?
                    <button type="button" className="btn btn-primary h-14" onClick={() => see(packOf(component) ?? '')}>
                      Yes, I see it
                    </button>
                  </span>
                )}
                {component?.product && !asked && <span className="text-xl font-bold">only “{component.product}”</span>}
                {component && (
                  <span className="ml-auto flex items-center gap-3">
                    <span className="text-xl tabular-nums">{open.length} left</span>
                    <button
                      type="button"
                      className="btn h-14"
                      disabled={open.length === 0 || asked !== undefined}
                      onClick={() =>
                        tick(open.map((kit) => ({ kitId: kit.id, component: component.key, action: 'packed' })))
                      }
                    >
                      All {open.length > 0 ? open.length : ''} in
                    </button>
                  </span>
                )}
              </div>
              <ul className="flex flex-wrap gap-3">
                {kits.map((kit) => (
                  <li key={kit.id}>
                    <KitPlace
                      number={kit.number}
                      state={stateOf(kit, component?.key)}
                      what={component?.name ?? step.name}
                      onPress={
                        component && !asked && !calledBack.has(kit.id)
                          ? () =>
                              tick([
                                {
                                  kitId: kit.id,
                                  component: component.key,
                                  action: isIn(kit, component.key) ? 'undone' : 'packed',
                                },
                              ])
                          : undefined
                      }
                    />
                  </li>
                ))}
              </ul>
            </section>
          );
        })}
      </div>
      <details className="mt-4">
        <summary className="cursor-pointer py-3 text-lg font-semibold">All components</summary>
        <ol className="flex flex-wrap gap-2">
          {sheet.rows.map((row, place) => (
            <li key={row.row}>
              <button
                type="button"
                className={`btn h-12 ${place === index ? 'btn-primary' : ''}`}
                onClick={() => go(place)}
              >
                {row.name}
              </button>
            </li>
          ))}
        </ol>
      </details>
    </>
  );
}
