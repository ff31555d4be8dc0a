interface Files {
  readonly cert: string;
  readonly key: string;
}
export function certificateFor(host: string, own?: Partial<Files>, data?: string): Files & { fingerprint: string };
