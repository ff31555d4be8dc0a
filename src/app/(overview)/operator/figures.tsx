import { useId } from 'react';

/** What stands beside each other, with its name. */
export function Facts({ title, facts }: { title: string; facts: readonly (readonly [string, string])[] }) {
  const id = useId();
  return (
    <section className="sheet h-fit p-5" aria-labelledby={id}>
      <h2 id={id} className="mb-2 text-xl font-bold">
        {title}
      </h2>
      <dl className="grid grid-cols-[minmax(8rem,auto)_1fr] gap-x-6 gap-y-1 text-sm">
        {facts.map(([label, value]) => (
          <div key={label} className="contents">
            <dt className="font-semibold">{label}</dt>
            <dd className="min-w-0 break-words">{value}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

/** Figures in rows; the first cell names its row. */
export function Figures({
  title,
  empty,
  heads,
  rows,
}: {
  title: string;
  empty: string;
  heads: readonly string[];
  rows: readonly { readonly id: string; readonly cells: readonly string[] }[];
}) {
  const id = useId();
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what is wider than a telephone is moved by the arrow keys
    <section className="sheet h-fit overflow-x-auto p-5" aria-labelledby={id} tabIndex={0}>
      <h2 id={id} className="mb-2 text-xl font-bold">
        {title}
      </h2>
      {rows.length === 0 ? (
        <p>{empty}</p>
      ) : (
        <table className="table table-sm">
          <thead>
            <tr>
              {heads.map((head) => (
                <th key={head} scope="col">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ id: key, cells: [name, ...rest] }) => (
              <tr key={key}>
                <th scope="row" className="font-semibold">
                  {name}
                </th>
                {rest.map((cell, at) => (
                  <td key={heads[at + 1]}>{cell}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
