import Joi from 'joi';
import { LIBRARY_SORTS } from './data';
import { PLANE_GROUPS } from '../core/lattice/groups';
import { FILL_VERSION } from '../core/recipe/fill';
import { LIMITS } from '../core/recipe/limits';
import { MEASURED_FORMS } from '../core/recipe/measured';
import { LIBRARY_VERSION } from '../core/recipe/library';
import { RECIPE_VERSION } from '../core/recipe/recipe';
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

const matrix = () =>
  Joi.object(
    Object.fromEntries(['a', 'b', 'c', 'd', 'e', 'f'].map((key) => [key, finite().required()])),
  ).required();

const gradient = Joi.object({
  kind: one('linear', 'radial'),
  matrix: matrix(),
  stops: Joi.array()
    .items(Joi.object({ at: share().required(), slot: id().required(), opacity: share().required() }))
    .min(1)
    .max(64)
    .required(),
  spread: one('pad', 'reflect', 'repeat'),
});

const fillRule = () => one('nonzero', 'evenodd');
const pathData = () => Joi.string().max(2_000_000).required();
const asset = () => Joi.string().hex().length(64);

const source = tagged({
  form: {
    form,
    x: finite().required(),
    y: finite().required(),
    width: finite().required(),
    height: finite().required(),
    rotation: finite().required(),
  },
  text: {
    text: Joi.string().min(1).max(200).required(),
    font: Joi.string().max(40).required(),
    size: Joi.number().greater(0).max(1e5).required(),
    x: finite().required(),
    y: finite().required(),
    rotation: finite().required(),
  },
});

const element = Joi.object({
  d: pathData(),
  fill: Joi.alternatives(id(), gradient).allow(null).required(),
  fillRule: fillRule(),
  stroke: stroke.allow(null).required(),
  opacity: share().required(),
  picture: Joi.object({
    asset: asset().required(),
    width: Joi.number().integer().min(1).max(100_000).required(),
    height: Joi.number().integer().min(1).max(100_000).required(),
    matrix: matrix(),
  }),
  clip: Joi.object({ d: pathData(), rule: fillRule() }),
  source: source.optional(),
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
    asset: asset().allow(null).required(),
    width: finite().required(),
    height: finite().required(),
    elements: Joi.array().items(element).max(LIMITS.elements).required(),
  },
});

const guides = () =>
  Joi.array()
    .items(Joi.object({ axis: one('x', 'y'), at: finite().required() }))
    .max(LIMITS.guides);

const shadow = Joi.object({
  slot: id().required(),
  angle: finite().required(),
  distance: finite().required(),
  blur: finite().required(),
  opacity: share().required(),
});

const effects = Joi.object({
  drop: shadow,
  inner: shadow,
  relief: Joi.object({
    angle: finite().required(),
    height: finite().required(),
    softness: finite().required(),
    strength: share().required(),
  }),
});

const credit = Joi.object(
  Object.fromEntries(
    ['author', 'source', 'licence'].map((key) => [key, Joi.string().max(300).allow('').required()]),
  ),
);

const motif = Joi.object({
  id: id().required(),
  name: name().required(),
  content,
  effects,
  credit,
  guides: guides(),
});

const placing = Joi.object({
  id: id().required(),
  motif: id().required(),
  x: finite().required(),
  y: finite().required(),
  rotation: finite().required(),
  scaleX: finite().required(),
  scaleY: finite().required(),
  opacity: share().required(),
});

const shifted = { step: finite().required(), run: one('progressive', 'alternating') };
const groundStops = {
  stops: Joi.array()
    .items(Joi.object({ at: finite().required(), slot: id().required() }))
    .max(16)
    .required(),
};

/** What every recipe has. */
const recipeHead = {
  version: Joi.number().valid(RECIPE_VERSION).required(),
  measure: measure().required(),
  ground: tagged({
    clear: {},
    slot: { slot: id().required() },
    linear: { along: one('across', 'down'), ...groundStops },
    radial: { radius: finite().required(), ...groundStops },
  }),
  slots: Joi.array()
    .items(Joi.object({ id: id().required(), name: name().required(), colour: hex().required(), link: id() }))
    .max(LIMITS.slots)
    .required(),
};

const composed = {
  ...recipeHead,
  unit: Joi.object({ width: finite().required(), height: finite().required() }).required(),
  gap: Joi.object({ across: finite().required(), down: finite().required() }).required(),
  repeat: tagged({
    straight: {},
    brick: shifted,
    'half-drop': shifted,
    mirror: {},
    group: { group: one(...PLANE_GROUPS), slant: finite().required() },
  }),
  front: Joi.object({ across: one('right', 'left'), down: one('lower', 'upper') }).required(),
  motifs: Joi.array().items(motif).max(LIMITS.motifs).required(),
  placings: Joi.array().items(placing).max(LIMITS.placings).required(),
  aids: Joi.object({
    grid: between(LIMITS.grid).required(),
    showGrid: Joi.boolean().required(),
    snap: Joi.boolean().required(),
    guides: guides().required(),
  }).required(),
  lie: matrix().optional(),
};

const named = (value: Joi.Schema) => Joi.object().pattern(Joi.string().max(20), value).max(24).required();

const measured = {
  ...recipeHead,
  measured: Joi.object({
    form: one(...MEASURED_FORMS),
    numbers: named(finite()),
    choices: named(Joi.string().max(20)),
    inks: named(id()),
    bands: Joi.array()
      .items(Joi.object({ width: finite().required(), slot: id().allow(null).required() }))
      .max(LIMITS.bands)
      .required(),
  }).required(),
};

export const recipeSchema = tagged({ composed, measured }).meta({ className: 'Recipe' });

const point = (range: Range) =>
  Joi.object({ x: between(range).required(), y: between(range).required() }).required();

const tintKeys = { colour: hex().required(), link: id() };
const tint = Joi.object(tintKeys);

const look = Joi.object({
  map: Joi.array().items(tint).max(5).required(),
  shift: Joi.object({
    hue: Joi.number().min(-360).max(360).required(),
    lightness: Joi.number().min(-1).max(1).required(),
    chroma: Joi.number().min(0).max(4).required(),
  }).required(),
  tint: Joi.object({ ...tintKeys, amount: share().required() })
    .allow(null)
    .required(),
});

export const fillSchema = tagged({
  colour: {
    version: Joi.number().valid(FILL_VERSION).required(),
    id: id().required(),
    ...tintKeys,
    opacity: share().required(),
  },
  pattern: {
    version: Joi.number().valid(FILL_VERSION).required(),
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
    ground: tagged({ own: {}, none: {}, colour: tintKeys }),
    groundOpacity: share().required(),
    colourway: id().allow(null).required(),
    colours: Joi.object().pattern(id(), tint).required(),
    look,
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
  backgroundLink: id().allow(null),
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

const tag = () => Joi.string().trim().min(1).max(LIMITS.tagLength);

const patternCredit = Joi.object({
  author: Joi.string().trim().max(300).allow('').required(),
  source: Joi.string().trim().max(1000).allow('').required(),
  licence: Joi.string().trim().max(300).allow('').required(),
  attribution: Joi.boolean().required(),
});

const palettePoint = Joi.object({ id: id().required(), hex: hex().required() });

const entries = Joi.array()
  .items(
    Joi.object({
      id: id().required(),
      name: name().required(),
      hex: hex().required(),
      css: Joi.string().max(200).allow(null),
      gradient: Joi.array()
        .items(Joi.object({ at: share().required(), hex: hex().required(), link: id() }))
        .min(2)
        .max(LIMITS.gradientStops)
        .allow(null),
    }),
  )
  .max(LIMITS.paletteColours);

/** What library files carry, checked like everything that comes in from outside. */
export const keptPatternSchema = Joi.object({
  version: Joi.number().valid(LIBRARY_VERSION).required(),
  id: id().required(),
  name: name().required(),
  description: Joi.string().max(2000).allow('').required(),
  tags: Joi.array().items(tag()).max(LIMITS.tags).required(),
  collections: Joi.array().items(name()).max(100).required(),
  credit: patternCredit.required(),
  recipe: recipeSchema.required(),
  colourways: Joi.array()
    .items(
      Joi.object({
        id: id().required(),
        name: name().required(),
        colours: Joi.object().pattern(id(), tint).required(),
      }),
    )
    .max(LIMITS.colourways)
    .required(),
});

export const keptPaletteSchema = Joi.object({
  id: id().required(),
  name: name().required(),
  colours: entries.required(),
});

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
  motifQuery: Joi.object({ look: Joi.string().max(200) }),
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
    tags: Joi.array().items(tag()).max(LIMITS.tags),
    collections: Joi.array().items(id()).max(500),
    credit: patternCredit,
  }).or('name', 'description', 'tags', 'collections', 'credit'),
  deletePattern: Joi.object({ name: Joi.string().max(1000).required() }),
  editPatterns: Joi.object({
    ids: Joi.array().items(id()).min(1).max(20_000).required(),
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
      .max(20_000)
      .required(),
  }),
  saveColourways: Joi.object({
    base: version().required(),
    colourways: Joi.array()
      .items(
        Joi.object({
          id: id().required(),
          name: name().required(),
          colours: Joi.object().pattern(id(), tint).required(),
        }),
      )
      .required(),
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
    summary: Joi.string().max(200).required(),
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
  exportSvgQuery: Joi.object({
    patterns: Joi.string().valid('live', 'expanded').default('live'),
    /** Makes another address of each version, so that a page shows the new picture. */
    version: version(),
  }),
  exportPng: Joi.object({ ppi: between(LIMITS.ppi).required() }),
  handOut: Joi.object({
    ids: Joi.array().items(id()).min(1).max(20_000),
    as: Joi.string().valid('svg', 'zip', 'tile-svg', 'tile-png', 'css', 'tokens').required(),
    scale: Joi.number().min(0.05).max(20).default(1),
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
