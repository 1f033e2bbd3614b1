import { done, fail, type Outcome } from '../../contract/failure';
import type { ProjectPeople } from '../../contract/given-people';
import type { ApprovalState, ApprovedKind } from '../../contract/talk';
import { mayAs, type PersonData, type Role } from '../../contract/people';
import type { Db } from '../db/open';
import { setProjectPeople, unreachable } from './access';
import { approvalOf, setApproval } from './approvals';
import { undoBulk } from './bulk';
import { setSheetArchived } from './client-sheets';
import { setDone } from './comments';
import { nameState } from './layout-states';
import { setLayoutArchived } from './layouts';
import { setMockupArchived } from './mockups';
import { setPaletteArchived } from './palettes';
import { patchPattern, setPatternArchived } from './patterns';
import { changePerson } from './people';
import { placeOf } from './places';
import { setProjectArchived } from './projects';
import { restoreRevision } from './publishing';
import { statement } from './rows';

/** Something that happened, with what is known of it. */
export type Happened = { id: number; kind: string; subject: string; data: Record<string, unknown> };

/** How one kind of event is taken back. */
type Way = {
  /** Kinds of later events of the same thing after which there is nothing to take back. */
  until?: readonly string[];
  /** Whether what it did is still so. */
  holds?: (db: Db, event: Happened) => boolean;
  role?: Role;
  /** Does it; answers how many parts stay as they are, as they were changed since. */
  back: (db: Db, person: PersonData, event: Happened) => Outcome<number>;
};

const ARCHIVES: Readonly<Record<string, (db: Db, id: string, archived: boolean) => Outcome<object>>> = {
  pattern: setPatternArchived,
  layout: setLayoutArchived,
  project: setProjectArchived,
  palette: setPaletteArchived,
  mockup: setMockupArchived,
  sheet: setSheetArchived,
};

const whole = (outcome: Outcome<unknown>): Outcome<number> => (outcome.ok ? done(0) : outcome);

const BULK: Way = {
  holds: (db, { subject }) =>
    statement(db, 'SELECT 1 FROM bulk_change WHERE id = ? AND undone_at IS NULL').get(subject) !== undefined,
  back: (db, _person, { subject }) => {
    const undone = undoBulk(db, subject);
    return undone.ok ? done(undone.value.left) : undone;
  },
};

const versionOf = (db: Db, id: string): number =>
  (statement(db, 'SELECT version FROM pattern WHERE id = ?').pluck().get(id) as number | undefined) ?? 0;

/** The revision before is published again, as the newest. */
const REVISION: Way = {
  until: ['pattern.published', 'pattern.restored_revision'],
  holds: (_db, { data }) => Number(data.revision) > 1,
  back: (db, _person, { subject, data }) =>
    whole(restoreRevision(db, subject, versionOf(db, subject), Number(data.revision) - 1)),
};

const APPROVAL: Way = {
  until: ['approval.asked', 'approval.approved', 'approval.working'],
  holds: (db, { kind, subject, data }) =>
    data.was !== undefined &&
    `approval.${approvalOf(db, data.kind as ApprovedKind, subject)?.state}` === kind,
  back: (db, person, { subject, data }) =>
    whole(
      setApproval(db, person, {
        ...{ kind: data.kind as ApprovedKind, id: subject },
        state: data.was as ApprovalState['state'],
      }),
    ),
};

const WAYS: Readonly<Record<string, Way>> = {
  'bulk.replaced': BULK,
  'bulk.recoloured': BULK,
  'pattern.published': REVISION,
  'pattern.restored_revision': REVISION,
  'pattern.renamed': {
    until: ['pattern.renamed'],
    back: (db, _person, { subject, data }) =>
      whole(patchPattern(db, subject, versionOf(db, subject), { name: String(data.from) })),
  },
  'layout.state_named': {
    holds: (db, { subject, data }) =>
      data.was !== undefined &&
      statement(db, 'SELECT name FROM layout_log WHERE layout_id = ? AND version = ?')
        .pluck()
        .get(subject, data.version) === data.name,
    back: (db, _person, { subject, data }) =>
      whole(nameState(db, subject, Number(data.version), data.was as string | null)),
  },
  'approval.asked': APPROVAL,
  'approval.approved': APPROVAL,
  'comment.done': {
    holds: (db, { data }) =>
      statement(db, 'SELECT 1 FROM comment WHERE id = ? AND done_at IS NOT NULL').get(data.comment) !==
      undefined,
    back: (db, person, { data }) => whole(setDone(db, person, String(data.comment), false)),
  },
  'person.changed': {
    until: ['person.changed'],
    holds: (_db, { data }) => data.was !== undefined,
    role: 'owner',
    back: (db, _person, { subject, data }) =>
      whole(changePerson(db, subject, data.was as { role: Role; endsAt: number | null })),
  },
  'project.people': {
    until: ['project.people'],
    holds: (_db, { data }) => data.was !== undefined,
    back: (db, _person, { subject, data }) => whole(setProjectPeople(db, subject, data.was as ProjectPeople)),
  },
};

/** How an event is taken back, where it can be at all. */
function wayOf(kind: string): Way | undefined {
  const [of = '', did = ''] = kind.split('.');
  const archive = ARCHIVES[of];
  if (!archive || (did !== 'archived' && did !== 'restored')) return WAYS[kind];
  return {
    until: [`${of}.archived`, `${of}.restored`],
    back: (db, _person, { subject }) => whole(archive(db, subject, did === 'restored')),
  };
}

/** Whether somebody may take an event back, and there still is something to take back. */
export function canTakeBack(db: Db, person: PersonData, event: Happened): boolean {
  const way = wayOf(event.kind);
  if (!way || !mayAs(person.role, way.role ?? 'designer')) return false;
  if (!event.kind.startsWith('bulk.') && placeOf(db, event.subject) === null) return false;
  if (way.until && happenedSince(db, event, way.until)) return false;
  return way.holds?.(db, event) ?? true;
}

const happenedSince = (db: Db, { id, subject }: Happened, kinds: readonly string[]): boolean =>
  statement(
    db,
    'SELECT 1 FROM event WHERE subject_id = ? AND id > ? AND kind IN (SELECT value FROM json_each(?)) LIMIT 1',
  ).get(subject, id, JSON.stringify(kinds)) !== undefined;

/** Takes back what happened: an event of the list. Answers how many parts of it stay, as they were changed since. */
export function takeBack(db: Db, person: PersonData, id: number): Outcome<{ left: number }> {
  const row = statement(
    db,
    'SELECT id, kind, subject_id AS subject, data FROM event WHERE id = ? AND studio_id = ?',
  ).get(id, db.studio) as (Omit<Happened, 'data'> & { data: string }) | undefined;
  const event = row && { ...row, data: JSON.parse(row.data) as Record<string, unknown> };
  const place = event && placeOf(db, event.subject);
  const fault = place?.kind && unreachable(db, person, place.kind, place.of, true);
  if (!event || fault)
    return fail('not_found', 'There is no such event any more; load the list again.', 'id');
  const way = wayOf(event.kind);
  if (!way || !canTakeBack(db, person, event))
    return fail(
      'invalid',
      'This cannot be taken back from here any more: it was changed since, or it is not yours to change.',
      'id',
    );
  const left = way.back(db, person, event);
  return left.ok ? done({ left: left.value }) : left;
}
