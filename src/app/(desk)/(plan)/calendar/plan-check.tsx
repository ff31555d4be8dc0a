'use client';

import { TriangleAlert } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { useSaying } from '@/ui/saying';
import { check } from './actions';

type SessionValues = Omit<Parameters<typeof check>[0], 'courseId' | 'sessionId'>;

/** Says what stands against the session in the form around it, as one types. */
export function PlanCheck({ courseId, sessionId }: { courseId: string; sessionId?: string }) {
  const say = useSaying();
  const place = useRef<HTMLDivElement>(null);
  const [found, setFound] = useState<{ conflicts: readonly string[]; fixes: readonly string[] } | null>(null);
  useEffect(() => {
    const form = place.current?.closest('form');
    if (!form) return;
    let timer: ReturnType<typeof setTimeout>;
    let asked = 0;
    const look = () => {
      clearTimeout(timer);
      timer = setTimeout(async () => {
        const own = ++asked;
        const values = Object.fromEntries(new FormData(form)) as SessionValues;
        if (!values.date || !values.startsAt || !values.place) return setFound(null);
        const next = await check({ ...values, courseId, ...(sessionId ? { sessionId } : {}) }).catch(() => null);
        if (own === asked) setFound(next);
      }, 300);
    };
    look();
    form.addEventListener('input', look);
    return () => {
      clearTimeout(timer);
      form.removeEventListener('input', look);
    };
  }, [courseId, sessionId]);
  return (
    <div ref={place} aria-live="polite" className="text-sm empty:hidden">
      {found && found.conflicts.length > 0 && (
        <div className="rounded-box border-l-4 border-error bg-error/10 p-2">
          {found.conflicts.map((conflict) => (
            <p key={conflict} className="flex gap-1.5 font-semibold">
              <TriangleAlert size={16} className="mt-0.5 shrink-0 text-error" aria-hidden="true" />
              {say.text(conflict)}
            </p>
          ))}
          {found.fixes.length > 0 && <p>This would work: {say.text(found.fixes.join('; '))}.</p>}
        </div>
      )}
    </div>
  );
}
