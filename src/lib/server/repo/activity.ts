import { done, type Outcome } from '../../contract/failure';
import type { ActivityAsked } from '../../contract/given-people';
import { ACTIVITY_KINDS, type ActivityItem } from '../../contract/talk';
import type { PersonData } from '../../contract/people';
import type { Db } from '../db/open';
import { unreachable } from './access';
import { placeOf } from './places';
import { statement } from './rows';
import { canTakeBack } from './taking-back';

type Row = {
  id: number;
  kind: string;
  subject: string;
  data: string;
  at: number;
  name: string | null;
  colour: string | null;
};

/** Things of a project: itself, its layouts, what shows them, and changes of many fills that reach into it. */
const OF_PROJECT = `(e.subject_id = ? OR e.subject_id IN (
    SELECT id FROM layout WHERE project_id = ? UNION ALL SELECT id FROM mockup WHERE project_id = ?
    UNION ALL SELECT id FROM client_sheet WHERE project_id = ? UNION ALL SELECT id FROM strike_off WHERE project_id = ?)
  OR (e.kind LIKE 'bulk.%' AND EXISTS (SELECT 1 FROM bulk_change b, json_each(b.fills, '$.fills') f
    JOIN shape s ON s.id = json_extract(f.value, '$.shapeId') JOIN layout l ON l.id = s.layout_id
    WHERE b.id = e.subject_id AND l.project_id = ?)))`;
/** Things of the library: patterns, palettes, and what was changed of their uses. */
const OF_LIBRARY = `(substr(e.kind, 1, instr(e.kind, '.')) IN ('pattern.', 'palette.', 'bulk.')
  OR e.subject_id IN (SELECT id FROM pattern))`;

/**
 * The latest things that happened, as far as whoever asks may know of them: in the studio, in one project, or in the library;
 * `before` goes on from an earlier answer.
 */
export function listActivity(
  db: Db,
  person: PersonData,
  { before, project, library = false }: ActivityAsked,
  most = 60,
): Outcome<ActivityItem[]> {
  const fault = project === undefined ? null : unreachable(db, person, 'project', project, false);
  if (fault) return { ok: false, failure: fault };
  const [which, ids] =
    project === undefined
      ? [library ? OF_LIBRARY : 'TRUE', []]
      : [OF_PROJECT, Array<string>(6).fill(project)];
  const rows = statement(
    db,
    `SELECT e.id, e.kind, e.subject_id AS subject, e.data, e.created_at AS at, p.name, p.colour FROM event e
      LEFT JOIN person p ON p.id = e.person_id
      WHERE e.studio_id = ? AND e.id < ? AND e.kind IN (SELECT value FROM json_each(?)) AND ${which}
      ORDER BY e.id DESC LIMIT ?`,
  ).all(db.studio, before ?? Number.MAX_SAFE_INTEGER, JSON.stringify(ACTIVITY_KINDS), ...ids, most) as Row[];
  const items = rows.flatMap(({ id, kind, subject, data, at, name, colour }): ActivityItem[] => {
    const place = placeOf(db, subject);
    if (place?.kind && unreachable(db, person, place.kind, place.of, false)) return [];
    const told = JSON.parse(data) as Record<string, unknown>;
    const what =
      place?.name ??
      (typeof told.name === 'string' ? told.name : typeof told.summary === 'string' ? told.summary : '');
    const by = name === null ? null : { name, colour: colour ?? '#5c6664' };
    const undo = canTakeBack(db, person, { id, kind, subject, data: told });
    return [{ id, kind, by, at, what, href: place?.href ?? null, data: told, undo }];
  });
  return done(items);
}
