'use client';

import { useEffect, useState } from 'react';

interface Props {
  /** "Printing" */
  readonly says: string;
  /** Left out where nobody knows how far it is. */
  readonly percent?: number;
  readonly cancel?: () => void;
}

/** Work that takes more than a moment: how far it is, and a way to stop it. */
export function Progress({ says, percent, cancel }: Props) {
  return (
    <div className="flex flex-wrap items-center gap-3">
      <progress
        className="progress progress-primary w-48"
        aria-label={says}
        max={100}
        {...(percent === undefined ? {} : { value: percent })}
      />
      <span role="status" className="text-sm">
        {says}
        {percent === undefined ? ' …' : `, ${percent} % …`}
      </span>
      {cancel && (
        <button type="button" className="btn btn-sm" onClick={cancel}>
          Cancel
        </button>
      )}
    </div>
  );
}

/** A job of the background process, as the server tells of it. */
export interface Job {
  readonly state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  readonly progress: number;
  readonly result: { readonly why?: string } | null;
}

const ASK_EVERY = 700;

/** Follows a job until it ends; it goes on when the page is left. @returns undefined while nothing is known of it */
export function useJob(jobId: string | undefined): Job | undefined {
  const [known, setKnown] = useState<{ readonly id: string; readonly job: Job }>();
  useEffect(() => {
    if (!jobId) return;
    let timer: ReturnType<typeof setTimeout>;
    const ask = async () => {
      const response = await fetch(`/api/jobs/${jobId}`).catch(() => null);
      const job: Job | undefined = response?.ok ? await response.json() : undefined;
      if (job) setKnown({ id: jobId, job });
      if (!job || isOpen(job)) timer = setTimeout(ask, ASK_EVERY);
    };
    void ask();
    return () => clearTimeout(timer);
  }, [jobId]);
  return known?.id === jobId ? known?.job : undefined;
}

/** Whether a job has still to end. */
export const isOpen = ({ state }: Job): boolean => state === 'waiting' || state === 'running';

/** Asks a job to stop. */
export const cancelJob = (jobId: string): void => void fetch(`/api/jobs/${jobId}`, { method: 'DELETE' });
