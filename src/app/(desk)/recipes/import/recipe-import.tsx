'use client';

import { useEffect, useMemo, useState, useTransition } from 'react';
import { LARGEST_FILE } from '@/contracts/files';
import { EATERS, type Eater, estimateServings, ROLES_OF_DISH } from '@/core/recipes/serving-size';
import type { Slip } from '@/core/recipes/slips';
import type { DraftedLine } from '@/services/recipes/recipes';
import { FormMessage, type FormState } from '@/ui/action-form';
import { Field } from '@/ui/field';
import { sendForReading } from '@/ui/read-file';
import { SlipList } from '@/ui/slip-list';
import { readAgain, smell } from './actions';
import { DraftLineRow, type EditedLine, isOpen } from './draft-line';

interface Incoming {
  readonly title: string;
  readonly servings: number | null;
  readonly description: string;
  readonly lines: readonly DraftedLine[];
  readonly steps: readonly string[];
}

interface Draft extends Omit<Incoming, 'lines' | 'servings'> {
  /** The servings come from an estimate that nobody has confirmed. */
  readonly estimated: boolean;
  readonly servings: string;
  readonly lines: readonly EditedLine[];
}

/** A recipe from anywhere: pasted or chosen, read line by line, mended where it is open, then saved. */
export function RecipeImport({
  save,
  forSession,
}: {
  save: (draft: unknown) => Promise<FormState>;
  forSession: boolean;
}) {
  const [draft, setDraft] = useState<Draft | null>(null);
  const [pasted, setPasted] = useState('');
  const [answer, setAnswer] = useState<FormState | null>(null);
  const [slips, setSlips] = useState<readonly Slip[]>([]);
  const [grams, setGrams] = useState<number | null>(null);
  const [right, setRight] = useState<readonly string[]>([]);
  const [busy, start] = useTransition();
  const sent = useMemo(() => (draft ? sendable(draft) : null), [draft]);

  useEffect(() => {
    if (!sent) return;
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

  function read(body: Blob) {
    start(async () => {
      setDraft(null);
      setAnswer(null);
      setSlips([]);
      setRight([]);
      if (body.size > LARGEST_FILE) {
        setAnswer({ ok: false, message: 'That is larger than 2 MB; a recipe is far smaller. Paste one recipe alone.' });
        return;
      }
      const answered = await sendForReading<Incoming>('/api/recipes/preview', body);
      if ('refused' in answered) {
        setAnswer(answered.refused);
        return;
      }
      const { found: incoming } = answered;
      setDraft({
        ...incoming,
        estimated: false,
        servings: incoming.servings === null ? '' : String(incoming.servings),
        lines: incoming.lines.map((line, id) => ({ ...line, id, chosen: [] })),
      });
    });
  }

  const change = (part: Partial<Draft>) => setDraft((now) => (now ? { ...now, ...part } : now));
  const open = draft?.lines.filter(isOpen).length ?? 0;
  const shown = slips.filter(({ key }) => !right.includes(key));
  const submit = () => sent && start(async () => setAnswer(await save({ ...sent, right })));
  /** Puts the line as it may have been meant in its place. */
  const repair = async ({ line: at, repair: text }: Slip) => {
    const line = draft?.lines[at ?? -1];
    if (!line || text === undefined) return;
    const read = await readAgain(text, line.section, []).catch(() => null);
    if (read)
      change({
        lines: draft.lines.map((each) => (each === line ? { ...read, id: nextId(draft.lines), chosen: [] } : each)),
      });
  };

  return (
    <div className="flex flex-col gap-5">
      <div className="sheet grid gap-4 p-5 lg:grid-cols-[minmax(0,1fr)_20rem]">
        <form
          className="flex flex-col gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            read(new Blob([pasted], { type: 'text/plain' }));
          }}
        >
          <label className="flex flex-col gap-1">
            <span className="font-semibold">Paste a recipe</span>
            <textarea
              className="textarea min-h-40 w-full font-mono text-sm"
              value={pasted}
              onChange={(event) => setPasted(event.target.value)}
              placeholder={'Pier soup\nServes 4\n\nIngredients\n2 carrots, diced\n1 can (400 g) chickpeas, drained\n…'}
            />
          </label>
          <button type="submit" className="btn btn-primary w-fit" disabled={busy || pasted.trim() === ''}>
            Read recipe
          </button>
        </form>
        <div className="flex flex-col gap-2">
          <label className="flex flex-col gap-1">
            <span className="font-semibold">Or choose a file</span>
            <input
              type="file"
              accept=".txt,.md,.json,.jsonld,.html,.htm,text/plain,application/ld+json,application/json,text/html"
              className="file-input w-full"
              disabled={busy}
              onChange={(event) => {
                const [file] = event.target.files ?? [];
                if (file) read(file);
              }}
            />
          </label>
          <p className="text-sm">
            Text, a saved web page with a recipe in it, or schema.org JSON-LD. Each line is shown as it was understood;
            nothing is saved before you say so.
          </p>
        </div>
        {busy && !draft && <p role="status">Reading …</p>}
        {!draft && <FormMessage state={answer} />}
      </div>
      {draft && (
        <section className="sheet p-5" aria-labelledby="understood">
          <h2 id="understood" className="mb-1 text-xl font-bold">
            What was understood: {draft.lines.length} ingredient lines, {draft.steps.length} steps
          </h2>
          <p role="status" className={`mb-4 ${open > 0 ? 'font-semibold text-error' : ''}`}>
            {open > 0
              ? `${open} ${open === 1 ? 'line is' : 'lines are'} still open.`
              : 'Every line can be computed with.'}
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
                change={(next) => change({ lines: draft.lines.map((each) => (each.id === line.id ? next : each)) })}
                remove={() => change({ lines: draft.lines.filter((each) => each.id !== line.id) })}
              />
            ))}
          </ol>
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
            <button type="button" className="btn btn-primary w-fit" disabled={busy || open > 0} onClick={submit}>
              {forSession ? 'Save and add to the session' : 'Save recipe'}
            </button>
            <FormMessage state={answer} />
          </div>
        </section>
      )}
    </div>
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

/** A row that is put in anew is drawn anew. */
const nextId = (lines: readonly EditedLine[]) => Math.max(0, ...lines.map(({ id }) => id)) + 1;

/** A draft as the server takes it. */
const sendable = ({ title, servings, estimated, description, steps, lines }: Draft) => ({
  title,
  servings,
  estimated,
  description,
  steps,
  lines: lines.map(({ text, section, settled, chosen }) => ({
    text,
    section,
    chosen,
    ...(settled ? { settled } : {}),
  })),
});
