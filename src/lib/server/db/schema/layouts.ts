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
import type { BlendMode } from '../../../contract/data';
import { pattern, colourway, motifAsset } from './library';
import { createdAt, flag, id, project, studioId, updatedAt } from './studio';

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
    kind: text('kind', { enum: ['pattern', 'picture', 'layout', 'gradient', 'colour'] }).notNull(),
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
    /** The layout of a layout fill; one that is deleted leaves nothing to draw. */
    layoutId: text('layout_id').references(() => layout.id, { onDelete: 'set null' }),
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

/**
 * What each save changed in a layout. Later saves are taken together, so that states get fewer the older they are; `changes` is there
 * for a while only, for those who have the layout open.
 */
export const layoutLog = sqliteTable(
  'layout_log',
  {
    layoutId: text('layout_id')
      .notNull()
      .references(() => layout.id, { onDelete: 'cascade' }),
    version: integer('version').notNull(),
    personId: text('person_id'),
    at: integer('at').notNull(),
    /** What leads here from the version before, as JSON. */
    changes: text('changes'),
    /** What leads from here to the state before, as JSON: deflated, or as text where it is short. */
    back: blob('back', { mode: 'buffer' }).notNull(),
    /** The files that it names, by their SHA-256. */
    assets: text('assets'),
    /** The name of a state that is kept for good. */
    name: text('name'),
  },
  (table) => [primaryKey({ columns: [table.layoutId, table.version] }), index('layout_log_at').on(table.at)],
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
