import { type Door, readPoint } from '@/core/handout/doors/door';
import { minutesOf, timeOf } from '@/core/plan/civil';
import { readTime } from '@/core/plan/manner';
import { writeCsv } from '../csv';
import { readTable, type TableFile } from '../table-csv';

/** One door of a file; what is left empty changes nothing. */
export interface DoorLine {
  /** As the file counts, the headings are line 1. */
  readonly line: number;
  /** The household, as the roll names it. */
  readonly name: string;
  readonly address: string;
  readonly door: Door;
}

export const DOOR_HEADINGS = ['name', 'address', 'point', 'from', 'to', 'note'] as const;
const MOST_LINES = 2000;

function lineOf(cell: (name: string) => string, line: number): DoorLine | string {
  const name = cell('name');
  if (!name) return 'Write the family’s name.';
  // A file of a map program has two columns for what is one point here.
  const both = [cell('latitude') || cell('lat'), cell('longitude') || cell('lon')];
  const written = cell('point') || (both.every(Boolean) ? both.join(', ') : '');
  const at = written ? readPoint(written) : undefined;
  if (written && !at) return `“${written}” is no point: write it as 44.1032, -68.3341, the latitude first.`;
  const [from, to] = [cell('from'), cell('to')];
  const [begins, ends] = [readTime(from), readTime(to)];
  if ((from && begins === undefined) || (to && ends === undefined)) return 'Write times as 16:30.';
  if ((begins === undefined) !== (ends === undefined)) return 'Write both times, or neither.';
  if (begins !== undefined && ends !== undefined && begins >= ends) return 'It ends before it begins.';
  const note = cell('note');
  return {
    line,
    name,
    address: cell('address'),
    door: {
      ...(at ? { at } : {}),
      ...(begins === undefined || ends === undefined ? {} : { from: minutesOf(begins), to: minutesOf(ends) }),
      ...(note ? { note } : {}),
    },
  };
}

/** Reads a file of doors: a heading row in any order, with a column "point", or "latitude" and "longitude". */
export const readDoors = (bytes: Uint8Array): TableFile<DoorLine> =>
  readTable(bytes, { needed: ['name'], most: MOST_LINES, like: 'the doors' }, lineOf);

/** Doors as CSV, as they are read. */
export const writeDoors = (
  doors: readonly { readonly name: string; readonly address: string; readonly door: Door }[],
): string =>
  writeCsv([
    [...DOOR_HEADINGS],
    ...doors.map(({ name, address, door: { at, from, to, note = '' } }) => [
      name,
      address,
      at ? at.join(', ') : '',
      from === undefined ? '' : timeOf(from),
      to === undefined ? '' : timeOf(to),
      note,
    ]),
  ]);
