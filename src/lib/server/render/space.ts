import { fail, type Failure } from '../../contract/failure';

/** Errors that say that there is no room left, or that a folder may not be written to. */
const FULL = new Set(['ENOSPC', 'EDQUOT', 'SQLITE_FULL']);
const SHUT = new Set([
  'EROFS',
  'EACCES',
  'EPERM',
  'ENOENT',
  'SQLITE_READONLY',
  'SQLITE_READONLY_DBMOVED',
  'SQLITE_CANTOPEN',
  'SQLITE_IOERR_WRITE',
  'SQLITE_IOERR_FSYNC',
  'SQLITE_IOERR_TRUNCATE',
]);

/** The failure for an error of writing; `null` for any other error. `what` was not written. */
export function spaceFailure(error: unknown, what: string): { ok: false; failure: Failure } | null {
  const code = codeOf(error);
  if (FULL.has(code))
    return fail(
      'no_space',
      `${what} was not written: the disk that Isle keeps its data on is full. Make room and try again; what was saved before is safe.`,
    );
  if (SHUT.has(code))
    return fail(
      'no_space',
      `${what} was not written: Isle’s data folder cannot be written to (${code}). Give Isle the right to write there and try again; what was saved before is safe.`,
    );
  return null;
}

/** The code of an error of the system or of SQLite, through what wraps it. */
function codeOf(error: unknown): string {
  for (let at: unknown = error, depth = 0; at instanceof Error && depth < 5; at = at.cause, depth += 1) {
    const { code } = at as { code?: unknown };
    if (typeof code === 'string') return code;
  }
  return '';
}
