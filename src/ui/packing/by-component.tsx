import type { SheetComponent } from '@/core/kits/record/sheet-content';
import type { BenchKit, BenchSheet } from '@/core/packing/progress';
import { plainSay } from '@/core/quantity/plain-words';
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
  /** Any other brand may hold what a kit must not: the question comes before the first tick. */
  const isUnseen = (component: SheetComponent) => {
    const pack = packOf(component);
    return pack !== undefined && !seen.has(pack);
  };
  const asked = groups.flatMap(({ component, kits }) =>
    component && isUnseen(component) && kits.some((kit) => !isIn(kit, component.key)) ? [component] : [],
  )[0];
  return (
    <>
      <div className="mb-4 flex flex-wrap items-baseline gap-x-4">
        <h2 className="text-4xl font-bold md:text-5xl">{step.name}</h2>
        <p className="text-lg">{step.dish}</p>
      </div>
      {asked && (
        <p className="mb-4 flex flex-wrap items-center gap-4 rounded-box border-2 border-warning p-4 text-2xl font-bold">
          Is the pack in your hand “{asked.product}”? Its label was read: no other brand goes in.
          <button type="button" className="btn btn-primary h-14 text-lg" onClick={() => see(packOf(asked) ?? '')}>
            Yes, it is this one
          </button>
        </p>
      )}
      <div className="flex flex-col gap-4">
        {groups.map(({ variant, component, kits }) => {
          const isAsked = component !== undefined && isUnseen(component);
          const open = component ? kits.filter((kit) => !isIn(kit, component.key) && !calledBack.has(kit.id)) : [];
          return (
            <section
              key={variant.letter}
              aria-label={`Kit ${variant.letter}`}
              className="rounded-box border border-base-300 bg-base-200 p-4"
            >
              <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
                <span className="font-display text-4xl font-bold text-secondary">{variant.letter}</span>
                {component ? (
                  <p>
                    <span className="text-4xl font-bold tabular-nums md:text-6xl">{plainSay(component.say)}</span>
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
                {component?.product && !isAsked && (
                  <span className="text-xl font-bold">only “{component.product}”</span>
                )}
                {component && (
                  <span className="ml-auto flex items-center gap-3">
                    <span className="text-xl tabular-nums">{open.length} left</span>
                    <button
                      type="button"
                      className="btn h-14"
                      disabled={open.length === 0 || isAsked}
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
                        component && (!isAsked || isIn(kit, component.key)) && !calledBack.has(kit.id)
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
        <summary className="cursor-pointer py-3 text-lg font-semibold">All ingredients</summary>
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
