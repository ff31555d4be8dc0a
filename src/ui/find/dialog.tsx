'use client';

import { type ReactNode, useEffect, useRef } from 'react';

/** A dialog of the browser's own: it keeps the focus, and Esc closes it. */
export function Dialog({ label, onClose, children }: { label: string; onClose: () => void; children: ReactNode }) {
  const ref = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    ref.current?.showModal();
    // What is written is written at once: by itself the browser would mark the frame around the field.
    ref.current?.querySelector<HTMLElement>('input')?.focus();
  }, []);
  return (
    <dialog
      ref={ref}
      aria-label={label}
      onClose={onClose}
      className="modal modal-top items-start justify-items-center pt-[10vh]"
    >
      <div className="modal-box w-[36rem] max-w-[94vw] rounded-box p-0 text-base-content">{children}</div>
      <form method="dialog" className="modal-backdrop">
        <button type="submit">Close</button>
      </form>
    </dialog>
  );
}
