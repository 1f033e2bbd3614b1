import type Database from 'better-sqlite3';
import { getTableColumns, getTableName, type InferInsertModel } from 'drizzle-orm';
import type { SQLiteTable } from 'drizzle-orm/sqlite-core';
import type { Db } from '../db/open';
import { preparer } from '../db/preparing';

/** A row as SQLite keeps it: the values of all columns, in the table's order. */
type RawRow = unknown[];

/**
 * Writes rows of a table whose key is `id`, with statements that are prepared once for each database. A row is written
 * only where it differs from what is there. For the few places where thousands of rows are written in one transaction.
 */
export class RowWriter<T extends SQLiteTable> {
  private readonly columns;
  private readonly names: string[];
  private readonly sql;

  constructor(table: T) {
    this.columns = Object.entries(getTableColumns(table));
    this.names = this.columns.map(([, column]) => column.name);
    const of = `"${getTableName(table)}"`;
    const list = this.names.map((name) => `"${name}"`).join(', ');
    const changes = this.names
      .filter((name) => name !== 'id')
      .map((name) => `"${name}" = excluded."${name}"`);
    this.sql = {
      get: `SELECT ${list} FROM ${of} WHERE "id" = ?`,
      put: `INSERT INTO ${of} (${list}) VALUES (${this.names.map(() => '?').join(', ')}) ON CONFLICT("id") DO UPDATE SET ${changes.join(', ')}`,
      remove: `DELETE FROM ${of} WHERE "id" = ?`,
    };
  }

  /** The row under an id, or `null`. */
  get(db: Db, id: string): RawRow | null {
    return (statement(db, this.sql.get).raw().get(id) as RawRow | undefined) ?? null;
  }

  /** One column of a row. */
  value(row: RawRow, column: keyof InferInsertModel<T> & string): unknown {
    return row[this.columns.findIndex(([key]) => key === column)];
  }

  /** Writes a row, unless `held`, the one under its id, is the same; true where it was written. */
  put(db: Db, values: InferInsertModel<T>, held: RawRow | null): boolean {
    const row = this.columns.map(([key, column], index) => {
      const value = (values as Record<string, unknown>)[key];
      if (value !== undefined) return value === null ? null : column.mapToDriverValue(value);
      if (held) return held[index];
      return column.default === undefined ? null : column.mapToDriverValue(column.default);
    });
    if (held && row.every((value, index) => value === held[index])) return false;
    statement(db, this.sql.put).run(...row);
    return true;
  }

  remove(db: Db, id: string): void {
    statement(db, this.sql.remove).run(id);
  }
}

/** A query that is built and prepared once for each database. */
export function once<T>(build: (db: Db) => T): (db: Db) => T {
  const held = new WeakMap<Database.Database, T>();
  return (db) => {
    const found = held.get(db.$client) ?? build(db);
    held.set(db.$client, found);
    return found;
  };
}

const preparers = once((db) => preparer(db.$client));

/** A statement of a database, prepared when it is first asked for. Its modes (`pluck`, `raw`) stay with its text. */
export const statement = (db: Db, sql: string): Database.Statement => preparers(db)(sql);
