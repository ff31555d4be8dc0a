'use client';

import { useEffect } from 'react';

type Field = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;

declare global {
  interface Window {
    /** What was chosen or typed before the page was alive, and the listener that noted it. */
    early?: { readonly given: Map<EventTarget, string | boolean>; readonly note: (event: Event) => void };
  }
}

/** Gives a field what it was given before the page was alive, as if it were given now. */
function giveAgain(field: Field, given: string | boolean): void {
  if (typeof given === 'boolean') {
    (field as HTMLInputElement).checked = !given;
    field.click();
    return;
  }
  // React compares with what it saw last: that has to be something else first.
  field.value = '';
  Object.getOwnPropertyDescriptor(Object.getPrototypeOf(field), 'value')?.set?.call(field, given);
  field.dispatchEvent(new Event('input', { bubbles: true }));
  field.dispatchEvent(new Event('change', { bubbles: true }));
}

/** Once the page is alive: what was given before is given again, and heard. */
export function Early() {
  useEffect(() => {
    if (!window.early) return;
    const { given, note } = window.early;
    window.removeEventListener('input', note, true);
    delete window.early;
    for (const [field, value] of given) {
      const isFile = field instanceof HTMLInputElement && field.type === 'file';
      if (field instanceof HTMLElement && field.isConnected && !isFile && 'value' in field)
        giveAgain(field as Field, value);
    }
  }, []);
  return null;
}
