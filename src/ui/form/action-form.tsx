'use client';

import { unstable_rethrow } from 'next/navigation';
import {
  Fragment,
  type ReactNode,
  type RefObject,
  useActionState,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
  useTransition,
} from 'react';
import { notify } from '../notices';
import { Problems } from './field';
import type { FormState } from './form-state';
import { useKeptDraft } from './kept-draft';
import { Pending } from './pending';
import { placeProblems } from './problems';

interface Props {
  readonly action: (state: FormState | null, data: FormData) => Promise<FormState>;
  readonly children: ReactNode;
  readonly className?: string;
  readonly label?: string;
  /** Empties the form after it worked, for adding one after another. */
  readonly clear?: boolean;
  /** Of what is edited: when it rises, the fields show what is saved now, and the answer stays. */
  readonly version?: number;
  /** It changes what is there, and does nothing else: sent again as it was, it is put back. */
  readonly isUndoable?: true;
}

/**
 * A form over a server action: keeps what was typed when something is wrong, says what at the field it is about, and leads
 * there.
 */
export function ActionForm({ action, children, className, label, clear, version, isUndoable }: Props) {
  const [first, dispatch] = useActionState(action, null);
  const [answer, setAnswer] = useState<FormState>();
  const [pending, startSending] = useTransition();
  // Sent before this page was alive, the form was answered with the page.
  const state = answer ?? first;
  const form = useRef<HTMLFormElement>(null);
  const { isBack, keep, forget } = useKeptDraft(form, label, version);
  const asLoaded = useAsLoaded(form, version);
  /** The action of the form as it is shown now: what it changes has another version once it was saved. */
  const latest = useRef(action);
  useEffect(() => {
    latest.current = action;
  }, [action]);
  /** The notice outlives the form: what was changed may take it off the page. */
  const send = (data: FormData) =>
    startSending(async () => {
      forget();
      const now = await action(state, data).catch((error: unknown): FormState => {
        unstable_rethrow(error);
        return { ok: false, message: NO_ANSWER };
      });
      const before = isUndoable && now?.ok ? asLoaded(data) : undefined;
      const back = now?.undo ?? (before && (() => putBack(latest.current, before)));
      const isTold = now?.ok && back !== undefined;
      if (isTold) void notify({ message: now.message ?? 'Done.', undo: back });
      if (now && !now.ok) keep();
      startSending(() => setAnswer(isTold ? { ok: true } : now));
    });
  const [refused, setRefused] = useState('');
  const [placed, setPlaced] = useState(() => placeProblems(state?.problems ?? [], new Set()));
  useLayoutEffect(() => {
    const inputs = [...(form.current?.elements ?? [])].filter((input): input is HTMLInputElement => 'name' in input);
    const now = placeProblems(state?.problems ?? [], new Set(inputs.map(({ name }) => name).filter(Boolean)));
    setPlaced(now);
    inputs.find(({ name, type }) => type !== 'hidden' && now.at.has(name))?.focus();
  }, [state]);
  useEffect(() => {
    if (clear && state?.ok) form.current?.reset();
  }, [state, clear]);
  return (
    <form
      ref={form}
      action={dispatch}
      aria-label={label}
      aria-busy={pending}
      className={className}
      onInput={keep}
      onSubmit={(event) => {
        event.preventDefault();
        const submitter = (event.nativeEvent as SubmitEvent).submitter;
        const data = new FormData(event.currentTarget, submitter);
        if (!state?.proof) return send(data);
        const password = String(data.get(PROOF) ?? '');
        data.delete(PROOF);
        void prove(password).then((why) => (why ? setRefused(why) : send(data)));
      }}
    >
      <Problems value={placed.at}>
        <Pending value={pending}>
          <Fragment key={version}>{children}</Fragment>
        </Pending>
      </Problems>
      {isBack && (
        <p role="status" className="flex basis-full flex-wrap items-center gap-2 text-sm">
          What you had typed before you left is here again.
          <button
            type="button"
            className="btn btn-xs"
            onClick={() => {
              form.current?.reset();
              forget();
            }}
          >
            Start afresh
          </button>
        </p>
      )}
      <FormMessage state={state && { ...state, problems: placed.rest }} />
      {state?.proof && <Proof refused={refused} />}
    </form>
  );
}

/** Sends a form again with what stood in it before. */
async function putBack(action: Props['action'], before: FormData): Promise<FormState> {
  const answer = await action(null, before);
  return answer.ok ? { ok: true, message: 'It is as it was before.' } : answer;
}

const entriesOf = (data: FormData) => [...data].filter(([, value]) => typeof value === 'string').map(String);

/** What a form held when it showed what is saved; asked with what is sent, and undefined where that is no change. */
function useAsLoaded(form: RefObject<HTMLFormElement | null>, version: number | undefined) {
  const loaded = useRef<FormData>(undefined);
  // Before anything typed is put back into it.
  useLayoutEffect(() => {
    loaded.current = form.current ? new FormData(form.current) : undefined;
  }, [form, version]);
  return (sent: FormData): FormData | undefined => {
    const before = loaded.current;
    return before && entriesOf(before).join('\n') !== entriesOf(sent).join('\n') ? before : undefined;
  };
}

const NO_ANSWER = 'The server did not answer. What you wrote is still here: send it again in a moment.';

/** The field of the password that is asked for again. */
const PROOF = 'proof-password';

/** Asks for the password again, before what cannot be undone. */
function Proof({ refused }: { refused: string }) {
  return (
    <span className="mt-2 flex basis-full flex-wrap items-end gap-2">
      <label className="flex flex-col gap-1">
        <span className="text-sm font-semibold">Your password</span>
        <input
          className="input"
          type="password"
          name={PROOF}
          autoComplete="current-password"
          required
          // biome-ignore lint/a11y/noAutofocus: it is what the one who pressed the button has to do next
          autoFocus
        />
      </label>
      <button type="submit" className="btn btn-primary">
        Go on
      </button>
      {refused && (
        <span role="alert" className="text-sm font-semibold text-error">
          {refused}
        </span>
      )}
    </span>
  );
}

/** Sends the password given again. @returns why it was not taken, or '' */
async function prove(password: string): Promise<string> {
  try {
    const answer = await fetch('/api/proof', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ password }),
    });
    if (answer.ok) return '';
    return ((await answer.json()) as { title?: string }).title ?? 'It was not taken. Try again.';
  } catch {
    return 'The server cannot be reached just now. Try again in a moment.';
  }
}

const NO_FIELDS: ReadonlySet<string> = new Set();

/** The answer of a form, announced. */
export function FormMessage({ state }: { state: FormState | null }) {
  if (!state || (state.ok && !state.message)) return null;
  const problems = placeProblems(state.problems ?? [], NO_FIELDS).rest;
  return (
    <div
      role={state.ok ? 'status' : 'alert'}
      className={`mt-3 basis-full rounded-box border-l-4 p-3 text-sm ${state.ok ? 'border-success bg-success/10' : 'border-error bg-error/10'}`}
    >
      <p className="font-semibold">{state.message}</p>
      {state.copy && <Copied text={state.copy} />}
      {problems.length > 0 && (
        <ul className="mt-1 list-disc pl-5">
          {problems.slice(0, 20).map((problem) => (
            <li key={`${problem.where}${problem.message}`}>
              {problem.where && <span className="font-semibold">{problem.where}: </span>}
              {problem.message}
            </li>
          ))}
          {problems.length > 20 && <li>… and {problems.length - 20} more.</li>}
        </ul>
      )}
    </div>
  );
}

/** A text that is shown once, with the button that copies it. */
function Copied({ text }: { text: string }) {
  const [said, setSaid] = useState('Copy');
  const copy = () =>
    Promise.resolve(navigator.clipboard?.writeText(text) ?? Promise.reject()).then(
      () => setSaid('Copied'),
      // A browser on the local network without TLS has no clipboard: the text is there to be selected.
      () => setSaid('Select it and copy'),
    );
  return (
    <span className="mt-2 flex flex-wrap items-center gap-2">
      <code className="break-all">{text}</code>
      <button type="button" className="btn btn-sm" onClick={copy}>
        {said}
      </button>
    </span>
  );
}
