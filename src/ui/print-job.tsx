'use client';

import Link from 'next/link';
import { useEffect, useState } from 'react';
import type { FormState } from './form/form-state';

interface Job {
  readonly state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  readonly progress: number;
  readonly result: { readonly why?: string } | null;
}

const ASK_EVERY = 700;

/** Sends labels to the printer and follows the job; it goes on when this page is left. */
export function PrintJob({ send }: { send: () => Promise<FormState & { jobId?: string }> }) {
  const [jobId, setJobId] = useState<string>();
  const [job, setJob] = useState<Job>();
  const [trouble, setTrouble] = useState<string>();

  useEffect(() => {
    if (!jobId) return;
    let timer: ReturnType<typeof setTimeout>;
    const ask = async () => {
      const response = await fetch(`/api/jobs/${jobId}`).catch(() => null);
      const next: Job | undefined = response?.ok ? await response.json() : undefined;
      if (next) setJob(next);
      if (!next || next.state === 'waiting' || next.state === 'running') timer = setTimeout(ask, ASK_EVERY);
    };
    void ask();
    return () => clearTimeout(timer);
  }, [jobId]);

  const isOpen = jobId !== undefined && (!job || job.state === 'waiting' || job.state === 'running');
  return (
    <div className="mt-3 flex flex-wrap items-center gap-3">
      <button
        type="button"
        className="btn btn-primary"
        disabled={isOpen}
        onClick={async () => {
          setJob(undefined);
          const answer = await send();
          setTrouble(answer.ok ? undefined : answer.message);
          setJobId(answer.jobId);
        }}
      >
        Send to the label printer
      </button>
      <span role="status" className="text-sm">
        {trouble}
        {isOpen && `Printing, ${job?.progress ?? 0} % …`}
        {job?.state === 'done' && (
          <>
            Printed:{' '}
            <Link href="/devices" className="link">
              look at the tray
            </Link>
          </>
        )}
        {job?.state === 'failed' && `Not printed: ${job.result?.why}`}
        {job?.state === 'cancelled' && 'Cancelled.'}
      </span>
      {isOpen && (
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => void fetch(`/api/jobs/${jobId}`, { method: 'DELETE' })}
        >
          Cancel
        </button>
      )}
    </div>
  );
}
