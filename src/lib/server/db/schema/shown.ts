import { blob, index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { createdAt, id, project, studioId, updatedAt } from './studio';

/** Objects that show layouts, as they stand and are seen. */
export const mockup = sqliteTable(
  'mockup',
  {
    id: id(),
    studioId: studioId(),
    projectId: text('project_id')
      .notNull()
      .references(() => project.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    nameKey: text('name_key').notNull(),
    /** All of it, as JSON; it names layouts by their ids. */
    body: text('body').notNull(),
    version: integer('version').notNull().default(1),
    createdAt: createdAt(),
    updatedAt: updatedAt(),
    archivedAt: integer('archived_at'),
  },
  (table) => [uniqueIndex('mockup_name').on(table.projectId, table.nameKey)],
);

/** The picture of a mock-up as it was seen last: for cards, client sheets, and where nothing can be drawn in space. */
export const mockupStill = sqliteTable('mockup_still', {
  mockupId: text('mockup_id')
    .primaryKey()
    .references(() => mockup.id, { onDelete: 'cascade' }),
  bytes: blob('bytes', { mode: 'buffer' }).notNull(),
  mediaType: text('media_type').notNull(),
  width: integer('width').notNull(),
  height: integer('height').notNull(),
  madeAt: integer('made_at').notNull(),
});

/** Photographs of blank things with their surfaces marked, kept for all projects. */
export const photoObject = sqliteTable(
  'photo_object',
  {
    id: id(),
    studioId: studioId(),
    name: text('name').notNull(),
    nameKey: text('name_key').notNull(),
    /** The photograph and its surfaces, as the JSON of a mock-up that shows no layouts. */
    body: text('body').notNull(),
    createdAt: createdAt(),
  },
  (table) => [uniqueIndex('photo_object_name').on(table.studioId, table.nameKey)],
);

/** What is laid before a client: things of a project in an order. */
export const clientSheet = sqliteTable(
  'client_sheet',
  {
    id: id(),
    studioId: studioId(),
    projectId: text('project_id')
      .notNull()
      .references(() => project.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    nameKey: text('name_key').notNull(),
    /** What is on it, as JSON. */
    body: text('body').notNull(),
    /** What its links show, as JSON, and since when. */
    shown: text('shown'),
    shownAt: integer('shown_at'),
    version: integer('version').notNull().default(1),
    createdAt: createdAt(),
    updatedAt: updatedAt(),
    archivedAt: integer('archived_at'),
  },
  (table) => [uniqueIndex('client_sheet_name').on(table.projectId, table.nameKey)],
);

/** The pictures that the links of a sheet show. */
export const sheetPicture = sqliteTable(
  'sheet_picture',
  {
    sheetId: text('sheet_id')
      .notNull()
      .references(() => clientSheet.id, { onDelete: 'cascade' }),
    itemId: text('item_id').notNull(),
    bytes: blob('bytes', { mode: 'buffer' }).notNull(),
    mediaType: text('media_type').notNull(),
    madeAt: integer('made_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.sheetId, table.itemId] })],
);

/** A link that shows a sheet to whoever has it, until it ends. */
export const sheetLink = sqliteTable(
  'sheet_link',
  {
    token: text('token').primaryKey(),
    studioId: studioId(),
    sheetId: text('sheet_id')
      .notNull()
      .references(() => clientSheet.id, { onDelete: 'cascade' }),
    /** For whom it is, in the studio's own words. */
    sentTo: text('sent_to').notNull().default(''),
    createdAt: createdAt(),
    endsAt: integer('ends_at').notNull(),
    endedAt: integer('ended_at'),
  },
  (table) => [index('sheet_link_sheet').on(table.sheetId)],
);

/** What a client left at a link about one thing: a choice or words. */
export const sheetAnswer = sqliteTable(
  'sheet_answer',
  {
    id: id(),
    token: text('token')
      .notNull()
      .references(() => sheetLink.token, { onDelete: 'cascade' }),
    itemId: text('item_id').notNull(),
    who: text('who').notNull().default(''),
    choice: text('choice', { enum: ['this', 'not'] }),
    words: text('words').notNull().default(''),
    createdAt: createdAt(),
    readAt: integer('read_at'),
  },
  (table) => [index('sheet_answer_link').on(table.token)],
);

/** The last parcel of a project: what was asked for, and the state of what it held. */
export const parcel = sqliteTable('parcel', {
  projectId: text('project_id')
    .primaryKey()
    .references(() => project.id, { onDelete: 'cascade' }),
  studioId: studioId(),
  wish: text('wish').notNull(),
  /** Layouts with their versions and patterns with their revisions, as JSON. */
  held: text('held').notNull(),
  madeAt: integer('made_at').notNull(),
});
