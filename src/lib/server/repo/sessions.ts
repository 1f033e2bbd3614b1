import type { PasskeyData, SessionData } from '../../contract/people';
import { PEOPLE_LIMITS } from '../../contract/people';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Db } from '../db/open';
import { passkey } from '../db/schema';
import { note, writing } from './context';
import { statement } from './rows';

const DAY_MS = 24 * 60 * 60 * 1000;
/** A session ends when it was not used for so long, and at the latest so long after it began. */
export const SESSION_IDLE_MS = 14 * DAY_MS;
export const SESSION_MOST_MS = 90 * DAY_MS;
/** How often it is written down that a session is used. */
const SEEN_MS = 5 * 60 * 1000;

/** Begins a session of a person under the key that is made of its cookie; the longest unused ones make room. */
export function beginSession(db: Db, key: string, personId: string, device: string): number {
  const now = Date.now();
  const endsAt = now + SESSION_MOST_MS;
  statement(
    db,
    'INSERT INTO session (id, person_id, device, created_at, seen_at, ends_at) VALUES (?, ?, ?, ?, ?, ?)',
  ).run(key, personId, device, now, now, endsAt);
  statement(
    db,
    `DELETE FROM session WHERE person_id = ? AND id NOT IN
      (SELECT id FROM session WHERE person_id = ? ORDER BY seen_at DESC, created_at DESC LIMIT ${PEOPLE_LIMITS.sessions})`,
  ).run(personId, personId);
  return endsAt;
}

type Held = { person: string; seen: number };

/** Whose session it is, where it stands and its person is in the studio. */
export function sessionPerson(db: Db, key: string): string | null {
  const now = Date.now();
  const held = statement(
    db,
    `SELECT s.person_id AS person, s.seen_at AS seen FROM session s JOIN person p ON p.id = s.person_id
      WHERE s.id = ? AND s.ends_at > ? AND s.seen_at > ? AND (p.ends_at IS NULL OR p.ends_at > ?) AND p.studio_id = ?`,
  ).get(key, now, now - SESSION_IDLE_MS, now, db.studio) as Held | undefined;
  if (!held) return null;
  if (Math.abs(now - held.seen) > SEEN_MS)
    statement(db, 'UPDATE session SET seen_at = ? WHERE id = ?').run(now, key);
  return held.person;
}

export function listSessions(db: Db, personId: string, own: string | null): SessionData[] {
  const now = Date.now();
  const rows = statement(
    db,
    'SELECT id, device, created_at, seen_at, ends_at FROM session WHERE person_id = ? AND ends_at > ? AND seen_at > ? ORDER BY seen_at DESC',
  ).all(personId, now, now - SESSION_IDLE_MS) as {
    id: string;
    device: string;
    created_at: number;
    seen_at: number;
    ends_at: number;
  }[];
  return rows.map(({ created_at, seen_at, ends_at, ...row }) => ({
    ...row,
    ...{ createdAt: created_at, seenAt: seen_at, endsAt: ends_at },
    own: row.id === own,
  }));
}

/** Ends a session; one of somebody else is not known here. */
export function endSession(db: Db, personId: string, id: string): Outcome<{ id: string }> {
  const { changes } = statement(db, 'DELETE FROM session WHERE id = ? AND person_id = ?').run(id, personId);
  return changes > 0 ? done({ id }) : fail('not_found', 'This session has ended already.');
}

/** Ends all sessions of a person but one. */
export function endOtherSessions(db: Db, personId: string, but: string | null): Outcome<{ ended: number }> {
  const { changes } = statement(db, 'DELETE FROM session WHERE person_id = ? AND id IS NOT ?').run(
    personId,
    but,
  );
  return done({ ended: changes });
}

/** Gives a person another password. Whoever else is signed in as them is signed out. */
export function setPassword(db: Db, personId: string, password: string, keep: string | null): void {
  db.$client.transaction(() => {
    statement(db, 'UPDATE person SET password = ? WHERE id = ?').run(password, personId);
    endOtherSessions(db, personId, keep);
    note(db, 'person.password', personId);
  })();
}

export const passwordOf = (db: Db, personId: string): string | null =>
  (statement(db, 'SELECT password FROM person WHERE id = ?').pluck().get(personId) as string | null) ?? null;

export type HeldPasskey = {
  id: string;
  personId: string;
  publicKey: Buffer;
  counter: number;
  transports: string[];
};

/** A passkey by the id that the browser gives it, where its person is in the studio. */
export function findPasskey(db: Db, id: string): HeldPasskey | null {
  const row = statement(
    db,
    `SELECT k.id, k.person_id AS personId, k.public_key AS publicKey, k.counter, k.transports FROM passkey k
      JOIN person p ON p.id = k.person_id WHERE k.id = ? AND p.studio_id = ? AND (p.ends_at IS NULL OR p.ends_at > ?)`,
  ).get(id, db.studio, Date.now()) as (Omit<HeldPasskey, 'transports'> & { transports: string }) | undefined;
  return row ? { ...row, transports: JSON.parse(row.transports) as string[] } : null;
}

export const passkeysOf = (db: Db, personId: string): (PasskeyData & { transports: string[] })[] =>
  (
    statement(
      db,
      'SELECT id, name, created_at, used_at, transports FROM passkey WHERE person_id = ? ORDER BY created_at',
    ).all(personId) as {
      id: string;
      name: string;
      created_at: number;
      used_at: number | null;
      transports: string;
    }[]
  ).map(({ created_at, used_at, transports, ...row }) => ({
    ...row,
    ...{ createdAt: created_at, usedAt: used_at, transports: JSON.parse(transports) as string[] },
  }));

export function addPasskey(db: Db, key: HeldPasskey & { name: string }): Outcome<{ id: string }> {
  return writing(db, { what: 'passkey', name: key.name }, (tx) => {
    if (passkeysOf(tx, key.personId).length >= PEOPLE_LIMITS.passkeys)
      return fail('too_large', `One has at most ${PEOPLE_LIMITS.passkeys} passkeys; forget one first.`);
    tx.insert(passkey)
      .values({ ...key, transports: JSON.stringify(key.transports), createdAt: Date.now() })
      .run();
    note(tx, 'person.passkey', key.personId);
    return done({ id: key.id });
  });
}

/** Notes that a passkey was used: its counter never goes back. */
export function passkeyUsed(db: Db, id: string, counter: number): void {
  statement(db, 'UPDATE passkey SET counter = ?, used_at = ? WHERE id = ?').run(counter, Date.now(), id);
}

/** Forgets a passkey, unless its person could not sign in any more then. */
export function removePasskey(db: Db, personId: string, id: string): Outcome<{ id: string }> {
  return writing(db, { what: 'passkey', name: '' }, (tx) => {
    const held = passkeysOf(tx, personId);
    if (!held.some((one) => one.id === id)) return fail('not_found', 'This passkey was forgotten already.');
    if (held.length === 1 && passwordOf(tx, personId) === null)
      return fail('in_use', 'This is your only way to sign in. Set a password first.');
    statement(tx, 'DELETE FROM passkey WHERE id = ?').run(id);
    return done({ id });
  });
}
