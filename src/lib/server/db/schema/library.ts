import { sql } from 'drizzle-orm';
import {
  blob,
  index,
  integer,
  primaryKey,
  real,
  sqliteTable,
  text,
  uniqueIndex,
  type AnySQLiteColumn,
} from 'drizzle-orm/sqlite-core';
import { createdAt, id, project, studioId, updatedAt } from './studio';

export const palette = sqliteTable(
  'palette',
  {
    id: id(),
    studioId: studioId(),
    name: text('name').notNull(),
    nameKey: text('name_key').notNull(),
    /** The project it belongs to; `null` is shared by all. */
    projectId: text('project_id').references((): AnySQLiteColumn => project.id),
    version: integer('version').notNull().default(1),
    createdAt: createdAt(),
    updatedAt: updatedAt(),
    archivedAt: integer('archived_at'),
  },
  (table) => [uniqueIndex('palette_name').on(table.studioId, table.nameKey)],
);

export const paletteColour = sqliteTable(
  'palette_colour',
  {
    id: id(),
    studioId: studioId(),
    paletteId: text('palette_id')
      .notNull()
      .references(() => palette.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    name: text('name').notNull(),
    /** What is shown: sRGB, mapped where the colour lies outside; a gradient's first stop. */
    hex: text('hex').notNull(),
    /** A colour outside sRGB as it was given, in CSS. */
    css: text('css'),
    /** The stops of a gradient as JSON. */
    gradient: text('gradient'),
    /** The spot ink that it is printed in, as JSON. */
    ink: text('ink'),
    /** Taken out of the palette while documents follow it: they keep showing it. */
    removedAt: integer('removed_at'),
  },
  (table) => [index('palette_colour_place').on(table.paletteId, table.position)],
);

export const pattern = sqliteTable(
  'pattern',
  {
    id: id(),
    studioId: studioId(),
    name: text('name').notNull(),
    nameKey: text('name_key').notNull(),
    description: text('description').notNull().default(''),
    /** Row of the search index. */
    seq: integer('seq').notNull().default(0),
    author: text('author').notNull().default(''),
    source: text('source').notNull().default(''),
    /** An SPDX identifier or free text. */
    licence: text('licence').notNull().default(''),
    attribution: integer('attribution', { mode: 'boolean' }).notNull().default(false),
    stock: integer('stock', { mode: 'boolean' }).notNull().default(false),
    /** The newest revision's number; 0 until the first is published. */
    newest: integer('newest').notNull().default(0),
    /** Facts of the newest revision, or of the draft until there is one; for filters. Lengths in px. */
    kind: text('kind', { enum: ['drawn', 'measured', 'picture'] })
      .notNull()
      .default('drawn'),
    repeatKind: text('repeat_kind').notNull().default('straight'),
    unitWidth: real('unit_width').notNull().default(0),
    unitHeight: real('unit_height').notNull().default(0),
    colourCount: integer('colour_count').notNull().default(0),
    clear: integer('clear', { mode: 'boolean' }).notNull().default(true),
    /** When a shape was last filled with it. */
    lastUsedAt: integer('last_used_at'),
    /** Work in progress as recipe JSON; `null` where it equals the newest revision. */
    draft: text('draft'),
    version: integer('version').notNull().default(1),
    createdAt: createdAt(),
    updatedAt: updatedAt(),
    archivedAt: integer('archived_at'),
  },
  (table) => [
    uniqueIndex('pattern_name').on(table.studioId, table.nameKey),
    uniqueIndex('pattern_seq').on(table.seq),
    index('pattern_live').on(table.studioId, table.archivedAt, table.nameKey),
    index('pattern_new').on(table.studioId, table.archivedAt, table.createdAt),
  ],
);

export const collection = sqliteTable(
  'collection',
  {
    id: id(),
    studioId: studioId(),
    name: text('name').notNull(),
    nameKey: text('name_key').notNull(),
    createdAt: createdAt(),
  },
  (table) => [uniqueIndex('collection_name').on(table.studioId, table.nameKey)],
);

const patternId = () =>
  text('pattern_id')
    .notNull()
    .references(() => pattern.id, { onDelete: 'cascade' });

export const collectionPattern = sqliteTable(
  'collection_pattern',
  {
    collectionId: text('collection_id')
      .notNull()
      .references(() => collection.id, { onDelete: 'cascade' }),
    patternId: patternId(),
  },
  (table) => [
    primaryKey({ columns: [table.collectionId, table.patternId] }),
    index('collection_of').on(table.patternId),
  ],
);

export const patternTag = sqliteTable(
  'pattern_tag',
  { patternId: patternId(), tag: text('tag').notNull(), tagKey: text('tag_key').notNull() },
  (table) => [
    primaryKey({ columns: [table.patternId, table.tagKey] }),
    index('tag_pattern').on(table.tagKey, table.patternId),
  ],
);

/** The colours of the newest revision (or draft), for the search by colour and by palette colour. */
export const patternColour = sqliteTable(
  'pattern_colour',
  {
    patternId: patternId(),
    position: integer('position').notNull(),
    hex: text('hex').notNull(),
    /** The palette colour that it follows. */
    link: text('link'),
  },
  (table) => [
    primaryKey({ columns: [table.patternId, table.position] }),
    index('pattern_colour_hex').on(table.hex),
    index('pattern_colour_link')
      .on(table.link)
      .where(sql`link is not null`),
  ],
);

export const revision = sqliteTable(
  'revision',
  {
    patternId: text('pattern_id')
      .notNull()
      .references(() => pattern.id, { onDelete: 'cascade' }),
    number: integer('number').notNull(),
    studioId: studioId(),
    recipe: text('recipe').notNull(),
    recipeVersion: integer('recipe_version').notNull(),
    /** Facts counted once at publishing, as JSON: unit size, repeat, number of colours. */
    metrics: text('metrics').notNull(),
    createdAt: createdAt(),
  },
  (table) => [primaryKey({ columns: [table.patternId, table.number] })],
);

export const colourway = sqliteTable(
  'colourway',
  {
    id: id(),
    studioId: studioId(),
    patternId: text('pattern_id')
      .notNull()
      .references(() => pattern.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    position: integer('position').notNull(),
    colours: text('colours').notNull(),
  },
  (table) => [index('colourway_place').on(table.patternId, table.position)],
);

export const motifAsset = sqliteTable(
  'motif_asset',
  {
    /** SHA-256 of the bytes, lower-case hex. */
    hash: text('hash').notNull(),
    studioId: studioId(),
    mediaType: text('media_type').notNull(),
    fileName: text('file_name').notNull(),
    bytes: blob('bytes', { mode: 'buffer' }).notNull(),
    createdAt: createdAt(),
  },
  (table) => [primaryKey({ columns: [table.studioId, table.hash] })],
);

/** The steps by which pictures of patterns are made: of each revision, and of the draft (number 0). */
export const madePicture = sqliteTable(
  'made_picture',
  {
    patternId: text('pattern_id')
      .notNull()
      .references(() => pattern.id, { onDelete: 'cascade' }),
    number: integer('number').notNull(),
    /** The name of what the steps make (`madeAsset`). */
    hash: text('hash').notNull(),
    steps: text('steps').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.patternId, table.number] }),
    index('made_picture_hash').on(table.hash),
  ],
);

/** What was made of such steps: it can be made again at any time. */
export const madeFile = sqliteTable('made_file', {
  hash: text('hash').primaryKey(),
  bytes: blob('bytes', { mode: 'buffer' }).notNull(),
  createdAt: createdAt(),
});
