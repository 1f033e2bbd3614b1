import { existsSync, mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import Database from 'better-sqlite3';
import { openDatabase, openReader } from '../db/open';
import { byCommand, COMMANDS } from './by-command';
import { ownerCommand } from './owner-command';
import { COPY_COMMANDS, copyCommand } from './copy-commands';
import { lookOver } from './look-over';

/**
 * Entry of `npm run isle`: says what is wrong with a database (`check`), copies what of it can be read into a fresh one (`save`),
 * and hands over and takes in without a browser (`export`, `import`).
 */
async function main([task = '', ...rest]: string[]): Promise<number> {
  const say = (line: string): void => void process.stdout.write(`${line}\n`);
  if (task === 'check') return check(resolve(rest[0] ?? (process.env.ISLE_DATA || 'data')), say);
  if (task === 'save' && rest[0] && rest[1]) return save(resolve(rest[0]), resolve(rest[1]), say);
  if (task === 'backup' || task === 'verify' || task === 'restore')
    return copyCommand(task, rest, resolve(process.env.ISLE_DATA || 'data'), say);
  if (task === 'owner') return ownerCommand(resolve(process.env.ISLE_DATA || 'data'), rest, say);
  if (task === 'export' || task === 'import') return byCommand([task, ...rest], say);
  say('npm run isle -- check [folder]            what is wrong with the database of a folder');
  say('npm run isle -- save FOLDER NEW-FOLDER    copies what can be read of it into a new folder');
  say('npm run isle -- owner NAME ADDRESS        makes somebody an owner, or lets one in again, by a link');
  for (const line of [...COPY_COMMANDS, ...COMMANDS]) say(line);
  return 2;
}

function check(folder: string, say: (line: string) => void): number {
  const file = join(folder, 'isle.db');
  if (!existsSync(file)) {
    say(`There is no database in ${folder}.`);
    return 2;
  }
  try {
    const { problems, counts } = lookOver(openReader(file));
    for (const { what, readable, all } of counts) say(`${what}: ${readable} of ${all} can be read`);
    for (const problem of problems) say(`- ${problem}`);
    say(
      problems.length === 0
        ? 'Nothing is wrong.'
        : `${problems.length} ${problems.length === 1 ? 'fault was' : 'faults were'} found. “npm run isle -- save ${folder} NEW-FOLDER” copies what can be read into a new folder.`,
    );
    return problems.length === 0 ? 0 : 1;
  } catch (error) {
    say(`The database ${file} cannot be opened (${reason(error)}). Put a backup in its place.`);
    return 1;
  }
}

/** Copies row by row whatever can be read, and says of which table how much. */
function save(from: string, to: string, say: (line: string) => void): number {
  const [source, target] = [join(from, 'isle.db'), join(to, 'isle.db')];
  if (!existsSync(source) || existsSync(target)) {
    say(existsSync(target) ? `There is a database in ${to} already.` : `There is no database in ${from}.`);
    return 2;
  }
  mkdirSync(to, { recursive: true });
  const old = new Database(source, { readonly: true, fileMustExist: true });
  const { $client: fresh } = openDatabase(target);
  fresh.pragma('foreign_keys = OFF');
  const tables = fresh
    .prepare(
      "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name NOT LIKE '\\_\\_%' ESCAPE '\\' AND sql NOT LIKE '%VIRTUAL%' AND name NOT LIKE 'pattern_search%'",
    )
    .pluck()
    .all() as string[];
  for (const table of tables) say(`${table}: ${copyTable(old, fresh, table)}`);
  const dangling = fresh.pragma('foreign_key_check') as { table: string; rowid: number }[];
  for (const { table, rowid } of dangling)
    if (rowid !== null) fresh.prepare(`DELETE FROM "${table}" WHERE rowid = ?`).run(rowid);
  if (dangling.length > 0) say(`${dangling.length} rows that referred to what is lost were left out.`);
  fresh.close();
  old.close();
  say(`What could be read lies in ${to}; start Isle with ISLE_DATA=${to}.`);
  return 0;
}

function copyTable(old: Database.Database, fresh: Database.Database, table: string): string {
  const columns = (fresh.pragma(`table_info("${table}")`) as { name: string }[]).map(({ name }) => name);
  const known = new Set((old.pragma(`table_info("${table}")`) as { name: string }[]).map(({ name }) => name));
  const shared = columns.filter((name) => known.has(name));
  if (shared.length === 0) return 'is not there';
  const list = shared.map((name) => `"${name}"`).join(', ');
  const put = fresh.prepare(
    `INSERT OR REPLACE INTO "${table}" (${list}) VALUES (${shared.map(() => '?').join(', ')})`,
  );
  let [copied, lost] = [0, 0];
  const last = highestRow(old, table);
  const one = old.prepare(`SELECT ${list} FROM "${table}" WHERE rowid = ?`).raw();
  fresh.transaction(() => {
    for (let row = 0; row <= last; row += 1) {
      try {
        const values = one.get(row) as unknown[] | undefined;
        if (!values) continue;
        put.run(...values);
        copied += 1;
      } catch {
        lost += 1;
      }
    }
  })();
  return `${copied} rows${lost > 0 ? `, ${lost} could not be read` : ''}`;
}

/** The largest row number; damage may hide it, then all up to a million are tried. */
function highestRow(db: Database.Database, table: string): number {
  try {
    return (db.prepare(`SELECT max(rowid) FROM "${table}"`).pluck().get() as number | null) ?? 0;
  } catch {
    return 1_000_000;
  }
}

const reason = (error: unknown): string => (error instanceof Error ? error.message : String(error));

main(process.argv.slice(2)).then(
  // Threads that draw would keep the process.
  (code) => process.exit(code),
  (error: unknown) => {
    process.stderr.write(`${reason(error)}\n`);
    process.exit(1);
  },
);
