import type { Problem } from '../core/recipe/problem';

/** Every way in which a request can fail on purpose, and its HTTP status. */
export const FAILURE_STATUS = {
  invalid: 400,
  unreadable: 400,
  signed_out: 401,
  forbidden: 403,
  not_found: 404,
  protected: 403,
  wrong_method: 405,
  name_taken: 409,
  in_use: 409,
  last_owner: 409,
  stale: 409,
  too_large: 413,
  wrong_type: 415,
  unsupported: 422,
  too_heavy: 422,
  too_many: 429,
  cancelled: 499,
  internal: 500,
  busy: 503,
  stopping: 503,
  no_space: 507,
} as const;

export type FailureCode = keyof typeof FAILURE_STATUS;

/**
 * An expected failure: its code, one sentence, the field it is about ("" for the whole request), and all problems
 * where there are several. A stale save also carries the present state.
 */
export type Failure = {
  code: FailureCode;
  message: string;
  path: string;
  problems?: Problem[];
  /** After how many seconds to try again. */
  wait?: number;
  current?: unknown;
};

export type Outcome<T> = { ok: true; value: T } | { ok: false; failure: Failure };

export const done = <T>(value: T): Outcome<T> => ({ ok: true, value });

/** A failed outcome. */
export function fail(
  code: FailureCode,
  message: string,
  path = '',
  more: Partial<Failure> = {},
): { ok: false; failure: Failure } {
  return { ok: false, failure: { code, message, path, ...more } };
}

/** A failed outcome from problems; the first one is the headline. */
export function failWith(problems: readonly Problem[]): { ok: false; failure: Failure } {
  const [first] = problems;
  return fail('invalid', first?.message ?? 'The request cannot be read.', first?.path ?? '', {
    problems: [...problems],
  });
}
