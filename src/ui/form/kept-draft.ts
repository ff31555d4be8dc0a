// What is typed into a form and not yet sent, kept in this tab: a page that is left by mistake has it again.

import { type RefObject, useCallback, useEffect, useRef, useState } from 'react';

const PREFIX = 'draft ';
/** What lies longer was not left by mistake, in milliseconds. */
const MOST_AGE = 30 * 60_000;
const TYPING = 400;

type Typed = Readonly<Record<string, readonly (string | boolean)[]>>;

const isKept = (input: Element): input is HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement =>
  (input instanceof HTMLInputElement &&
    !['hidden', 'password', 'file', 'submit', 'button', 'radio'].includes(input.type)) ||
  input instanceof HTMLTextAreaElement ||
  input instanceof HTMLSelectElement;

const fieldsOf = (form: HTMLFormElement) => [...form.elements].filter(isKept).filter(({ name }) => name !== '');

const given = (field: Element & { value: string }): string | boolean =>
  field instanceof HTMLInputElement && field.type === 'checkbox' ? field.checked : field.value;

/** By name, in order: several fields may share one. */
function typedIn(form: HTMLFormElement): Typed {
  const typed: Record<string, (string | boolean)[]> = {};
  for (const field of fieldsOf(form)) {
    typed[field.name] ??= [];
    typed[field.name]?.push(given(field));
  }
  return typed;
}

/** Puts what was typed into its fields, as if it were typed again. @returns whether anything differs now */
function put(form: HTMLFormElement, typed: Typed): boolean {
  const next: Record<string, number> = {};
  let differs = false;
  for (const field of fieldsOf(form)) {
    const at = next[field.name] ?? 0;
    next[field.name] = at + 1;
    const value = typed[field.name]?.[at];
    if (value === undefined || value === given(field)) continue;
    if (field instanceof HTMLInputElement && typeof value === 'boolean') field.checked = value;
    else if (typeof value === 'string') {
      // The field's own setter: one that React watches would not be told otherwise.
      Object.getOwnPropertyDescriptor(Object.getPrototypeOf(field), 'value')?.set?.call(field, value);
    }
    field.dispatchEvent(new Event('input', { bubbles: true }));
    differs = true;
  }
  return differs;
}

/**
 * Keeps what is typed into a form until it is sent, and puts it back when the form comes again.
 *
 * @param name of the form on its page; without one nothing is kept
 * @param version of what is edited: a draft of something that has changed since is not put over it
 */
export function useKeptDraft(
  form: RefObject<HTMLFormElement | null>,
  name: string | undefined,
  version: number | undefined,
) {
  const [isBack, setBack] = useState(false);
  const waits = useRef<ReturnType<typeof setTimeout>>(undefined);
  const key = useCallback(
    () => `${PREFIX}${window.location.pathname}${window.location.search} ${name} ${version ?? ''}`,
    [name, version],
  );
  const forget = useCallback(() => {
    clearTimeout(waits.current);
    if (name) sessionStorage.removeItem(key());
    setBack(false);
  }, [name, key]);
  const keep = useCallback(() => {
    if (!name) return;
    clearTimeout(waits.current);
    waits.current = setTimeout(() => {
      if (!form.current) return;
      try {
        sessionStorage.setItem(key(), JSON.stringify({ at: Date.now(), typed: typedIn(form.current) }));
      } catch {
        // A tab that keeps nothing loses no more than it did before.
      }
    }, TYPING);
  }, [form, name, key]);
  useEffect(() => {
    if (!name || !form.current) return;
    const kept = sessionStorage.getItem(key());
    if (!kept) return;
    sessionStorage.removeItem(key());
    const { at, typed } = JSON.parse(kept) as { at: number; typed: Typed };
    if (Date.now() - at < MOST_AGE && put(form.current, typed)) setBack(true);
  }, [form, name, key]);
  return { isBack, keep, forget };
}

/** Nothing typed is left for whoever signs in next in this tab. */
export function forgetDrafts(): void {
  for (const key of Object.keys(sessionStorage)) if (key.startsWith(PREFIX)) sessionStorage.removeItem(key);
}
