import type { RunningGalera } from './galera.mjs';

export function startCluster(options: {
  readonly folder: string;
  readonly keys: string;
  readonly empty?: boolean;
  readonly port?: number;
  readonly quiet?: boolean;
}): Promise<{
  /** Where browsers reach it. */
  readonly address: string;
  readonly env: Readonly<Record<string, string>>;
  readonly galera: RunningGalera;
  readonly webs: readonly { readonly name: string; readonly port: number; pid(): number }[];
  readonly workers: readonly { readonly pid: number }[];
  stop(): Promise<void>;
}>;
