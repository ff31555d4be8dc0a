import type { ReactNode } from 'react';

/** A page's title with what stands beside it. */
export function PageTitle({ title, over, children }: { title: string; over?: ReactNode; children?: ReactNode }) {
  return (
    <div className="mb-5 flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
      <div>
        {over && <p className="text-sm text-base-content/80">{over}</p>}
        <h1 className="text-3xl font-bold">{title}</h1>
      </div>
      {children && <div className="no-print flex flex-wrap items-center gap-2">{children}</div>}
    </div>
  );
}

/** A designed empty state: what is missing, and the next step. */
export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="sheet flex flex-col items-start gap-3 p-8">
      <h2 className="text-xl font-bold">{title}</h2>
      {children}
    </div>
  );
}

/** A short warning where the risk is. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <p className="rounded-box border border-base-300 border-l-4 border-l-warning bg-base-100 px-4 py-2 text-sm">
      {children} Follow your local code and your venue’s rules.
    </p>
  );
}
