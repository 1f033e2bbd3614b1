import type { RequestEvent } from '@sveltejs/kit';
import { fail, type Failure } from '../../contract/failure';

/** Names that always mean this machine. */
const LOOPBACK = /^(localhost|127(\.\d{1,3}){3}|\[::1\])$/i;
/** Addresses that listen everywhere and name nothing. */
const ANYWHERE = new Set(['0.0.0.0', '::', '[::]', '']);

/**
 * Refuses requests that name another host than this one: a foreign page can point a name of its own at this address
 * and would then count as Isle itself (DNS rebinding). Known are loopback names, `HOST`, and the hosts of `ORIGIN`.
 */
export function foreignHost(request: Request, environment: NodeJS.ProcessEnv): Failure | null {
  const stated = request.headers.get('host') ?? '';
  const name = stated.replace(/:\d+$/, '').toLowerCase();
  if (LOOPBACK.test(name) || knownHosts(environment).has(name)) return null;
  return fail(
    'forbidden',
    `Isle does not answer to the name “${tidy(name)}”. Open it by the address it printed, or set ORIGIN to the one it is opened by.`,
  ).failure;
}

/** True where other machines may reach Isle: it listens beyond the loopback address, or is opened by another name. */
export function isBeyondThisMachine(environment: NodeJS.ProcessEnv): boolean {
  const origin = originOf(environment.ORIGIN)?.hostname ?? 'localhost';
  return (
    !LOOPBACK.test(origin) || !LOOPBACK.test((environment.HOST ?? '127.0.0.1').replace(/^::1$/, '[::1]'))
  );
}

function knownHosts(environment: NodeJS.ProcessEnv): Set<string> {
  const hosts = new Set<string>();
  const host = (environment.HOST ?? '').toLowerCase();
  if (!ANYWHERE.has(host)) hosts.add(host);
  const origin = originOf(environment.ORIGIN);
  if (origin) hosts.add(origin.hostname.toLowerCase());
  return hosts;
}

function originOf(text: string | undefined): URL | null {
  try {
    return new URL(text ?? '');
  } catch {
    return null;
  }
}

const tidy = (name: string): string => name.replace(/[^\w.:[\]-]/g, '?').slice(0, 80);

/** Another site's page must not change anything here through the visitor's browser. */
export function foreignOrigin(event: RequestEvent): Failure | null {
  if (event.request.method === 'GET' || event.request.method === 'HEAD') return null;
  const origin = event.request.headers.get('origin');
  const host = event.request.headers.get('host');
  const own = originOf(process.env.ORIGIN)?.origin;
  if (origin === null || origin === `http://${host}` || origin === `https://${host}` || origin === own)
    return null;
  return fail('forbidden', `Changes from another site (${origin}) are not taken.`).failure;
}
