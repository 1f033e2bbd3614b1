import type { BlendMode } from '../../core/colour/blend';
import { IDENTITY, translation } from '../../core/geom/affine';
import { formatPath, parsePath, pathBox, transformPath } from '../../core/geom/path';
import type { ShapeForm } from '../../core/geom/shapes';
import {
  colourFill,
  coveringPicture,
  freshFill,
  gradientFill,
  type Fill,
  type PatternFill,
} from '../../core/recipe/fill';
import { brushForm, type LayoutForm } from '../../core/recipe/form';
import type { Gradient } from '../../core/recipe/gradient';
import { freshShape, type Shape, type ShapeGroup, type ShapeStroke } from '../../core/recipe/layout';
import { shapesOf } from '../../core/mockup/cut-shapes';
import { cutSheet, type ObjectSpec } from '../../core/mockup/objects';
import type { Mask } from '../../core/recipe/mask';
import { newId } from '../repo/context';
import type { NewLayout } from '../../contract/given';
import { setText } from '../render/text';
import { COLOURS, mm, slotOf, type ColourName } from './draw';

/** What the shapes of the demo are made with: the patterns by name, and the pictures that were brought in. */
export type DemoWorld = {
  patterns: ReadonlyMap<string, string>;
  pictures: ReadonlyMap<string, { asset: string; width: number; height: number }>;
};
export type DemoPage = NewLayout;
export type DemoLayout = {
  page: DemoPage;
  content: (world: DemoWorld) => { shapes: Shape[]; groups: ShapeGroup[] };
};
export type DemoProject = { name: string; layouts: DemoLayout[] };

type Box = [x: number, y: number, width: number, height: number];
type Layer = { opacity?: number; blend?: BlendMode; mask?: MaskPlan };
type Use = Layer & {
  scale?: number;
  rotation?: number;
  offset?: [number, number];
  ground?: ColourName | 'none';
  colours?: Partial<Record<ColourName, ColourName>>;
  reflect?: 'across' | 'down';
  /** One plane for all shapes of the page that say so. */
  onPage?: boolean;
  wash?: GradientPlan;
};
type Stop = [colour: ColourName, at: number, opacity?: number];
type GradientPlan = { from?: [number, number]; to?: [number, number]; round?: boolean; stops: Stop[] };
type FillPlan =
  | ColourName
  | [pattern: string, use?: Use]
  | ({ gradient: GradientPlan } & Layer)
  | ({ picture: string } & Layer);
/** Strokes of a brush in the page's own unit, from the frame's corner: where, how wide, how soft. */
type MaskPlan =
  { rub: { along: [number, number][]; size: number; softness?: number; strength?: number }[] } | GradientPlan;
export type Plan = {
  name: string;
  form:
    | ShapeForm
    | { text: string; font: string; centred?: boolean }
    | { brush: [number, number][]; size: number; softness: number };
  box: Box;
  turn?: number;
  fill: FillPlan | FillPlan[];
  stroke?: { width: number; fill: FillPlan; dashes?: number[]; cap?: ShapeStroke['cap'] };
  group?: string;
  mask?: MaskPlan;
};

export const RECTANGLE: ShapeForm = { kind: 'rectangle', radius: 0 };
export const ELLIPSE: ShapeForm = { kind: 'ellipse' };
export const rounded = (radius: number): ShapeForm => ({ kind: 'rectangle', radius });

/** A page in px, or in mm for print with the room that printers ask for. */
export const px = (
  name: string,
  width: number,
  height: number,
  background: string | null = '#ffffff',
): DemoPage => ({
  name,
  width,
  height,
  measure: 'px',
  ppi: 96,
  background,
});
export const print = (
  name: string,
  width: number,
  height: number,
  background: string | null = '#ffffff',
  room: { bleed?: number; margin?: number } = {},
): DemoPage => ({ name, width, height, measure: 'mm', ppi: 300, background, ...room });

/** A layout from plans in the page's own unit; `factor` is that unit in px. */
export function layoutOf(page: DemoPage, factor: number, plans: Plan[]): DemoLayout {
  const { bleed = 0, margin = 0 } = page;
  const sizes = { width: page.width * factor, height: page.height * factor };
  return {
    page: { ...page, ...sizes, bleed: bleed * factor, margin: margin * factor },
    content: (world) => {
      const groups = new Map<string, ShapeGroup>();
      for (const { group } of plans)
        if (group !== undefined && !groups.has(group))
          groups.set(group, { id: newId(), name: group, parent: null, locked: false, hidden: false });
      const shapes = plans.map((plan): Shape => {
        const shape = shapeOf(plan, factor, world);
        return plan.group === undefined ? shape : { ...shape, group: groups.get(plan.group)?.id ?? null };
      });
      return { shapes, groups: [...groups.values()] };
    },
  };
}

/** A page that is an object's cut sheet: its panels filled by their names, more shapes over them, in mm. */
export function cutLayout(
  name: string,
  object: ObjectSpec,
  fills: Record<string, FillPlan>,
  more: Plan[] = [],
): DemoLayout {
  const cut = cutSheet(object);
  if (!cut.ok) throw new Error(cut.message);
  const { sheet } = cut;
  const size = { width: mm(sheet.width), height: mm(sheet.height) };
  return {
    page: { ...print(name, 0, 0), ...size, object },
    content: (world) => {
      const panels = shapesOf(sheet, newId).map((shape): Shape => {
        const plan = fills[shape.name];
        return plan ? { ...shape, fills: [fillOf(plan, shape, mm(1), world)] } : shape;
      });
      return { shapes: [...panels, ...more.map((plan) => shapeOf(plan, mm(1), world))], groups: [] };
    },
  };
}

function shapeOf(plan: Plan, factor: number, world: DemoWorld): Shape {
  const { form, frame } = framed(plan, factor);
  const fills = Array.isArray(plan.fill) && !isUse(plan.fill) ? plan.fill : [plan.fill as FillPlan];
  const { stroke, mask } = plan;
  return freshShape({
    id: newId(),
    name: plan.name,
    form,
    ...frame,
    rotation: plan.turn ?? 0,
    fills: fills.map((fill) => fillOf(fill, frame, factor, world)),
    stroke: stroke
      ? {
          width: stroke.width * factor,
          cap: stroke.cap ?? 'butt',
          join: 'miter',
          dashes: (stroke.dashes ?? []).map((dash) => dash * factor),
          fills: [fillOf(stroke.fill, frame, factor, world)],
        }
      : null,
    mask: mask ? maskOf(mask, factor) : null,
  });
}

type Frame = { x: number; y: number; width: number; height: number };

function framed({ form, box }: Plan, factor: number): { form: LayoutForm; frame: Frame } {
  const [x, y, width, height] = box.map((value) => value * factor) as Box;
  const frame = { x, y, width, height };
  if ('text' in form) return textIn(form, frame);
  if ('brush' in form) {
    const points = form.brush.map(([across, down]) => ({ x: x + across * factor, y: y + down * factor }));
    const made = brushForm(points, form.size * factor, form.softness);
    if (made) return made;
  }
  if (!('kind' in form)) return { form: RECTANGLE, frame };
  return { form: form.kind === 'rectangle' ? { ...form, radius: form.radius * factor } : form, frame };
}

/** Words as high as their box, beginning at its left edge or in its middle. */
function textIn(
  { text, font, centred }: { text: string; font: string; centred?: boolean },
  frame: Frame,
): { form: LayoutForm; frame: Frame } {
  const size = frame.height;
  const set = setText(text, { family: font, size });
  const read = set.ok ? parsePath(set.d) : null;
  const box = read?.ok ? pathBox(read.path) : null;
  if (!read?.ok || !box) throw new Error(`The demo's text “${text}” cannot be set.`);
  const d = formatPath(transformPath(translation(-box.x, -box.y), read.path));
  const scale = frame.height / box.height;
  const [width, height] = [box.width * scale, frame.height];
  const x = centred ? frame.x + (frame.width - width) / 2 : frame.x;
  const id = FONT_IDS[font] ?? 'schibsted-grotesk-700';
  return {
    form: {
      kind: 'text',
      d,
      width: box.width,
      height: box.height,
      text,
      font: id,
      size,
      align: centred ? 'middle' : 'start',
    },
    frame: { x, y: frame.y, width, height },
  };
}

const FONT_IDS: Record<string, string> = {
  'Schibsted Grotesk': 'schibsted-grotesk-700',
  Bitter: 'bitter-700',
  Limelight: 'limelight-400',
  'Caveat Brush': 'caveat-brush-400',
  'Spline Sans Mono': 'spline-sans-mono-600',
};

const isUse = (fill: FillPlan | FillPlan[]): fill is [string, Use?] =>
  Array.isArray(fill) && typeof fill[0] === 'string' && !(fill[0] in COLOURS);

function fillOf(plan: FillPlan, frame: Frame, factor: number, world: DemoWorld): Fill {
  if (typeof plan === 'string') return colourFill(newId(), { colour: COLOURS[plan] });
  if (isUse(plan)) return used(plan[0], plan[1] ?? {}, frame, factor, world);
  if (Array.isArray(plan)) throw new Error('The demo names a fill that is none.');
  const { opacity = 1, blend = 'normal', mask } = plan;
  const layer = { opacity, blend, mask: mask ? maskOf(mask, factor) : null };
  if ('gradient' in plan) return { ...gradientFill(newId(), gradientOf(plan.gradient)), ...layer };
  const picture = world.pictures.get(plan.picture);
  if (!picture) throw new Error(`The demo has no picture named ${plan.picture}.`);
  return { ...coveringPicture(newId(), picture, frame), ...layer };
}

function gradientOf({ from = [0.5, 0], to = [0.5, 1], round = false, stops }: GradientPlan): Gradient {
  return {
    kind: round ? 'radial' : 'linear',
    from: { x: from[0], y: from[1] },
    to: { x: to[0], y: to[1] },
    stops: stops.map(([colour, at, opacity = 1]) => ({ colour: COLOURS[colour], at, opacity })),
  };
}

function maskOf(plan: MaskPlan, factor: number): Mask {
  if (!('rub' in plan)) return { kind: 'gradient', gradient: gradientOf(plan) };
  const strokes = plan.rub.map(({ along, size, softness = 0.8, strength = 1 }) => ({
    mode: 'erase' as const,
    size: size * factor,
    softness,
    strength,
    points: along.flatMap(([x, y]) => [x * factor, y * factor]),
  }));
  return { kind: 'painted', matrix: IDENTITY, strokes };
}

function used(name: string, use: Use, frame: Frame, factor: number, { patterns }: DemoWorld): PatternFill {
  const id = patterns.get(name);
  if (id === undefined) throw new Error(`The demo has no pattern named ${name}.`);
  const scale = use.scale ?? 1;
  const offset = { x: mm(use.offset?.[0] ?? 0), y: mm(use.offset?.[1] ?? 0) };
  return {
    ...freshFill(newId(), id),
    scaleX: scale,
    scaleY: scale,
    rotation: use.rotation ?? 0,
    reflectX: use.reflect === 'across',
    reflectY: use.reflect === 'down',
    offset,
    // A reflected pattern begins at the other edge, so that it stands as in a mirror.
    anchor: use.reflect === 'down' ? { x: 0, y: frame.height } : { x: 0, y: 0 },
    anchored: use.onPage ? 'page' : 'shape',
    opacity: use.opacity ?? 1,
    blend: use.blend ?? 'normal',
    mask: use.mask ? maskOf(use.mask, factor) : null,
    wash: use.wash ? gradientOf(use.wash) : null,
    ground:
      use.ground === undefined
        ? { kind: 'own' }
        : use.ground === 'none'
          ? { kind: 'none' }
          : { kind: 'colour', colour: COLOURS[use.ground] },
    colours: Object.fromEntries(
      Object.entries(use.colours ?? {}).map(([from, to]) => [
        slotOf(from as ColourName),
        { colour: COLOURS[to] },
      ]),
    ),
  };
}
