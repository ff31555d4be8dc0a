import Link from 'next/link';
import type { Saying } from '@/core/plan/saying';

interface Class {
  readonly id: string;
  readonly title: string;
  readonly date: string;
  readonly settle: readonly string[];
}

/** What the run sheets of classes ask to be settled before them; nothing where nothing is open. */
export function ToSettle({ classes, say }: { classes: readonly Class[]; say: Saying }) {
  const open = classes.filter(({ settle }) => settle.length > 0);
  if (open.length === 0) return null;
  const [only] = classes.length === 1 ? open : [];
  return (
    <section
      aria-label="To settle before the class"
      className="mb-5 rounded-box border-l-4 border-warning bg-warning/10 p-3 text-sm"
    >
      <p className="text-base font-semibold">To settle before the class</p>
      <ul className="list-disc pl-5">
        {open.map(({ id, title, date, settle }) => (
          <li key={id}>
            {!only && (
              <b>
                {title}, {say.shortDate(date)}:{' '}
              </b>
            )}
            {say.text(settle.join(' '))}{' '}
            <Link href={`/room/${id}/run-sheet`} className="link">
              Open the run sheet
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
