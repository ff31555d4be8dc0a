import { LARGEST_FILE } from '@/contracts/files';

/** A file that cannot be used: what is wrong with it, and what to do. */
export class FileRefused extends Error {
  override name = 'FileRefused';
}

export interface DecodedText {
  readonly text: string;
  /** As shown to the coordinator: "UTF-8", "Windows-1252". */
  readonly encoding: string;
}

/**
 * Turns a file's bytes into text: UTF-8 with or without a byte order mark, UTF-16 with one, else Windows-1252; one broken letter does not
 * turn all others.
 *
 * @throws FileRefused for an empty, oversized or binary file
 */
export function decodeText(bytes: Uint8Array): DecodedText {
  if (bytes.length === 0)
    throw new FileRefused('The file is empty. Choose a file with a header row and at least one row.');
  if (bytes.length > LARGEST_FILE) {
    throw new FileRefused(
      `The file is larger than ${LARGEST_FILE / 1024 / 1024} MB. Save only the sheet with the roll, as CSV, and choose that.`,
    );
  }
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return { text: decode('utf-16le', bytes), encoding: 'UTF-16' };
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return { text: decode('utf-16be', bytes), encoding: 'UTF-16' };
  if (looksBinary(bytes)) {
    throw new FileRefused(
      'This is not a text file. If it comes from a spreadsheet program, save the sheet as CSV and choose that.',
    );
  }
  try {
    return { text: decode('utf-8', bytes, true), encoding: 'UTF-8' };
  } catch {
    return isMostlyUtf8(bytes)
      ? { text: decodeMixed(bytes), encoding: 'UTF-8, with letters of another encoding in it' }
      : { text: decodeWindows1252(bytes), encoding: 'Windows-1252' };
  }
}

/** Letters of two to four bytes (RFC 3629); whatever else has its top bit set is none. */
const UTF8_LETTER =
  /[\xc2-\xdf][\x80-\xbf]|\xe0[\xa0-\xbf][\x80-\xbf]|[\xe1-\xec\xee\xef][\x80-\xbf]{2}|\xed[\x80-\x9f][\x80-\xbf]|\xf0[\x90-\xbf][\x80-\xbf]{2}|[\xf1-\xf3][\x80-\xbf]{3}|\xf4[\x80-\x8f][\x80-\xbf]{2}/g;

const latin1 = (bytes: Uint8Array) => Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('latin1');

/** Lines of two files were put together, or one letter was broken: most of it is UTF-8 all the same. */
function isMostlyUtf8(bytes: Uint8Array): boolean {
  const text = latin1(bytes);
  const whole = text.match(UTF8_LETTER)?.length ?? 0;
  const broken = text.replace(UTF8_LETTER, '').match(/[\x80-\xff]/g)?.length ?? 0;
  return whole >= broken;
}

/** UTF-8 where it is, Windows-1252 letter by letter where it is not. */
const decodeMixed = (bytes: Uint8Array): string =>
  latin1(bytes).replace(new RegExp(`${UTF8_LETTER.source}|[\\x80-\\x9f]`, 'g'), (found) =>
    found.length > 1
      ? Buffer.from(found, 'latin1').toString('utf8')
      : (FROM_0X80[found.charCodeAt(0) - 0x80] as string),
  );

/** Decoders drop the byte order mark themselves. */
const decode = (encoding: string, bytes: Uint8Array, fatal = false) =>
  new TextDecoder(encoding, { fatal }).decode(bytes);

/**
 * What Windows-1252 has from 0x80 to 0x9F; the rest is Latin-1. Written out since Node.js 20's own decoder of that name
 * reads these as control characters. Source: the WHATWG encoding standard, index windows-1252.
 */
const FROM_0X80 = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';

function decodeWindows1252(bytes: Uint8Array): string {
  return latin1(bytes).replace(/[\x80-\x9f]/g, (letter) => FROM_0X80[letter.charCodeAt(0) - 0x80] as string);
}

/** Text holds no NUL and hardly any control characters. */
function looksBinary(bytes: Uint8Array): boolean {
  const sample = bytes.subarray(0, 65_536);
  let odd = 0;
  for (const byte of sample) {
    if (byte === 0) return true;
    if (byte < 32 && byte !== 9 && byte !== 10 && byte !== 13) odd++;
  }
  return odd > sample.length / 100;
}
