export type PictureKind = 'image/jpeg' | 'image/png' | 'image/webp';

/** A photograph that a phone made small is far below it. */
export const LARGEST_PICTURE = 3 * 1024 * 1024;

/** What kind of picture its first bytes say it is; undefined for anything else. */
export function pictureKind(bytes: Uint8Array): PictureKind | undefined {
  const starts = (at: number, ...wanted: readonly number[]) =>
    wanted.every((byte, place) => bytes[at + place] === byte);
  if (starts(0, 0xff, 0xd8, 0xff)) return 'image/jpeg';
  if (starts(0, 0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'image/png';
  if (starts(0, 0x52, 0x49, 0x46, 0x46) && starts(8, 0x57, 0x45, 0x42, 0x50)) return 'image/webp';
  return undefined;
}
