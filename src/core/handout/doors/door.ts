/** A point on the ground, in degrees: north and east are above 0. */
export type Point = readonly [latitude: number, longitude: number];

/** Where a family's door is, and when somebody is there. What is left out is not known. */
export interface Door {
  readonly at?: Point;
  /** Minutes of the day between which somebody is there; both or neither. */
  readonly from?: number;
  readonly to?: number;
  /** What the driver is told: "blue gate, second bell". */
  readonly note?: string;
}

const NUMBER = String.raw`(\d{1,3}(?:[.,]\d+)?)`;
const PART = new RegExp(
  String.raw`^([-−+])?\s*([NSEW])?\s*([-−+])?\s*${NUMBER}\s*°?\s*(?:${NUMBER}\s*['′’]\s*)?(?:${NUMBER}\s*["″”]\s*)?([NSEW])?$`,
  'i',
);

/** Degrees of one half of a point, and which it is where a letter says so. */
function partOf(text: string): { degrees: number; axis: 'lat' | 'lon' | undefined } | undefined {
  const found = PART.exec(text.trim());
  if (!found) return undefined;
  const [, before, first, after, degrees = '', minutes = '0', seconds = '0', last] = found;
  const number = (said: string) => Number(said.replace(',', '.'));
  if (number(minutes) >= 60 || number(seconds) >= 60 || (first && last)) return undefined;
  const letter = (first ?? last ?? '').toUpperCase();
  const isBelow = /[-−]/.test(`${before ?? ''}${after ?? ''}`);
  if (isBelow && letter) return undefined;
  const size = number(degrees) + number(minutes) / 60 + number(seconds) / 3600;
  const axis = /[NS]/.test(letter) ? 'lat' : letter ? 'lon' : undefined;
  return { degrees: isBelow || /[SW]/.test(letter) ? -size : size, axis };
}

/**
 * A point as people type and paste it: decimal degrees, degrees with minutes and seconds, letters before or behind, or the address
 * that a phone shares (RFC 5870). The latitude comes first where no letter says otherwise.
 *
 * @returns undefined where it is no point on the ground
 * @example readPoint('44.1032, -68.3341') //=> [44.1032, -68.3341]
 * @example readPoint('68°20′24″W 44°06′36″N') //=> [44.11, -68.34]
 */
export function readPoint(text: string): Point | undefined {
  const said = text
    .trim()
    .replace(/^geo:/i, '')
    .replace(/[;?].*$/, '')
    .replace(/^\((.*)\)$/, '$1');
  const halves =
    said.match(/^(.+?[NSEW])\s*[,/ ]\s*(.+)$/i) ??
    said.match(/^(.+?)\s*(?:,\s+|\/|\s+(?=[-−+NSEW\d]))(.+)$/i) ??
    said.match(/^([^,]+),([^,]+)$/);
  const [one, two] = [partOf(halves?.[1]?.replace(/,$/, '') ?? ''), partOf(halves?.[2] ?? '')];
  if (!one || !two || (one.axis && one.axis === two.axis)) return undefined;
  const [latitude, longitude] = one.axis === 'lon' || two.axis === 'lat' ? [two, one] : [one, two];
  if (Math.abs(latitude.degrees) > 90 || Math.abs(longitude.degrees) > 180) return undefined;
  const exact = (degrees: number) => Math.round(degrees * 1e6) / 1e6;
  return [exact(latitude.degrees), exact(longitude.degrees)];
}
