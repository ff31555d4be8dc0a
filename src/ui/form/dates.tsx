'use client';

import { CalendarDays } from 'lucide-react';
import dynamic from 'next/dynamic';
import { type InputHTMLAttributes, type ReactNode, type RefObject, useRef, useState } from 'react';
import { readDate, readTime, writeDate, writeTime } from '@/core/plan/manner';
import { type MarkedDay, useManner, useMarkedDays } from '../saying';
import { Field } from './field';

const Calendar = dynamic(() => import('./calendar'), { loading: () => <p>One moment …</p> });

type Input = Omit<InputHTMLAttributes<HTMLInputElement>, 'type' | 'value' | 'defaultValue'> & {
  /** As it is kept, whatever is shown; nothing for what was taken away. */
  readonly defaultValue?: string;
  /** Told what was typed or chosen, as it is kept, as soon as it can be read. */
  readonly onPick?: (value: string) => void;
  readonly label?: string;
  /** The label is read out, and not shown: a heading says it already. */
  readonly isHeaded?: boolean;
  readonly hint?: string;
  readonly width?: string;
};

/**
 * Reads what is typed as soon as the field is left, and writes it as the programme does. What cannot be read is said at the
 * field, before anything is sent.
 */
function useWritten(
  read: (text: string) => string | undefined,
  write: (value: string) => string,
  wrong: string,
  onPick: ((value: string) => void) | undefined,
) {
  /** As it is kept; '' where the field is empty, undefined where it cannot be read. */
  const keptIn = ({ value }: HTMLInputElement) => (value.trim() === '' ? '' : read(value));
  const settle = (input: HTMLInputElement) => {
    const value = keptIn(input);
    if (value) input.value = write(value);
    input.setCustomValidity(value === undefined ? wrong : '');
    if (value !== undefined) onPick?.(value);
  };
  return {
    settle,
    onBlur: (event: { currentTarget: HTMLInputElement }) => settle(event.currentTarget),
    onInput: ({ currentTarget: input }: { currentTarget: HTMLInputElement }) => {
      input.setCustomValidity('');
      const value = keptIn(input);
      if (value !== undefined) onPick?.(value);
    },
    // Sent with Enter, the field was never left.
    onKeyDown: (event: { key: string; currentTarget: HTMLInputElement }) => {
      if (event.key === 'Enter') settle(event.currentTarget);
    },
  };
}

/** A time of the day, written and read in the programme's manner. @param defaultValue HH:MM; anything else is shown as it is */
export function TimeField({ label = 'Time', defaultValue = '', onPick, ...input }: Input) {
  const manner = useManner();
  const { settle: _, ...written } = useWritten(
    (text) => readTime(text, manner),
    (time) => writeTime(time, manner),
    manner.clock === 12 ? 'Write a time with am or pm, such as 4:30 pm.' : 'Write a time such as 16:30.',
    onPick,
  );
  const time = readTime(defaultValue);
  const shown = time ? writeTime(time, manner) : defaultValue;
  const field = { autoComplete: 'off', ...written, ...input, defaultValue: shown };
  return <Field label={label} {...field} />;
}

/**
 * A day, typed in the programme's manner or chosen from a calendar.
 *
 * @param defaultValue YYYY-MM-DD; anything else is shown as it is
 */
export function DateField({ label = 'Date', defaultValue = '', width = '', onPick, ...input }: Input) {
  const manner = useManner();
  const markedDays = useMarkedDays();
  const [marked, setMarked] = useState<readonly MarkedDay[]>([]);
  const place = useRef<HTMLDivElement>(null);
  const dialog = useRef<HTMLDialogElement>(null);
  const [open, setOpen] = useState<{ readonly at: string | undefined }>();
  const date = readDate(defaultValue, manner);
  const read = (text: string) => readDate(text, manner, new Date().toISOString().slice(0, 10));
  const { settle, ...written } = useWritten(
    read,
    (date) => writeDate(date, manner),
    `Write a day such as ${writeDate('2026-11-05', manner)}.`,
    onPick,
  );
  const typed = () => place.current?.querySelector('input') as HTMLInputElement;
  const choose = (date: string) => {
    const field = typed();
    field.value = writeDate(date, manner);
    settle(field);
    field.dispatchEvent(new Event('input', { bubbles: true }));
    dialog.current?.close();
    field.focus();
  };
  return (
    <div ref={place} className={`relative ${width}`}>
      <Field
        label={label}
        autoComplete="off"
        {...written}
        {...input}
        className="input w-full pr-10"
        defaultValue={date ? writeDate(date, manner) : defaultValue}
      />
      <button
        type="button"
        className="btn btn-ghost btn-sm text-base-content absolute top-7 right-1 z-10"
        aria-label="Choose from a calendar"
        onClick={() => {
          setOpen({ at: read(typed().value) });
          // A calendar that cannot say what is on a day still lets one choose it.
          void markedDays?.().then(setMarked, () => undefined);
          dialog.current?.showModal();
        }}
      >
        <CalendarDays size={18} aria-hidden="true" />
      </button>
      <CalendarDialog of={dialog}>
        {open && <Calendar at={open.at} manner={manner} marked={marked} onChoose={choose} />}
      </CalendarDialog>
    </div>
  );
}

function CalendarDialog({ of, children }: { of: RefObject<HTMLDialogElement | null>; children: ReactNode }) {
  return (
    <dialog ref={of} className="modal" aria-label="Calendar">
      <div className="modal-box w-fit">
        {children}
        <p className="mt-2 text-right">
          <button type="button" className="btn btn-sm" onClick={() => of.current?.close()}>
            Close
          </button>
        </p>
      </div>
    </dialog>
  );
}
