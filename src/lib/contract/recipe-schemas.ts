import Joi from 'joi';
import { BLEND_MODES } from '../core/colour/blend';
import { PLANE_GROUPS } from '../core/lattice/groups';
import { FILL_VERSION } from '../core/recipe/fill';
import { LIMITS } from '../core/recipe/limits';
import { MEASURED_FORMS } from '../core/recipe/measured';
import { RECIPE_VERSION } from '../core/recipe/recipe';
import { LENGTH_UNITS } from '../core/num/length';
import { tidyName, tidyProse } from '../core/num/text';

/** Recipes and fills as Joi schemas, and the parts that all schemas are made of. */
type Range = { least: number; most: number };

export const between = (range: Range) => Joi.number().min(range.least).max(range.most);
const finite = (most = 1e9) => Joi.number().min(-most).max(most);
export const id = () =>
  Joi.string()
    .min(1)
    .max(64)
    .pattern(/^[A-Za-z0-9_-]+$/, 'letters, digits, - and _');
/** Text that is kept as `tidy` has it, at most `most` characters. */
const tidied = (tidy: (text: string) => string, most: number) =>
  Joi.string()
    .custom((value: string, helpers) => {
      const text = tidy(value);
      return text === '' && value !== '' ? helpers.error('string.empty') : text;
    })
    .max(most);
/** A name in one line. */
export const line = (most: number) => tidied(tidyName, most);
/** A text of several lines; it may be empty. */
export const prose = (most: number) =>
  Joi.string()
    .allow('')
    .custom((value: string) => tidyProse(value))
    .max(most);
export const name = () => line(LIMITS.nameLength).min(1);
export const hex = () => Joi.string().pattern(/^#[0-9a-f]{6}$/, '#rrggbb');
export const measure = () => Joi.string().valid(...LENGTH_UNITS);
export const version = () => Joi.number().integer().min(0);
export const share = () => Joi.number().min(0).max(1);
export const one = (...kinds: string[]) =>
  Joi.string()
    .valid(...kinds)
    .required();

/** A tagged union: the value of `kind`, or of another `key`, chooses which of `options` must hold. */
export function tagged(options: Record<string, Joi.PartialSchemaMap>, key = 'kind'): Joi.AlternativesSchema {
  const switches = Object.entries(options).map(([kind, rest]) => ({
    is: kind,
    then: Joi.object({ [key]: one(kind), ...rest }),
  }));
  return Joi.alternatives()
    .conditional(Joi.ref(`.${key}`), {
      switch: switches,
      otherwise: Joi.object({ [key]: one(...Object.keys(options)) }).unknown(),
    })
    .required();
}

const forms = {
  rectangle: { radius: Joi.number().min(0).max(1e6).required() },
  ellipse: {},
  polygon: { sides: between(LIMITS.sides).integer().required() },
  star: {
    points: between(LIMITS.starPoints).integer().required(),
    inner: between(LIMITS.starInner).required(),
  },
};

export const form = tagged(forms);

const stroke = Joi.object({
  slot: id().required(),
  width: Joi.number().greater(0).max(1e6).required(),
  cap: one('butt', 'round', 'square'),
  join: one('miter', 'round', 'bevel'),
  miterLimit: Joi.number().min(1).max(1000).required(),
  dashes: Joi.array().items(Joi.number().min(0).max(1e6)).max(32).required(),
  dashOffset: finite(1e6),
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
  focus: Joi.object({ x: Joi.number().min(-1).max(1).required(), y: Joi.number().min(-1).max(1).required() }),
});

const drawn = {
  width: Joi.number().greater(0).max(LIMITS.shapeSide.most).required(),
  height: Joi.number().greater(0).max(LIMITS.shapeSide.most).required(),
};

/** Forms of layout shapes: those of motifs, and drawn ones. */
export const layoutForm = tagged({
  ...forms,
  path: { ...drawn, d: Joi.string().max(LIMITS.pathData).required() },
  text: {
    ...drawn,
    d: Joi.string().max(LIMITS.pathData).allow('').required(),
    text: Joi.string().min(1).max(LIMITS.textLength).required(),
    font: Joi.string().max(40).required(),
    size: Joi.number().greater(0).max(1e5).required(),
    align: one('start', 'middle', 'end'),
  },
  brush: {
    ...drawn,
    points: Joi.array()
      .items(finite(1e6))
      .min(2)
      .max(2 * LIMITS.strokePoints)
      .required(),
    size: Joi.number().greater(0).max(LIMITS.shapeSide.most).required(),
    softness: share().required(),
  },
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
  Object.fromEntries(['author', 'source', 'licence'].map((key) => [key, prose(300).required()])),
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
export const tint = Joi.object(tintKeys);

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

const at = () => Joi.number().min(-100).max(100).required();

const fillGradient = Joi.object({
  kind: one('linear', 'radial'),
  from: Joi.object({ x: at(), y: at() }).required(),
  to: Joi.object({ x: at(), y: at() }).required(),
  stops: Joi.array()
    .items(Joi.object({ ...tintKeys, at: share().required(), opacity: share().required() }))
    .min(2)
    .max(LIMITS.gradientStops)
    .required(),
});

const maskStroke = Joi.object({
  mode: one('erase', 'restore'),
  size: Joi.number().greater(0).max(LIMITS.shapeSide.most).required(),
  softness: share().required(),
  strength: share().required(),
  points: Joi.array()
    .items(finite(1e6))
    .min(2)
    .max(2 * LIMITS.strokePoints)
    .required(),
});

const pixels = () => Joi.number().integer().min(1).max(100_000).required();

export const maskSchema = tagged({
  painted: { matrix: matrix(), strokes: Joi.array().items(maskStroke).max(LIMITS.maskStrokes).required() },
  gradient: { gradient: fillGradient.required() },
  picture: {
    matrix: matrix(),
    asset: asset().required(),
    width: pixels(),
    height: pixels(),
    inverted: Joi.boolean().required(),
  },
})
  .optional()
  .allow(null);

const layer = {
  version: Joi.number().valid(FILL_VERSION).required(),
  id: id().required(),
  opacity: share().required(),
  blend: one(...BLEND_MODES),
  shown: Joi.boolean().required(),
  mask: maskSchema.required(),
};

const place = {
  scaleX: between(LIMITS.scale).required(),
  scaleY: between(LIMITS.scale).required(),
  reflectX: Joi.boolean().required(),
  reflectY: Joi.boolean().required(),
  rotation: between(LIMITS.angle).required(),
  skew: between(LIMITS.skew).required(),
  offset: point(LIMITS.place),
  anchor: point({ least: -1e6, most: 1e6 }),
  anchored: one('shape', 'page'),
};

export const fillSchema = tagged({
  colour: { ...layer, ...tintKeys },
  gradient: { ...layer, gradient: fillGradient.required() },
  picture: { ...layer, ...place, asset: asset().required(), width: pixels(), height: pixels() },
  pattern: {
    ...layer,
    ...place,
    pattern: id().required(),
    held: Joi.number().integer().min(1).allow(null).required(),
    ground: tagged({ own: {}, none: {}, colour: tintKeys }),
    groundOpacity: share().required(),
    colourway: id().allow(null).required(),
    colours: Joi.object().pattern(id(), tint).required(),
    look,
    wash: fillGradient.allow(null).required(),
  },
});
