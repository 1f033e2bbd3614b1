import type { MockupSave, NewMockup } from '../../contract/given';
import { and, eq } from 'drizzle-orm';
import type { MockupData, MockupSummary } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import { layoutsIn, mockupFault, type Mockup } from '../../core/mockup/mockup';
import type { Db } from '../db/open';
import { layout, mockup, mockupStill } from '../db/schema';
import { hasAsset } from './assets';
import { among, note, writing } from './context';
import {
  createDocument,
  documentRows,
  getDocument,
  hasDocument,
  noDocument,
  saveDocument,
  setDocumentArchived,
  type DocumentKind,
} from './documents';

const MOCKUP: DocumentKind<Mockup> = {
  table: mockup,
  what: 'mock-up',
  event: 'mockup',
  read: (stored) => (mockupFault(stored as Mockup) === null ? (stored as Mockup) : null),
  refusal,
};

/** The mock-ups of a project in the order in which they were made, archived ones left out. */
export function listMockups(db: Db, projectId: string): MockupSummary[] {
  const rows = documentRows(db, MOCKUP, projectId);
  const { mockupId, madeAt } = mockupStill;
  const stills = db
    .select({ mockupId, madeAt })
    .from(mockupStill)
    .where(
      among(
        mockupId,
        rows.map(({ id }) => id),
      ),
    )
    .all();
  const madeAts = new Map(stills.map((still) => [still.mockupId, still.madeAt]));
  return rows.map(({ id, name, version, updatedAt, archivedAt }) => ({
    ...{ id, projectId, name, version, updatedAt, archivedAt },
    stillAt: madeAts.get(id) ?? null,
  }));
}

export function getMockup(db: Db, id: string): Outcome<MockupData> {
  const found = getDocument(db, MOCKUP, id);
  if (!found.ok) return found;
  const still = db
    .select({ madeAt: mockupStill.madeAt })
    .from(mockupStill)
    .where(eq(mockupStill.mockupId, id))
    .get();
  return done({ ...found.value, stillAt: still?.madeAt ?? null });
}

export const createMockup = (
  db: Db,
  projectId: string,
  input: NewMockup,
): Outcome<{ id: string; version: number }> => createDocument(db, MOCKUP, projectId, input);

export const saveMockup = (db: Db, id: string, input: MockupSave): Outcome<{ version: number }> =>
  saveDocument(db, MOCKUP, id, input, (tx) => getMockup(tx, id));

/** Doubles a mock-up in its project, with its picture; both show the same layouts. */
export function copyMockup(db: Db, id: string, name: string): Outcome<{ id: string }> {
  return writing(db, { what: MOCKUP.what, name }, (tx): Outcome<{ id: string }> => {
    const found = getMockup(tx, id);
    if (!found.ok) return found;
    const made = createMockup(tx, found.value.projectId, { name, body: found.value.body });
    if (!made.ok) return made;
    const still = getStill(tx, id);
    if (still.ok) keepStill(tx, made.value.id, still.value);
    return done({ id: made.value.id });
  });
}

/** Puts a mock-up into the archive or takes it out. */
export const setMockupArchived = (db: Db, id: string, archived: boolean): Outcome<{ id: string }> =>
  setDocumentArchived(db, MOCKUP, id, archived);

export type Still = { bytes: Buffer; mediaType: string; width: number; height: number };

/** Keeps the picture of a mock-up, the last one only. */
export function keepStill(db: Db, id: string, still: Still): Outcome<{ stillAt: number }> {
  if (!hasDocument(db, MOCKUP, id)) return noDocument(MOCKUP, id);
  const values = { ...still, madeAt: Date.now() };
  db.insert(mockupStill)
    .values({ mockupId: id, ...values })
    .onConflictDoUpdate({ target: mockupStill.mockupId, set: values })
    .run();
  note(db, 'mockup.seen', id);
  return done({ stillAt: values.madeAt });
}

export function getStill(db: Db, id: string): Outcome<Still> {
  const { bytes, mediaType, width, height } = mockupStill;
  const row = db
    .select({ bytes, mediaType, width, height })
    .from(mockupStill)
    .innerJoin(mockup, eq(mockup.id, mockupStill.mockupId))
    .where(and(eq(mockupStill.mockupId, id), eq(mockup.studioId, db.studio)))
    .get();
  return row
    ? done(row)
    : fail('not_found', 'There is no picture of this mock-up yet; it is made when it is opened.', 'id');
}

/** Why a mock-up cannot be kept: its objects cannot be, or it shows layouts that are not of its project. */
function refusal(db: Db, projectId: string, body: Mockup): string | null {
  const fault = mockupFault(body);
  if (fault) return fault;
  if (body.photo && !hasAsset(db, body.photo.asset))
    return 'The photograph is not kept here; bring it in first.';
  const ids = layoutsIn(body);
  const known = db
    .select({ id: layout.id })
    .from(layout)
    .where(and(among(layout.id, ids), eq(layout.projectId, projectId)))
    .all();
  return known.length === ids.length
    ? null
    : 'An object shows a layout that is not in this project; choose one of its layouts.';
}
