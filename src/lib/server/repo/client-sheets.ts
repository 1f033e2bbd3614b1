import type { NewSheet, SheetSave } from '../../contract/given';
import { and, asc, count, desc, eq, isNull } from 'drizzle-orm';
import type { SheetAnswer, SheetData, SheetLink, SheetSummary } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import type { ClientSheet, ShownSheet } from '../../core/sheet/client-sheet';
import type { Db } from '../db/open';
import { clientSheet, sheetAnswer, sheetLink, sheetPicture } from '../db/schema';
import { note, writing } from './context';
import {
  bodyOf,
  createDocument,
  documentRows,
  getDocument,
  hasDocument,
  noDocument,
  saveDocument,
  setDocumentArchived,
  type DocumentKind,
} from './documents';

const SHEET: DocumentKind<ClientSheet> = {
  table: clientSheet,
  what: 'client sheet',
  event: 'sheet',
  read: (stored) => (Array.isArray((stored as ClientSheet).items) ? (stored as ClientSheet) : null),
};

/** The client sheets of a project in the order in which they were made, archived ones left out. */
export const listSheets = (db: Db, projectId: string): SheetSummary[] =>
  documentRows(db, SHEET, projectId).flatMap((row) => {
    const body = bodyOf(SHEET, row);
    const { id, name, version, updatedAt } = row;
    return body ? [{ ...{ id, projectId, name, version, updatedAt }, ...stateOf(db, id, body) }] : [];
  });

export function getSheet(db: Db, id: string): Outcome<SheetData> {
  const found = getDocument(db, SHEET, id);
  if (!found.ok) return found;
  const { archivedAt: _archived, ...sheet } = found.value;
  return done({
    ...sheet,
    ...stateOf(db, id, sheet.body),
    links: linksOf(db, id),
    answers: answersOf(db, id),
  });
}

export const createSheet = (
  db: Db,
  projectId: string,
  input: NewSheet,
): Outcome<{ id: string; version: number }> => createDocument(db, SHEET, projectId, input);

export const saveSheet = (db: Db, id: string, input: SheetSave): Outcome<{ version: number }> =>
  saveDocument(db, SHEET, id, input, (tx) => getSheet(tx, id));

/** Puts a client sheet into the archive or takes it out; while it is there its links show nothing. */
export const setSheetArchived = (db: Db, id: string, archived: boolean): Outcome<{ id: string }> =>
  setDocumentArchived(db, SHEET, id, archived);

/** Keeps the picture of one thing that is on a sheet. */
export function keepSheetPicture(
  db: Db,
  id: string,
  item: string,
  picture: { bytes: Buffer; mediaType: string },
): Outcome<{ item: string }> {
  const found = getDocument(db, SHEET, id);
  if (!found.ok) return found;
  if (!found.value.body.items.some((one) => one.id === item))
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
    if (!hasDocument(tx, SHEET, id)) return noDocument(SHEET, id);
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
  if (!hasDocument(db, SHEET, id)) return noDocument(SHEET, id);
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

/** How a sheet stands with its clients. */
function stateOf(
  db: Db,
  id: string,
  { items }: ClientSheet,
): Pick<SheetSummary, 'items' | 'shownAt' | 'unread'> {
  const unread = db
    .select({ count: count() })
    .from(sheetAnswer)
    .innerJoin(sheetLink, eq(sheetLink.token, sheetAnswer.token))
    .where(and(eq(sheetLink.sheetId, id), isNull(sheetAnswer.readAt)))
    .get();
  const { shownAt } = clientSheet;
  const shown = db.select({ shownAt }).from(clientSheet).where(eq(clientSheet.id, id)).get();
  return { items: items.length, shownAt: shown?.shownAt ?? null, unread: unread?.count ?? 0 };
}

export const noSheet = (id: string): ReturnType<typeof fail> => noDocument(SHEET, id);
