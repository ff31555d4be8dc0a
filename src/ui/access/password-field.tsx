'use client';

import { type ComponentProps, useState } from 'react';
import { Field } from '../form/field';

/** Where a password is typed; what was typed can be shown. */
export function PasswordField(input: Omit<ComponentProps<typeof Field>, 'type'>) {
  const [isShown, setShown] = useState(false);
  return (
    <div>
      <Field {...input} type={isShown ? 'text' : 'password'} spellCheck={false} autoCapitalize="none" />
      <label className="mt-1 flex w-fit items-center gap-2 text-xs">
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          checked={isShown}
          onChange={(event) => setShown(event.currentTarget.checked)}
        />
        Show
      </label>
    </div>
  );
}
