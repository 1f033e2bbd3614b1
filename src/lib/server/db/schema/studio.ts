import { blob, index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

/**
 * Every table that belongs to a studio carries its id. Times are milliseconds since 1970. Lengths are CSS px.
 * `nameKey` is the name without case and accents, unique within a studio.
 */
export const id = () => text('id').primaryKey();
export const studioId = () =>
  text('studio_id')
    .notNull()
    .references(() => studio.id);
export const flag = (name: string) => integer(name, { mode: 'boolean' }).notNull().default(false);
export const createdAt = () => integer('created_at').notNull();
export const updatedAt = () => integer('updated_at').notNull();

export const studio = sqliteTable('studio', {
  id: id(),
  name: text('name').notNull(),
  /** When it was opened: from then on everyone signs in. `null`: one person on this machine, without a password. */
  openedAt: integer('opened_at'),
  /** Whether published patterns may be read at their addresses by whoever reaches Isle. */
  openPatterns: flag('open_patterns'),
  createdAt: createdAt(),
});

/** What is noted of the database itself, such as that its demo data are whole. */
export const setting = sqliteTable('setting', {
  key: text('key').primaryKey(),
  value: text('value').notNull(),
});

export const project = sqliteTable(
  'project',
  {
    id: id(),
    studioId: studioId(),
    name: text('name').notNull(),
    nameKey: text('name_key').notNull(),
    /** The unit of length that its layouts start with and are shown in together. */
    measure: text('measure', { enum: ['px', 'mm', 'in', 'pt'] })
      .notNull()
      .default('mm'),
    /** How its layouts are proofed, as JSON; `null` is as it starts. */
    proof: text('proof'),
    /** By which press its colours become inks, as JSON; `null` is by none. */
    press: text('press'),
    /** Whether only those see it who are named in it. */
    closed: flag('closed'),
    /** Whether only what is approved is handed over. */
    demandsApproval: flag('demands_approval'),
    version: integer('version').notNull().default(1),
    createdAt: createdAt(),
    updatedAt: updatedAt(),
    archivedAt: integer('archived_at'),
  },
  (table) => [uniqueIndex('project_name').on(table.studioId, table.nameKey)],
);

/** An ICC profile of a press; its id is the SHA-256 of its bytes. */
export const pressProfile = sqliteTable('press_profile', {
  id: id(),
  studioId: studioId(),
  name: text('name').notNull(),
  bytes: blob('bytes', { mode: 'buffer' }).notNull(),
  createdAt: createdAt(),
});

/** A font that somebody brought, as TrueType or OpenType; its id is made of its bytes. */
export const font = sqliteTable('font', {
  id: id(),
  studioId: studioId(),
  name: text('name').notNull(),
  /** Under which licence it may be used, in the words of whoever brought it. */
  licence: text('licence').notNull(),
  bytes: blob('bytes', { mode: 'buffer' }).notNull(),
  createdAt: createdAt(),
});

/** A change of many fills at once (replace everywhere, recolour a project), kept so that it can be undone as one step. */
export const bulkChange = sqliteTable('bulk_change', {
  id: id(),
  studioId: studioId(),
  kind: text('kind').notNull(),
  summary: text('summary').notNull(),
  /** The fills before and after, as JSON. */
  fills: text('fills').notNull(),
  createdAt: createdAt(),
  undoneAt: integer('undone_at'),
});

/** What happened, for the studio's history: who changed what, when. */
export const event = sqliteTable(
  'event',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    studioId: studioId(),
    kind: text('kind').notNull(),
    subjectId: text('subject_id').notNull(),
    data: text('data').notNull().default('{}'),
    createdAt: createdAt(),
    /** Who did it; `null` is from before there were people, or Isle itself. */
    personId: text('person_id'),
  },
  (table) => [index('event_subject').on(table.subjectId, table.id)],
);
