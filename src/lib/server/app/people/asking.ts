import type { RequestEvent } from '@sveltejs/kit';
import Bowser from 'bowser';
import { fail, type Failure } from '../../../contract/failure';
import { mayAs, type PersonData } from '../../../contract/people';
import { type RouteSpec } from '../../../contract/routes';
import type { Db } from '../../db/open';
import { kindAt, unreachable } from '../../repo/access';
import { getPerson, onlyPerson, studioState } from '../../repo/people';
import { beginSession, sessionPerson } from '../../repo/sessions';
import { sessionKey, setSessionCookie } from './cookie';
import { keyOf, newToken } from '../../repo/tokens';

/** Who asks: the person that the cookie stands for, or the only one of a studio that is not opened. */
export function whoAsks(db: Db, event: RequestEvent): PersonData | null {
  if (!studioState(db).opened) return getPerson(db, onlyPerson(db));
  const key = sessionKey(event);
  const id = key === null ? null : sessionPerson(db, key);
  return id === null ? null : getPerson(db, id);
}

export const SIGNED_OUT = fail(
  'signed_out',
  'Sign in first. What is not saved yet is kept here meanwhile.',
).failure;

/** Why a route is not answered to somebody, or `null`: the one place where roles are checked. */
export function notFor(
  db: Db,
  route: RouteSpec,
  person: PersonData | null,
  params: Record<string, string>,
): Failure | null {
  if (route.role === 'anyone') return null;
  if (person === null) return route.openable && studioState(db).openPatterns ? null : SIGNED_OUT;
  if (!mayAs(person.role, route.role))
    return fail(
      'forbidden',
      `As a ${person.role} you may not do this; it takes ${route.role === 'owner' ? 'an owner' : `a ${route.role}`}. Ask an owner of the studio.`,
    ).failure;
  const subject = params.id;
  if (subject === undefined || !/\{id\}/.test(route.path)) return null;
  const kind = kindAt(route.path);
  return kind && unreachable(db, person, kind, subject, route.role !== 'viewer');
}

/** Begins a session of a person on the device that asks, and gives it its cookie. */
export function signInAs(db: Db, event: RequestEvent, personId: string): void {
  const token = newToken();
  const endsAt = beginSession(db, keyOf(token), personId, deviceOf(event));
  setSessionCookie(event, token, endsAt);
}

/** What a browser says it is, in words: “Firefox on Linux”. */
function deviceOf({ request }: RequestEvent): string {
  const said = (request.headers.get('user-agent') ?? '').slice(0, 500);
  if (said === '') return 'A program';
  const { browser, os } = Bowser.parse(said);
  return `${browser.name ?? 'A program'}${os.name ? ` on ${os.name}` : ''}`.slice(0, 80);
}
