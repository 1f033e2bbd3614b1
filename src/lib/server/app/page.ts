import { error } from '@sveltejs/kit';
import { unreachable, type KindOfThing } from '../repo/access';
import { ROUTES, type RouteName } from '../../contract/routes';
import { notFor, SIGNED_OUT } from './people/asking';
import { FAILURE_STATUS, type Outcome } from '../../contract/failure';

/** Whether whoever looks may ask a route about something. */
export const mayReach = ({ db, person }: App.Locals, route: RouteName, id: string): boolean =>
  notFor(db, ROUTES[route], person, { id }) === null;

/** The error page where whoever looks must not see what an address of the API would answer. */
export function needReach({ db, person }: App.Locals, kind: KindOfThing, id: string): void {
  const fault = person === null ? SIGNED_OUT : unreachable(db, person, kind, id, false);
  if (fault) error(FAILURE_STATUS[fault.code], fault.message);
}

/** The value of an outcome, or the error page with its sentence. */
export function orError<T>(outcome: Outcome<T>): T {
  if (outcome.ok) return outcome.value;
  error(FAILURE_STATUS[outcome.failure.code], outcome.failure.message);
}
