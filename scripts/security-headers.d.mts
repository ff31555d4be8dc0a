export function securityHeaders(options: {
  readonly nonce: string;
  readonly tls: boolean;
  readonly dev?: boolean;
  readonly isApi?: boolean;
}): Record<string, string>;
