export function ensureBuild(): void;
export function freePort(wanted?: number, host?: string): Promise<number>;
export function hashFiles(entries: readonly string[]): string;
export function isAlive(pid: number): boolean;
