'use client';

import { CircleHelp, X } from 'lucide-react';
import type { RangeUse } from '@/core/recipes/reading/draft';
import {
  alternativesAsWritten,
  detailsOf,
  labelsOf,
  withoutLabel,
  withoutLabels,
} from '@/core/recipes/reading/line-details';
import { asNote, asOwnLine, quotedIn, withoutQuoted } from '@/core/recipes/reading/line-notes';
import type { DraftedLine } from '@/services/recipes/drafts';
import { ActionForm } from '@/ui/form/action-form';
import { FoodFields } from '@/ui/recipes/food-fields';
import { addOwnFood } from '../reference/actions';
import { LineDetailsFields } from './line-details';

/** A line of a draft as it is being edited. */
export interface EditedLine extends DraftedLine {
  readonly id: number;
  /** Foods chosen by hand, by their place in the line. */
  readonly chosen: readonly (string | null)[];
  /** Of a range, the end that kits use. */
  readonly use?: RangeUse;
  /** Which reading of it is awaited; none when it was read as it stands. */
  readonly reading?: number;
}

/** Changes a line and has it read again. @param after milliseconds to wait whether it changes once more */
export type Reread = (id: number, to: (line: EditedLine) => EditedLine, after?: number) => Promise<void>;

/** How long somebody who types may pause before a line is read, in milliseconds. */
const TYPING = 350;

/** A line as the server takes it. */
export const asDrafted = ({ text, section, settled, labelIsOpen, chosen, details, alternatives, use }: EditedLine) => ({
  text,
  section,
  chosen,
  ...(settled ? { settled } : {}),
  ...(labelIsOpen ? { labelIsOpen } : {}),
  ...(details ? { details } : {}),
  ...(alternatives ? { alternatives } : {}),
  ...(use ? { use } : {}),
});

/** A line in other words: what was settled of it beside its words stays. */
export function reworded(
  { settled, labelIsOpen: _, use: __, ...rest }: EditedLine,
  text: string,
  chosen: readonly (string | null)[] = [],
): EditedLine {
  const details = settled ? { details: detailsOf(settled), alternatives: alternativesAsWritten(settled) } : {};
  return { ...details, ...rest, text, chosen };
}

export const isOpen = ({ items, reading }: Pick<EditedLine, 'items' | 'reading'>) =>
  reading !== undefined || items.some(({ open }) => open.length > 0);

/** A line without what labels said of its products. */
const unlabelled = ({ settled, alternatives, labelIsOpen: _, ...line }: EditedLine): EditedLine => ({
  ...line,
  ...(settled ? { settled: withoutLabels(settled) } : {}),
  ...(alternatives
    ? {
        alternatives: alternatives.map((each) => ({
          ...each,
          ...(each.settled ? { settled: withoutLabel(each.settled) } : {}),
        })),
      }
    : {}),
});

/** Foods of a line's alternatives that are not in the table, as its questions name them. */
const unknownIn = (item: DraftedLine['items'][number] | undefined): string[] =>
  (item?.open ?? []).flatMap((question) => {
    const food = /Which food is “([^”]+)”/.exec(question)?.[1];
    return food && food !== item?.food ? [food] : [];
  });

/** A food that is not in the table, added where it is met. */
function AddFood({
  food,
  like,
  added,
}: {
  food: string;
  like?: DraftedLine['items'][number]['like'];
  added: (name: string) => Promise<void>;
}) {
  return (
    <details className="mt-1">
      <summary className="cursor-pointer text-sm font-semibold">Add “{food}” to the table</summary>
      <ActionForm
        action={async (state, data) => {
          const answer = await addOwnFood(state, data);
          if (answer.ok) await added(String(data.get('name')).trim().toLowerCase());
          return answer;
        }}
        label={`Add ${food}`}
        className="mt-2 flex flex-col gap-2 rounded-box border border-base-300 p-3"
      >
        <FoodFields name={food} like={like} />
        <button type="submit" className="btn btn-sm btn-primary w-fit">
          Add to the table
        </button>
      </ActionForm>
    </details>
  );
}

/** Words that nothing is known of, answered by one key: they say how the food comes, or are another food. */
function WordsMeant({
  text,
  question,
  again,
  addAfter,
}: {
  text: string;
  question: string;
  again: (to: (line: EditedLine) => EditedLine) => Promise<void>;
  addAfter: (text: string) => void;
}) {
  const words = quotedIn(question);
  const rest = words === undefined ? undefined : withoutQuoted(text, words);
  const note = words === undefined ? undefined : asNote(text, words);
  if (words === undefined || rest === undefined || note === undefined) return null;
  return (
    <div className="mt-1 flex flex-wrap gap-1.5">
      <button type="button" className="btn btn-sm" onClick={() => again((now) => reworded(now, note))}>
        “{words}” says how it comes
      </button>
      <button
        type="button"
        className="btn btn-sm"
        onClick={() => {
          void again((now) => reworded(now, rest));
          addAfter(asOwnLine(words));
        }}
      >
        It is another food
      </button>
    </div>
  );
}

/** One ingredient line: its words, what was understood of them, and what is still open with the likeliest answers. */
export function DraftLineRow({
  line,
  number,
  section,
  again,
  remove,
  addAfter,
}: {
  line: EditedLine;
  /** Its place in the recipe, from 1. */
  number: number;
  section: string;
  again: (to: (line: EditedLine) => EditedLine, after?: number) => Promise<void>;
  remove: () => void;
  /** Gives words of this line a line of their own behind it. */
  addAfter: (text: string) => void;
}) {
  const choose = (place: number, food: string) =>
    again((now) =>
      reworded(
        now,
        now.text,
        now.items.map((_, index) => (index === place ? food : (now.chosen[index] ?? null))),
      ),
    );
  const [first] = line.items;
  const labels = line.settled ? labelsOf(line.settled) : [];

  return (
    <li className={`grid gap-x-5 gap-y-1 py-2 lg:grid-cols-2 ${isOpen(line) ? 'bg-error/5' : ''}`}>
      {section && <p className="font-bold lg:col-span-2">{section}</p>}
      <div className="flex items-start gap-2">
        <input
          className="input min-w-0 flex-1"
          aria-label={`Line ${number}`}
          value={line.text}
          maxLength={500}
          onChange={({ target: { value } }) => again((now) => reworded(now, value), TYPING)}
        />
        <button
          type="button"
          className="btn btn-square btn-sm mt-1"
          aria-label={`Take away ${line.text}`}
          title="Take this line away"
          onClick={remove}
        >
          <X size={16} aria-hidden="true" />
        </button>
      </div>
      <div
        className={`flex flex-col gap-1 text-sm ${line.reading === undefined ? '' : 'opacity-60'}`}
        aria-busy={line.reading !== undefined}
      >
        {line.items.map((item, place) => (
          <div key={`${item.food}${item.line?.ingredient}`}>
            {item.say && <p className="font-semibold">{item.say}</p>}
            {item.assumed.map((note) => (
              <p key={note} className="text-base-content/80">
                {note}
              </p>
            ))}
            {item.open.map((question) => (
              <p key={question} className="flex gap-1.5 font-semibold text-error">
                <CircleHelp size={16} className="mt-0.5 shrink-0" aria-hidden="true" />
                {question}
              </p>
            ))}
            {item.open.map((question) => (
              <WordsMeant key={question} text={line.text} question={question} again={again} addAfter={addAfter} />
            ))}
            {!item.line && item.food && item.open.some((question) => question.includes(`“${item.food}”`)) && (
              <AddFood food={item.food} like={item.like} added={(name) => choose(place, name)} />
            )}
            {!item.line && item.suggestions.length > 0 && (
              <div className="mt-1 flex flex-wrap gap-1.5">
                {item.suggestions.map((food) => (
                  <button key={food} type="button" className="btn btn-sm" onClick={() => choose(place, food)}>
                    {food}
                  </button>
                ))}
              </div>
            )}
          </div>
        ))}
        {first?.line?.range && (
          <p className="flex flex-wrap items-center gap-1.5">
            Kits use
            {(['least', 'most'] as const).map((end) => {
              const amount = first.line?.range?.[end];
              return (
                <button
                  key={end}
                  type="button"
                  className={`btn btn-sm ${!first.line?.within && first.line?.amount === amount ? 'btn-primary' : ''}`}
                  aria-pressed={!first.line?.within && first.line?.amount === amount}
                  onClick={() => again((now) => ({ ...now, use: end }))}
                >
                  {amount}
                </button>
              );
            })}
            <button
              type="button"
              className={`btn btn-sm ${first.line.within ? 'btn-primary' : ''}`}
              aria-pressed={first.line.within === true}
              onClick={() => again((now) => ({ ...now, use: 'packs' }))}
            >
              what makes packs come out whole
            </button>
          </p>
        )}
        {labels.length > 0 && (
          <p className="flex flex-wrap items-center gap-1.5">
            {!line.labelIsOpen && `Labels of its products: ${labels.join('; ')}.`}
            {line.labelIsOpen && (
              <button type="button" className="btn btn-sm" onClick={() => again(({ labelIsOpen: _, ...now }) => now)}>
                Ours are the same products
              </button>
            )}
            <button
              type="button"
              className="btn btn-sm"
              aria-label={`Leave the labels of line ${number} out`}
              onClick={() => again(unlabelled)}
            >
              Leave them out
            </button>
          </p>
        )}
        {line.alternatives &&
          unknownIn(first).map((food) => <AddFood key={food} food={food} added={() => again((now) => ({ ...now }))} />)}
        {first && (first.line || line.details || line.alternatives) && (
          <LineDetailsFields
            number={number}
            details={line.details ?? (first.line ? detailsOf(first.line) : {})}
            alternatives={line.alternatives ?? (first.line ? alternativesAsWritten(first.line) : [])}
            change={(given) => again((now) => ({ ...now, ...given }))}
          />
        )}
      </div>
    </li>
  );
}
