interface Named {
  readonly name: string;
  readonly port: number;
}
export function frontSettings(settings: {
  readonly host: string;
  readonly port: number;
  readonly pem: string;
  readonly webs: readonly Named[];
}): string;
export function databaseSettings(settings: {
  readonly port: number;
  readonly peers: readonly Named[];
  readonly nodes: readonly (Named & { readonly health: number })[];
}): string;
