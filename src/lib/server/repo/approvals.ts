import type { ApprovalChange } from '../../contract/given-people';
import type { ApprovalState, ApprovedKind } from '../../contract/talk';
import { mayAs, type PersonData } from '../../contract/people';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Db } from '../db/open';
import { unreachable } from './access';
import { note } from './context';
import { statement } from './rows';

/** How far a layout or pattern is. What was changed since is worked on again. */
export function approvalOf(db: Db, kind: ApprovedKind, id: string): ApprovalState | null {
  const column = kind === 'layout' ? 'version' : 'newest';
  const now = statement(db, `SELECT ${column} FROM ${kind} WHERE id = ? AND studio_id = ?`)
    .pluck()
    .get(id, db.studio) as number | undefined;
  if (now === undefined) return null;
  const row = statement(
    db,
    `SELECT a.state, a.at, a.created_at AS at2, p.name AS by FROM approval a LEFT JOIN person p ON p.id = a.person_id
      WHERE a.id = ? AND a.kind = ?`,
  ).get(id, kind) as { state: 'asked' | 'approved'; at: number; at2: number; by: string | null } | undefined;
  if (!row) return { state: 'working', by: null, at: 0, now, when: null };
  const state = row.state === 'approved' && row.at !== now ? 'working' : row.state;
  return { state, by: row.by, at: row.at, now, when: row.at2 };
}

/** Asks for approval, approves, or takes it back to work. Designers approve; whoever may work on it asks. */
export function setApproval(
  db: Db,
  person: PersonData,
  { kind, id, state }: ApprovalChange,
): Outcome<ApprovalState> {
  const fault = unreachable(db, person, kind, id, true);
  if (fault) return { ok: false, failure: fault };
  const held = approvalOf(db, kind, id);
  if (!held) return fail('not_found', `There is no ${kind} with the id “${id}”.`);
  if (state === 'approved' && !mayAs(person.role, 'designer'))
    return fail('forbidden', 'Designers and owners approve; ask for it.');
  if (kind === 'pattern' && held.now === 0)
    return fail('invalid', 'A pattern must be published before a revision of it is approved.');
  if (state === 'working')
    statement(db, 'DELETE FROM approval WHERE id = ? AND studio_id = ?').run(id, db.studio);
  else
    statement(
      db,
      `INSERT INTO approval (id, studio_id, kind, state, person_id, at, created_at) VALUES (?, ?, ?, ?, ?, ?, ?)
        ON CONFLICT (id) DO UPDATE SET state = excluded.state, person_id = excluded.person_id, at = excluded.at, created_at = excluded.created_at`,
    ).run(id, db.studio, kind, state, person.id, held.now, Date.now());
  note(db, `approval.${state}`, id, { kind, at: held.now, was: held.state });
  return done(approvalOf(db, kind, id) ?? held);
}

/** Says whether a project hands over only what is approved. */
export function setDemand(db: Db, projectId: string, demands: boolean): Outcome<{ demands: boolean }> {
  statement(db, 'UPDATE project SET demands_approval = ? WHERE id = ?').run(demands ? 1 : 0, projectId);
  note(db, 'project.demands_approval', projectId, { demands });
  return done({ demands });
}

export const demandsApproval = (db: Db, projectId: string): boolean =>
  statement(db, 'SELECT demands_approval FROM project WHERE id = ?').pluck().get(projectId) === 1;

/** Why layouts of a project are not handed over yet: the project asks for approval, and some of it is not approved. */
export function notApproved(
  db: Db,
  projectId: string,
  layouts: readonly string[],
): ReturnType<typeof fail> | null {
  if (!demandsApproval(db, projectId)) return null;
  const list = JSON.stringify(layouts);
  const open = [
    ...(statement(
      db,
      `SELECT l.name FROM layout l WHERE l.id IN (SELECT value FROM json_each(?))
        AND NOT EXISTS (SELECT 1 FROM approval a WHERE a.id = l.id AND a.state = 'approved' AND a.at = l.version)`,
    )
      .pluck()
      .all(list) as string[]),
    ...(statement(
      db,
      `SELECT DISTINCT p.name FROM fill f JOIN shape s ON s.id = f.shape_id JOIN pattern p ON p.id = f.pattern_id
        WHERE s.layout_id IN (SELECT value FROM json_each(?)) AND NOT EXISTS
          (SELECT 1 FROM approval a WHERE a.id = p.id AND a.state = 'approved' AND a.at = coalesce(f.held_revision, p.newest))`,
    )
      .pluck()
      .all(list) as string[]),
  ];
  if (open.length === 0) return null;
  const some = open.slice(0, 5).map((name) => `“${name}”`);
  const more = open.length > 5 ? ` and ${open.length - 5} more` : '';
  return fail(
    'in_use',
    `This project hands over only what is approved. Not approved as it is now: ${some.join(', ')}${more}.`,
    'layouts',
  );
}
