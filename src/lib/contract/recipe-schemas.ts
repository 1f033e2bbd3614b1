import Joi from 'joi';
import { PLANE_GROUPS } from '../core/lattice/groups';
import { LIMITS } from '../core/recipe/limits';
import { MEASURED_FORMS } from '../core/recipe/measured';
import { CUT_CHANNELS, CUT_LIMITS } from '../core/recipe/cut-out';
import { STROKE_LIMITS } from '../core/recipe/stroke';
import { FEW_KINDS, JOIN_KINDS, PICTURED_LIMITS, TONE_CHANNELS } from '../core/recipe/pictured';
import { TEXTURE_KINDS } from '../core/recipe/texture';
import { RECIPE_VERSION } from '../core/recipe/recipe';
import {
  asset,
  between,
  finite,
  hex,
  id,
  matrix,
  measure,
  name,
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

/** A stroke of a brush on a picture; what more it says comes with it. */
const stroked = (more: Joi.PartialSchemaMap) =>
  Joi.object({
    ...more,
    size: between(STROKE_LIMITS.size).required(),
    softness: share().required(),
    strength: share().required(),
    points: Joi.array()
      .items(finite(1e6))
      .min(2)
      .max(2 * STROKE_LIMITS.points)
      .required(),
  });

/** How a subject is cut out of its picture. */
export const cutOutSchema = Joi.object({
  channel: one(...CUT_CHANNELS),
  colour: hex().required(),
  inverted: Joi.boolean().required(),
  black: between(CUT_LIMITS.level).required(),
  middle: between(CUT_LIMITS.middle).required(),
  white: between(CUT_LIMITS.level).greater(Joi.ref('black')).required(),
  holes: Joi.boolean().required(),
  shift: between(CUT_LIMITS.shift).required(),
  feather: between(CUT_LIMITS.feather).required(),
  clean: Joi.boolean().required(),
  only: Joi.array()
    .items(Joi.object({ x: finite().required(), y: finite().required() }))
    .max(CUT_LIMITS.only)
    .required(),
  strokes: Joi.array()
    .items(stroked({ mode: one('erase', 'restore'), edges: Joi.boolean().required() }))
    .max(STROKE_LIMITS.strokes),
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
    cut: Joi.object({
      asset: asset().required(),
      width: Joi.number().integer().min(1).max(100_000).required(),
      height: Joi.number().integer().min(1).max(100_000).required(),
      x: Joi.number().integer().min(0).max(100_000).required(),
      y: Joi.number().integer().min(0).max(100_000).required(),
      by: cutOutSchema.required(),
    }),
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

const numbers = (...keys: string[]) => Object.fromEntries(keys.map((key) => [key, finite().required()]));

const levels = Joi.object(numbers('black', 'middle', 'white', 'low', 'high'));

const pictured = {
  ...recipeHead,
  unit: Joi.object(numbers('width', 'height')).required(),
  lay: tagged({
    straight: {},
    brick: { step: finite().required() },
    'half-drop': { step: finite().required() },
  }),
  pictured: Joi.object({
    source: Joi.object({
      asset: asset().required(),
      width: Joi.number().integer().min(1).max(LIMITS.pictureSide).required(),
      height: Joi.number().integer().min(1).max(LIMITS.pictureSide).required(),
      name: name().required(),
      clear: Joi.boolean(),
      texture: Joi.object({
        kind: one(...TEXTURE_KINDS),
        width: Joi.number().integer().required(),
        height: Joi.number().integer().required(),
        seed: Joi.number().integer().required(),
        numbers: named(finite()),
      }),
    }).required(),
    region: Joi.object({
      ...numbers('x', 'y', 'width', 'height', 'turn'),
      corners: Joi.array()
        .items(Joi.object(numbers('x', 'y')))
        .length(4),
    }).required(),
    symmetry: Joi.object({
      on: Joi.boolean().required(),
      group: one(...PLANE_GROUPS),
      heal: finite(),
    }).required(),
    tone: Joi.object({
      on: Joi.boolean().required(),
      grey: Joi.boolean().required(),
      neutral: hex().allow(null).required(),
      ...numbers('even', 'exposure', 'black', 'middle', 'white', 'low', 'high', 'contrast', 'saturation'),
      channels: Joi.object(Object.fromEntries(TONE_CHANNELS.map((channel) => [channel, levels]))),
      alone: Joi.array()
        .items(Joi.object({ colour: hex().required(), ...numbers('reach', 'hue', 'chroma', 'light') }))
        .max(PICTURED_LIMITS.alone),
    }).required(),
    join: Joi.object({
      on: Joi.boolean().required(),
      how: one(...JOIN_KINDS),
      ...numbers('band', 'feather'),
      times: Joi.number().integer().required(),
      seed: Joi.number().integer().required(),
    }).required(),
    retouch: Joi.object({
      on: Joi.boolean().required(),
      strokes: Joi.array()
        .items(
          Joi.alternatives(
            stroked({ does: one('heal', 'clone'), from: Joi.object(numbers('x', 'y')).required() }),
            stroked({ does: one('keep', 'join') }),
          ),
        )
        .max(STROKE_LIMITS.strokes)
        .required(),
    }),
    few: Joi.object({
      on: Joi.boolean().required(),
      how: one(...FEW_KINDS),
      screen: Joi.object({ ...numbers('across', 'turn'), form: one('round', 'line') }),
      colours: Joi.array().items(hex()).max(PICTURED_LIMITS.few.most).required(),
      speck: finite().required(),
    }),
  }).required(),
};

export const recipeSchema = tagged({ composed, measured, pictured }).meta({ className: 'Recipe' });
