import Joi from 'joi';
import { LIMITS } from '../core/recipe/limits';
import { LENGTH_UNITS } from '../core/num/length';

/** The bodies and queries of `/api/v1`, as Joi schemas: they check requests and make the OpenAPI document. */
type Range = { least: number; most: number };

const between = (range: Range) => Joi.number().min(range.least).max(range.most);
const finite = (most = 1e9) => Joi.number().min(-most).max(most);
const id = () =>
  Joi.string()
    .min(1)
    .max(64)
    .pattern(/^[A-Za-z0-9_-]+$/, 'letters, digits, - and _');
const name = () => Joi.string().trim().min(1).max(LIMITS.nameLength);
const hex = () => Joi.string().pattern(/^#[0-9a-f]{6}$/, '#rrggbb');
const measure = () => Joi.string().valid(...LENGTH_UNITS);
const version = () => Joi.number().integer().min(0);
const share = () => Joi.number().min(0).max(1);
const one = (...kinds: string[]) =>
  Joi.string()
    .valid(...kinds)
    .required();

/** A tagged union: the value of `kind` chooses which of `options` must hold. */
function tagged(options: Record<string, Joi.PartialSchemaMap>): Joi.AlternativesSchema {
  const switches = Object.entries(options).map(([kind, rest]) => ({
    is: kind,
    then: Joi.object({ kind: one(kind), ...rest }),
  }));
  return Joi.alternatives()
    .conditional(Joi.ref('.kind'), {
      switch: switches,
      otherwise: Joi.object({ kind: one(...Object.keys(options)) }).unknown(),
    })
    .required();
}

const form = tagged({
  rectangle: { radius: Joi.number().min(0).max(1e6).required() },
  ellipse: {},
  polygon: { sides: between(LIMITS.sides).integer().required() },
  star: {
    points: between(LIMITS.starPoints).integer().required(),
    inner: between(LIMITS.starInner).required(),
  },
});

const stroke = Joi.object({
  slot: id().required(),
  width: Joi.number().greater(0).max(1e6).required(),
  cap: one('butt', 'round', 'square'),
  join: one('miter', 'round', 'bevel'),
  miterLimit: Joi.number().min(1).max(1000).required(),
  dashes: Joi.array().items(Joi.number().min(0).max(1e6)).max(32).required(),
});

const element = Joi.object({
  d: Joi.string().max(2_000_000).required(),
  fill: id().allow(null).required(),
  fillRule: one('nonzero', 'evenodd'),
  stroke: stroke.allow(null).required(),
  opacity: share().required(),
});

const content = tagged({
  form: { form, width: finite().required(), height: finite().required(), slot: id().required() },
  line: {
    length: finite().required(),
    thickness: finite().required(),
    cap: one('butt', 'round', 'square'),
    slot: id().required(),
  },
  drawing: {
    asset: Joi.string().hex().length(64).allow(null).required(),
    width: finite().required(),
    height: finite().required(),
    elements: Joi.array().items(element).max(LIMITS.elements).required(),
  },
});

const shifted = { step: finite().required(), run: one('progressive', 'alternating') };

export const recipeSchema = Joi.object({
  kind: one('composed'),
  version: Joi.number().valid(1).required(),
  measure: measure().required(),
  unit: Joi.object({ width: finite().required(), height: finite().required() }).required(),
  gap: Joi.object({ across: finite().required(), down: finite().required() }).required(),
  repeat: tagged({ straight: {}, brick: shifted, 'half-drop': shifted }),
  ground: tagged({ clear: {}, slot: { slot: id().required() } }),
  slots: Joi.array()
    .items(Joi.object({ id: id().required(), name: name().required(), colour: hex().required() }))
    .max(LIMITS.slots)
    .required(),
  motifs: Joi.array()
    .items(Joi.object({ id: id().required(), name: name().required(), content }))
    .max(LIMITS.motifs)
    .required(),
  placings: Joi.array()
    .items(
      Joi.object({
        id: id().required(),
        motif: id().required(),
        x: finite().required(),
        y: finite().required(),
        rotation: finite().required(),
        scaleX: finite().required(),
        scaleY: finite().required(),
      }),
    )
    .max(LIMITS.placings)
    .required(),
}).meta({ className: 'Recipe' });

const point = (range: Range) =>
  Joi.object({ x: between(range).required(), y: between(range).required() }).required();

export const fillSchema = tagged({
  colour: {
    version: Joi.number().valid(1).required(),
    id: id().required(),
    colour: hex().required(),
    opacity: share().required(),
  },
  pattern: {
    version: Joi.number().valid(1).required(),
    id: id().required(),
    pattern: id().required(),
    held: Joi.number().integer().min(1).allow(null).required(),
    scaleX: between(LIMITS.scale).required(),
    scaleY: between(LIMITS.scale).required(),
    rotation: between(LIMITS.angle).required(),
    skew: between(LIMITS.skew).required(),
    offset: point(LIMITS.place),
    anchor: point({ least: -1e6, most: 1e6 }),
    opacity: share().required(),
    ground: tagged({ own: {}, none: {}, colour: { colour: hex().required() } }),
    groundOpacity: share().required(),
    colours: Joi.object().pattern(id(), hex()).required(),
  },
});

export const shapeSchema = Joi.object({
  id: id().required(),
  name: name().required(),
  form,
  x: between(LIMITS.place).required(),
  y: between(LIMITS.place).required(),
  width: between(LIMITS.shapeSide).required(),
  height: between(LIMITS.shapeSide).required(),
  rotation: between(LIMITS.angle).required(),
  fill: fillSchema.allow(null),
}).meta({ className: 'Shape' });

const page = {
  name: name(),
  width: between(LIMITS.pageSide),
  height: between(LIMITS.pageSide),
  measure: measure(),
  ppi: between(LIMITS.ppi),
  background: hex().allow(null),
};

const change = Joi.alternatives()
  .conditional(Joi.ref('.do'), {
    switch: [
      { is: 'put-shape', then: Joi.object({ do: one('put-shape'), shape: shapeSchema.required() }) },
      { is: 'remove-shape', then: Joi.object({ do: one('remove-shape'), id: id().required() }) },
      {
        is: 'order',
        then: Joi.object({ do: one('order'), ids: Joi.array().items(id()).max(LIMITS.shapes).required() }),
      },
      { is: 'page', then: Joi.object({ do: one('page'), ...page }) },
    ],
    otherwise: Joi.object({ do: one('put-shape', 'remove-shape', 'order', 'page') }).unknown(),
  })
  .required();

export const schemas = {
  id: id().required(),
  number: Joi.number().integer().min(1).required(),
  patternQuery: Joi.object({
    search: Joi.string().max(200).allow('').default(''),
    archived: Joi.boolean().default(false),
    drafts: Joi.boolean().default(false),
    limit: Joi.number().integer().min(1).max(1000).default(500),
    offset: Joi.number().integer().min(0).default(0),
  }),
  swatchQuery: Joi.object({
    width: Joi.number().min(1).max(4000).default(240),
    height: Joi.number().min(1).max(4000).default(180),
    scale: Joi.number().min(0.01).max(100).default(1),
  }),
  archived: Joi.object({ archived: Joi.boolean().required() }),
  createPattern: Joi.object({
    name: name().required(),
    description: Joi.string().max(2000).allow(''),
    recipe: recipeSchema.required(),
  }),
  patchPattern: Joi.object({
    base: version().required(),
    name: name(),
    description: Joi.string().max(2000).allow(''),
  }).or('name', 'description'),
  saveDraft: Joi.object({ base: version().required(), recipe: recipeSchema.required() }),
  publish: Joi.object({ base: version().required() }),
  motifFile: Joi.object({
    fileName: Joi.string().min(1).max(255).required(),
    svg: Joi.string().required(),
  }),
  createProject: Joi.object({ name: name().required() }),
  patchProject: Joi.object({ base: version().required(), name: name().required() }),
  createLayout: Joi.object({
    ...page,
    name: name().required(),
    width: page.width.required(),
    height: page.height.required(),
    measure: page.measure.required(),
  }),
  changes: Joi.object({
    base: version().required(),
    changes: Joi.array().items(change).min(1).max(10_000).required(),
  }),
  exportSvgQuery: Joi.object({ patterns: Joi.string().valid('live', 'expanded').default('live') }),
  exportPng: Joi.object({ ppi: between(LIMITS.ppi).required() }),
  createPalette: Joi.object({ name: name().required() }),
  savePalette: Joi.object({
    base: version().required(),
    name: name().required(),
    colours: Joi.array()
      .items(Joi.object({ id: id().required(), name: name().required(), hex: hex().required() }))
      .max(200)
      .required(),
  }),
} as const;
