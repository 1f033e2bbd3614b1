import { and, asc, count, desc, eq, isNull } from 'drizzle-orm';
import type { SheetAnswer, SheetData, SheetLink, SheetSummary } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import type { ClientSheet, ShownSheet } from '../../core/sheet/client-sheet';
import { STUDIO, type Db } from '../db/open';
import { clientSheet, project, sheetAnswer, sheetLink, sheetPicture } from '../db/schema';
import { newId, note, stale, writing } from './context';
import { nameKey } from './names';

type Row = typeof clientSheet.$inferSelect;
type Made = { id: string; version: number };

/** The client sheets of a project in the order in which they were made, archived ones left out. */
export function listSheets(db: Db, projectId: string): SheetSummary[] {
  const rows = db
    .select()
    .from(clientSheet)
    .where(
      and(
        eq(clientSheet.projectId, projectId),
        eq(clientSheet.studioId, STUDIO),
        isNull(clientSheet.archivedAt),
      ),
    )
    .orderBy(asc(clientSheet.createdAt), asc(clientSheet.nameKey))
    .all();
  return rows.flatMap((row) => {
    const body = bodyOf(row);
    return body ? [summaryOf(db, row, body)] : [];
  });
}

export function getSheet(db: Db, id: string): Outcome<SheetData> {
  const found = db
    .select({ row: clientSheet, projectName: project.name })
    .from(clientSheet)
    .innerJoin(project, eq(project.id, clientSheet.projectId))
    .where(and(eq(clientSheet.id, id), eq(clientSheet.studioId, STUDIO)))
    .get();
  if (!found) return noSheet(id);
  const { row, projectName } = found;
  const body = bodyOf(row);
  if (!body)
    return fail(
      'unreadable',
      `What is stored of the client sheet “${row.name}” is damaged; it is left as it is.`,
    );
  return done({
    ...summaryOf(db, row, body),
    projectName,
    body,
    links: linksOf(db, id),
    answers: answersOf(db, id),
  });
}

export function createSheet(
  db: Db,
  projectId: string,
  input: { name: string; body: ClientSheet },
): Outcome<Made> {
  return writing(db, { what: 'client sheet', name: input.name }, (tx): Outcome<Made> => {
    const owner = tx.select({ id: project.id }).from(project).where(eq(project.id, projectId)).get();
    if (!owner) return fail('not_found', `There is no project with the id “${projectId}”.`, 'id');
    const id = newId();
    const now = Date.now();
    tx.insert(clientSheet)
      .values({
        ...{ id, studioId: STUDIO, projectId, name: input.name, nameKey: nameKey(input.name) },
        body: JSON.stringify(input.body),
        createdAt: now,
        updatedAt: now,
      })
      .run();
    note(tx, 'sheet.created', id);
    return done({ id, version: 1 });
  });
}

export function saveSheet(
  db: Db,
  id: string,
  input: { base: number; name: string; body: ClientSheet },
): Outcome<{ version: number }> {
  return writing(db, { what: 'client sheet', name: input.name }, (tx): Outcome<{ version: number }> => {
    const row = findRow(tx, id);
    if (!row) return noSheet(id);
    if (row.version !== input.base) {
      const current = getSheet(tx, id);
      return stale(`“${row.name}”`, input.base, row.version, current.ok ? current.value : null);
    }
    const version = row.version + 1;
    const { name, body } = input;
    tx.update(clientSheet)
      .set({ name, nameKey: nameKey(name), body: JSON.stringify(body), version, updatedAt: Date.now() })
      .where(eq(clientSheet.id, id))
      .run();
    note(tx, 'sheet.changed', id, { version });
    return done({ version });
  });
}

/** Puts a client sheet into the archive or takes it out; while it is there its links show nothing. */
export function setSheetArchived(db: Db, id: string, archived: boolean): Outcome<{ id: string }> {
  return writing(db, { what: 'client sheet', name: '' }, (tx): Outcome<{ id: string }> => {
    if (!findRow(tx, id)) return noSheet(id);
    tx.update(clientSheet)
      .set({ archivedAt: archived ? Date.now() : null })
      .where(eq(clientSheet.id, id))
      .run();
    note(tx, archived ? 'sheet.archived' : 'sheet.restored', id);
    return done({ id });
  });
}

/** Keeps the picture of one thing that is on a sheet. */
export function keepSheetPicture(
  db: Db,
  id: string,
  item: string,
  picture: { bytes: Buffer; mediaType: string },
): Outcome<{ item: string }> {
  const row = findRow(db, id);
  if (!row) return noSheet(id);
  if (!bodyOf(row)?.items.some((one) => one.id === item))
    return fail('not_found', 'That is not on this sheet any more; save the sheet and try again.', 'item');
  const values = { ...picture, madeAt: Date.now() };
  db.insert(sheetPicture)
    .values({ sheetId: id, itemId: item, ...values })
    .onConflictDoUpdate({ target: [sheetPicture.sheetId, sheetPicture.itemId], set: values })
    .run();
  return done({ item });
}

/** What the links of a sheet show from now on; pictures of what is not on it any more go. */
export function showSheet(db: Db, id: string, shown: ShownSheet): Outcome<{ shownAt: number }> {
  return writing(db, { what: 'client sheet', name: '' }, (tx): Outcome<{ shownAt: number }> => {
    if (!findRow(tx, id)) return noSheet(id);
    const shownAt = Date.now();
    tx.update(clientSheet)
      .set({ shown: JSON.stringify(shown), shownAt })
      .where(eq(clientSheet.id, id))
      .run();
    tx.$client
      .prepare(
        'DELETE FROM sheet_picture WHERE sheet_id = ? AND item_id NOT IN (SELECT value FROM json_each(?))',
      )
      .run(id, JSON.stringify(shown.items.map((item) => item.id)));
    note(tx, 'sheet.shown', id);
    return done({ shownAt });
  });
}

/** Notes that all that clients left on a sheet was read. */
export function readAnswers(db: Db, id: string): Outcome<{ id: string }> {
  if (!findRow(db, id)) return noSheet(id);
  db.$client
    .prepare(
      'UPDATE sheet_answer SET read_at = ? WHERE read_at IS NULL AND token IN (SELECT token FROM sheet_link WHERE sheet_id = ?)',
    )
    .run(Date.now(), id);
  note(db, 'sheet.read', id);
  return done({ id });
}

function linksOf(db: Db, sheetId: string): SheetLink[] {
  const { token, sentTo: to, createdAt, endsAt, endedAt } = sheetLink;
  return db
    .select({ token, to, createdAt, endsAt, endedAt })
    .from(sheetLink)
    .where(eq(sheetLink.sheetId, sheetId))
    .orderBy(desc(sheetLink.createdAt))
    .all();
}

function answersOf(db: Db, sheetId: string): SheetAnswer[] {
  const { id, itemId: item, who, choice, words, createdAt, readAt } = sheetAnswer;
  return db
    .select({ id, item, who, to: sheetLink.sentTo, choice, words, createdAt, readAt })
    .from(sheetAnswer)
    .innerJoin(sheetLink, eq(sheetLink.token, sheetAnswer.token))
    .where(eq(sheetLink.sheetId, sheetId))
    .orderBy(asc(sheetAnswer.createdAt))
    .all();
}

function bodyOf(row: Row): ClientSheet | null {
  try {
    const body = JSON.parse(row.body) as ClientSheet;
    return Array.isArray(body.items) ? body : null;
  } catch {
    return null;
  }
}

function summaryOf(db: Db, row: Row, body: ClientSheet): SheetSummary {
  const { id, projectId, name, version, updatedAt, shownAt } = row;
  const unread = db
    .select({ count: count() })
    .from(sheetAnswer)
    .innerJoin(sheetLink, eq(sheetLink.token, sheetAnswer.token))
    .where(and(eq(sheetLink.sheetId, id), isNull(sheetAnswer.readAt)))
    .get();
  return {
    ...{ id, projectId, name, version, updatedAt, shownAt },
    items: body.items.length,
    unread: unread?.count ?? 0,
  };
}

const findRow = (db: Db, id: string): Row | undefined =>
  db
    .select()
    .from(clientSheet)
    .where(and(eq(clientSheet.id, id), eq(clientSheet.studioId, STUDIO)))
    .get();

export const noSheet = (id: string): ReturnType<typeof fail> =>
  fail('not_found', `There is no client sheet with the id “${id}”.`, 'id');
