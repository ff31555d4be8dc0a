import { useEffect } from 'react';

/** How a table was sorted and which columns it had, kept in this browser: an address that says otherwise goes before it. */
export function useRemembered(
  label: string,
  { sort = '', without = '' }: Readonly<Record<string, string | undefined>>,
  setAddress: (change: Readonly<Record<string, string>>) => void,
) {
  const key = `table ${label}`;
  useEffect(() => {
    if (sort || without) return;
    try {
      const kept = JSON.parse(localStorage.getItem(key) ?? '{}') as Record<string, string>;
      if (kept.sort || kept.without) setAddress(kept);
    } catch {
      // What cannot be read is as if it were not kept.
    }
  }, [key]);
  return (change: { readonly sort?: string; readonly without?: string }) => {
    setAddress(change);
    try {
      localStorage.setItem(key, JSON.stringify({ sort, without, ...change }));
    } catch {
      // A browser that keeps nothing shows it as usual next time.
    }
  };
}
