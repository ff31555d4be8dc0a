import { unzipSync } from 'fflate';
import { LARGEST_FILE } from '@/contracts/files';
import { FileRefused } from './text';

/** One file of an archive. */
export interface ArchivedFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** More files than anybody drops at once. */
const MOST_FILES = 100;
/** All of an archive unpacked, in bytes: small files that unpack to more than this are no recipes. */
const MOST_UNPACKED = 10 * LARGEST_FILE;

/** Whether bytes begin as a ZIP archive does. */
export const isZip = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 0x03 || bytes[2] === 0x05);

/**
 * The files of a ZIP archive, without folders and what a computer adds on its own; nothing is unpacked beyond what the
 * archive says of itself, and nothing at all when that is too much.
 *
 * @throws FileRefused for a broken or encrypted archive, or one that holds too much
 */
export function readZip(bytes: Uint8Array): ArchivedFile[] {
  let count = 0;
  let unpacked = 0;
  const tooMuch = () => {
    throw new FileRefused(
      `The archive unpacks to more than ${MOST_UNPACKED / 1024 / 1024} MB, or to more than ${MOST_FILES} files. Pack the recipes alone.`,
    );
  };
  const wanted = (name: string, size: number) => {
    if (name.endsWith('/') || /(?:^|\/)(?:__MACOSX\/|\.|Thumbs\.db$)/.test(name)) return false;
    count += 1;
    unpacked += size;
    if (count > MOST_FILES || unpacked > MOST_UNPACKED) tooMuch();
    return true;
  };
  try {
    const files = unzipSync(bytes, { filter: ({ name, originalSize }) => wanted(name, originalSize) });
    return Object.entries(files)
      .map(([name, content]) => ({ name, bytes: content }))
      .sort((a, b) => (a.name < b.name ? -1 : 1));
  } catch (error) {
    if (error instanceof FileRefused) throw error;
    throw new FileRefused('This archive is broken or has a password. Pack the recipes again as a plain .zip.');
  }
}
