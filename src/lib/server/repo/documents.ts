import { and, asc, eq, isNull } from 'drizzle-orm';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Db } from '../db/open';
import { clientSheet, mockup, project } from '../db/schema';
import { newId, note, stale, writing } from './context';
import { nameKey } from './names';

/** What of a project is kept as one document: its table, what it is called, and what its events begin with. */
export type DocumentKind<T> = {
  table: typeof mockup | typeof clientSheet;
  what: string;
  event: string;
  /** Reads a stored body; `null` where it cannot be one. */
  read: (stored: unknown) => T | null;
  /** Why a body cannot be kept in a project, as a sentence. */
  refusal?: (db: Db, projectId: string, body: T) => string | null;
};

export type StoredDocument<T> = {
  id: string;
  projectId: string;
  projectName: string;
  name: string;
  version: number;
  updatedAt: number;
  archivedAt: number | null;
  body: T;
};

type Row = typeof mockup.$inferSelect;

/** The rows of a project in the order in which they were made, archived ones left out. */
export const documentRows = <T>(db: Db, { table }: DocumentKind<T>, projectId: string): Row[] =>
  db
    .select(columnsOf(table))
    .from(table)
    .where(and(eq(table.projectId, projectId), eq(table.studioId, db.studio), isNull(table.archivedAt)))
    .orderBy(asc(table.createdAt), asc(table.nameKey))
    .all();

export function getDocument<T>(db: Db, kind: DocumentKind<T>, id: string): Outcome<StoredDocument<T>> {
  const row = findRow(db, kind, id);
  if (!row) return noDocument(kind, id);
  const body = bodyOf(kind, row);
  if (body === null)
    return fail(
      'unreadable',
      `What is stored of the ${kind.what} “${row.name}” is damaged; it is left as it is.`,
    );
  const owner = db.select({ name: project.name }).from(project).where(eq(project.id, row.projectId)).get();
  const { projectId, name, version, updatedAt, archivedAt } = row;
  return done({ id, projectId, projectName: owner?.name ?? '', name, version, updatedAt, archivedAt, body });
}

export function createDocument<T>(
  db: Db,
  kind: DocumentKind<T>,
  projectId: string,
  { name, body }: { name: string; body: T },
): Outcome<{ id: string; version: number }> {
  return writing(db, { what: kind.what, name }, (tx): Outcome<{ id: string; version: number }> => {
    const owner = tx.select({ id: project.id }).from(project).where(eq(project.id, projectId)).get();
    if (!owner) return fail('not_found', `There is no project with the id “${projectId}”.`, 'id');
    const refused = kind.refusal?.(tx, projectId, body);
    if (refused) return fail('invalid', refused, 'body');
    const id = newId();
    const now = Date.now();
    tx.insert(kind.table)
      .values({
        ...{ id, studioId: tx.studio, projectId, name, nameKey: nameKey(name) },
        ...{ body: JSON.stringify(body), createdAt: now, updatedAt: now },
      })
      .run();
    note(tx, `${kind.event}.created`, id);
    return done({ id, version: 1 });
  });
}

/** Saves a document from a version; a stale save gets `current`, what is stored now. */
export function saveDocument<T>(
  db: Db,
  kind: DocumentKind<T>,
  id: string,
  { base, name, body }: { base: number; name: string; body: T },
  current: (tx: Db) => Outcome<unknown>,
): Outcome<{ version: number }> {
  return writing(db, { what: kind.what, name }, (tx): Outcome<{ version: number }> => {
    const row = findRow(tx, kind, id);
    if (!row) return noDocument(kind, id);
    if (row.version !== base) {
      const now = current(tx);
      return stale(`“${row.name}”`, base, row.version, now.ok ? now.value : null);
    }
    const refused = kind.refusal?.(tx, row.projectId, body);
    if (refused) return fail('invalid', refused, 'body');
    const version = row.version + 1;
    tx.update(kind.table)
      .set({ name, nameKey: nameKey(name), body: JSON.stringify(body), version, updatedAt: Date.now() })
      .where(eq(kind.table.id, id))
      .run();
    note(tx, `${kind.event}.changed`, id, { version });
    return done({ version });
  });
}

/** Puts a document into the archive or takes it out. */
export function setDocumentArchived<T>(
  db: Db,
  kind: DocumentKind<T>,
  id: string,
  archived: boolean,
): Outcome<{ id: string }> {
  return writing(db, { what: kind.what, name: '' }, (tx): Outcome<{ id: string }> => {
    if (!findRow(tx, kind, id)) return noDocument(kind, id);
    tx.update(kind.table)
      .set({ archivedAt: archived ? Date.now() : null })
      .where(eq(kind.table.id, id))
      .run();
    note(tx, `${kind.event}.${archived ? 'archived' : 'restored'}`, id);
    return done({ id });
  });
}

export const hasDocument = <T>(db: Db, kind: DocumentKind<T>, id: string): boolean =>
  findRow(db, kind, id) !== undefined;

export const noDocument = <T>({ what }: DocumentKind<T>, id: string): ReturnType<typeof fail> =>
  fail('not_found', `There is no ${what} with the id “${id}”.`, 'id');

/** What a row keeps, or `null` where it is damaged. */
export function bodyOf<T>({ read }: DocumentKind<T>, row: Pick<Row, 'body'>): T | null {
  try {
    return read(JSON.parse(row.body));
  } catch {
    return null;
  }
}

/** The columns that both tables have. */
const columnsOf = ({
  id,
  studioId,
  projectId,
  name,
  nameKey: key,
  body,
  version,
  createdAt,
  updatedAt,
  archivedAt,
}: typeof mockup | typeof clientSheet) => ({
  ...{ id, studioId, projectId, name, nameKey: key, body, version, createdAt, updatedAt, archivedAt },
});

const findRow = <T>(db: Db, { table }: DocumentKind<T>, id: string): Row | undefined =>
  db
    .select(columnsOf(table))
    .from(table)
    .where(and(eq(table.id, id), eq(table.studioId, db.studio)))
    .get();
