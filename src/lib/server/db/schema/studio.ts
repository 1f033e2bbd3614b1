import { index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

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
  createdAt: createdAt(),
});

/** What is noted of the database itself, such as that its demo data are whole. */
export const setting = sqliteTable('setting', {
  key: text('key').primaryKey(),
  value: text('value').notNull(),
});

export const member = sqliteTable('member', {
  id: id(),
  studioId: studioId(),
  name: text('name').notNull(),
  role: text('role', { enum: ['owner', 'designer', 'viewer'] }).notNull(),
  createdAt: createdAt(),
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
    version: integer('version').notNull().default(1),
    createdAt: createdAt(),
    updatedAt: updatedAt(),
    archivedAt: integer('archived_at'),
  },
  (table) => [uniqueIndex('project_name').on(table.studioId, table.nameKey)],
);

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
  },
  (table) => [index('event_subject').on(table.subjectId, table.id)],
);
