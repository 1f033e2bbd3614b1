import type { RequestEvent } from '@sveltejs/kit';
import { keyOf } from '../../repo/tokens';

/**
 * The cookie of a session (RFC 6265bis): scripts do not read it, other sites do not send it, and over HTTPS it is bound to this host
 * by its prefix.
 */
const nameOf = (event: RequestEvent): string => (isSecure(event) ? '__Host-isle' : 'isle');

const isSecure = (event: RequestEvent): boolean => event.url.protocol === 'https:';

export function setSessionCookie(event: RequestEvent, token: string, endsAt: number): void {
  event.cookies.set(nameOf(event), token, {
    ...{ path: '/', httpOnly: true, sameSite: 'lax', secure: isSecure(event) },
    maxAge: Math.max(0, Math.floor((endsAt - Date.now()) / 1000)),
  });
}

export function dropSessionCookie(event: RequestEvent): void {
  event.cookies.delete(nameOf(event), {
    path: '/',
    httpOnly: true,
    sameSite: 'lax',
    secure: isSecure(event),
  });
}

/** The key of the session that a request names, or `null`. */
export function sessionKey(event: RequestEvent): string | null {
  const token = event.cookies.get(nameOf(event));
  return token !== undefined && /^[\w-]{43}$/.test(token) ? keyOf(token) : null;
}
