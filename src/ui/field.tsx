import type { InputHTMLAttributes, ReactNode, SelectHTMLAttributes } from 'react';

interface Base {
  readonly label: string;
  readonly hint?: string;
  readonly width?: string;
}

/** A labelled input. */
export function Field({ label, hint, width = '', ...input }: Base & InputHTMLAttributes<HTMLInputElement>) {
  return (
    <label className={`flex flex-col gap-1 ${width}`}>
      <span className="text-sm font-semibold">{label}</span>
      <input className="input w-full" {...input} />
      {hint && <span className="text-xs text-base-content/75">{hint}</span>}
    </label>
  );
}

/** A labelled choice. */
export function Choice({
  label,
  hint,
  width = '',
  children,
  ...select
}: Base & SelectHTMLAttributes<HTMLSelectElement> & { children: ReactNode }) {
  return (
    <label className={`flex flex-col gap-1 ${width}`}>
      <span className="text-sm font-semibold">{label}</span>
      <select className="select w-full" {...select}>
        {children}
      </select>
      {hint && <span className="text-xs text-base-content/75">{hint}</span>}
    </label>
  );
}
