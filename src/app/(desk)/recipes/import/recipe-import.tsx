'use client';

import { useState, useTransition } from 'react';
import { LARGEST_FILE } from '@/contracts/files';
import type { RecipeBody } from '@/contracts/recipe';
import { FormMessage, type FormState } from '@/ui/action-form';
import { RecipeLines } from '@/ui/recipe-lines';

interface Understood {
  readonly title: string;
  readonly body: RecipeBody;
  readonly assumed: readonly string[];
}

/** A recipe file: chosen, read, looked at, then saved. */
export function RecipeImport({
  save,
  forSession,
}: {
  save: (title: string, body: unknown) => Promise<FormState>;
  forSession: boolean;
}) {
  const [understood, setUnderstood] = useState<Understood | null>(null);
  const [answer, setAnswer] = useState<FormState | null>(null);
  const [title, setTitle] = useState('');
  const [busy, start] = useTransition();

  function read(file: File) {
    start(async () => {
      setUnderstood(null);
      setAnswer(null);
      if (file.size > LARGEST_FILE) {
        setAnswer({ ok: false, message: `${file.name} is larger than 2 MB; a recipe file is far smaller.` });
        return;
      }
      const response = await fetch('/api/recipes/preview', { method: 'POST', body: file }).catch(() => null);
      const body = await response?.json().catch(() => null);
      if (!response?.ok) {
        setAnswer({
          ok: false,
          message: body?.title ?? 'The server did not answer. Try again in a moment.',
          problems: body?.problems,
        });
        return;
      }
      if (body.problems) {
        setAnswer({
          ok: false,
          message:
            'The recipe cannot be used yet. Mend these places in the file and choose it again; nothing was saved.',
          problems: body.problems.map((problem: { path: string; message: string }) => ({
            where: problem.path,
            message: problem.message,
          })),
        });
        return;
      }
      setUnderstood(body.file);
      setTitle(body.file.title);
    });
  }

  return (
    <div className="flex flex-col gap-5">
      <div className="sheet flex flex-col gap-2 p-5">
        <label className="flex flex-col gap-1">
          <span className="font-semibold">Recipe file (schema.org Recipe as JSON-LD)</span>
          <input
            type="file"
            accept=".json,.jsonld,application/ld+json,application/json"
            className="file-input w-full max-w-md"
            disabled={busy}
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              if (file) read(file);
            }}
          />
        </label>
        <p className="text-sm">
          Plain ingredient lines are read where they are clear; scaling, alternatives, labels and packs come from the
          Logistra extension of the file.
        </p>
        {busy && <p role="status">Reading …</p>}
        <FormMessage state={answer} />
      </div>
      {understood && (
        <section className="sheet p-5" aria-labelledby="understood">
          <h2 id="understood" className="mb-2 text-xl font-bold">
            What was understood: {understood.body.lines.length} ingredients for {understood.body.servings} servings
          </h2>
          {understood.assumed.length > 0 && (
            <ul className="mb-3 list-disc rounded-box border-l-4 border-warning bg-warning/15 py-2 pl-8 text-sm">
              {understood.assumed.map((note) => (
                <li key={note}>{note}</li>
              ))}
            </ul>
          )}
          <RecipeLines lines={understood.body.lines} />
          <div className="mt-4 flex flex-wrap items-end gap-3">
            <label className="flex min-w-64 flex-col gap-1">
              <span className="text-sm font-semibold">Save as</span>
              <input
                className="input"
                value={title}
                maxLength={120}
                onChange={(event) => setTitle(event.target.value)}
              />
            </label>
            <button
              type="button"
              className="btn btn-primary"
              disabled={busy}
              onClick={() => start(async () => setAnswer(await save(title, understood.body)))}
            >
              {forSession ? 'Save and add to the session' : 'Save recipe'}
            </button>
          </div>
        </section>
      )}
    </div>
  );
}
