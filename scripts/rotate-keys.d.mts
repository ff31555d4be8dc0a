export function rotateKeys(options: {
  readonly folder: string;
  readonly keys: string;
  readonly databases?: readonly string[];
}): Promise<number>;
