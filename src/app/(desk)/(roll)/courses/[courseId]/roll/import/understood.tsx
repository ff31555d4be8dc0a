import { useMemo } from 'react';
import type { CheckedRow } from '@/core/roll/check-roll';
import { avoidanceLabel, understandNeed } from '@/core/safety/avoidances';

interface Props {
  readonly rows: readonly CheckedRow[];
  readonly meanings: readonly (readonly [string, readonly string[]])[];
}

/** The rows of a file as they will stand on the roll, each need with what it means. */
export function Understood({ rows, meanings }: Props) {
  const known = useMemo(() => new Map(meanings), [meanings]);
  return (
    <section aria-labelledby="understood">
      <h2 id="understood" className="mb-2 text-xl font-bold">
        What was understood
      </h2>
      <div className="sheet overflow-x-auto">
        <table className="table">
          <thead>
            <tr>
              <th scope="col">Line</th>
              <th scope="col">Name</th>
              <th scope="col" className="text-right">
                Age
              </th>
              <th scope="col" className="text-right">
                Servings
              </th>
              <th scope="col">Avoids</th>
              <th scope="col">Mode</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ line, entry }) => (
              <tr key={line}>
                <td>{line}</td>
                <th scope="row">{entry?.name}</th>
                <td className="text-right">{entry?.age ?? ''}</td>
                <td className="text-right">{entry?.servings}</td>
                <td>
                  {entry?.needs.map((need) => {
                    const { codes } = understandNeed(need, known);
                    return (
                      <span key={need} className="block">
                        {need}
                        {codes ? (
                          ` → ${codes.map(avoidanceLabel).join(', ') || 'nothing'}`
                        ) : (
                          <b className="text-error"> → no meaning yet; it will block the kit until you give it one</b>
                        )}
                      </span>
                    );
                  })}
                </td>
                <td>{entry?.mode ?? ''}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
