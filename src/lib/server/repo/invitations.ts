import type { Accepting, Inviting } from '../../contract/given-people';
import { and, count, desc, eq, gt, isNull, type SQL } from 'drizzle-orm';
import type { InvitationData, OpenInvitation } from '../../contract/people';
import { PEOPLE_LIMITS } from '../../contract/people';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Db } from '../db/open';
import { invitation, project } from '../db/schema';
import { among, note, writing } from './context';
import { addPerson, crowded, emailKey, getPerson, noPerson, studioState } from './people';
import { statement } from './rows';

const DAY_MS = 24 * 60 * 60 * 1000;
/** For how long a link for a new password may be used. */
const RENEWAL_MS = 2 * DAY_MS;

type Row = typeof invitation.$inferSelect;

/** Keeps a link under its key: whoever has it comes into the studio, once. */
export function invite(
  db: Db,
  key: string,
  { days, projects, ...of }: Inviting,
): Outcome<{ endsAt: number }> {
  return writing(db, { what: 'invitation', name: of.name }, (tx): Outcome<{ endsAt: number }> => {
    const full = crowded(tx);
    if (full) return full;
    const waiting = tx.select({ count: count() }).from(invitation).where(isOpen(tx)).get();
    if ((waiting?.count ?? 0) >= PEOPLE_LIMITS.invitations)
      return fail(
        'too_large',
        `At most ${PEOPLE_LIMITS.invitations} invitations wait at a time; withdraw some.`,
      );
    const known = tx.select({ id: project.id }).from(project).where(among(project.id, projects)).all();
    if (known.length < projects.length)
      return fail(
        'not_found',
        'A project of this invitation is not there any more; choose others.',
        'projects',
      );
    return done(keep(tx, key, { ...of, projects: JSON.stringify(projects), personId: null }, days * DAY_MS));
  });
}

/** Keeps a link by which somebody gives themselves a new password. Older ones of theirs are void. */
export function renewal(db: Db, key: string, personId: string): Outcome<{ endsAt: number }> {
  return writing(db, { what: 'link', name: '' }, (tx): Outcome<{ endsAt: number }> => {
    const held = getPerson(tx, personId);
    if (!held) return noPerson();
    if (held.email === null || (held.endsAt !== null && held.endsAt <= Date.now()))
      return fail('invalid', `${held.name} does not sign in here; invite them.`);
    statement(tx, 'DELETE FROM invitation WHERE person_id = ? AND used_at IS NULL').run(personId);
    const { name, role } = held;
    return done(keep(tx, key, { name, role, projects: '[]', personId, leavesAt: null }, RENEWAL_MS));
  });
}

function keep(
  tx: Db,
  key: string,
  of: Pick<Row, 'name' | 'role' | 'projects' | 'personId' | 'leavesAt'>,
  lasts: number,
): { endsAt: number } {
  const now = Date.now();
  const endsAt = now + lasts;
  tx.insert(invitation)
    .values({ id: key, studioId: tx.studio, ...of, madeBy: tx.person, createdAt: now, endsAt })
    .run();
  note(tx, of.personId ? 'person.renewal' : 'person.invited', of.personId ?? tx.studio, { role: of.role });
  return { endsAt };
}

/** Links that can still be used. */
const isOpen = (db: Db): SQL | undefined =>
  and(eq(invitation.studioId, db.studio), isNull(invitation.usedAt), gt(invitation.endsAt, Date.now()));

/** Links that can still be used. What they say is not kept, so that nobody reads it here. */
export function listInvitations(db: Db): InvitationData[] {
  const rows = db.select().from(invitation).where(isOpen(db)).orderBy(desc(invitation.createdAt)).all();
  return rows.map(({ id, name, role, projects, personId, leavesAt, madeBy, createdAt, endsAt }) => ({
    ...{ id, name, role, personId, leavesAt, createdAt, endsAt },
    projects: namesOf(db, JSON.parse(projects) as string[]),
    madeBy: madeBy === null ? null : (getPerson(db, madeBy)?.name ?? null),
  }));
}

const namesOf = (db: Db, ids: readonly string[]): string[] =>
  db
    .select({ name: project.name })
    .from(project)
    .where(among(project.id, ids))
    .all()
    .map(({ name }) => name);

export function withdraw(db: Db, id: string): Outcome<{ id: string }> {
  const sql = 'DELETE FROM invitation WHERE id = ? AND studio_id = ? AND used_at IS NULL';
  const { changes } = statement(db, sql).run(id, db.studio);
  return changes > 0 ? done({ id }) : fail('not_found', 'This link was used or withdrawn already.');
}

/** One that was used, withdrawn, is late or never was are told alike. */
const VOID = fail(
  'not_found',
  'This link is not valid any more: it was used, withdrawn or is too old. Ask whoever sent it for another.',
);

function open(db: Db, key: string): Row | undefined {
  return db
    .select()
    .from(invitation)
    .where(and(eq(invitation.id, key), isOpen(db)))
    .get();
}

export function openInvitation(db: Db, key: string): Outcome<OpenInvitation> {
  const row = open(db, key);
  if (!row) return VOID;
  const { name, role, endsAt, personId } = row;
  const email = personId === null ? null : (getPerson(db, personId)?.email ?? null);
  return done({ studio: studioState(db).name, name, role, email, renewal: personId !== null, endsAt });
}

/** Uses a link: makes the person, or gives them their new password. Answers who it is. */
export function accept(db: Db, key: string, given: Accepting): Outcome<{ id: string }> {
  return writing(db, { what: 'person', name: given.email ?? '' }, (tx): Outcome<{ id: string }> => {
    const row = open(tx, key);
    if (!row) return VOID;
    statement(tx, 'UPDATE invitation SET used_at = ? WHERE id = ?').run(Date.now(), key);
    if (row.personId !== null) {
      statement(tx, 'UPDATE person SET password = ? WHERE id = ?').run(given.password, row.personId);
      statement(tx, 'DELETE FROM session WHERE person_id = ?').run(row.personId);
      note(tx, 'person.password', row.personId);
      return done({ id: row.personId });
    }
    const { email } = given;
    if (email === undefined) return fail('invalid', 'Say with which address you will sign in.', 'email');
    const sql = 'SELECT 1 FROM person WHERE studio_id = ? AND email = ?';
    if (statement(tx, sql).get(tx.studio, emailKey(email)))
      return fail(
        'name_taken',
        'Somebody with this address is in the studio already; sign in, or choose another.',
        'email',
      );
    const full = crowded(tx);
    if (full) return full;
    const { password } = given;
    const id = addPerson(tx, {
      ...{ name: given.name ?? row.name, role: row.role, email, password, endsAt: row.leavesAt },
    });
    for (const of of JSON.parse(row.projects) as string[])
      statement(
        tx,
        'INSERT OR IGNORE INTO project_person (project_id, person_id) SELECT id, ? FROM project WHERE id = ?',
      ).run(id, of);
    return done({ id });
  });
}
