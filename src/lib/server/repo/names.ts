/** A name without case, accents and doubled spaces: two names with the same key count as the same. */
export function nameKey(name: string): string {
  return name.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase().replace(/\s+/g, ' ').trim();
}

/** True for SQLite's refusal of a second row with the same unique key. */
export function isTaken(error: unknown): boolean {
  return error instanceof Error && (error as { code?: string }).code === 'SQLITE_CONSTRAINT_UNIQUE';
}

/** The cause that a Drizzle error wraps, or the error itself. */
export const causeOf = (error: unknown): unknown =>
  error instanceof Error && error.cause instanceof Error ? error.cause : error;
