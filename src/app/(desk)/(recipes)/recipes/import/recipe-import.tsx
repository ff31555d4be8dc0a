'use client';

import { useState, useTransition } from 'react';
import { LARGEST_FILE } from '@/contracts/files';
import { FormMessage } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';
import { sendForReading } from '@/ui/read-file';
import { type SentDraft, saveOne } from '../actions';
import { isOpen } from '../draft-line';
import { type Incoming, type OtherRecipe, RecipeEditor } from '../recipe-editor';

/** One of the recipes that came in together, or why it cannot be used. */
interface Found {
  readonly from: string;
  readonly recipe?: Incoming;
  readonly problem?: string;
}

/** A recipe from anywhere: pasted or chosen, read line by line, mended where it is open, then saved. */
export function RecipeImport({
  save,
  forSession,
  others,
}: {
  save: (draft: SentDraft) => Promise<FormState>;
  forSession: boolean;
  others: readonly OtherRecipe[];
}) {
  const [found, setFound] = useState<readonly Found[]>([]);
  const [open, setOpen] = useState<number | null>(null);
  const [saved, setSaved] = useState<readonly number[]>([]);
  /** Drawn anew for each reading: nothing of the one before stays. */
  const [reading, setReading] = useState(0);
  const [pasted, setPasted] = useState('');
  const [answer, setAnswer] = useState<FormState | null>(null);
  const [busy, start] = useTransition();

  function read(body: Blob) {
    start(async () => {
      setFound([]);
      setOpen(null);
      setSaved([]);
      setAnswer(null);
      if (body.size > LARGEST_FILE) {
        setAnswer({ ok: false, message: 'That is larger than 2 MB; a recipe is far smaller. Paste one recipe alone.' });
        return;
      }
      const answered = await sendForReading<Found[]>('/api/recipes/preview', body);
      if ('refused' in answered) {
        setAnswer(answered.refused);
        return;
      }
      setFound(answered.found);
      setOpen(answered.found.length === 1 ? 0 : null);
      setReading((last) => last + 1);
    });
  }

  const chosen = open === null ? undefined : found[open]?.recipe;
  /** Of several, one is saved and the list stays. */
  const saveThis = (index: number) => async (draft: SentDraft) => {
    const state = await saveOne(draft);
    if (state.ok) {
      setSaved((now) => [...now, index]);
      setOpen(null);
      setAnswer(state);
    }
    return state;
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
              accept=".txt,.md,.json,.jsonld,.html,.htm,.csv,.zip,text/plain,text/csv,application/ld+json,application/json,text/html,application/zip"
              className="file-input w-full"
              disabled={busy}
              onChange={(event) => {
                const [file] = event.target.files ?? [];
                if (file) read(file);
              }}
            />
          </label>
          <p className="text-sm">
            Text, a web page that you saved, a recipe file of another program, a table (CSV), or several of them in a
            .zip. Each line is shown as it was understood; nothing is saved before you say so.
          </p>
        </div>
        {busy && found.length === 0 && <p role="status">Reading …</p>}
        {found.length === 0 && <FormMessage state={answer} />}
      </div>
      {found.length > 1 && (
        <section className="sheet p-5" aria-labelledby="several">
          <h2 id="several" className="mb-2 text-xl font-bold">
            {found.length} recipes in it: look at each, then save it
          </h2>
          <ol className="divide-y divide-base-300">
            {found.map(({ from, recipe, problem }, index) => (
              <li key={from} className="flex flex-wrap items-center justify-between gap-3 py-2">
                <span>
                  <b>{recipe?.title || from}</b>
                  <span className={`block text-sm ${problem ? 'font-semibold text-error' : ''}`}>
                    {problem ?? standingOf(recipe)}
                  </span>
                </span>
                {saved.includes(index) ? (
                  <span className="badge badge-outline">saved</span>
                ) : (
                  recipe && (
                    <button
                      type="button"
                      className="btn btn-sm"
                      aria-pressed={open === index}
                      aria-label={`Look at ${recipe.title || from}`}
                      onClick={() => setOpen(index)}
                    >
                      Look at it
                    </button>
                  )
                )}
              </li>
            ))}
          </ol>
        </section>
      )}
      {chosen && open !== null && (
        <RecipeEditor
          key={`${reading} ${open}`}
          incoming={chosen}
          heading="What was understood"
          others={others}
          savings={[
            {
              label: forSession && found.length === 1 ? 'Save and add to the session' : 'Save recipe',
              save: found.length === 1 ? save : saveThis(open),
            },
          ]}
        />
      )}
      {found.length > 1 && <FormMessage state={answer} />}
    </div>
  );
}

/** How far a recipe is from being saved, in words. */
function standingOf(recipe: Incoming | undefined): string {
  const lines = recipe?.lines ?? [];
  const questions = lines.filter(isOpen).length;
  return `${lines.length} lines, ${questions === 0 ? 'none open' : `${questions} open`}${recipe?.servings ? `, ${recipe.servings} servings` : ', servings not said'}`;
}
