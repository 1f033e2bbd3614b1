import type { Failure, Outcome } from '../../../contract/failure';

/** A failure on the way: whatever was written goes, and the sentence is told. */
export class Refused extends Error {
  constructor(readonly failure: Failure) {
    super(failure.message);
  }
}

/** The value of an outcome; where it failed, all stops. */
export function must<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Refused(outcome.failure);
  return outcome.value;
}
