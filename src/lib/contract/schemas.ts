import Joi from 'joi';
import { PICTURE_SIDES } from '../core/svg/paint';
import { LIBRARY_SORTS, TRACE_LIMITS } from './data';
import { colourways, entries, patternCredit, tag } from './library-schemas';
import { mockupSchema, objectSchema } from './mockup-schemas';
import { projectSchemas } from './project-schemas';
import { sheetSchemas } from './sheet-schemas';
import { LIMITS } from '../core/recipe/limits';
import { fillSchema, maskSchema } from './fill-schemas';
import { layoutForm, recipeSchema } from './recipe-schemas';
import { between, hex, id, line, measure, name, one, prose, share, tagged, version } from './schema-parts';

/** The bodies and queries of `/api/v1`, as Joi schemas: they check requests and make the OpenAPI document. */

export const shapeSchema = Joi.object({
  id: id().required(),
  name: name().required(),
  form: layoutForm,
  x: between(LIMITS.place).required(),
  y: between(LIMITS.place).required(),
  width: between(LIMITS.shapeSide).required(),
  height: between(LIMITS.shapeSide).required(),
  rotation: between(LIMITS.angle).required(),
  skew: between(LIMITS.skew).required(),
  reflectX: Joi.boolean().required(),
  reflectY: Joi.boolean().required(),
  locked: Joi.boolean().required(),
  hidden: Joi.boolean().required(),
  fills: Joi.array().items(fillSchema.optional()).max(LIMITS.fills).required(),
  stroke: Joi.object({
    width: between(LIMITS.strokeWidth).required(),
    cap: one('butt', 'round', 'square'),
    join: one('miter', 'round', 'bevel'),
    dashes: Joi.array().items(Joi.number().greater(0).max(1e5)).max(16).required(),
    fills: Joi.array().items(fillSchema.optional()).max(LIMITS.fills).required(),
  })
    .allow(null)
    .required(),
  mask: maskSchema.required(),
  group: id().allow(null).required(),
}).meta({ className: 'Shape' });

const page = {
  name: name(),
  width: between(LIMITS.pageSide),
  height: between(LIMITS.pageSide),
  measure: measure(),
  ppi: between(LIMITS.ppi),
  background: hex().allow(null),
  backgroundLink: id().allow(null),
  bleed: between(LIMITS.bleed),
  margin: between(LIMITS.bleed),
  guides: Joi.array()
    .items(Joi.object({ axis: one('x', 'y'), at: between(LIMITS.place).required() }))
    .max(LIMITS.guides),
};

const group = Joi.object({
  id: id().required(),
  name: name().required(),
  parent: id().allow(null).required(),
  locked: Joi.boolean().required(),
  hidden: Joi.boolean().required(),
});

const SHAPE_FIELDS = [
  ...['name', 'form', 'x', 'y', 'width', 'height', 'rotation', 'skew', 'reflectX', 'reflectY'],
  ...['locked', 'hidden', 'fills', 'stroke', 'mask', 'group'],
];

/** Some fields of a shape; each as a whole shape has it. */
const shapeFields = shapeSchema
  .fork(SHAPE_FIELDS, (field) => field.optional())
  .fork(['id'], (field) => field.forbidden())
  .min(1)
  .meta({ className: 'ShapeFields' });

const change = Joi.alternatives()
  .conditional(Joi.ref('.do'), {
    switch: [
      { is: 'put-shape', then: Joi.object({ do: one('put-shape'), shape: shapeSchema.required() }) },
      {
        is: 'patch-shape',
        then: Joi.object({ do: one('patch-shape'), id: id().required(), fields: shapeFields.required() }),
      },
      { is: 'remove-shape', then: Joi.object({ do: one('remove-shape'), id: id().required() }) },
      {
        is: 'order',
        then: Joi.object({ do: one('order'), ids: Joi.array().items(id()).max(LIMITS.shapes).required() }),
      },
      { is: 'put-group', then: Joi.object({ do: one('put-group'), group: group.required() }) },
      { is: 'remove-group', then: Joi.object({ do: one('remove-group'), id: id().required() }) },
      { is: 'page', then: Joi.object({ do: one('page'), ...page }) },
    ],
    otherwise: Joi.object({
      do: one('put-shape', 'patch-shape', 'remove-shape', 'order', 'put-group', 'remove-group', 'page'),
    }).unknown(),
  })
  .required();

const tries = (values: Joi.Schema) => Joi.array().items(values).min(1).max(LIMITS.tries).required();

const axis = tagged(
  {
    scale: { values: tries(between(LIMITS.scale)) },
    rotation: { values: tries(between(LIMITS.angle)) },
    opacity: { values: tries(share()) },
    colourway: { values: tries(id().allow(null)) },
    pattern: { values: tries(id()) },
    ground: { values: tries(Joi.alternatives(Joi.string().valid('own', 'none'), hex())) },
  },
  'property',
);

const sheet = Joi.object({
  shape: shapeSchema.required(),
  fill: id().required(),
  across: axis,
  down: axis.allow(null),
}).required();

const palettePoint = Joi.object({ id: id().required(), hex: hex().required() });

export const schemas = {
  id: id().required(),
  number: Joi.number().integer().min(1).required(),
  patternQuery: Joi.object({
    search: Joi.string().max(200).allow('').default(''),
    archived: Joi.boolean().default(false),
    drafts: Joi.boolean().default(false),
    unpublished: Joi.boolean().default(false),
    collection: id(),
    tag: Joi.string().max(LIMITS.tagLength),
    kind: Joi.string().valid('drawn', 'measured', 'picture'),
    repeat: Joi.string().valid('straight', 'brick', 'half-drop', 'mirror', 'group'),
    least: Joi.number().min(0).max(1e6),
    most: Joi.number().min(0).max(1e6),
    coloursLeast: Joi.number().integer().min(0).max(1000),
    coloursMost: Joi.number().integer().min(0).max(1000),
    ground: Joi.string().valid('clear', 'own'),
    project: id(),
    colour: hex(),
    near: Joi.number().min(0).max(100),
    stock: Joi.string().valid('stock', 'own'),
    sort: Joi.string()
      .valid(...LIBRARY_SORTS)
      .default('match'),
    backwards: Joi.boolean().default(false),
    limit: Joi.number().integer().min(1).max(1000).default(500),
    offset: Joi.number().integer().min(0).default(0),
  }),
  swatchQuery: Joi.object({
    width: Joi.number().min(1).max(4000).default(240),
    height: Joi.number().min(1).max(4000).default(180),
    scale: Joi.number().min(0.01).max(100).default(1),
    colourway: id(),
    as: Joi.string().valid('svg', 'png').default('svg'),
    /** Pixels of a PNG to a CSS px. */
    pixels: Joi.number().integer().min(1).max(4).default(1),
    /** What changes with the colours that the pattern follows: an address for each look. */
    look: Joi.string().max(2000),
  }),
  codeQuery: Joi.object({
    scale: Joi.number().min(0.01).max(100).default(1),
    rotation: Joi.number().min(-360).max(360).default(0),
    x: Joi.number().min(-1e5).max(1e5).default(0),
    y: Joi.number().min(-1e5).max(1e5).default(0),
    /** The id or the name of a colourway. */
    colourway: Joi.string().max(200),
    /** Slots, by name or id, with the colours that they have instead: “Ink:b02030,Paper:ffffff”. */
    colours: Joi.string().max(4000),
  }),
  traceBy: Joi.object({
    colours: Joi.number().integer().min(TRACE_LIMITS.colours.least).max(TRACE_LIMITS.colours.most).required(),
    speck: Joi.number().min(TRACE_LIMITS.speck.least).max(TRACE_LIMITS.speck.most).required(),
    corner: Joi.number().min(TRACE_LIMITS.corner.least).max(TRACE_LIMITS.corner.most).required(),
    paper: Joi.boolean().required(),
  }),
  motifQuery: Joi.object({
    look: Joi.string().max(200),
    side: Joi.string().valid(...PICTURE_SIDES.map(String)),
  }).oxor('look', 'side'),
  archived: Joi.object({ archived: Joi.boolean().required() }),
  createPattern: Joi.object({
    name: name().required(),
    description: prose(2000),
    recipe: recipeSchema.required(),
  }),
  patchPattern: Joi.object({
    base: version().required(),
    name: name(),
    description: prose(2000),
    tags: Joi.array().items(tag()).max(LIMITS.tags),
    collections: Joi.array().items(id()).max(500),
    credit: patternCredit,
  }).or('name', 'description', 'tags', 'collections', 'credit'),
  deletePattern: Joi.object({ name: Joi.string().max(1000).required() }),
  editPatterns: Joi.object({
    ids: Joi.array().items(id()).min(1).max(LIMITS.bulkPatterns).required(),
    addTags: Joi.array().items(tag()).max(LIMITS.tags),
    removeTags: Joi.array().items(tag()).max(LIMITS.tags),
    addCollections: Joi.array().items(id()).max(500),
    removeCollections: Joi.array().items(id()).max(500),
    credit: patternCredit,
    archived: Joi.boolean(),
  }),
  putBack: Joi.object({
    patterns: Joi.array()
      .items(
        Joi.object({
          id: id().required(),
          tags: Joi.array().items(tag()).max(LIMITS.tags).required(),
          collections: Joi.array().items(id()).max(500).required(),
          credit: patternCredit.required(),
          archivedAt: Joi.number().allow(null).required(),
        }),
      )
      .min(1)
      .max(LIMITS.bulkPatterns)
      .required(),
  }),
  saveColourways: Joi.object({
    base: version().required(),
    colourways: colourways.required(),
  }),
  holdUses: Joi.object({
    fills: Joi.array().items(id()).min(1).max(20_000).required(),
    held: Joi.boolean().required(),
  }),
  replaceUses: Joi.object({
    by: id().required(),
    projects: Joi.array().items(id()).min(1).max(10_000),
  }),
  recolour: Joi.object({
    layouts: Joi.array().items(id()).min(1).max(10_000).required(),
    exchanges: Joi.array()
      .items(Joi.object({ from: palettePoint.required(), to: palettePoint.required() }))
      .min(1)
      .max(LIMITS.paletteColours)
      .required(),
    summary: line(200).required(),
  }),
  changesQuery: Joi.object({ pattern: id() }),
  collectionName: Joi.object({ name: name().required() }),
  saveDraft: Joi.object({ base: version().required(), recipe: recipeSchema.required() }),
  publish: Joi.object({
    base: version().required(),
    hold: Joi.array().items(id()).max(20_000).default([]),
  }),
  base: Joi.object({ base: version().required() }),
  keepAsNew: Joi.object({
    name: name().required(),
    recipe: recipeSchema.required(),
    takesDraft: Joi.boolean().default(false),
  }),
  motifFile: Joi.object({
    fileName: line(255).min(1).required(),
    svg: Joi.string().required(),
  }),
  createLayout: Joi.object({
    ...page,
    name: name().required(),
    width: page.width.required(),
    height: page.height.required(),
    measure: page.measure.required(),
    object: objectSchema,
    shapes: Joi.array().items(shapeSchema).max(LIMITS.cutShapes),
  }),
  stateName: Joi.object({ name: name().allow(null).required() }),
  sinceQuery: Joi.object({ since: version().required() }),
  changes: Joi.object({
    base: version().required(),
    changes: Joi.array().items(change).min(1).max(10_000).required(),
  }),
  exportSvgQuery: Joi.object({
    patterns: Joi.string().valid('live', 'expanded').default('live'),
    /** With what is printed beyond the page's edge. */
    bleed: Joi.boolean().default(false),
    /** Makes another address of each version, so that a page shows the new picture. */
    version: version(),
  }),
  sheetPdfQuery: Joi.object({ ppi: between(LIMITS.ppi).default(300) }),
  exportPng: Joi.object({
    ppi: between(LIMITS.ppi).required(),
    bleed: Joi.boolean().default(false),
    as: one('page', 'plates').optional().default('page'),
  }),
  copyLayout: Joi.object({ name: name().required() }),
  createMockup: Joi.object({ name: name().required(), body: mockupSchema }),
  saveMockup: Joi.object({ base: version().required(), name: name().required(), body: mockupSchema }),
  ...projectSchemas,
  ...sheetSchemas,
  copyMockup: Joi.object({ name: name().required() }),
  /** `made` names the picture: an address with it may be kept. */
  stillQuery: Joi.object({ made: Joi.number().integer().min(0) }),
  keepStrikeOff: Joi.object({ name: name().required(), layoutId: id().required(), sheet }),
  saveStrikeOff: Joi.object({ base: version().required(), name: name().required(), sheet }),
  handOut: Joi.object({
    ids: Joi.array().items(id()).min(1).max(20_000),
    as: Joi.string().valid('svg', 'zip', 'tile-svg', 'tile-png', 'area', 'css', 'tokens').required(),
    scale: Joi.number().min(0.05).max(20).default(1),
    area: Joi.when('as', {
      is: 'area',
      then: Joi.object({
        width: between(LIMITS.pageSide).required(),
        height: between(LIMITS.pageSide).required(),
        ppi: between(LIMITS.ppi).required(),
        type: Joi.string().valid('png', 'webp', 'tiff').required(),
      }).required(),
      otherwise: Joi.forbidden(),
    }),
  }),
  takeIn: Joi.object({
    files: Joi.array()
      .items(
        Joi.object({
          token: id().required(),
          choices: Joi.object()
            .pattern(id(), Joi.string().valid('both', 'replace', 'skip'))
            .required(),
        }),
      )
      .min(1)
      .max(LIMITS.filesAtOnce)
      .required(),
  }),
  palettesAs: Joi.object({ as: Joi.string().valid('tokens', 'css', 'csv', 'svg').required() }),
  createPalette: Joi.object({
    name: name().required(),
    colours: entries,
    projectId: id().allow(null),
  }),
  savePalette: Joi.object({
    base: version().required(),
    name: name().required(),
    projectId: id().allow(null),
    colours: entries.required(),
  }),
} as const;
