import type { ProjectPatch } from '../../contract/given';
import { and, asc, count, eq, inArray, isNotNull, isNull, ne } from 'drizzle-orm';
import type { LayoutSummary, ProjectDetail, ProjectSummary } from '../../contract/data';
import type { LengthUnit } from '../../core/num/length';
import { freshPress, type PressSettings } from '../../core/colour/press';
import { freshProof, type ProofSettings } from '../../core/proof/limits';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Db } from '../db/open';
import { fill, layout, project, shape } from '../db/schema';
import { seen } from './access';
import { newId, note, stale, writing } from './context';
import { touching } from './layout-log';
import { nameKey } from './names';
import { hasProfile } from './press-profiles';
import { summariesOf } from './summaries';

type ProjectRow = typeof project.$inferSelect;
/** All projects by name; archived ones only on request. */
export function listProjects(db: Db, archived = false): ProjectSummary[] {
  const rows = db
    .select()
    .from(project)
    .where(
      and(
        eq(project.studioId, db.studio),
        archived ? isNotNull(project.archivedAt) : isNull(project.archivedAt),
        seen(db, project.id),
      ),
    )
    .orderBy(asc(project.nameKey))
    .all();
  const counts = countsOf(
    db,
    rows.map((row) => row.id),
  );
  return rows.map((row) => ({ ...plainSummary(row), ...(counts.get(row.id) ?? NO_COUNTS) }));
}

type Counts = { layouts: number; patterns: number };
const NO_COUNTS: Counts = { layouts: 0, patterns: 0 };

/** How many live layouts projects have, and how many patterns these use. */
function countsOf(db: Db, ids: readonly string[]): Map<string, Counts> {
  const rows = db.$client
    .prepare(
      `SELECT l.project_id AS id, count(DISTINCT l.id) AS layouts, count(DISTINCT f.pattern_id) AS patterns FROM layout l
        LEFT JOIN shape s ON s.layout_id = l.id LEFT JOIN fill f ON f.shape_id = s.id
        WHERE l.archived_at IS NULL AND l.project_id IN (SELECT value FROM json_each(?)) GROUP BY l.project_id`,
    )
    .all(JSON.stringify(ids)) as ({ id: string } & Counts)[];
  return new Map(rows.map(({ id, ...counts }) => [id, counts]));
}

/** One project with its layouts and the patterns that they use. */
export function getProject(db: Db, id: string): Outcome<ProjectDetail> {
  const row = findRow(db, id);
  if (!row) return noProject(id);
  const patternList = summariesOf(db, usedPatterns(db, id));
  return done({
    ...summary(db, row),
    proof: proofFrom(row.proof),
    press: pressFrom(row.press),
    layoutList: layoutsOf(db, id),
    patternList,
  });
}

/** A new project without layouts. */
export function createProject(
  db: Db,
  name: string,
  measure: LengthUnit = 'mm',
): Outcome<{ id: string; version: number }> {
  return writing(db, { what: 'project', name }, (tx) => {
    const id = newId();
    const now = Date.now();
    tx.insert(project)
      .values({
        id,
        studioId: tx.studio,
        name,
        nameKey: nameKey(name),
        measure,
        createdAt: now,
        updatedAt: now,
      })
      .run();
    note(tx, 'project.created', id);
    return done({ id, version: 1 });
  });
}

/** How the layouts of a project are proofed. */
export function projectProof(db: Db, id: string): ProofSettings {
  return proofFrom(findRow(db, id)?.proof ?? null);
}

/** Limits that are not stored are as they start: there may be new ones. */
function proofFrom(stored: string | null): ProofSettings {
  const fresh = freshProof();
  if (stored === null) return fresh;
  try {
    const { medium, print, screen } = JSON.parse(stored) as ProofSettings;
    return { medium, print: { ...fresh.print, ...print }, screen: { ...fresh.screen, ...screen } };
  } catch {
    return fresh;
  }
}

/** By which press the colours of a project become inks. */
export function projectPress(db: Db, id: string): PressSettings {
  return pressFrom(findRow(db, id)?.press ?? null);
}

function pressFrom(stored: string | null): PressSettings {
  const fresh = freshPress();
  if (stored === null) return fresh;
  try {
    return { ...fresh, ...(JSON.parse(stored) as PressSettings) };
  } catch {
    return fresh;
  }
}

/**
 * Renames a project, gives it another unit of length, in which all its layouts are shown from then on, other limits by which
 * they are proofed, or another press.
 */
export function changeProject(
  db: Db,
  id: string,
  base: number,
  { name, measure, proof, press }: ProjectPatch,
): Outcome<{ version: number }> {
  return writing(db, { what: 'project', name: name ?? '' }, (tx): Outcome<{ version: number }> => {
    const row = findRow(tx, id);
    if (!row) return noProject(id);
    if (row.version !== base) return stale(`“${row.name}”`, base, row.version, summary(tx, row));
    if (press && press.profile !== null && !hasProfile(tx, press.profile))
      return fail('not_found', 'There is no such press profile any more; choose another.', 'press.profile');
    const version = row.version + 1;
    tx.update(project)
      .set({
        ...(name === undefined ? {} : { name, nameKey: nameKey(name) }),
        ...(measure === undefined ? {} : { measure }),
        ...(proof === undefined ? {} : { proof: JSON.stringify(proof) }),
        ...(press === undefined ? {} : { press: JSON.stringify(press) }),
        version,
        updatedAt: Date.now(),
      })
      .where(eq(project.id, id))
      .run();
    if (measure !== undefined) showIn(tx, id, measure);
    if (proof !== undefined) note(tx, 'project.proof', id);
    if (press !== undefined) note(tx, 'project.press', id);
    return done({ version });
  });
}

/** Has all layouts of a project show their lengths in one unit; who has one open is told. */
function showIn(db: Db, projectId: string, measure: LengthUnit): void {
  const others = and(eq(layout.projectId, projectId), ne(layout.measure, measure));
  const pages = db.select({ id: layout.id }).from(layout).where(others).all();
  touching(db, { fills: undefined, pages: pages.map(({ id }) => id) }, () => {
    db.update(layout).set({ measure }).where(others).run();
  });
}

/** Puts a project into the archive or takes it out; its layouts stay as they are. */
export function setProjectArchived(db: Db, id: string, archived: boolean): Outcome<{ id: string }> {
  return writing(db, { what: 'project', name: '' }, (tx): Outcome<{ id: string }> => {
    const row = findRow(tx, id);
    if (!row) return noProject(id);
    tx.update(project)
      .set({ archivedAt: archived ? Date.now() : null })
      .where(eq(project.id, id))
      .run();
    note(tx, archived ? 'project.archived' : 'project.restored', id);
    return done({ id });
  });
}

/** The layouts of a project by name, archived ones left out. */
export function layoutsOf(db: Db, projectId: string): LayoutSummary[] {
  const rows = db
    .select()
    .from(layout)
    .where(and(eq(layout.projectId, projectId), isNull(layout.archivedAt)))
    .orderBy(asc(layout.createdAt), asc(layout.nameKey))
    .all();
  const counts = new Map(
    db
      .select({ id: shape.layoutId, shapes: count() })
      .from(shape)
      .where(
        inArray(
          shape.layoutId,
          rows.map((row) => row.id),
        ),
      )
      .groupBy(shape.layoutId)
      .all()
      .map((row) => [row.id, row.shapes]),
  );
  return rows.map((row) => ({
    id: row.id,
    projectId,
    name: row.name,
    width: row.width,
    height: row.height,
    measure: row.measure,
    shapes: counts.get(row.id) ?? 0,
    version: row.version,
    updatedAt: row.updatedAt,
    archivedAt: row.archivedAt,
  }));
}

function usedPatterns(db: Db, projectId: string): string[] {
  return db
    .selectDistinct({ id: fill.patternId })
    .from(fill)
    .innerJoin(shape, eq(shape.id, fill.shapeId))
    .innerJoin(layout, eq(layout.id, shape.layoutId))
    .where(and(eq(layout.projectId, projectId), isNull(layout.archivedAt), isNotNull(fill.patternId)))
    .all()
    .flatMap((row) => (row.id === null ? [] : [row.id]));
}

const summary = (db: Db, row: ProjectRow): ProjectSummary => ({
  ...plainSummary(row),
  ...(countsOf(db, [row.id]).get(row.id) ?? NO_COUNTS),
});

const plainSummary = ({ id, name, measure, closed, demandsApproval, version, ...row }: ProjectRow) => ({
  ...{ id, name, measure, closed, demandsApproval, version },
  ...{ archivedAt: row.archivedAt, updatedAt: row.updatedAt },
});

function findRow(db: Db, id: string): ProjectRow | undefined {
  return db
    .select()
    .from(project)
    .where(and(eq(project.id, id), eq(project.studioId, db.studio)))
    .get();
}

function noProject(id: string): ReturnType<typeof fail> {
  return fail('not_found', `There is no project with the id “${id}”.`, 'id');
}
