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
} from 'drizzle-orm/sqlite-core';

/**
 * Every table that belongs to a studio carries its id. Times are milliseconds since 1970. Lengths are CSS px.
 * `nameKey` is the name without case and accents, unique within a studio.
 */
const id = () => text('id').primaryKey();
const studioId = () =>
  text('studio_id')
    .notNull()
    .references(() => studio.id);
const createdAt = () => integer('created_at').notNull();
const updatedAt = () => integer('updated_at').notNull();

export const studio = sqliteTable('studio', {
  id: id(),
  name: text('name').notNull(),
  createdAt: createdAt(),
});

export const member = sqliteTable('member', {
  id: id(),
  studioId: studioId(),
  name: text('name').notNull(),
  role: text('role', { enum: ['owner', 'designer', 'viewer'] }).notNull(),
  createdAt: createdAt(),
});

export const palette = sqliteTable(
  'palette',
  {
    id: id(),
    studioId: studioId(),
    name: text('name').notNull(),
    nameKey: text('name_key').notNull(),
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
    hex: text('hex').notNull(),
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
    stock: integer('stock', { mode: 'boolean' }).notNull().default(false),
    /** The newest revision's number; 0 until the first is published. */
    newest: integer('newest').notNull().default(0),
    /** Work in progress as recipe JSON; `null` where it equals the newest revision. */
    draft: text('draft'),
    version: integer('version').notNull().default(1),
    createdAt: createdAt(),
    updatedAt: updatedAt(),
    archivedAt: integer('archived_at'),
  },
  (table) => [
    uniqueIndex('pattern_name').on(table.studioId, table.nameKey),
    index('pattern_live').on(table.studioId, table.archivedAt, table.nameKey),
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
    thumbnailKey: text('thumbnail_key'),
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

export const project = sqliteTable(
  'project',
  {
    id: id(),
    studioId: studioId(),
    name: text('name').notNull(),
    nameKey: text('name_key').notNull(),
    version: integer('version').notNull().default(1),
    createdAt: createdAt(),
    updatedAt: updatedAt(),
    archivedAt: integer('archived_at'),
  },
  (table) => [uniqueIndex('project_name').on(table.studioId, table.nameKey)],
);

export const layout = sqliteTable(
  'layout',
  {
    id: id(),
    studioId: studioId(),
    projectId: text('project_id')
      .notNull()
      .references(() => project.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    nameKey: text('name_key').notNull(),
    width: real('width').notNull(),
    height: real('height').notNull(),
    measure: text('measure', { enum: ['px', 'mm', 'in', 'pt'] }).notNull(),
    ppi: real('ppi').notNull(),
    background: text('background'),
    version: integer('version').notNull().default(1),
    createdAt: createdAt(),
    updatedAt: updatedAt(),
    archivedAt: integer('archived_at'),
  },
  (table) => [uniqueIndex('layout_name').on(table.projectId, table.nameKey)],
);

export const shape = sqliteTable(
  'shape',
  {
    id: id(),
    studioId: studioId(),
    layoutId: text('layout_id')
      .notNull()
      .references(() => layout.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    name: text('name').notNull(),
    /** The form as JSON: kind and its own numbers. */
    form: text('form').notNull(),
    x: real('x').notNull(),
    y: real('y').notNull(),
    width: real('width').notNull(),
    height: real('height').notNull(),
    rotation: real('rotation').notNull(),
  },
  (table) => [index('shape_place').on(table.layoutId, table.position)],
);

export const fill = sqliteTable(
  'fill',
  {
    id: id(),
    studioId: studioId(),
    shapeId: text('shape_id')
      .notNull()
      .references(() => shape.id, { onDelete: 'cascade' }),
    position: integer('position').notNull().default(0),
    kind: text('kind', { enum: ['pattern', 'colour'] }).notNull(),
    version: integer('version').notNull(),
    opacity: real('opacity').notNull(),
    /** The plain colour of a colour fill. */
    colour: text('colour'),
    patternId: text('pattern_id').references(() => pattern.id),
    /** The revision at which the use is held; `null` follows the newest. */
    heldRevision: integer('held_revision'),
    scaleX: real('scale_x').notNull().default(1),
    scaleY: real('scale_y').notNull().default(1),
    rotation: real('rotation').notNull().default(0),
    skew: real('skew').notNull().default(0),
    offsetX: real('offset_x').notNull().default(0),
    offsetY: real('offset_y').notNull().default(0),
    anchorX: real('anchor_x').notNull().default(0),
    anchorY: real('anchor_y').notNull().default(0),
    groundKind: text('ground_kind', { enum: ['own', 'none', 'colour'] })
      .notNull()
      .default('own'),
    groundColour: text('ground_colour'),
    groundOpacity: real('ground_opacity').notNull().default(1),
    /** Colours of this use by slot id, as JSON. */
    colours: text('colours').notNull().default('{}'),
  },
  (table) => [
    uniqueIndex('fill_place').on(table.shapeId, table.position),
    index('fill_pattern')
      .on(table.patternId)
      .where(sql`pattern_id is not null`),
  ],
);

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
