import type { Outcome } from '../../contract/failure';

/** The value of an outcome that the demo counts on. */
export function need<T>(outcome: Outcome<T>): T {
  if (!outcome.ok)
    throw new Error(`The demo data were refused: ${outcome.failure.message} (${outcome.failure.path})`);
  return outcome.value;
}
