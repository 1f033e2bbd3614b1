import type Database from 'better-sqlite3';
import {
  Column,
  getTableColumns,
  getTableName,
  type InferInsertModel,
  type InferSelectModel,
} from 'drizzle-orm';
import type { SQLiteTable } from 'drizzle-orm/sqlite-core';
import type { Db } from '../db/open';
import { preparer } from '../db/preparing';

/** A row as SQLite keeps it: the values of all columns, in the table's order. */
type RawRow = unknown[];

type Translated = (value: unknown) => unknown;

/** A column: its key in drizzle, its name, and how values that SQLite keeps otherwise (such as yes and no) go in and come out. */
type Kept = { key: string; name: string; into: Translated | null; out: Translated | null; default: unknown };

function keptColumn(key: string, column: Column): Kept {
  const plain = Column.prototype;
  const into = (value: unknown): unknown => column.mapToDriverValue(value);
  return {
    ...{ key, name: column.name },
    into: column.mapToDriverValue === plain.mapToDriverValue ? null : into,
    out:
      column.mapFromDriverValue === plain.mapFromDriverValue
        ? null
        : (value) => column.mapFromDriverValue(value),
    default: column.default === undefined ? null : into(column.default),
  };
}

/**
 * Reads and writes rows of a table whose key is `id`, with statements that are prepared once for each database. Of a row that is
 * there, only the columns that differ are written. For what every save does, and where thousands of rows are written.
 */
export class Rows<T extends SQLiteTable> {
  private readonly columns: readonly Kept[];
  private readonly id: number;
  private readonly sql;

  constructor(table: T) {
    this.columns = Object.entries(getTableColumns(table)).map(([key, column]) => keptColumn(key, column));
    this.id = this.columns.findIndex(({ name }) => name === 'id');
    const of = `"${getTableName(table)}"`;
    const list = this.columns.map(({ name }) => `"${name}"`).join(', ');
    const changes = this.columns
      .filter(({ name }) => name !== 'id')
      .map(({ name }) => `"${name}" = excluded."${name}"`);
    this.sql = {
      get: `SELECT ${list} FROM ${of} WHERE "id" = ?`,
      select: `SELECT ${list} FROM ${of} WHERE `,
      put: `INSERT INTO ${of} (${list}) VALUES (${this.columns.map(() => '?').join(', ')}) ON CONFLICT("id") DO UPDATE SET ${changes.join(', ')}`,
      change: (names: readonly string[]) =>
        `UPDATE ${of} SET ${names.map((name) => `"${name}" = ?`).join(', ')} WHERE "id" = ?`,
      remove: `DELETE FROM ${of} WHERE "id" = ?`,
    };
  }

  /** The row under an id, or `null`. */
  get(db: Db, id: string): RawRow | null {
    return (statement(db, this.sql.get).raw().get(id) as RawRow | undefined) ?? null;
  }

  /** The rows for which a condition holds, as drizzle would give them. */
  where(db: Db, condition: string, ...values: unknown[]): InferSelectModel<T>[] {
    const rows = statement(db, this.sql.select + condition)
      .raw()
      .all(...values) as RawRow[];
    return rows.map((row) => {
      const read: Record<string, unknown> = {};
      for (let at = 0; at < row.length; at += 1) {
        const { key, out } = this.columns[at]!;
        read[key] = row[at] === null || out === null ? row[at] : out(row[at]);
      }
      return read as InferSelectModel<T>;
    });
  }

  /** One column of a row. */
  value(row: RawRow, column: keyof InferInsertModel<T> & string): unknown {
    return row[this.columns.findIndex(({ key }) => key === column)];
  }

  /** Writes a row; where `held`, the one under its id, is there, only what differs. True where something was written. */
  put(db: Db, values: InferInsertModel<T>, held: RawRow | null): boolean {
    const given = values as Record<string, unknown>;
    const row: unknown[] = [];
    const changed: number[] = [];
    for (const [at, { key, into, default: otherwise }] of this.columns.entries()) {
      const value = given[key];
      if (value === undefined) row.push(held ? held[at] : otherwise);
      else row.push(value === null || into === null ? value : into(value));
      if (held && row[at] !== held[at]) changed.push(at);
    }
    if (held === null) {
      statement(db, this.sql.put).run(...row);
      return true;
    }
    if (changed.length === 0) return false;
    const names = changed.map((at) => this.columns[at]!.name);
    statement(db, this.sql.change(names)).run(...changed.map((at) => row[at]), row[this.id]);
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
