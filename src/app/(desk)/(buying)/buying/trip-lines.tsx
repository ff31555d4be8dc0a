import { saying } from '@/app/saying';
import type { PlannedLine, PlannedTrip } from '@/core/buying/plan';

import { rational } from '@/core/quantity/rational';
import { sayGrams } from '@/core/quantity/say';
import { avoidanceLabel } from '@/core/safety/avoidances';
import { ActionForm } from '@/ui/form/action-form';
import { Choice } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';

interface Props {
  readonly trip: PlannedTrip;
  readonly sessions: Readonly<Record<string, string>>;
  readonly choices: readonly { readonly id: string; readonly ingredient: string; readonly name: string }[];
  readonly pins: Readonly<Record<string, string>>;
  readonly pin: (ingredient: string, state: FormState | null, data: FormData) => Promise<FormState>;
}

/** "3", or "600 g" of what is sold by weight. */
export const sayPacks = ({ soldBy, packs, packGrams }: Pick<PlannedLine, 'soldBy' | 'packs' | 'packGrams'>): string =>
  soldBy === 'weight' ? sayGrams(rational(packs * packGrams)) : `${packs} ×`;

/** What its label must not name, for whom: letters only. */
function Without({ line }: { line: PlannedLine }) {
  const codes = [...new Set(line.uses.flatMap(({ without }) => without))];
  if (codes.length === 0) return null;
  return <span className="block text-sm font-semibold">for kits without {codes.map(avoidanceLabel).join(', ')}</span>;
}

/** The lines of a planned visit: what, why, and another product in its place. */
export async function PlannedTripLines({ trip, sessions, choices, pins, pin }: Props) {
  const say = await saying();
  return (
    <table className="table table-sm">
      <thead>
        <tr>
          <th scope="col">Buy</th>
          <th scope="col">For</th>
          <th scope="col">Why</th>
          <th scope="col" className="text-right">
            Costs
          </th>
        </tr>
      </thead>
      <tbody>
        {trip.lines.map((line) => {
          const others = choices.filter(({ ingredient }) => ingredient === line.ingredient);
          const titles = [...new Set(line.uses.map(({ sessionId }) => sessions[sessionId] ?? ''))];
          return (
            <tr key={`${line.productId} ${line.price}`} className="align-top">
              <th scope="row" className="w-64 font-normal">
                <b>
                  {sayPacks(line)} {line.product}
                </b>
                <span className="block text-sm">{line.ingredient}</span>
                <Without line={line} />
              </th>
              <td className="text-sm">{titles.join('; ')}</td>
              <td className="text-sm">
                {say.text(line.why)}
                {others.length > 1 && (
                  <details className="no-print mt-1">
                    <summary className="cursor-pointer">
                      {pins[line.ingredient] ? 'Pinned by you' : 'Take another product'}
                    </summary>
                    <ActionForm
                      action={pin.bind(null, line.ingredient)}
                      label={`Product of ${line.ingredient}`}
                      className="mt-1 flex flex-wrap items-end gap-2"
                    >
                      <Choice
                        label="Always buy"
                        name="productId"
                        defaultValue={pins[line.ingredient] ?? ''}
                        width="w-56"
                      >
                        <option value="">whatever is best</option>
                        {others.map(({ id, name }) => (
                          <option key={id} value={id}>
                            {name}
                          </option>
                        ))}
                      </Choice>
                      <button type="submit" className="btn btn-sm">
                        Plan again
                      </button>
                    </ActionForm>
                  </details>
                )}
              </td>
              <td className="text-right tabular-nums">{say.money(line.cost)}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
