import {
  blob,
  index,
  integer,
  primaryKey,
  real,
  sqliteTable,
  text,
  uniqueIndex,
} from 'drizzle-orm/sqlite-core';
import { APPROVED_KINDS, COMMENT_KINDS } from '../../../contract/talk';
import { ROLES } from '../../../contract/people';
import { createdAt, id, project, studioId } from './studio';

/** Who works in the studio. One who is taken out stays as a row: what they did keeps their name. */
export const person = sqliteTable(
  'person',
  {
    id: id(),
    studioId: studioId(),
    name: text('name').notNull(),
    /** What they sign in with: an address, in lower case; `null` is the one person of a studio that is not opened. */
    email: text('email'),
    role: text('role', { enum: ROLES }).notNull(),
    /** The colour of their frame and initials. */
    colour: text('colour').notNull(),
    /** Their password by Argon2id, in the PHC string format. */
    password: text('password'),
    createdAt: createdAt(),
    /** From then on they cannot sign in. */
    endsAt: integer('ends_at'),
  },
  (table) => [uniqueIndex('person_email').on(table.studioId, table.email)],
);

const personId = () =>
  text('person_id')
    .notNull()
    .references(() => person.id, { onDelete: 'cascade' });

/** Who is named in a project. */
export const projectPerson = sqliteTable(
  'project_person',
  {
    projectId: text('project_id')
      .notNull()
      .references(() => project.id, { onDelete: 'cascade' }),
    personId: personId(),
  },
  (table) => [
    primaryKey({ columns: [table.projectId, table.personId] }),
    index('project_person_of').on(table.personId),
  ],
);

/** Somebody who is signed in on some device. Its key is the SHA-256 of what the cookie holds. */
export const session = sqliteTable(
  'session',
  {
    id: id(),
    personId: personId(),
    /** The browser and system that it was begun with, in words. */
    device: text('device').notNull(),
    createdAt: createdAt(),
    seenAt: integer('seen_at').notNull(),
    endsAt: integer('ends_at').notNull(),
  },
  (table) => [index('session_of').on(table.personId)],
);

/** A link by which somebody comes into the studio, or gives themselves a new password. Its key is the SHA-256 of what the link says. */
export const invitation = sqliteTable('invitation', {
  id: id(),
  studioId: studioId(),
  role: text('role', { enum: ROLES }).notNull(),
  /** For whom, as it was written down. */
  name: text('name').notNull(),
  /** The projects that they are named in, as JSON. */
  projects: text('projects').notNull().default('[]'),
  /** Given: it is a way for this person to sign in again. */
  personId: text('person_id').references(() => person.id, { onDelete: 'cascade' }),
  /** When whoever comes in by it leaves again. */
  leavesAt: integer('leaves_at'),
  madeBy: text('made_by'),
  createdAt: createdAt(),
  endsAt: integer('ends_at').notNull(),
  usedAt: integer('used_at'),
});

/** What somebody said about a layout, a pattern or a strike-off: at a place, about a shape, or as an answer. */
export const comment = sqliteTable(
  'comment',
  {
    id: id(),
    studioId: studioId(),
    kind: text('kind', { enum: COMMENT_KINDS }).notNull(),
    subjectId: text('subject_id').notNull(),
    /** The comment that it answers. */
    parentId: text('parent_id'),
    shapeId: text('shape_id'),
    x: real('x'),
    y: real('y'),
    personId: text('person_id').notNull(),
    words: text('words').notNull(),
    /** The ids of people who are named in it, as JSON. */
    mentions: text('mentions').notNull().default('[]'),
    createdAt: createdAt(),
    doneAt: integer('done_at'),
    doneBy: text('done_by'),
  },
  (table) => [index('comment_about').on(table.subjectId, table.createdAt)],
);

/** Until when somebody has read what is said about something. */
export const commentRead = sqliteTable(
  'comment_read',
  { personId: personId(), subjectId: text('subject_id').notNull(), at: integer('at').notNull() },
  (table) => [primaryKey({ columns: [table.personId, table.subjectId] })],
);

/** How far a layout or a pattern is: asked for approval, or approved, at a version or revision. */
export const approval = sqliteTable('approval', {
  /** The id of the layout or pattern. */
  id: id(),
  studioId: studioId(),
  kind: text('kind', { enum: APPROVED_KINDS }).notNull(),
  state: text('state', { enum: ['asked', 'approved'] }).notNull(),
  personId: text('person_id'),
  /** The version of the layout, the revision of the pattern. */
  at: integer('at').notNull(),
  createdAt: createdAt(),
});

/** A passkey of a person (Web Authentication). */
export const passkey = sqliteTable(
  'passkey',
  {
    id: id(),
    personId: personId(),
    name: text('name').notNull(),
    publicKey: blob('public_key', { mode: 'buffer' }).notNull(),
    counter: integer('counter').notNull(),
    /** How the browser reaches it, as JSON. */
    transports: text('transports').notNull().default('[]'),
    createdAt: createdAt(),
    usedAt: integer('used_at'),
  },
  (table) => [index('passkey_of').on(table.personId)],
);
