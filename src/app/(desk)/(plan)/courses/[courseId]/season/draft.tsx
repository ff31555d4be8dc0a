import { TriangleAlert } from 'lucide-react';
import type { SeasonDraft } from '@/services/plan/season';
import { useSaying } from '@/ui/saying';

/** What a season comes to, or what to mend first. */
export type Found = { readonly draft: SeasonDraft } | { readonly problem: string };

interface Props {
  readonly found: Found | null;
  readonly titles: readonly string[];
  readonly setTitles: (next: (titles: readonly string[]) => readonly string[]) => void;
}

/** A season as it would be laid down: days lost to closures, what collides, and the titles of the sessions. */
export function Draft({ found, titles, setTitles }: Props) {
  const say = useSaying();
  const draft = found && 'draft' in found ? found.draft : undefined;
  const fresh = draft?.sessions.filter(({ isThere }) => !isThere) ?? [];
  const clashes = fresh.filter(({ conflicts }) => conflicts.length > 0);
  return (
    <>
      <h2 id="draft" className="text-xl font-bold">
        {draft ? `${fresh.length} sessions` : 'The season'}
        {draft && fresh.length > 0 && `, ${say.span(fresh[0]?.date ?? '', fresh.at(-1)?.date ?? '')}`}
      </h2>
      {found === null && <p>Looking at the plan …</p>}
      {found && 'problem' in found && <p className="font-semibold text-error">{found.problem}</p>}
      {draft && <Lost lost={draft.lost} />}
      {clashes.length > 0 && (
        <p className="mt-2 flex gap-1.5 text-sm font-semibold text-error">
          <TriangleAlert size={16} className="mt-0.5 shrink-0" aria-hidden="true" />
          {clashes.length === 1 ? 'One session collides' : `${clashes.length} sessions collide`} with something. Choose
          another hour or place, or add them all the same and settle them one by one.
        </p>
      )}
      {draft && (
        <ol className="mt-3 flex max-h-[32rem] flex-col divide-y divide-base-300 overflow-y-auto">
          {draft.sessions.slice(0, 120).map((session, index) => (
            <li
              key={session.date + session.startsAt}
              className="grid grid-cols-[9rem_minmax(0,1fr)] items-center gap-3 py-1.5"
            >
              <span className="text-sm">
                <b>{say.shortDate(session.date)}</b>, {say.time(session.startsAt)}
                <span className="block">{session.mode}</span>
              </span>
              <span>
                {session.isThere ? (
                  <span className="text-sm">The course meets then already.</span>
                ) : (
                  <input
                    className="input input-sm w-full"
                    aria-label={`Title of ${say.shortDate(session.date)}, ${say.time(session.startsAt)}`}
                    placeholder={session.title}
                    maxLength={120}
                    value={titles[index] ?? ''}
                    onChange={(event) =>
                      setTitles((all) =>
                        Object.assign(
                          Array.from({ length: Math.max(all.length, index + 1) }, (_, n) => all[n] ?? ''),
                          { [index]: event.target.value },
                        ),
                      )
                    }
                  />
                )}
                {session.because && <span className="block text-sm">{say.text(session.because)}</span>}
                {session.conflicts.map((conflict) => (
                  <span key={conflict.say} className="block text-sm font-semibold text-error">
                    {say.text(conflict.say)}
                  </span>
                ))}
              </span>
            </li>
          ))}
        </ol>
      )}
      {draft && draft.sessions.length > 120 && <p className="text-sm">… and {draft.sessions.length - 120} more.</p>}
    </>
  );
}

function Lost({ lost }: { lost: SeasonDraft['lost'] }) {
  const say = useSaying();
  if (lost.length === 0) return null;
  return (
    <details className="mt-1 text-sm" open={lost.length <= 4}>
      <summary className="cursor-pointer font-semibold">{lost.length} days it would fall on are closed</summary>
      <ul className="list-disc pl-5">
        {lost.map(({ date, because, became, to }) => (
          <li key={date}>
            {say.shortDate(date)}: {say.text(because)}; {became}
            {to ? ` to ${say.shortDate(to)}` : ''}
          </li>
        ))}
      </ul>
    </details>
  );
}
