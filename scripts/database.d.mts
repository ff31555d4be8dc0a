export interface RunningDatabase {
  readonly port: number;
  readonly pidFile: string;
  readonly sessionSecret: string;
  readonly urls: Readonly<Record<string, string>>;
  stop(): Promise<void>;
}

export function startDatabase(options: {
  readonly folder: string;
  readonly keys: string;
  readonly databases: readonly string[];
  readonly durable?: boolean;
  readonly quiet?: boolean;
}): Promise<RunningDatabase>;
