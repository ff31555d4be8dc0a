'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { v7 } from 'uuid';
import { ask } from './use-class';

/** The class is no longer safe as its tasks say: loudly, and taken over at one tap. */
export function Changed({ lines, base, isCut }: { lines: readonly string[]; base: string; isCut: boolean }) {
  const router = useRouter();
  const [refused, setRefused] = useState('');
  return (
    <section role="alert" className="mb-3 rounded-box border-2 border-error bg-error/20 p-3 text-lg font-semibold">
      <p>Since it began, somebody came or something became known. From now on:</p>
      <ul className="list-disc pl-6">
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      <button
        type="button"
        className="btn btn-error mt-2 h-12"
        disabled={isCut}
        onClick={async () => {
          const answer = await ask<object>(`${base}/swap`, { id: v7(), way: 'who came since', station: 'all' });
          setRefused('refused' in answer ? String(answer.refused) : '');
          router.refresh();
        }}
      >
        Everybody knows: write it into the tasks
      </button>
      {refused && <p>{refused}</p>}
    </section>
  );
}
