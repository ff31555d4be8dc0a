/** What a report is asked of, as its address says. */
export type AskedReport = Readonly<Partial<Record<'from' | 'to' | 'courseId' | 'sessionId' | 'funderId', string>>>;

const KEYS = ['from', 'to', 'courseId', 'sessionId', 'funderId'] as const;

/** What an address asks for, without what it leaves empty. */
export const askedIn = (query: Readonly<Record<string, string | string[] | undefined>>): AskedReport =>
  Object.fromEntries(
    KEYS.flatMap((key) => {
      const value = query[key];
      return typeof value === 'string' && value !== '' ? [[key, value]] : [];
    }),
  );

/** The same as an address again. */
export const asQuery = (asked: AskedReport, more: Readonly<Record<string, string>> = {}): string =>
  new URLSearchParams({ ...asked, ...more }).toString();
