'use client';

import { useState, useTransition } from 'react';
import { LARGEST_FILE } from '@/contracts/files';
import { FormMessage, type FormState } from '@/ui/action-form';
import { sendForReading } from '@/ui/read-file';
import { type Incoming, RecipeEditor } from '../recipe-editor';

/** A recipe from anywhere: pasted or chosen, read line by line, mended where it is open, then saved. */
export function RecipeImport({
  save,
  forSession,
}: {
  save: (draft: unknown) => Promise<FormState>;
  forSession: boolean;
}) {
  const [incoming, setIncoming] = useState<{ readonly recipe: Incoming; readonly times: number } | null>(null);
  const [pasted, setPasted] = useState('');
  const [answer, setAnswer] = useState<FormState | null>(null);
  const [busy, start] = useTransition();

  function read(body: Blob) {
    start(async () => {
      setIncoming(null);
      setAnswer(null);
      if (body.size > LARGEST_FILE) {
        setAnswer({ ok: false, message: 'That is larger than 2 MB; a recipe is far smaller. Paste one recipe alone.' });
        return;
      }
      const answered = await sendForReading<Incoming>('/api/recipes/preview', body);
      if ('refused' in answered) {
        setAnswer(answered.refused);
        return;
      }
      // Drawn anew for each that is read: nothing of the one before stays.
      setIncoming((last) => ({ recipe: answered.found, times: (last?.times ?? 0) + 1 }));
    });
  }

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
        {busy && !incoming && <p role="status">Reading …</p>}
        {!incoming && <FormMessage state={answer} />}
      </div>
      {incoming && (
        <RecipeEditor
          key={incoming.times}
          incoming={incoming.recipe}
          heading="What was understood"
          savings={[{ label: forSession ? 'Save and add to the session' : 'Save recipe', save }]}
        />
      )}
    </div>
  );
}
