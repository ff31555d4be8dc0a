export function dump(url: string, ...sinks: NodeJS.ReadWriteStream[] | NodeJS.WritableStream[]): Promise<string>;
export function fingerprintOf(file: string): Promise<string>;
export function load(url: string, what: { readonly sql?: string; readonly file?: string }): Promise<void>;
