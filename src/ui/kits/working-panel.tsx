import Link from 'next/link';
import type { Working } from '@/core/kits/figures/working';
import { EscapeTo } from '../escape-to';

/** The working of one number at the side: from what was asked for, down to where it comes from. */
export function WorkingPanel({ working, close }: { working: Working; close: string }) {
  return (
    <aside
      aria-label="Working"
      className="no-print fixed inset-y-0 right-0 z-40 flex w-full max-w-md flex-col overflow-y-auto border-l-2 border-base-content/30 bg-base-100 p-5 shadow-xl"
    >
      <EscapeTo href={close} />
      <div className="mb-3 flex items-start justify-between gap-3">
        <h2 className="text-xl font-bold">How this came about</h2>
        <Link href={close} scroll={false} className="btn btn-sm">
          Close
        </Link>
      </div>
      <Step working={working} first />
    </aside>
  );
}

function Step({ working, first = false }: { working: Working; first?: boolean }) {
  return (
    <div className={first ? '' : 'mt-3 border-l-2 border-base-300 pl-4'}>
      <p className="text-sm text-base-content/80">{working.what}</p>
      <p className={first ? 'text-xl font-bold' : 'font-bold'}>{working.value}</p>
      {working.because && <p className="text-sm">{working.because}</p>}
      {working.from.map((step) => (
        <Step key={step.what + step.value} working={step} />
      ))}
    </div>
  );
}
