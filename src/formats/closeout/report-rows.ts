import type { Figure } from '@/core/closeout/report/report';

/** A report as it is given to somebody: the figures in their words, and the sessions they are worked out from. */
export interface ReportOut {
  readonly programme: string;
  /** "Fathom Suppers", or what is reported. */
  readonly title: string;
  /** "1 Sep 2026 to 18 Dec 2026" */
  readonly span: string;
  /** What stands above the figures; '' for nothing. */
  readonly intro: string;
  readonly figures: readonly (Figure & { readonly said: string })[];
  readonly sessions: readonly {
    readonly id: string;
    readonly date: string;
    readonly course: string;
    readonly title: string;
  }[];
  readonly bars: readonly { readonly label: string; readonly value: number }[];
  readonly saysBars: string;
  /** What somebody else counts money in; '' for the programme's own. */
  readonly currency: string;
  readonly logo?: { readonly kind: 'image/png' | 'image/jpeg'; readonly bytes: Uint8Array };
}

/** What stands under every report that leaves the house. */
export const UNDER = 'No child and no need is named. Numbers that could tell of one child are not shown.';

/** Figures that are sums of sessions, or shares of two such sums: the columns of a table of sessions. */
export const columnsOf = ({ figures }: Pick<ReportOut, 'figures'>) =>
  figures.filter(({ parts, key }) => parts !== undefined && key !== 'sessions' && !key.startsWith('group '));

/** A value in the unit that a table has it in: hours, money in major units, kilograms. */
export const inTable = (value: number, unit: Figure['unit']): number =>
  unit === 'hours' ? value / 60 : unit === 'money' ? value / 100 : unit === 'kilograms' ? value / 1000 : value;
