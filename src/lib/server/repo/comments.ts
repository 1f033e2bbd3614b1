import type { CommentSubject, NewComment } from '../../contract/given-people';
import type { CommentData, CommentKind } from '../../contract/talk';
import { TALK_LIMITS } from '../../contract/talk';
import type { MentionData, PersonData } from '../../contract/people';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Db } from '../db/open';
import { comment } from '../db/schema';
import { unreachable } from './access';
import { placeOf } from './places';
import { newId, note, writing } from './context';
import { statement } from './rows';

const TABLES: Record<CommentKind, string> = {
  layout: 'layout',
  pattern: 'pattern',
  'strike-off': 'strike_off',
};

/** A failure where something is not there, or not for whoever asks. */
function missing(db: Db, person: PersonData, { kind, id }: CommentSubject): ReturnType<typeof fail> | null {
  const fault = unreachable(db, person, kind, id, false);
  if (fault) return { ok: false, failure: fault };
  const there = statement(db, `SELECT 1 FROM ${TABLES[kind]} WHERE id = ? AND studio_id = ?`).get(
    id,
    db.studio,
  );
  return there ? null : fail('not_found', 'What this is about is not there any more.', 'id');
}

type Row = Omit<CommentData, 'by' | 'mentions' | 'unread'> & {
  person: string;
  name: string | null;
  colour: string | null;
  mentions: string;
};

/** What is said about something, the first first; with what whoever asks has not read yet. */
export function listComments(db: Db, person: PersonData, of: CommentSubject): Outcome<CommentData[]> {
  const fault = missing(db, person, of);
  if (fault) return fault;
  const read = (statement(db, 'SELECT at FROM comment_read WHERE person_id = ? AND subject_id = ?')
    .pluck()
    .get(person.id, of.id) ?? 0) as number;
  const rows = statement(
    db,
    `SELECT c.id, c.parent_id AS parentId, c.shape_id AS shapeId, c.x, c.y, c.person_id AS person, p.name, p.colour, c.words,
      c.mentions, c.created_at AS createdAt, c.done_at AS doneAt, d.name AS doneBy
      FROM comment c LEFT JOIN person p ON p.id = c.person_id LEFT JOIN person d ON d.id = c.done_by
      WHERE c.subject_id = ? AND c.studio_id = ? ORDER BY c.created_at, c.id`,
  ).all(of.id, db.studio) as Row[];
  return done(
    rows.map(({ person: id, name, colour, mentions, ...row }) => ({
      ...row,
      by: { id, name: name ?? 'Somebody', colour: colour ?? '#5c6664' },
      mentions: JSON.parse(mentions) as string[],
      unread: id !== person.id && row.createdAt > read,
    })),
  );
}

/** Says something. Whoever is named with an @ before their name is told. */
export function addComment(db: Db, person: PersonData, input: NewComment): Outcome<{ id: string }> {
  const fault = missing(db, person, input);
  if (fault) return fault;
  return writing(db, { what: 'comment', name: '' }, (tx): Outcome<{ id: string }> => {
    const { kind, id: subjectId, words, parentId, shapeId, x, y } = input;
    const count = statement(tx, 'SELECT count(*) FROM comment WHERE subject_id = ?')
      .pluck()
      .get(subjectId) as number;
    if (count >= TALK_LIMITS.comments)
      return fail('too_large', `At most ${TALK_LIMITS.comments} comments are kept about one thing.`);
    if (parentId !== null) {
      const parent = statement(
        tx,
        'SELECT parent_id AS above FROM comment WHERE id = ? AND subject_id = ?',
      ).get(parentId, subjectId) as { above: string | null } | undefined;
      if (!parent) return fail('not_found', 'What this answers is not there any more.', 'parentId');
      if (parent.above !== null)
        return fail('invalid', 'An answer is given to a comment, not to an answer.', 'parentId');
    }
    const id = newId();
    const mentions = mentionsIn(tx, words);
    tx.insert(comment)
      .values({
        ...{ id, studioId: tx.studio, kind, subjectId, parentId, shapeId, x, y, personId: person.id, words },
        mentions: JSON.stringify(mentions),
        createdAt: Date.now(),
      })
      .run();
    note(tx, 'comment.added', subjectId, { comment: id, mentions });
    return done({ id });
  });
}

/** The people whose names stand in a text behind an @, the longest names first. */
function mentionsIn(db: Db, words: string): string[] {
  const people = statement(
    db,
    'SELECT id, name FROM person WHERE studio_id = ? ORDER BY length(name) DESC',
  ).all(db.studio) as { id: string; name: string }[];
  let left = words.toLowerCase();
  return people.flatMap(({ id, name }) => {
    const sign = `@${name.toLowerCase()}`;
    if (!left.includes(sign)) return [];
    left = left.replaceAll(sign, ' ');
    return [id];
  });
}

/** Says that a comment is dealt with, or not after all. */
export function setDone(db: Db, person: PersonData, id: string, isDone: boolean): Outcome<{ id: string }> {
  const row = statement(
    db,
    'SELECT kind, subject_id AS subject FROM comment WHERE id = ? AND studio_id = ?',
  ).get(id, db.studio) as { kind: CommentKind; subject: string } | undefined;
  const fault = row && missing(db, person, { kind: row.kind, id: row.subject });
  if (!row || fault) return fail('not_found', 'This comment is not there any more.');
  statement(db, 'UPDATE comment SET done_at = ?, done_by = ? WHERE id = ?').run(
    isDone ? Date.now() : null,
    isDone ? person.id : null,
    id,
  );
  note(db, isDone ? 'comment.done' : 'comment.reopened', row.subject, { comment: id });
  return done({ id });
}

const MOST_MENTIONS = 20;

/** Where somebody is named and has not read it yet, the latest first. */
export function mentionsOf(db: Db, person: PersonData): MentionData[] {
  const rows = statement(
    db,
    `SELECT c.id, c.kind, c.subject_id AS subject, p.name AS by, c.words, c.created_at AS at FROM comment c
      LEFT JOIN person p ON p.id = c.person_id LEFT JOIN comment_read r ON r.subject_id = c.subject_id AND r.person_id = ?
      WHERE c.studio_id = ? AND c.mentions LIKE ? AND c.person_id <> ? AND c.done_at IS NULL AND c.created_at > coalesce(r.at, 0)
      ORDER BY c.created_at DESC LIMIT ${MOST_MENTIONS}`,
  ).all(person.id, db.studio, `%"${person.id}"%`, person.id) as (Omit<MentionData, 'what' | 'href'> & {
    kind: CommentKind;
    subject: string;
    by: string | null;
  })[];
  return rows.flatMap(({ kind, subject, by, ...row }): MentionData[] => {
    if (missing(db, person, { kind, id: subject })) return [];
    const place = placeOf(db, subject);
    const href = place?.href ?? null;
    return href === null
      ? []
      : [
          {
            ...row,
            by: by ?? 'Somebody',
            what: place?.name ?? '',
            href: kind === 'pattern' ? `${href}?tab=comments` : href,
          },
        ];
  });
}

/** Notes that somebody has read what is said about something until now. */
export function readComments(db: Db, person: PersonData, of: CommentSubject): Outcome<{ at: number }> {
  const fault = missing(db, person, of);
  if (fault) return fault;
  const at = Date.now();
  statement(
    db,
    'INSERT INTO comment_read (person_id, subject_id, at) VALUES (?, ?, ?) ON CONFLICT DO UPDATE SET at = excluded.at',
  ).run(person.id, of.id, at);
  return done({ at });
}
