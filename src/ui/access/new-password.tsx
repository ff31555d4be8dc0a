'use client';

import { useEffect, useState } from 'react';
import { SHORTEST_PASSWORD, STRONG_ENOUGH, type Strength, strengthOf } from '@/contracts/password';
import { PasswordField } from './password-field';

const SAYS: Readonly<Record<Strength, string>> = {
  0: 'Guessed at once',
  1: 'Guessed soon',
  2: 'Guessed with patience',
  3: 'Hard to guess',
  4: 'Very hard to guess',
};

/** Where a new password is chosen, with how hard it is to guess while it is typed. The lists come when typing begins. */
export function NewPassword({ label = 'Password', about = '' }: { label?: string; about?: string }) {
  const [password, setPassword] = useState('');
  const [strength, setStrength] = useState<Strength>();
  useEffect(() => {
    let isOld = false;
    if (password === '') setStrength(undefined);
    else
      void strengthOf(password, [about]).then(
        (judged) => !isOld && setStrength(judged),
        // Without the lists there is no meter; the server judges all the same.
        () => {},
      );
    return () => {
      isOld = true;
    };
  }, [password, about]);
  const missing = SHORTEST_PASSWORD - password.length;
  return (
    <div>
      <PasswordField
        label={label}
        name="password"
        autoComplete="new-password"
        required
        onChange={(event) => setPassword(event.currentTarget.value)}
        hint={`At least ${SHORTEST_PASSWORD} characters: three or four words do well.`}
      />
      {strength !== undefined && (
        <p className="mt-1 flex items-center gap-2 text-xs" role="status">
          <meter
            className="w-24"
            min={0}
            max={4}
            low={2}
            high={STRONG_ENOUGH}
            optimum={4}
            value={strength}
            aria-hidden
          />
          <span>
            {SAYS[strength]}
            {missing > 0 && `, ${missing} more ${missing === 1 ? 'character' : 'characters'}`}
          </span>
        </p>
      )}
    </div>
  );
}
