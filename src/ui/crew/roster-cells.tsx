'use client';

import { useDraggable, useDroppable } from '@dnd-kit/core';
import { HOLDS, type PromiseState } from '@/core/crew/crew-standing';

export interface Person {
  readonly id: string;
  readonly name: string;
  readonly skills: Readonly<Partial<Record<string, { readonly until: string | null }>>>;
}
export interface Duty {
  readonly id: string;
  readonly key: string;
  readonly sessionId: string;
  readonly title: string;
  readonly session: string;
  readonly date: string;
  readonly from: number;
  readonly to: number;
  readonly people: number;
}
export interface PlaceIn {
  readonly duty: string;
  readonly person: string;
  readonly state: PromiseState;
  readonly isPinned: boolean;
}
export const SIGNS: Readonly<Record<PromiseState, readonly [sign: string, words: string]>> = {
  accepted: ['●', 'said yes'],
  asked: ['◐', 'asked'],
  planned: ['○', 'planned'],
  declined: ['✕', 'cannot'],
  taken: ['–', 'taken by another'],
  'ruled out': ['✕', 'not this one'],
};
export const ROW = 40;
export const COLUMN = 132;
export const NAMES = 176;
export const HEAD = 76;
export const keyOf = (duty: string, person: string) => `${duty}\n${person}`;

export function Row({
  person,
  index,
  top,
  children,
}: {
  person: Person;
  index: number;
  top: number;
  children: React.ReactNode;
}) {
  const { setNodeRef, isOver } = useDroppable({ id: person.id });
  return (
    // biome-ignore lint/a11y/useSemanticElements: as above
    <div
      ref={setNodeRef}
      role="row"
      tabIndex={-1}
      aria-rowindex={index + 2}
      className={`absolute left-0 w-full border-b border-base-300 ${isOver ? 'bg-primary/15' : ''}`}
      style={{ top, height: ROW }}
    >
      {/* biome-ignore lint/a11y/useSemanticElements: as above */}
      <div
        role="rowheader"
        tabIndex={-1}
        aria-colindex={1}
        className="sticky left-0 z-10 truncate border-r border-base-300 bg-base-100 px-2 font-semibold leading-10"
        style={{ width: NAMES, height: ROW - 1 }}
      >
        {person.name}
      </div>
      {children}
    </div>
  );
}

interface CellProps {
  readonly id: string;
  readonly left: number;
  readonly column: number;
  readonly place: PlaceIn | undefined;
  readonly isAt: boolean;
  readonly couldNot: boolean;
  readonly isHeld: boolean;
  readonly label: string;
  readonly onPick: () => void;
}

export function Cell({ id, left, column, place, isAt, isHeld, couldNot, label, onPick }: CellProps) {
  return (
    // biome-ignore lint/a11y/useSemanticElements: as above
    // biome-ignore lint/a11y/useKeyWithClickEvents: the grid has the keys
    <div
      id={id}
      role="gridcell"
      tabIndex={-1}
      aria-colindex={column + 2}
      aria-label={label}
      aria-selected={isAt}
      onClick={onPick}
      className={`absolute top-0 flex items-center justify-center border-l border-base-300 text-lg ${isAt ? 'outline-3 -outline-offset-3 outline-primary' : ''} ${isHeld ? 'bg-warning/30' : couldNot ? 'bg-base-300/60' : ''}`}
      style={{ left, width: COLUMN, height: ROW - 1 }}
    >
      {place &&
        (HOLDS.includes(place.state) ? (
          <Held place={place} />
        ) : (
          <span aria-hidden="true">{SIGNS[place.state][0]}</span>
        ))}
    </div>
  );
}

/** A place that can be dragged to another person's row. */
function Held({ place }: { place: PlaceIn }) {
  const { setNodeRef, listeners, transform } = useDraggable({ id: keyOf(place.duty, place.person) });
  return (
    <span
      ref={setNodeRef}
      {...listeners}
      aria-hidden="true"
      className="relative z-10 flex h-8 w-20 cursor-grab touch-none items-center justify-center rounded-box bg-base-200 font-bold"
      style={transform ? { transform: `translate3d(${transform.x}px, ${transform.y}px, 0)` } : undefined}
    >
      {SIGNS[place.state][0]}
      {place.isPinned && place.state === 'planned' && <span className="ml-1 text-xs">by hand</span>}
    </span>
  );
}
