'use client';

import Link from 'next/link';
import { useState } from 'react';
import type { FormState } from './form/form-state';
import { cancelJob, isOpen, Progress, useJob } from './progress';

/** Sends labels to the printer and follows the job. */
export function PrintJob({ send }: { send: () => Promise<FormState & { jobId?: string }> }) {
  const [jobId, setJobId] = useState<string>();
  const [trouble, setTrouble] = useState<string>();
  const job = useJob(jobId);
  const isPrinting = jobId !== undefined && (!job || isOpen(job));
  return (
    <div className="mt-3 flex flex-wrap items-center gap-3">
      <button
        type="button"
        className="btn btn-primary"
        disabled={isPrinting}
        onClick={async () => {
          const answer = await send();
          setTrouble(answer.ok ? undefined : answer.message);
          setJobId(answer.jobId);
        }}
      >
        Send to the label printer
      </button>
      {isPrinting && <Progress says="Printing" percent={job?.progress ?? 0} cancel={() => cancelJob(jobId)} />}
      <span role="status" className="text-sm">
        {trouble}
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
    </div>
  );
}
