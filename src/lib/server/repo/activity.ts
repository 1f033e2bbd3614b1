import type { ActivityItem } from '../../contract/talk';
import { mayAs, type PersonData } from '../../contract/people';
import type { Db } from '../db/open';
import { unreachable, type KindOfThing } from './access';
import { statement } from './rows';

/** What people want to hear of; other events only tell open views. */
const KINDS = [
  ...[
    'pattern.published',
    'pattern.archived',
    'pattern.restored',
    'pattern.deleted',
    'pattern.restored_revision',
  ],
  ...[
    'bulk.replaced',
    'bulk.recoloured',
    'bulk.undone',
    'project.created',
    'project.archived',
    'project.restored',
  ],
  ...[
    'layout.created',
    'layout.archived',
    'layout.restored',
    'layout.state_named',
    'approval.asked',
    'approval.approved',
  ],
  ...['approval.working', 'comment.added', 'comment.done', 'person.came', 'person.changed', 'project.people'],
  ...['sheet.linked', 'studio.opened', 'backup.made'],
];

type Row = {
  id: number;
  kind: string;
  subject: string;
  data: string;
  at: number;
  name: string | null;
  colour: string | null;
};

type Place = { name: string; href: string | null; kind: KindOfThing | null; of: string };

/** The latest things that happened, as far as whoever asks may know of them; `before` goes on from an earlier answer. */
export function listActivity(db: Db, person: PersonData, before: number | null, most = 60): ActivityItem[] {
  const rows = statement(
    db,
    `SELECT e.id, e.kind, e.subject_id AS subject, e.data, e.created_at AS at, p.name, p.colour FROM event e
      LEFT JOIN person p ON p.id = e.person_id
      WHERE e.studio_id = ? AND e.id < ? AND e.kind IN (SELECT value FROM json_each(?)) ORDER BY e.id DESC LIMIT ?`,
  ).all(db.studio, before ?? Number.MAX_SAFE_INTEGER, JSON.stringify(KINDS), most) as Row[];
  return rows.flatMap(({ id, kind, subject, data, at, name, colour }): ActivityItem[] => {
    const place = placeOf(db, subject);
    if (place?.kind && unreachable(db, person, place.kind, place.of, false)) return [];
    const told = JSON.parse(data) as Record<string, unknown>;
    const what =
      place?.name ??
      (typeof told.name === 'string' ? told.name : typeof told.summary === 'string' ? told.summary : '');
    const by = name === null ? null : { name, colour: colour ?? '#5c6664' };
    const undo = mayAs(person.role, 'designer') ? undoOf(db, kind, subject) : null;
    return [{ id, kind, by, at, what, href: place?.href ?? null, data: told, undo }];
  });
}

/** What takes something back: a change of many fills that was not undone, what is still in the archive. */
function undoOf(db: Db, kind: string, subject: string): ActivityItem['undo'] {
  if (kind === 'bulk.replaced' || kind === 'bulk.recoloured') {
    const open = statement(db, 'SELECT 1 FROM bulk_change WHERE id = ? AND undone_at IS NULL').get(subject);
    return open ? { do: 'undo-change', id: subject } : null;
  }
  const table = RESTORABLE.find((one) => kind === `${one}.archived`);
  if (!table) return null;
  const archived = statement(db, `SELECT 1 FROM ${table} WHERE id = ? AND archived_at IS NOT NULL`).get(
    subject,
  );
  return archived ? { do: 'restore', kind: table, id: subject } : null;
}
const RESTORABLE = ['pattern', 'layout', 'project'] as const;

/** What an id is the id of, with its name and address. */
export function placeOf(db: Db, id: string): Place | null {
  const found = statement(
    db,
    `SELECT 'pattern' AS kind, name, NULL AS project FROM pattern WHERE id = ?
      UNION ALL SELECT 'layout', name, project_id FROM layout WHERE id = ?
      UNION ALL SELECT 'project', name, id FROM project WHERE id = ?
      UNION ALL SELECT 'person', name, NULL FROM person WHERE id = ?
      UNION ALL SELECT 'sheet', name, project_id FROM client_sheet WHERE id = ?
      UNION ALL SELECT 'strike', name, project_id FROM strike_off WHERE id = ?`,
  ).get(id, id, id, id, id, id) as
    | {
        kind: 'pattern' | 'layout' | 'project' | 'person' | 'sheet' | 'strike';
        name: string;
        project: string | null;
      }
    | undefined;
  if (!found) return null;
  const { kind, name, project } = found;
  if (kind === 'pattern') return { name, href: `/library/${id}`, kind, of: id };
  if (kind === 'layout') return { name, href: `/projects/${project}/layouts/${id}`, kind, of: id };
  if (kind === 'sheet') return { name, href: `/projects/${project}/client-sheets/${id}`, kind, of: id };
  if (kind === 'person') return { name, href: '/studio', kind: null, of: id };
  return { name, href: `/projects/${project}`, kind: 'project', of: project ?? id };
}
