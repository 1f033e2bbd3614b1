import type { MyPatch, PersonPatch, StudioOpening } from '../../contract/given-people';
import type { StudioState } from '../../contract/answers';
import type { PersonData, Role } from '../../contract/people';
import { PEOPLE_LIMITS } from '../../contract/people';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Db } from '../db/open';
import { person } from '../db/schema';
import { newId, note, writing } from './context';
import { statement } from './rows';

/** Colours of frames and initials: each tells itself apart from white and from the others. */
const COLOURS = ['#0d5a50', '#b23a12', '#3b4cb8', '#8f5a00', '#8a2f7d', '#1f6f9c', '#4d6b12', '#a32240'];

export type PersonRow = typeof person.$inferSelect;

export function studioState(db: Db): StudioState {
  const row = statement(db, 'SELECT name, opened_at, open_patterns FROM studio WHERE id = ?').get(
    db.studio,
  ) as { name: string; opened_at: number | null; open_patterns: number } | undefined;
  return {
    name: row?.name ?? 'Studio',
    opened: (row?.opened_at ?? null) !== null,
    openPatterns: row?.open_patterns === 1,
  };
}

export function changeStudio(
  db: Db,
  { name, openPatterns }: { name?: string; openPatterns?: boolean },
): Outcome<StudioState> {
  const now = studioState(db);
  statement(db, 'UPDATE studio SET name = ?, open_patterns = ? WHERE id = ?').run(
    name ?? now.name,
    (openPatterns ?? now.openPatterns) ? 1 : 0,
    db.studio,
  );
  note(db, 'studio.changed', db.studio);
  return done(studioState(db));
}

const COLUMNS = 'id, name, role, colour, email, created_at, ends_at';
type Row = {
  id: string;
  name: string;
  role: Role;
  colour: string;
  email: string | null;
  created_at: number;
  ends_at: number | null;
};

const personOf = ({ created_at, ends_at, ...row }: Row): PersonData => ({
  ...row,
  createdAt: created_at,
  endsAt: ends_at,
  seenAt: null,
});

/** Somebody of the studio, also one who has left; `null` where there is no such person. */
export function getPerson(db: Db, id: string): PersonData | null {
  const row = statement(db, `SELECT ${COLUMNS} FROM person WHERE id = ? AND studio_id = ?`).get(
    id,
    db.studio,
  );
  return row ? personOf(row as Row) : null;
}

/** All people by name. Addresses, and when somebody was last here, are for owners. */
export function listPeople(db: Db, forOwner: boolean): PersonData[] {
  const rows = statement(
    db,
    `SELECT ${COLUMNS}, (SELECT max(seen_at) FROM session s WHERE s.person_id = person.id) AS seen
      FROM person WHERE studio_id = ? ORDER BY name COLLATE NOCASE, id`,
  ).all(db.studio) as (Row & { seen: number | null })[];
  return rows.map(({ seen, ...row }) => {
    const data = personOf(row);
    return forOwner ? { ...data, seenAt: seen } : { ...data, email: row.id === db.person ? row.email : null };
  });
}

/** Who may sign in with an address: their id and password. */
export function byEmail(db: Db, email: string): { id: string; password: string | null } | null {
  const row = statement(
    db,
    'SELECT id, password FROM person WHERE studio_id = ? AND email = ? AND (ends_at IS NULL OR ends_at > ?)',
  ).get(db.studio, emailKey(email), Date.now());
  return (row as { id: string; password: string | null } | undefined) ?? null;
}

/** An address as it is compared: without outer spaces, in lower case, in one form of Unicode. */
export const emailKey = (email: string): string => email.trim().normalize('NFC').toLowerCase();

/** The one person of a studio that is not opened; made where there is none. */
export function onlyPerson(db: Db): string {
  const held = statement(
    db,
    "SELECT id FROM person WHERE studio_id = ? AND role = 'owner' ORDER BY created_at, id LIMIT 1",
  )
    .pluck()
    .get(db.studio) as string | undefined;
  return held ?? addPerson(db, { name: 'You', role: 'owner', email: null, password: null });
}

export type FreshPerson = {
  name: string;
  role: Role;
  email: string | null;
  password: string | null;
  endsAt?: number | null;
};

/** A new person, in the transaction that is under way; answers their id. */
export function addPerson(db: Db, { name, role, email, password, endsAt = null }: FreshPerson): string {
  const id = newId();
  const count = statement(db, 'SELECT count(*) FROM person').pluck().get() as number;
  db.insert(person)
    .values({
      ...{ id, studioId: db.studio, name, role, password, endsAt },
      email: email === null ? null : emailKey(email),
      colour: COLOURS[count % COLOURS.length] ?? '#0d5a50',
      createdAt: Date.now(),
    })
    .run();
  note(db, 'person.came', id);
  return id;
}

/** Makes the one person of this studio its first owner: from then on everyone signs in. */
export function openStudio(
  db: Db,
  { studio, name, email, password }: StudioOpening,
): Outcome<{ id: string }> {
  return writing(db, { what: 'person', name: email }, (tx) => {
    if (studioState(tx).opened) return fail('invalid', 'The studio is open already; sign in.');
    const id = onlyPerson(tx);
    statement(tx, 'UPDATE person SET name = ?, email = ?, password = ? WHERE id = ?').run(
      name,
      emailKey(email),
      password,
      id,
    );
    statement(tx, 'UPDATE studio SET name = ?, opened_at = ? WHERE id = ?').run(
      studio,
      Date.now(),
      tx.studio,
    );
    note(tx, 'studio.opened', tx.studio);
    return done({ id });
  });
}

export function changeMe(db: Db, id: string, { name, colour }: MyPatch): Outcome<PersonData> {
  const held = getPerson(db, id);
  if (!held) return noPerson();
  statement(db, 'UPDATE person SET name = ?, colour = ? WHERE id = ?').run(
    name ?? held.name,
    colour ?? held.colour,
    id,
  );
  note(db, 'person.changed', id);
  return done({ ...held, name: name ?? held.name, colour: colour ?? held.colour });
}

/** Another role, or a time from which somebody is not in the studio any more. There is always an owner who can sign in. */
export function changePerson(db: Db, id: string, change: PersonPatch): Outcome<PersonData> {
  return writing(db, { what: 'person', name: '' }, (tx) => {
    const held = getPerson(tx, id);
    if (!held) return noPerson();
    const next = {
      role: change.role ?? held.role,
      endsAt: change.endsAt === undefined ? held.endsAt : change.endsAt,
    };
    const stays = next.role === 'owner' && next.endsAt === null;
    if (!stays && !hasOwnerBut(tx, id))
      return fail(
        'last_owner',
        `${held.name} is the only owner who stays. Make somebody else an owner first.`,
        change.role === undefined ? 'endsAt' : 'role',
      );
    statement(tx, 'UPDATE person SET role = ?, ends_at = ? WHERE id = ?').run(next.role, next.endsAt, id);
    if (next.endsAt !== null && next.endsAt <= Date.now())
      statement(tx, 'DELETE FROM session WHERE person_id = ?').run(id);
    note(tx, 'person.changed', id, { ...next, was: { role: held.role, endsAt: held.endsAt } });
    return done({ ...held, ...next });
  });
}

/** True where there is another owner who stays and has a way to sign in. */
function hasOwnerBut(db: Db, id: string): boolean {
  const sql = `SELECT 1 FROM person p WHERE studio_id = ? AND id <> ? AND role = 'owner' AND ends_at IS NULL
    AND (password IS NOT NULL OR EXISTS (SELECT 1 FROM passkey k WHERE k.person_id = p.id))`;
  return statement(db, sql).get(db.studio, id) !== undefined;
}

/** True where somebody can come in as an owner, or holds a link to: Isle may be reached from elsewhere only then. */
export function hasOwner(db: Db): boolean {
  if (!studioState(db).opened) return false;
  const sql = `SELECT 1 FROM invitation i JOIN person p ON p.id = i.person_id
    WHERE p.studio_id = ? AND p.role = 'owner' AND i.used_at IS NULL AND i.ends_at > ?`;
  return hasOwnerBut(db, '') || statement(db, sql).get(db.studio, Date.now()) !== undefined;
}

/** A failure where the studio is as large as it may be. */
export function crowded(db: Db): ReturnType<typeof fail> | null {
  const count = statement(db, 'SELECT count(*) FROM person WHERE studio_id = ?')
    .pluck()
    .get(db.studio) as number;
  return count < PEOPLE_LIMITS.people
    ? null
    : fail('too_large', `A studio has at most ${PEOPLE_LIMITS.people} people, those who left among them.`);
}

export const noPerson = (): ReturnType<typeof fail> => fail('not_found', 'There is no such person here.');
