'use client';

import { Undo2 } from 'lucide-react';
import { startTransition, useActionState } from 'react';
import { FormMessage } from './form/action-form';
import type { FormState } from './form/form-state';

interface Change {
  readonly id: string;
  readonly said: string;
}

/** The last change of the plan, with the way back. */
export function UndoBar({
  change,
  action,
}: {
  change: Change | undefined;
  action: (changeId: string, state: FormState | null) => Promise<FormState>;
}) {
  const [state, dispatch, pending] = useActionState(
    (last: FormState | null, changeId: string) => action(changeId, last),
    null,
  );
  return (
    <div className="no-print mb-4 flex flex-wrap items-center gap-3 text-sm empty:hidden">
      {change && (
        <>
          <span>Last change: {change.said}.</span>
          <button
            type="button"
            className="btn btn-sm"
            disabled={pending}
            onClick={() => startTransition(() => dispatch(change.id))}
          >
            <Undo2 size={16} aria-hidden="true" /> Undo
          </button>
        </>
      )}
      <FormMessage state={state} />
    </div>
  );
}
