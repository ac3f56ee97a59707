/** Checks Host and Origin, which keeps other sites' pages away from a local server. */

const LOCAL = new Set(['localhost', '127.0.0.1', '[::1]']);

function hostName(host: string): string {
  return host.replace(/:\d+$/, '').toLowerCase();
}

/**
 * Why a request is refused, or null if it is fine.
 *
 * @param allowed further host names, from MAYPOLE_HOSTS, separated by commas
 * @param secure whether it came over TLS: the same name without TLS is another origin (RFC 6454); undefined if unknown
 */
export function refusal(
  method: string,
  host: string | null,
  origin: string | null,
  allowed = '',
  secure?: boolean,
): string | null {
  const names = new Set([
    ...LOCAL,
    ...allowed
      .split(',')
      .map((h) => h.trim().toLowerCase())
      .filter(Boolean),
  ]);
  if (!host || !names.has(hostName(host)))
    return `Maypole does not answer to the name “${host ?? ''}”. Open it by the address it printed, or list the name in MAYPOLE_HOSTS.`;
  if (method === 'GET' || method === 'HEAD' || origin === null) return null;
  let from: URL | undefined;
  try {
    from = new URL(origin);
  } catch {
    from = undefined;
  }
  const scheme = secure === undefined ? from?.protocol : secure ? 'https:' : 'http:';
  return from?.host === host && from.protocol === scheme
    ? null
    : `A page from “${origin}” may not change anything here.`;
}

/** Content security policy of a page, with a fresh nonce. */
export function contentSecurityPolicy(nonce: string): string {
  return [
    `default-src 'self'`,
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'`,
    // The component library creates style elements at run time; they carry the nonce.
    `style-src 'self' 'nonce-${nonce}'`,
    // Computed positions and sizes are style attributes, which cannot carry one.
    `style-src-attr 'unsafe-inline'`,
    `img-src 'self' blob: data:`,
    `media-src 'self' blob:`,
    `font-src 'self'`,
    `connect-src 'self'`,
    `worker-src 'self' blob:`,
    `object-src 'none'`,
    `base-uri 'none'`,
    `form-action 'self'`,
    `frame-ancestors 'none'`,
  ].join('; ');
}

/** Headers of every answer; the first two isolate the page. */
export const SAFETY_HEADERS: Readonly<Record<string, string>> = {
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp',
  'Cross-Origin-Resource-Policy': 'same-origin',
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'no-referrer',
  'X-Frame-Options': 'DENY',
  'Permissions-Policy': 'camera=(), microphone=(), geolocation=(), payment=(), usb=()',
};
