import type { ProjectPeople } from '../../contract/given-people';
import { sql, type AnyColumn, type SQL } from 'drizzle-orm';
import type { Role } from '../../contract/people';
import { mayAs } from '../../contract/people';
import { done, fail, type Failure, type Outcome } from '../../contract/failure';
import type { Db } from '../db/open';
import { note, writing } from './context';
import { statement } from './rows';

/** Who asks: their id and role. */
export type Asker = { id: string; role: Role };

type Kind = { table: string; what: string; at: string; project?: 'id' | 'project_id' };

/** What belongs to a studio under an id of its own: how it is called, where it is in addresses, and by which column it is of a project. */
const KINDS = {
  pattern: { table: 'pattern', what: 'pattern', at: 'patterns' },
  palette: { table: 'palette', what: 'palette', at: 'palettes' },
  collection: { table: 'collection', what: 'collection', at: 'collections' },
  change: { table: 'bulk_change', what: 'change', at: 'changes' },
  font: { table: 'font', what: 'font', at: 'fonts' },
  press: { table: 'press_profile', what: 'press profile', at: 'press-profiles' },
  photo: { table: 'photo_object', what: 'photograph', at: 'photo-objects' },
  project: { table: 'project', what: 'project', at: 'projects', project: 'id' },
  layout: { table: 'layout', what: 'layout', at: 'layouts', project: 'project_id' },
  'strike-off': { table: 'strike_off', what: 'strike-off', at: 'strike-offs', project: 'project_id' },
  mockup: { table: 'mockup', what: 'mock-up', at: 'mock-ups', project: 'project_id' },
  sheet: { table: 'client_sheet', what: 'client sheet', at: 'client-sheets', project: 'project_id' },
} satisfies Record<string, Kind>;
export type KindOfThing = keyof typeof KINDS;

const isKind = (name: string): name is KindOfThing => Object.hasOwn(KINDS, name);

/** What the ids in an address of the API are the ids of; `null` where they are looked after by whoever answers. */
export function kindAt(path: string): KindOfThing | null {
  const part = path.split('/')[1];
  return (Object.keys(KINDS) as KindOfThing[]).find((kind) => KINDS[kind].at === part) ?? null;
}

/** What an event such as `layout.changed` is about; `null` where that is nothing under an id. */
export function kindOfEvent(event: string): KindOfThing | null {
  const name = event.slice(0, Math.max(0, event.indexOf('.')));
  return isKind(name) ? name : null;
}

/**
 * Whether somebody may reach something: it is of this studio, its project is not closed to them, and
 * where they are a contributor and mean to change it, they are named in the project, or it is a proposal of theirs. `null` where
 * they may; what they must not see is told as if it were not there.
 */
export function unreachable(
  db: Db,
  asker: Asker,
  name: KindOfThing,
  id: string,
  changes: boolean,
): Failure | null {
  const kind: Kind = KINDS[name];
  const found = statement(
    db,
    `SELECT studio_id AS studio, ${kind.project ?? 'NULL'} AS project FROM ${kind.table} WHERE id = ?`,
  ).get(id) as { studio: string; project: string | null } | undefined;
  // What is not there at all is told by whoever looks for it.
  if (!found) return null;
  const missing = fail('not_found', `There is no ${kind.what} with the id “${id}”.`).failure;
  if (found.studio !== db.studio) return missing;
  if (kind.project) return projectFault(db, asker, found.project ?? '', changes, missing);
  if (kind.table === 'pattern' && changes && asker.role === 'contributor' && !isProposalOf(db, id, asker.id))
    return fail(
      'forbidden',
      'As a contributor you change only patterns that you proposed and that are not published yet. Keep yours as a new one.',
    ).failure;
  return null;
}

function projectFault(db: Db, asker: Asker, id: string, changes: boolean, missing: Failure): Failure | null {
  const closed = statement(db, 'SELECT closed FROM project WHERE id = ?').pluck().get(id) === 1;
  if (asker.role === 'owner' || (!closed && !(changes && asker.role === 'contributor'))) return null;
  if (isNamedIn(db, id, asker.id)) return null;
  if (closed) return missing;
  return fail(
    'forbidden',
    'As a contributor you work in projects that you are named in; ask a designer to name you in this one.',
  ).failure;
}

const isNamedIn = (db: Db, projectId: string, personId: string): boolean =>
  statement(db, 'SELECT 1 FROM project_person WHERE project_id = ? AND person_id = ?').get(
    projectId,
    personId,
  ) !== undefined;

/** A pattern that a person made and that was never published. */
const isProposalOf = (db: Db, patternId: string, personId: string): boolean =>
  statement(
    db,
    `SELECT 1 FROM pattern p JOIN event e ON e.subject_id = p.id AND e.kind = 'pattern.created'
      WHERE p.id = ? AND p.newest = 0 AND e.person_id = ?`,
  ).get(patternId, personId) !== undefined;

/** The ids of projects that whoever asks must not see. */
export function closedProjects(db: Db): ReadonlySet<string> {
  if (db.person === null) return new Set();
  const ids = statement(
    db,
    `SELECT id FROM project WHERE closed = 1
      AND NOT EXISTS (SELECT 1 FROM person WHERE id = ? AND role = 'owner')
      AND NOT EXISTS (SELECT 1 FROM project_person WHERE project_id = project.id AND person_id = ?)`,
  )
    .pluck()
    .all(db.person, db.person) as string[];
  return new Set(ids);
}

/** True for rows whose project whoever asks may see; rows of no project are seen by all. */
export const seen = (db: Db, projectId: AnyColumn): SQL =>
  sql`(${projectId} IS NULL OR ${projectId} NOT IN (SELECT value FROM json_each(${JSON.stringify([...closedProjects(db)])})))`;

export function projectPeople(db: Db, projectId: string): Outcome<ProjectPeople> {
  const closed = statement(db, 'SELECT closed FROM project WHERE id = ? AND studio_id = ?')
    .pluck()
    .get(projectId, db.studio) as number | undefined;
  if (closed === undefined) return fail('not_found', `There is no project with the id “${projectId}”.`);
  const people = statement(db, 'SELECT person_id FROM project_person WHERE project_id = ? ORDER BY person_id')
    .pluck()
    .all(projectId) as string[];
  return done({ closed: closed === 1, people });
}

/** Says who is named in a project, and whether it is closed to others. Whoever closes it and is no owner stays in it. */
export function setProjectPeople(db: Db, projectId: string, wanted: ProjectPeople): Outcome<ProjectPeople> {
  return writing(db, { what: 'project', name: '' }, (tx): Outcome<ProjectPeople> => {
    const known = statement(
      tx,
      'SELECT count(*) FROM person WHERE studio_id = ? AND id IN (SELECT value FROM json_each(?))',
    )
      .pluck()
      .get(tx.studio, JSON.stringify(wanted.people)) as number;
    if (known !== wanted.people.length)
      return fail('not_found', 'Somebody of these is not in the studio; load the page again.', 'people');
    const was = projectPeople(tx, projectId);
    if (!was.ok) return was;
    const people = new Set(wanted.people);
    const asks = statement(tx, 'SELECT role FROM person WHERE id = ?').pluck().get(tx.person) as
      Role | undefined;
    if (wanted.closed && tx.person !== null && asks && !mayAs(asks, 'owner')) people.add(tx.person);
    statement(tx, 'UPDATE project SET closed = ? WHERE id = ?').run(wanted.closed ? 1 : 0, projectId);
    statement(tx, 'DELETE FROM project_person WHERE project_id = ?').run(projectId);
    for (const id of people)
      statement(tx, 'INSERT INTO project_person (project_id, person_id) VALUES (?, ?)').run(projectId, id);
    note(tx, 'project.people', projectId, { closed: wanted.closed, people: [...people], was: was.value });
    return projectPeople(tx, projectId);
  });
}
