import { error } from '@sveltejs/kit';
import { FAILURE_STATUS, type Outcome } from '../../contract/failure';

/** The value of an outcome, or the error page with its sentence. */
export function orError<T>(outcome: Outcome<T>): T {
  if (outcome.ok) return outcome.value;
  error(FAILURE_STATUS[outcome.failure.code], outcome.failure.message);
}
