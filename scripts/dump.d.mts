export function dump(url: string, ...sinks: NodeJS.ReadWriteStream[] | NodeJS.WritableStream[]): Promise<string>;
export function dumpTo(url: string, file: string, keys?: string): Promise<string>;
export function fingerprintOf(file: string, keys?: string): Promise<string>;
export function load(url: string, what: { readonly sql?: string; readonly file?: string; readonly keys?: string }): Promise<void>;
