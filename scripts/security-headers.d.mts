export function securityHeaders(options: {
  readonly nonce: string;
  readonly tls: boolean;
  readonly dev?: boolean;
}): Record<string, string>;
