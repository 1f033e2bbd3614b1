import { sql } from 'drizzle-orm';
import {
  blob,
  foreignKey,
  index,
  integer,
  primaryKey,
  real,
  sqliteTable,
  text,
  uniqueIndex,
  type AnySQLiteColumn,
} from 'drizzle-orm/sqlite-core';
import type { BlendMode } from '../../contract/data';

/**
 * Every table that belongs to a studio carries its id. Times are milliseconds since 1970. Lengths are CSS px.
 * `nameKey` is the name without case and accents, unique within a studio.
 */
const id = () => text('id').primaryKey();
const studioId = () =>
  text('studio_id')
    .notNull()
    .references(() => studio.id);
const flag = (name: string) => integer(name, { mode: 'boolean' }).notNull().default(false);
const createdAt = () => integer('created_at').notNull();
const updatedAt = () => integer('updated_at').notNull();

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
    /** The palette colour that the background follows. */
    backgroundLink: text('background_link'),
    /** Beyond the page's edge, and the room that is kept within it, px. */
    bleed: real('bleed').notNull().default(0),
    margin: real('margin').notNull().default(0),
    guides: text('guides').notNull().default('[]'),
    /** The object whose cut sheet the page is, as JSON. */
    object: text('object'),
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
    skew: real('skew').notNull().default(0),
    reflectX: flag('reflect_x'),
    reflectY: flag('reflect_y'),
    locked: flag('locked'),
    hidden: flag('hidden'),
    /** Its soft mask, as JSON. */
    mask: text('mask'),
    /** Its stroke without the fills, as JSON. */
    stroke: text('stroke'),
    /** Checked when the transaction ends: a shape may come before its group. */
    groupId: text('group_id').references((): AnySQLiteColumn => shapeGroup.id, { onDelete: 'set null' }),
  },
  (table) => [
    index('shape_place').on(table.layoutId, table.position),
    index('shape_group_of')
      .on(table.groupId)
      .where(sql`group_id is not null`),
  ],
);

/** Shapes that are kept together; `parent` is the group around this one. */
export const shapeGroup = sqliteTable(
  'shape_group',
  {
    id: id(),
    studioId: studioId(),
    layoutId: text('layout_id')
      .notNull()
      .references(() => layout.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    parent: text('parent'),
    locked: flag('locked'),
    hidden: flag('hidden'),
  },
  (table) => [index('shape_group_layout').on(table.layoutId)],
);

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

/** A sheet of try-outs of one shape, kept with its project. */
export const strikeOff = sqliteTable(
  'strike_off',
  {
    id: id(),
    studioId: studioId(),
    projectId: text('project_id')
      .notNull()
      .references(() => project.id, { onDelete: 'cascade' }),
    /** The layout and shape that it was made from; they may be gone. */
    layoutId: text('layout_id').notNull(),
    shapeId: text('shape_id').notNull(),
    name: text('name').notNull(),
    /** The shape as it was and what is tried, as JSON. */
    sheet: text('sheet').notNull(),
    version: integer('version').notNull().default(1),
    createdAt: createdAt(),
    updatedAt: updatedAt(),
  },
  (table) => [index('strike_off_project').on(table.projectId)],
);

export const fill = sqliteTable(
  'fill',
  {
    id: id(),
    studioId: studioId(),
    shapeId: text('shape_id')
      .notNull()
      .references(() => shape.id, { onDelete: 'cascade' }),
    /** The stack that it lies in: the shape's fills or those of its stroke. */
    part: text('part', { enum: ['fill', 'stroke'] })
      .notNull()
      .default('fill'),
    position: integer('position').notNull().default(0),
    kind: text('kind', { enum: ['pattern', 'picture', 'gradient', 'colour'] }).notNull(),
    version: integer('version').notNull(),
    opacity: real('opacity').notNull(),
    blend: text('blend').$type<BlendMode>().notNull().default('normal'),
    shown: integer('shown', { mode: 'boolean' }).notNull().default(true),
    /** Its soft mask, as JSON. */
    mask: text('mask'),
    /** The gradient of a gradient fill, or the one over a pattern's motifs, as JSON. */
    gradient: text('gradient'),
    /** The picture of a picture fill, and its size in its own pixels. */
    asset: text('asset'),
    pictureWidth: integer('picture_width'),
    pictureHeight: integer('picture_height'),
    /** What its picture was cut out of, and how, as JSON. */
    cut: text('cut'),
    /** The plain colour of a colour fill. */
    colour: text('colour'),
    colourLink: text('colour_link'),
    patternId: text('pattern_id').references(() => pattern.id),
    /** The revision at which the use is held; `null` follows the newest. */
    heldRevision: integer('held_revision'),
    scaleX: real('scale_x').notNull().default(1),
    scaleY: real('scale_y').notNull().default(1),
    rotation: real('rotation').notNull().default(0),
    skew: real('skew').notNull().default(0),
    offsetX: real('offset_x').notNull().default(0),
    offsetY: real('offset_y').notNull().default(0),
    reflectX: flag('reflect_x'),
    reflectY: flag('reflect_y'),
    anchored: text('anchored', { enum: ['shape', 'page'] })
      .notNull()
      .default('shape'),
    anchorX: real('anchor_x').notNull().default(0),
    anchorY: real('anchor_y').notNull().default(0),
    groundKind: text('ground_kind', { enum: ['own', 'none', 'colour'] })
      .notNull()
      .default('own'),
    groundColour: text('ground_colour'),
    groundLink: text('ground_link'),
    groundOpacity: real('ground_opacity').notNull().default(1),
    colourwayId: text('colourway_id').references(() => colourway.id),
    /** Colours of this use by slot id, as JSON. */
    colours: text('colours').notNull().default('{}'),
    /** How its pictures are recoloured, as JSON. */
    look: text('look'),
  },
  (table) => [
    foreignKey({
      columns: [table.studioId, table.asset],
      foreignColumns: [motifAsset.studioId, motifAsset.hash],
    }),
    index('fill_asset')
      .on(table.asset)
      .where(sql`asset is not null`),
    uniqueIndex('fill_stack').on(table.shapeId, table.part, table.position),
    index('fill_pattern')
      .on(table.patternId)
      .where(sql`pattern_id is not null`),
    index('fill_colourway')
      .on(table.colourwayId)
      .where(sql`colourway_id is not null`),
  ],
);

/** Which palette colours a fill follows. */
export const fillLink = sqliteTable(
  'fill_link',
  {
    fillId: text('fill_id')
      .notNull()
      .references(() => fill.id, { onDelete: 'cascade' }),
    colourId: text('colour_id').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.fillId, table.colourId] }),
    index('fill_link_colour').on(table.colourId),
  ],
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
