import { and, asc, eq, isNull } from 'drizzle-orm';
import type { MockupData, MockupSummary } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import { layoutsIn, mockupFault, type Mockup } from '../../core/mockup/mockup';
import { STUDIO, type Db } from '../db/open';
import { layout, mockup, mockupStill, project } from '../db/schema';
import { hasAsset } from './assets';
import { among, newId, note, stale, writing } from './context';
import { nameKey } from './names';

type Row = typeof mockup.$inferSelect;

/** The mock-ups of a project in the order in which they were made, archived ones left out. */
export function listMockups(db: Db, projectId: string): MockupSummary[] {
  return db
    .select({ row: mockup, stillAt: mockupStill.madeAt })
    .from(mockup)
    .leftJoin(mockupStill, eq(mockupStill.mockupId, mockup.id))
    .where(and(eq(mockup.projectId, projectId), eq(mockup.studioId, STUDIO), isNull(mockup.archivedAt)))
    .orderBy(asc(mockup.createdAt), asc(mockup.nameKey))
    .all()
    .map(({ row, stillAt }) => summaryOf(row, stillAt));
}

export function getMockup(db: Db, id: string): Outcome<MockupData> {
  const found = db
    .select({ row: mockup, projectName: project.name, stillAt: mockupStill.madeAt })
    .from(mockup)
    .innerJoin(project, eq(project.id, mockup.projectId))
    .leftJoin(mockupStill, eq(mockupStill.mockupId, mockup.id))
    .where(and(eq(mockup.id, id), eq(mockup.studioId, STUDIO)))
    .get();
  if (!found) return noMockup(id);
  const { row, projectName, stillAt } = found;
  const body = bodyOf(row);
  if (!body)
    return fail('unreadable', `What is stored of the mock-up “${row.name}” is damaged; it is left as it is.`);
  return done({ ...summaryOf(row, stillAt), projectName, body });
}

export function createMockup(
  db: Db,
  projectId: string,
  input: { name: string; body: Mockup },
): Outcome<{ id: string; version: number }> {
  return writing(
    db,
    { what: 'mock-up', name: input.name },
    (tx): Outcome<{ id: string; version: number }> => {
      const owner = tx.select({ id: project.id }).from(project).where(eq(project.id, projectId)).get();
      if (!owner) return fail('not_found', `There is no project with the id “${projectId}”.`, 'id');
      const refused = refusal(tx, projectId, input.body);
      if (refused) return fail('invalid', refused, 'body');
      const id = newId();
      const now = Date.now();
      tx.insert(mockup)
        .values({
          ...{ id, studioId: STUDIO, projectId, name: input.name, nameKey: nameKey(input.name) },
          body: JSON.stringify(input.body),
          createdAt: now,
          updatedAt: now,
        })
        .run();
      note(tx, 'mockup.created', id);
      return done({ id, version: 1 });
    },
  );
}

export function saveMockup(
  db: Db,
  id: string,
  input: { base: number; name: string; body: Mockup },
): Outcome<{ version: number }> {
  return writing(db, { what: 'mock-up', name: input.name }, (tx): Outcome<{ version: number }> => {
    const row = findRow(tx, id);
    if (!row) return noMockup(id);
    if (row.version !== input.base) {
      const current = getMockup(tx, id);
      return stale(`“${row.name}”`, input.base, row.version, current.ok ? current.value : null);
    }
    const refused = refusal(tx, row.projectId, input.body);
    if (refused) return fail('invalid', refused, 'body');
    const version = row.version + 1;
    tx.update(mockup)
      .set({
        name: input.name,
        nameKey: nameKey(input.name),
        body: JSON.stringify(input.body),
        version,
        updatedAt: Date.now(),
      })
      .where(eq(mockup.id, id))
      .run();
    note(tx, 'mockup.changed', id, { version });
    return done({ version });
  });
}

/** Doubles a mock-up in its project, with its picture; both show the same layouts. */
export function copyMockup(db: Db, id: string, name: string): Outcome<{ id: string }> {
  return writing(db, { what: 'mock-up', name }, (tx): Outcome<{ id: string }> => {
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
export function setMockupArchived(db: Db, id: string, archived: boolean): Outcome<{ id: string }> {
  return writing(db, { what: 'mock-up', name: '' }, (tx): Outcome<{ id: string }> => {
    const { changes } = tx
      .update(mockup)
      .set({ archivedAt: archived ? Date.now() : null })
      .where(and(eq(mockup.id, id), eq(mockup.studioId, STUDIO)))
      .run();
    if (changes === 0) return noMockup(id);
    note(tx, archived ? 'mockup.archived' : 'mockup.restored', id);
    return done({ id });
  });
}

export type Still = { bytes: Buffer; mediaType: string; width: number; height: number };

/** Keeps the picture of a mock-up, the last one only. */
export function keepStill(db: Db, id: string, still: Still): Outcome<{ stillAt: number }> {
  if (!findRow(db, id)) return noMockup(id);
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
    .where(and(eq(mockupStill.mockupId, id), eq(mockup.studioId, STUDIO)))
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

function bodyOf(row: Row): Mockup | null {
  try {
    const body = JSON.parse(row.body) as Mockup;
    return mockupFault(body) === null ? body : null;
  } catch {
    return null;
  }
}

const summaryOf = (row: Row, stillAt: number | null): MockupSummary => {
  const { id, projectId, name, version, updatedAt, archivedAt } = row;
  return { id, projectId, name, version, updatedAt, archivedAt, stillAt };
};

const findRow = (db: Db, id: string): Row | undefined =>
  db
    .select()
    .from(mockup)
    .where(and(eq(mockup.id, id), eq(mockup.studioId, STUDIO)))
    .get();

const noMockup = (id: string): ReturnType<typeof fail> =>
  fail('not_found', `There is no mock-up with the id “${id}”.`, 'id');
