'use client';

import {
  createContext,
  type InputHTMLAttributes,
  type ReactNode,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
  useContext,
  useId,
} from 'react';

/** What is wrong, by the name of the field, in the form around. */
export const Problems = createContext<ReadonlyMap<string, readonly string[]>>(new Map());

interface Base {
  readonly label: string;
  /** The label is read out, and not shown: a heading says it already. */
  readonly isHeaded?: boolean;
  readonly hint?: string;
  readonly width?: string;
}

/** What a field of this name says beside its label: what it is about, and what is wrong with it. */
function useSaid({ name, id: own }: { readonly name?: string; readonly id?: string }, hint: string | undefined) {
  const made = useId();
  const id = own ?? made;
  const wrong = useContext(Problems).get(name ?? '') ?? [];
  return {
    id,
    attributes: {
      id,
      'aria-invalid': wrong.length > 0 ? true : undefined,
      'aria-describedby':
        [wrong.length > 0 && `${id}wrong`, hint && `${id}hint`].filter(Boolean).join(' ') || undefined,
    },
    tone: wrong.length > 0 ? 'error' : '',
    below: (
      <>
        {wrong.length > 0 && (
          <span id={`${id}wrong`} className="text-sm font-semibold text-error">
            {wrong.join(' ')}
          </span>
        )}
        {hint && (
          <span id={`${id}hint`} className="text-xs text-base-content/75">
            {hint}
          </span>
        )}
      </>
    ),
  };
}

/** A labelled input. */
export function Field({ label, isHeaded, hint, width = '', ...input }: Base & InputHTMLAttributes<HTMLInputElement>) {
  const { id, attributes, tone, below } = useSaid(input, hint);
  return (
    <div className={`flex flex-col gap-1 ${width}`}>
      <label htmlFor={id} className={isHeaded ? 'sr-only' : 'text-sm font-semibold'}>
        {label}
      </label>
      <input className={`input w-full ${tone && 'input-error'}`} {...attributes} {...input} />
      {below}
    </div>
  );
}

/** A labelled choice. */
export function Choice({
  label,
  hint,
  width = '',
  children,
  ...select
}: Base & SelectHTMLAttributes<HTMLSelectElement> & { children: ReactNode }) {
  const { id, attributes, tone, below } = useSaid(select, hint);
  return (
    <div className={`flex flex-col gap-1 ${width}`}>
      <label htmlFor={id} className="text-sm font-semibold">
        {label}
      </label>
      {/* On a reload the browser would set forth what stood in the list before, over what is saved by now. */}
      <select autoComplete="off" className={`select w-full ${tone && 'select-error'}`} {...attributes} {...select}>
        {children}
      </select>
      {below}
    </div>
  );
}

/** A labelled text of several lines. */
export function TextArea({ label, hint, width = '', ...area }: Base & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  const { id, attributes, tone, below } = useSaid(area, hint);
  return (
    <div className={`flex flex-col gap-1 ${width}`}>
      <label htmlFor={id} className="text-sm font-semibold">
        {label}
      </label>
      <textarea className={`textarea w-full ${tone && 'textarea-error'}`} {...attributes} {...area} />
      {below}
    </div>
  );
}

/** A file that is chosen. */
export function FileField({ label, ...input }: { readonly label: string } & InputHTMLAttributes<HTMLInputElement>) {
  return (
    <label className="flex flex-col gap-1">
      <span className="text-sm font-semibold">{label}</span>
      <input type="file" className="file-input" {...input} />
    </label>
  );
}

/** A box to be ticked. */
export function Tick({ label, ...input }: { readonly label: string } & InputHTMLAttributes<HTMLInputElement>) {
  const { id, attributes, below } = useSaid(input, undefined);
  return (
    <div className="text-sm">
      <span className="flex items-center gap-2">
        <input type="checkbox" className="checkbox checkbox-sm" {...attributes} {...input} />
        <label htmlFor={id}>{label}</label>
      </span>
      {below}
    </div>
  );
}
