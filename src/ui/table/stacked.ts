/** On a phone each row is laid out as a card (see "stacked"): said outright, it stays a table for whoever hears it. */
export const AS = {
  table: { role: 'table' },
  rowgroup: { role: 'rowgroup' },
  row: { role: 'row' },
  rowheader: { role: 'rowheader' },
  cell: { role: 'cell' },
} as const;
