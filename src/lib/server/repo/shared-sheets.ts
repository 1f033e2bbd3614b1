import { and, asc, count, eq, isNull } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import type { SharedSheet } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import { SHEET_LIMITS, type SheetChoice, type ShownSheet } from '../../core/sheet/client-sheet';
import type { Db } from '../db/open';
import { clientSheet, sheetAnswer, sheetLink, sheetPicture } from '../db/schema';
import { noSheet } from './client-sheets';
import { newId, note, writing } from './context';

/** Letters of a token: 32 of 64 kinds are 192 bits, which nobody guesses. */
const TOKEN_LETTERS = 32;
const DAY_MS = 24 * 60 * 60 * 1000;

/** A link that shows a sheet to whoever has it, for so many days. */
export function makeLink(
  db: Db,
  sheetId: string,
  { to, days }: { to: string; days: number },
): Outcome<{ token: string; endsAt: number }> {
  return writing(db, { what: 'link', name: '' }, (tx): Outcome<{ token: string; endsAt: number }> => {
    const sheet = tx
      .select({ shownAt: clientSheet.shownAt })
      .from(clientSheet)
      .where(and(eq(clientSheet.id, sheetId), eq(clientSheet.studioId, tx.studio)))
      .get();
    if (!sheet) return noSheet(sheetId);
    if (sheet.shownAt === null)
      return fail('invalid', 'Nothing is shown at its links yet; have its pictures made first.', 'id');
    const made = tx.select({ count: count() }).from(sheetLink).where(eq(sheetLink.sheetId, sheetId)).get();
    if ((made?.count ?? 0) >= SHEET_LIMITS.links)
      return fail('too_large', `A sheet has at most ${SHEET_LIMITS.links} links; make another sheet.`, 'id');
    const token = nanoid(TOKEN_LETTERS);
    const now = Date.now();
    const endsAt = now + days * DAY_MS;
    tx.insert(sheetLink)
      .values({ token, studioId: tx.studio, sheetId, sentTo: to, createdAt: now, endsAt })
      .run();
    note(tx, 'sheet.linked', sheetId);
    return done({ token, endsAt });
  });
}

/** Ends a link at once; what was left there stays with the sheet. */
export function endLink(db: Db, sheetId: string, token: string): Outcome<{ token: string }> {
  const { changes } = db
    .update(sheetLink)
    .set({ endedAt: Date.now() })
    .where(and(eq(sheetLink.token, token), eq(sheetLink.sheetId, sheetId), isNull(sheetLink.endedAt)))
    .run();
  if (changes === 0) return fail('not_found', 'This link has ended already.', 'token');
  note(db, 'sheet.unlinked', sheetId);
  return done({ token });
}

/** What a link shows. One that has ended and one that never was are told alike. */
export function getShared(db: Db, token: string): Outcome<SharedSheet> {
  const found = openLink(db, token);
  if (!found) return NO_LINK;
  const { id, item, who, choice, words, createdAt } = answerColumns;
  return done({
    shown: found.shown,
    shownAt: found.shownAt,
    endsAt: found.endsAt,
    pictures: db
      .select({ item: sheetPicture.itemId })
      .from(sheetPicture)
      .where(eq(sheetPicture.sheetId, found.sheetId))
      .all()
      .map((row) => row.item),
    answers: db
      .select({ id, item, who, choice, words, createdAt })
      .from(sheetAnswer)
      .where(eq(sheetAnswer.token, token))
      .orderBy(asc(sheetAnswer.createdAt))
      .all(),
  });
}

/** The picture of one thing that a link shows. */
export function sharedPicture(
  db: Db,
  token: string,
  item: string,
): Outcome<{ bytes: Buffer; mediaType: string }> {
  const found = openLink(db, token);
  if (!found?.shown.items.some(({ id }) => id === item)) return NO_LINK;
  const { bytes, mediaType } = sheetPicture;
  const row = db
    .select({ bytes, mediaType })
    .from(sheetPicture)
    .where(and(eq(sheetPicture.sheetId, found.sheetId), eq(sheetPicture.itemId, item)))
    .get();
  return row ? done(row) : NO_LINK;
}

type Left = { item: string; who: string; choice?: SheetChoice | null; words?: string };

/** Notes a choice or words about one thing that a link shows; another choice takes the place of the one before. */
export function answerShared(db: Db, token: string, left: Left): Outcome<SharedSheet> {
  return writing(db, { what: 'answer', name: '' }, (tx): Outcome<SharedSheet> => {
    const found = openLink(tx, token);
    if (!found) return NO_LINK;
    const { item, who, choice, words = '' } = left;
    if (!found.shown.items.some(({ id }) => id === item))
      return fail('invalid', 'That is not on the sheet any more; load the page anew.', 'item');
    if (choice !== undefined) {
      const same = and(eq(sheetAnswer.token, token), eq(sheetAnswer.itemId, item), eq(sheetAnswer.words, ''));
      tx.delete(sheetAnswer).where(same).run();
    }
    const made = tx.select({ count: count() }).from(sheetAnswer).where(eq(sheetAnswer.token, token)).get();
    if ((made?.count ?? 0) >= SHEET_LIMITS.answers)
      return fail(
        'too_large',
        `${SHEET_LIMITS.answers} choices and comments were left here, which is all there is room for; write to the studio instead.`,
        'words',
      );
    if ((choice ?? null) !== null || words !== '')
      tx.insert(sheetAnswer)
        .values({
          ...{ id: newId(), token, itemId: item, who, words },
          choice: words === '' ? (choice ?? null) : null,
          createdAt: Date.now(),
        })
        .run();
    note(tx, 'sheet.answered', found.sheetId);
    return getShared(tx, token);
  });
}

const answerColumns = {
  id: sheetAnswer.id,
  item: sheetAnswer.itemId,
  who: sheetAnswer.who,
  choice: sheetAnswer.choice,
  words: sheetAnswer.words,
  createdAt: sheetAnswer.createdAt,
};

const NO_LINK = fail(
  'not_found',
  'Nothing is shown here: the link has ended, or it was not copied whole. Ask whoever sent it for another one.',
  'token',
);

/** A link that has not ended, with what its sheet shows. */
function openLink(
  db: Db,
  token: string,
): { sheetId: string; shown: ShownSheet; shownAt: number; endsAt: number } | null {
  const row = db
    .select({
      sheetId: sheetLink.sheetId,
      endsAt: sheetLink.endsAt,
      endedAt: sheetLink.endedAt,
      shown: clientSheet.shown,
      shownAt: clientSheet.shownAt,
      archivedAt: clientSheet.archivedAt,
    })
    .from(sheetLink)
    .innerJoin(clientSheet, eq(clientSheet.id, sheetLink.sheetId))
    .where(eq(sheetLink.token, token))
    .get();
  if (!row || row.endedAt !== null || row.archivedAt !== null || row.endsAt <= Date.now()) return null;
  if (row.shown === null || row.shownAt === null) return null;
  const { sheetId, shownAt, endsAt } = row;
  return { sheetId, shown: JSON.parse(row.shown) as ShownSheet, shownAt, endsAt };
}
