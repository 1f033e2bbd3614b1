import type Database from 'better-sqlite3';

/** Statements that are kept prepared. */
const MOST_KEPT = 400;
/** Longer ones list values, and are never asked for again. */
const LONGEST = 5000;

/**
 * Prepares statements of a database, each once, and keeps the latest few hundred: preparing takes longer than most queries do,
 * and the memory of a statement is only given back with the next collection of garbage.
 */
export function preparer(client: Database.Database): (sql: string) => Database.Statement {
  const kept = new Map<string, Database.Statement>();
  return (sql) => {
    const statement = kept.get(sql) ?? client.prepare(sql);
    if (sql.length > LONGEST) return statement;
    kept.delete(sql);
    kept.set(sql, statement);
    const [oldest] = kept.keys();
    if (kept.size > MOST_KEPT && oldest !== undefined) kept.delete(oldest);
    return statement;
  };
}

/**
 * A client for drizzle, which prepares a statement for every query. Nobody else may use it: a statement that was told how
 * to give its rows stays told.
 */
export const preparingOnce = (client: Database.Database): Database.Database =>
  Object.assign(Object.create(client) as Database.Database, { prepare: preparer(client) });
