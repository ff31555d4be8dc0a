'use client';

import {
  DndContext,
  type DragEndEvent,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { GripVertical, TriangleAlert } from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import { addDays, dayOf, weekdayName, weekdayOf } from '@/core/plan/civil';
import type { CalendarSession } from '@/services/plan/calendar';
import { useSaying } from '@/ui/saying';

import { MoveDialog, type Moving } from './move-dialog';

interface Props {
  readonly start: string;
  readonly weeks: number;
  readonly today: string;
  readonly sessions: readonly CalendarSession[];
  readonly closures: readonly { from: string; to: string; say: string }[];
  readonly places: readonly string[];
}

/** One card a group: a session given to several has several. */
const cardId = ({ id, groupId }: CalendarSession) => `${id} ${groupId}`;

/** Weeks of sessions: a card is dragged to another day, or moved by its button; nothing moves before it is confirmed. */
export function Board({ start, weeks, today, sessions, closures, places }: Props) {
  const [moving, setMoving] = useState<Moving | null>(null);
  // A press on a link is no drag: it takes a few pixels.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const drop = ({ active, over }: DragEndEvent) => {
    const session = sessions.find((each) => cardId(each) === active.id);
    if (session && over && over.id !== session.date) setMoving({ ...session, date: String(over.id) });
  };
  return (
    <>
      <DndContext id="calendar" sensors={sensors} onDragEnd={drop}>
        <div className="sheet overflow-hidden">
          <div className="hidden grid-cols-7 border-b border-base-300 md:grid" aria-hidden="true">
            {Array.from({ length: 7 }, (_, at) => weekdayName(weekdayOf(dayOf(start) + at))).map((weekday) => (
              <span key={weekday} className="px-2 py-1.5 text-sm font-semibold">
                {weekday}
              </span>
            ))}
          </div>
          <ol className="grid md:grid-cols-7" aria-label="Days">
            {Array.from({ length: weeks * 7 }, (_, index) => addDays(start, index)).map((date) => (
              <Day
                key={date}
                date={date}
                isToday={date === today}
                sessions={sessions.filter((session) => session.date === date)}
                closures={closures.filter(({ from, to }) => from <= date && date <= to).map(({ say }) => say)}
                onMove={setMoving}
              />
            ))}
          </ol>
        </div>
      </DndContext>
      {moving && (
        <MoveDialog
          key={`${moving.id}${moving.groupId}${moving.date}`}
          moving={moving}
          places={places}
          onClose={() => setMoving(null)}
        />
      )}
    </>
  );
}

function Day({
  date,
  isToday,
  sessions,
  closures,
  onMove,
}: {
  date: string;
  isToday: boolean;
  sessions: readonly CalendarSession[];
  closures: readonly string[];
  onMove: (moving: Moving) => void;
}) {
  const say = useSaying();
  const { setNodeRef, isOver } = useDroppable({ id: date });
  const isEmpty = sessions.length === 0 && closures.length === 0;
  return (
    <li
      ref={setNodeRef}
      aria-label={say.longDate(date)}
      className={`min-h-24 border-b border-base-300 p-1.5 md:border-r md:[&:nth-child(7n)]:border-r-0 ${isEmpty ? 'hidden md:block' : ''} ${isOver ? 'bg-base-300' : closures.length > 0 ? 'bg-base-200' : ''}`}
    >
      <p className={`mb-1 text-sm sm:text-xs ${isToday ? 'font-bold' : 'text-base-content/80'}`}>
        <span className="md:hidden">{say.longDate(date)}</span>
        <span className="hidden md:inline">
          {date.endsWith('-01') ? say.shortDate(date).replace(/^\w+,? /, '') : Number(date.slice(8))}
        </span>
        {isToday && ' · today'}
      </p>
      {closures.map((closure) => (
        <p key={closure} className="mb-1 border-l-4 border-base-content/40 pl-1.5 text-sm italic sm:text-xs">
          {say.text(closure)}
        </p>
      ))}
      <div className="flex flex-col gap-1">
        {sessions.map((session) => (
          <Card key={cardId(session)} session={session} onMove={onMove} />
        ))}
      </div>
    </li>
  );
}

function Card({ session, onMove }: { session: CalendarSession; onMove: (moving: Moving) => void }) {
  const say = useSaying();
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: cardId(session) });
  const clash = session.conflicts.length > 0;
  return (
    <div
      ref={setNodeRef}
      {...listeners}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
      className={`relative cursor-grab rounded-field border bg-base-100 p-1.5 text-sm sm:text-xs ${clash ? 'border-2 border-error' : 'border-base-300'} ${isDragging ? 'z-10 opacity-90 shadow-lg' : ''}`}
    >
      <Link href={`/sessions/${session.id}`} className="link block font-bold leading-tight">
        {say.time(session.startsAt)} {session.title}
      </Link>
      <span className="block">{session.courseTitle}</span>
      <span className="block text-base-content/80">
        {session.place}, {session.mode}
      </span>
      {session.conflicts.map((conflict) => (
        <span key={conflict} className="mt-1 flex gap-1 font-semibold text-error">
          <TriangleAlert size={14} className="shrink-0" aria-hidden="true" />
          {say.text(conflict)}
        </span>
      ))}
      <button
        type="button"
        className="btn btn-xs mt-1"
        onPointerDown={(event) => event.stopPropagation()}
        onClick={() => onMove(session)}
        aria-label={`Move ${session.title}`}
      >
        <GripVertical size={12} aria-hidden="true" /> Move
      </button>
    </div>
  );
}
