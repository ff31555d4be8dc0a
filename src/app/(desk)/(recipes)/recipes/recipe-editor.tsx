'use client';

import { useEffect, useMemo, useRef, useState, useTransition } from 'react';
import { EATERS, type Eater, estimateServings, ROLES_OF_DISH } from '@/core/recipes/recipe/serving-size';
import type { Slip } from '@/core/recipes/slips/slip';
import type { SettledStep } from '@/core/recipes/steps/step-plan';
import type { DraftedLine } from '@/services/recipes/drafts';
import { FormMessage } from '@/ui/form/action-form';
import { Field } from '@/ui/form/field';
import type { FormState } from '@/ui/form/form-state';
import { SlipList } from '@/ui/recipes/slip-list';
import { readAgain, type SentDraft, smell } from './actions';
import { asDrafted, DraftLineRow, type EditedLine, isOpen, type Reread, reworded } from './draft-line';

/** A recipe that an editor starts from. */
export interface Incoming {
  readonly title: string;
  readonly servings: number | null;
  readonly description: string;
  readonly lines: readonly DraftedLine[];
  readonly steps: readonly string[];
  readonly estimated?: boolean;
  /** What was said to be right as it is. */
  readonly right?: readonly string[];
  /** Steps whose plan was settled. */
  readonly planned?: readonly SettledStep[];
  /** Recipes that it is made of, and how many servings of each it needs. */
  readonly subRecipes?: readonly { readonly recipeId: string; readonly servings: number }[];
}

/** A recipe of the programme that another can be made of. */
export interface OtherRecipe {
  readonly id: string;
  readonly title: string;
}

interface Draft extends Omit<Incoming, 'lines' | 'servings'> {
  /** The servings come from an estimate that nobody has confirmed. */
  readonly estimated: boolean;
  readonly servings: string;
  readonly lines: readonly EditedLine[];
}

/** A way of saving: what its button says, and what it does. */
export interface Saving {
  readonly label: string;
  readonly save: (draft: SentDraft) => Promise<FormState>;
}

/** A recipe line by line: mended where it is open, its slips asked about, then saved. */
export function RecipeEditor({
  incoming,
  heading,
  savings,
  others,
}: {
  incoming: Incoming;
  heading: string;
  savings: readonly Saving[];
  others: readonly OtherRecipe[];
}) {
  const [draft, setDraft] = useState<Draft>(() => ({
    ...incoming,
    estimated: incoming.estimated ?? false,
    servings: incoming.servings === null ? '' : String(incoming.servings),
    lines: incoming.lines.map((line, id) => ({ ...line, id, chosen: [] })),
  }));
  const [answer, setAnswer] = useState<FormState | null>(null);
  const [slips, setSlips] = useState<readonly Slip[]>([]);
  const [grams, setGrams] = useState<number | null>(null);
  const [right, setRight] = useState<readonly string[]>(incoming.right ?? []);
  const [busy, start] = useTransition();
  const sent = useMemo(() => sendable(draft), [draft]);

  useEffect(() => {
    let isLatest = true;
    const timer = setTimeout(async () => {
      const { servings, ...rest } = sent;
      const found = await smell({ ...rest, ...(servings === '' ? {} : { servings }) }).catch(() => null);
      if (isLatest && found) {
        setSlips(found.slips);
        setGrams(found.grams);
      }
    }, 300);
    return () => {
      isLatest = false;
      clearTimeout(timer);
    };
  }, [sent]);

  const latest = useRef(draft);
  const change = (part: Partial<Draft> | ((now: Draft) => Partial<Draft>)) => {
    latest.current = { ...latest.current, ...(typeof part === 'function' ? part(latest.current) : part) };
    setDraft(latest.current);
  };
  /** Changes a line as it is now, not as it was drawn when something was asked. @returns it, when it is still there */
  const changeLine = (id: number, to: (line: EditedLine) => EditedLine): EditedLine | undefined => {
    change(({ lines }) => ({ lines: lines.map((line) => (line.id === id ? to(line) : line)) }));
    return latest.current.lines.find((line) => line.id === id);
  };
  const readings = useRef(0);
  /** Has a line read again. Until the newest answer is there it is open, so that nothing is saved but what is shown. */
  const reread: Reread = async (id, to, after = 0) => {
    const reading = ++readings.current;
    changeLine(id, (line) => ({ ...to(line), items: line.items, reading }));
    await new Promise((resolve) => setTimeout(resolve, after));
    const line = latest.current.lines.find((each) => each.id === id);
    if (line?.reading !== reading) return;
    const read = await readAgain(asDrafted(line)).catch(() => null);
    changeLine(id, ({ reading: newest, ...now }) => {
      if (newest !== reading) return { ...now, ...(newest ? { reading: newest } : {}) };
      return { ...now, items: read?.items ?? NOT_READ };
    });
  };
  const open = draft.lines.filter(isOpen).length;
  const shown = slips.filter(({ key }) => !right.includes(key));
  /** Puts the line as it may have been meant in its place. */
  const repair = ({ line: at, repair: text }: Slip) => {
    const line = draft.lines[at ?? -1];
    if (!line || text === undefined) return;
    // What else was said of this line was meant for its old words: it is smelled anew, and one repair never undoes another.
    setSlips((all) => all.filter((slip) => slip.line !== at));
    void reread(line.id, (now) => reworded(now, text));
  };

  return (
    <section className="sheet p-5" aria-labelledby="understood">
      <h2 id="understood" className="mb-1 text-xl font-bold">
        {heading}: {draft.lines.length} ingredient lines, {draft.steps.filter(Boolean).length} steps
      </h2>
      <p role="status" className={`mb-4 ${open > 0 ? 'font-semibold text-error' : ''}`}>
        {open > 0 ? `${open} ${open === 1 ? 'line is' : 'lines are'} still open.` : 'Every line can be computed with.'}
      </p>
      <div className="mb-4 grid gap-3 sm:grid-cols-[minmax(0,1fr)_9rem]">
        <Field
          label="Name"
          value={draft.title}
          maxLength={120}
          onChange={(event) => change({ title: event.target.value })}
        />
        <Field
          label="Servings"
          type="number"
          min={1}
          max={500}
          value={draft.servings}
          hint={draft.estimated ? 'An estimate' : draft.servings === '' ? 'The text does not say' : undefined}
          onChange={(event) => change({ servings: event.target.value, estimated: false })}
        />
      </div>
      {(draft.servings === '' || draft.estimated) && (
        <Estimate grams={grams} take={(servings) => change({ servings: String(servings), estimated: true })} />
      )}
      <ol className="divide-y divide-base-300 border-y border-base-300" aria-label="Ingredient lines">
        {draft.lines.map((line, index) => (
          <DraftLineRow
            key={line.id}
            line={line}
            number={index + 1}
            section={line.section !== draft.lines[index - 1]?.section ? line.section : ''}
            again={(to, after) => reread(line.id, to, after)}
            remove={() => change(({ lines }) => ({ lines: lines.filter((each) => each.id !== line.id) }))}
            addAfter={(text) => {
              const id = nextId(latest.current.lines);
              change(({ lines }) => ({
                lines: lines.flatMap((each) =>
                  each.id === line.id ? [each, { ...emptyLine(id), section: line.section }] : [each],
                ),
              }));
              void reread(id, (now) => reworded(now, text));
            }}
          />
        ))}
      </ol>
      <button
        type="button"
        className="btn btn-sm mt-2"
        onClick={() => change(({ lines }) => ({ lines: [...lines, emptyLine(nextId(lines))] }))}
      >
        Add a line
      </button>
      {others.length > 0 && (
        <SubRecipeFields
          others={others}
          subRecipes={draft.subRecipes ?? []}
          change={(subRecipes) => change({ subRecipes })}
        />
      )}
      {shown.length > 0 && (
        <div className="mt-4">
          <h3 className="mb-2 text-lg font-bold">What an experienced cook would ask</h3>
          <SlipList slips={shown}>
            {(slip) => (
              <>
                {slip.repair && (
                  <button type="button" className="btn btn-sm" onClick={() => repair(slip)}>
                    Make it “{slip.repair}”
                  </button>
                )}
                {slip.kind !== 'unsafe' && (
                  <button
                    type="button"
                    className="btn btn-sm"
                    aria-label={`It is right as it is: ${slip.say}`}
                    onClick={() => setRight((now) => [...now, slip.key])}
                  >
                    It is right as it is
                  </button>
                )}
              </>
            )}
          </SlipList>
        </div>
      )}
      <label className="mt-4 flex flex-col gap-1">
        <span className="font-semibold">Steps, one a line</span>
        <textarea
          className="textarea min-h-28 w-full text-sm"
          value={draft.steps.join('\n')}
          onChange={(event) => change({ steps: event.target.value.split('\n') })}
        />
      </label>
      <div className="mt-4 flex flex-col gap-3">
        <div className="flex flex-wrap gap-2">
          {savings.map(({ label, save }, index) => (
            <button
              key={label}
              type="button"
              className={index === 0 ? 'btn btn-primary' : 'btn'}
              disabled={busy || open > 0}
              onClick={() => start(async () => setAnswer(await save({ ...sent, right })))}
            >
              {label}
            </button>
          ))}
        </div>
        <FormMessage state={answer} />
      </div>
    </section>
  );
}

/** Recipes of the programme that this one is made of: the dough, the sauce. */
function SubRecipeFields({
  others,
  subRecipes,
  change,
}: {
  others: readonly OtherRecipe[];
  subRecipes: NonNullable<Incoming['subRecipes']>;
  change: (subRecipes: NonNullable<Incoming['subRecipes']>) => void;
}) {
  const free = others.filter(({ id }) => subRecipes.every(({ recipeId }) => recipeId !== id));
  return (
    <fieldset className="mt-3 flex flex-col gap-2">
      <legend className="mb-1 font-semibold">Made of other recipes: a dough, a sauce</legend>
      {subRecipes.map(({ recipeId, servings }) => {
        const title = others.find(({ id }) => id === recipeId)?.title ?? 'A recipe that is gone';
        const rest = subRecipes.filter((each) => each.recipeId !== recipeId);
        return (
          <span key={recipeId} className="flex flex-wrap items-center gap-2">
            <input
              type="number"
              min={1}
              max={500}
              className="input input-sm w-24"
              aria-label={`Servings of ${title}`}
              value={servings}
              onChange={(event) => {
                const wanted = Math.max(1, Math.min(500, Number(event.target.value) || 1));
                change(subRecipes.map((each) => (each.recipeId === recipeId ? { recipeId, servings: wanted } : each)));
              }}
            />
            servings of {title}
            <button type="button" className="btn btn-sm" onClick={() => change(rest)} aria-label={`Take out ${title}`}>
              Take out
            </button>
          </span>
        );
      })}
      <select
        className="select select-sm w-72 max-w-full"
        aria-label="Add a recipe that it is made of"
        value=""
        onChange={(event) => change([...subRecipes, { recipeId: event.target.value, servings: 4 }])}
      >
        <option value="" disabled>
          Add a recipe …
        </option>
        {free.map(({ id, title }) => (
          <option key={id} value={id}>
            {title}
          </option>
        ))}
      </select>
    </fieldset>
  );
}

/** How many it serves, estimated from what it weighs, by what it is at the table and who eats it. */
function Estimate({ grams, take }: { grams: number | null; take: (servings: number) => void }) {
  const [eater, setEater] = useState<Eater>('children');
  if (grams === null)
    return (
      <p className="mb-4 text-sm">As soon as every line is settled, the servings can be estimated from the weight.</p>
    );
  return (
    <div className="mb-4 flex flex-wrap items-end gap-2 text-sm">
      <p className="self-center">
        It weighs about {Math.round(grams)} g. An estimate, to be confirmed before kits are locked:
      </p>
      <select
        className="select select-sm w-40"
        aria-label="Who eats it"
        value={eater}
        onChange={(event) => setEater(event.target.value as Eater)}
      >
        {EATERS.map((each) => (
          <option key={each}>{each}</option>
        ))}
      </select>
      {ROLES_OF_DISH.map((role) => {
        const servings = estimateServings(grams, role, eater);
        return (
          <button key={role} type="button" className="btn btn-sm" onClick={() => take(servings)}>
            {servings} as a {role}
          </button>
        );
      })}
    </div>
  );
}

/** Nothing understood yet, and what to do. */
const unread = (open: string): EditedLine['items'] => [
  { line: undefined, say: '', food: '', open: [open], assumed: [], suggestions: [] },
];
const NOT_READ = unread('No answer came, so this line is not read yet. Change it once more.');

/** A line that is still to be written. */
const emptyLine = (id: number): EditedLine => ({
  id,
  text: '',
  section: '',
  chosen: [],
  items: unread('Write what and how much.'),
});

const nextId = (lines: readonly EditedLine[]) => Math.max(0, ...lines.map(({ id }) => id)) + 1;

/** A draft as the server takes it. */
const sendable = ({ title, servings, estimated, description, steps, lines, planned = [], subRecipes = [] }: Draft) => ({
  planned,
  subRecipes,
  title,
  servings,
  estimated,
  description,
  steps,
  lines: lines.map(asDrafted),
});
