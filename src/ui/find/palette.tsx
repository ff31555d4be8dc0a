'use client';

import { Command } from 'cmdk';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { type Findable, FOUND_KINDS, makeFinder } from '@/core/find/finder';
import { Dialog } from './dialog';

const KIND_TITLES = {
  screen: 'Screens',
  action: 'Do',
  course: 'Courses',
  session: 'Sessions',
  person: 'On rolls',
  recipe: 'Recipes',
  food: 'Foods',
  crew: 'Crew',
} as const;

/** One search over everything that can be gone to. */
export function Palette({ onClose, onKeys }: { onClose: () => void; onKeys: () => void }) {
  const router = useRouter();
  const [all, setAll] = useState<readonly Findable[]>();
  const [trouble, setTrouble] = useState(false);
  const [text, setText] = useState('');
  useEffect(() => {
    fetch('/api/find')
      .then((answer) => (answer.ok ? answer.json() : Promise.reject(new Error(String(answer.status)))))
      .then(setAll)
      .catch(() => setTrouble(true));
  }, []);
  const find = useMemo(() => makeFinder(all ?? []), [all]);
  const found = text.trim() === '' ? (all ?? []).filter(({ kind }) => kind === 'screen') : find(text);
  const groups = FOUND_KINDS.map((kind) => ({ kind, own: found.filter((one) => one.kind === kind) })).filter(
    ({ own }) => own.length > 0,
  );
  // What fits best comes first, whatever it is.
  const best = found[0]?.kind;
  groups.sort((a, b) => Number(b.kind === best) - Number(a.kind === best));
  const go = (href: string) => {
    onClose();
    router.push(href);
  };
  return (
    <Dialog label="Go to" onClose={onClose}>
      <Command shouldFilter={false} label="Go to" loop>
        <Command.Input
          autoFocus
          value={text}
          onValueChange={setText}
          placeholder="A course, a session, a name, a recipe, a food, a screen"
          className="input input-lg w-full rounded-b-none border-0 border-b border-base-300 focus:outline-none"
        />
        <Command.List className="max-h-[60vh] overflow-y-auto p-2">
          {trouble && (
            <p role="alert" className="p-3">
              Nothing can be looked for without a network. Close this, and try again when there is one.
            </p>
          )}
          {!all && !trouble && <Command.Loading className="p-3">Looking …</Command.Loading>}
          {all && <Command.Empty className="p-3">Nothing is called like this.</Command.Empty>}
          {groups.map(({ kind, own }) => (
            <Command.Group key={kind} heading={KIND_TITLES[kind]} className="text-sm">
              {own.map(({ title, beside, href }) => (
                <Command.Item
                  key={`${kind} ${href} ${title}`}
                  value={`${kind} ${href} ${title}`}
                  onSelect={() => go(href)}
                  className="flex cursor-pointer flex-wrap items-baseline gap-x-2 rounded-box px-3 py-2 text-base aria-selected:bg-primary aria-selected:text-primary-content"
                >
                  <span className="font-semibold">{title}</span>
                  {beside && <span className="text-sm">{beside}</span>}
                </Command.Item>
              ))}
            </Command.Group>
          ))}
        </Command.List>
      </Command>
      <p className="flex justify-between border-t border-base-300 px-4 py-2 text-xs">
        <span>↑ ↓ to choose, Enter to go, Esc to close</span>
        <button type="button" className="link" onClick={onKeys}>
          All keys
        </button>
      </p>
    </Dialog>
  );
}
