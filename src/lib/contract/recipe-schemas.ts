import Joi from 'joi';
import { PLANE_GROUPS } from '../core/lattice/groups';
import { LIMITS } from '../core/recipe/limits';
import { MEASURED_FORMS } from '../core/recipe/measured';
import { RECIPE_VERSION } from '../core/recipe/recipe';
import { cutFromSchema, picturedParts } from './pictured-schemas';
import {
  asset,
  between,
  finite,
  hex,
  id,
  matrix,
  measure,
  name,
  named,
  one,
  prose,
  share,
  tagged,
} from './schema-parts';

/** Recipes as Joi schemas, and the forms that shapes of a layout share with them. */
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
    clear: Joi.boolean(),
    cut: cutFromSchema,
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
    mirror: { cut: Joi.boolean() },
    group: { group: one(...PLANE_GROUPS), slant: finite().required(), cut: Joi.boolean() },
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

const pictured = { ...recipeHead, ...picturedParts };

export const recipeSchema = tagged({ composed, measured, pictured }).meta({ className: 'Recipe' });
