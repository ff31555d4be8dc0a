export interface GaleraNode {
  readonly name: string;
  readonly port: number;
  /** Where it is to be told whether the node is level. */
  readonly health: number;
  readonly folder: string;
  /** Changes when the node is started again. */
  readonly pid: number;
  url(database: string): string;
  /** Waits until it is level with the others. */
  untilLevel(): Promise<void>;
  restart(): Promise<void>;
}

export interface RunningGalera {
  readonly nodes: readonly GaleraNode[];
  stop(): Promise<void>;
}

export function startGalera(options: {
  readonly folder: string;
  readonly keys: string;
  readonly databases: readonly string[];
  readonly quiet?: boolean;
}): Promise<RunningGalera>;
