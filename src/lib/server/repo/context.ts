import { sql, type AnyColumn, type SQL } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import { fail, type Failure, type Outcome } from '../../contract/failure';
import type { Db } from '../db/open';
import { causeOf, isTaken } from './names';
import { once, statement } from './rows';

/** True for rows whose column holds one of `values`: any number of them, where SQLite binds only so many variables. */
export const among = (column: AnyColumn, values: readonly string[]): SQL =>
  sql`${column} IN (SELECT value FROM json_each(${JSON.stringify(values)}))`;

/** A new opaque id. */
export const newId = (): string => nanoid(12);

/** Notes what happened and who did it, in the same transaction as the change itself. */
export function note(db: Db, kind: string, subjectId: string, data: unknown = {}): void {
  statement(
    db,
    'INSERT INTO event (studio_id, kind, subject_id, data, created_at, person_id) VALUES (?, ?, ?, ?, ?, ?)',
  ).run(db.studio, kind, subjectId, JSON.stringify(data), Date.now(), db.person);
}

/** The failure for a save that started from an older state; `current` is what is stored now. */
export function stale(
  what: string,
  base: number,
  now: number,
  current: unknown,
): { ok: false; failure: Failure } {
  return fail(
    'stale',
    `${what} was changed elsewhere: it is at version ${now} and this save started from ${base}. Your work is kept here; choose which to keep.`,
    'base',
    { current },
  );
}

/** Begins, and commits or rolls back; one within another is a savepoint. */
const transaction = once((db) => db.$client.transaction((work: () => unknown) => work()).immediate);

/** Runs a write in one transaction, undone where it ends in a failure; a name that is taken becomes one, with a sentence. */
export function writing<T>(
  db: Db,
  named: { what: string; name: string },
  work: (tx: Db) => Outcome<T>,
): Outcome<T> {
  try {
    const run = transaction(db)(() => {
      const outcome = work(db);
      if (!outcome.ok) throw new Refused(outcome.failure);
      return outcome;
    });
    return run as Outcome<T>;
  } catch (error) {
    if (error instanceof Refused) return { ok: false, failure: error.failure };
    if (isTaken(causeOf(error)))
      return fail(
        'name_taken',
        `There is a ${named.what} named “${named.name}” already (archived ones count); choose another name.`,
        'name',
      );
    if (causeCode(error) === 'SQLITE_CONSTRAINT_FOREIGNKEY')
      return fail(
        'invalid',
        'Something that this refers to is not there any more; open it anew and try again.',
      );
    throw error;
  }
}

const causeCode = (error: unknown): unknown => (causeOf(error) as { code?: unknown } | undefined)?.code;

/** Carries a failure out of a transaction, so that the transaction is rolled back. */
class Refused extends Error {
  constructor(readonly failure: Failure) {
    super(failure.message);
  }
}
