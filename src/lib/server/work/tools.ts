import { openReader, type Db } from '../db/open';
import { inlinePool, openRenderPool, type RenderPool } from '../render/pool';
import { openPictures, type Pictures } from './pictures';

/** What work in a child process draws with: the library to read from, and its pictures. */
export type Tools = { db: Db; pictures: Pictures; pool: RenderPool };

let library: { file: string; db: Db } | null = null;
let threads: RenderPool | null = null;

/** The library in a database file, opened once. */
export function libraryAt(file: string): Db {
  if (library?.file === file) return library.db;
  library?.db.$client.close();
  library = { file, db: openReader(file) };
  return library.db;
}

/** Tools that draw in this thread: for small pictures. */
export function toolsAt(store: string): Tools {
  const db = libraryAt(store);
  const pool = inlinePool();
  return { db, pool, pictures: openPictures(db, pool) };
}

/** Tools that draw on threads of their own: for large pictures. */
export function threadedToolsAt(store: string): Tools {
  const db = libraryAt(store);
  threads ??= openRenderPool();
  return { db, pool: threads, pictures: openPictures(db, threads) };
}
