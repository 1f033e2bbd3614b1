import type { RequestEvent } from '@sveltejs/kit';

/** What is no page shows nothing and is shown nowhere, should a browser open it as one. */
const BARE = "default-src 'none'; frame-ancestors 'none'; sandbox";
const HSTS_S = 31_536_000;

/**
 * The headers of every answer: a policy of what it may load (pages bring their own), no guessing of types, no address told to other
 * sites, no devices; over HTTPS also that it stays with HTTPS (RFC 6797).
 */
export function withHeaders({ url }: RequestEvent, response: Response): Response {
  const { headers } = response;
  const set = (name: string, value: string): void => {
    if (!headers.has(name)) headers.set(name, value);
  };
  set('content-security-policy', BARE);
  headers.set('x-content-type-options', 'nosniff');
  set('referrer-policy', 'same-origin');
  set('permissions-policy', 'camera=(), microphone=(), geolocation=(), payment=(), usb=()');
  set('cross-origin-opener-policy', 'same-origin');
  set('cross-origin-resource-policy', 'same-origin');
  if (url.protocol === 'https:') set('strict-transport-security', `max-age=${HSTS_S}`);
  return response;
}
