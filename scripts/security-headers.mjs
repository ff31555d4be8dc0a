// What every answer of the web server says to the browser about what it may do.

/**
 * Security headers of one answer, in lower case.
 *
 * @param nonce made anew for each answer: only scripts that carry it run
 * @param tls whether the answer goes out over TLS
 * @param isApi an answer to a program: it is kept nowhere, and shown by no browser as a page
 * @param dev while developing, modules are reloaded by eval and over a web socket
 */
export function securityHeaders({ nonce, tls, dev = false, isApi = false }) {
  const policy = {
    'default-src': "'self'",
    'script-src': `'self' 'nonce-${nonce}' 'strict-dynamic'${dev ? " 'unsafe-eval'" : ''}`,
    'worker-src': "'self'",
    // Libraries set style attributes; a style cannot run anything.
    'style-src': "'self' 'unsafe-inline'",
    'img-src': "'self' data: blob:",
    'connect-src': dev ? "'self' ws: wss:" : "'self'",
    'object-src': "'none'",
    'base-uri': "'none'",
    'form-action': "'self'",
    'frame-ancestors': "'none'",
    ...(tls ? { 'upgrade-insecure-requests': '' } : {}),
  };
  return {
    'content-security-policy': Object.entries(policy)
      .map(([name, value]) => `${name} ${value}`.trim())
      .join('; '),
    'x-content-type-options': 'nosniff',
    'x-frame-options': 'DENY',
    // Not "no-referrer": forms sent without script would then come without an origin, and be refused.
    'referrer-policy': 'same-origin',
    'cross-origin-opener-policy': 'same-origin',
    'cross-origin-resource-policy': 'same-origin',
    // Once reached over TLS, never again without: a year, as OWASP ASVS 14.4.5 asks.
    ...(tls ? { 'strict-transport-security': 'max-age=31536000; includeSubDomains' } : {}),
    ...(isApi ? { 'cache-control': 'no-store', 'content-disposition': 'attachment; filename="api.json"' } : {}),
    'permissions-policy': 'camera=(), microphone=(), geolocation=(), payment=(), usb=()',
  };
}
