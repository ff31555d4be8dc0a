'use client';

import { Search } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useEffect, useState } from 'react';
import { keysAreOn } from './keys';

const Palette = dynamic(() => import('./palette').then((module) => module.Palette), { ssr: false });
const KeyList = dynamic(() => import('./key-list').then((module) => module.KeyList), { ssr: false });

/** Somebody writes: a key is a letter there. */
const isWriting = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    /^(?:INPUT|TEXTAREA|SELECT)$/.test(target.tagName) ||
    target.closest('[role="dialog"]') !== null);

/** Finds anything by its name, from every page of the desk; `/` opens it, `?` lists the keys. What it needs is loaded when it is used. */
export function FindButton() {
  const [open, setOpen] = useState<'find' | 'keys' | undefined>();
  /** A page is read before its keys do anything: they are named once they do. */
  const [isHeard, setHeard] = useState(false);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isWriting(event.target) || !keysAreOn()) return;
      if (event.key !== '/' && event.key !== '?') return;
      event.preventDefault();
      setOpen(event.key === '/' ? 'find' : 'keys');
    };
    window.addEventListener('keydown', press);
    setHeard(true);
    return () => window.removeEventListener('keydown', press);
  }, []);
  return (
    <>
      <button
        type="button"
        className="btn btn-sm border-neutral-content/40 bg-transparent text-neutral-content hover:bg-neutral-content/15"
        aria-keyshortcuts={isHeard ? '/' : undefined}
        onClick={() => setOpen('find')}
      >
        <Search aria-hidden="true" className="size-4" /> Go to
      </button>
      {open === 'find' && <Palette onClose={() => setOpen(undefined)} onKeys={() => setOpen('keys')} />}
      {open === 'keys' && <KeyList onClose={() => setOpen(undefined)} />}
    </>
  );
}
