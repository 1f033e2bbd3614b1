import { boxesMeet, grow, intersectBoxes, unionBoxes, type Box } from '../geom/box';
import type { Point } from '../geom/point';
import { offsetsMeeting } from '../lattice/meet';
import {
  meanScale,
  patternRegion,
  strokeOf,
  type LayoutScene,
  type MaskScene,
  type PatternPaint,
  type ShapePaint,
  type ShapeScene,
} from '../scene/layout';
import {
  alphaMask,
  blendText,
  boxText,
  gradientPaint,
  isOpaqueGradient,
  layPicture,
  maskMarkup,
  type MaskPicture,
} from './fill';
import { inkText } from './ink';
import { basePattern, fillPattern } from './live';
import { groundPaint, throughLook } from './paint';
import { lookKey } from '../colour/look';
import { piecesOver } from '../scene/unit';
import {
  UNDERLAY_PIXELS,
  abutmentMarkup,
  endlessMarkup,
  pieceMarkup,
  regionBox,
  underlayWidth,
  unitMarkup,
} from './pieces';
import { escapeXml, factor, matrixText, num } from './print';

export type LayoutSvgOptions = {
  /** `live` keeps each fill a <pattern>; `expanded` draws every copy of the motifs, clipped by the shape. */
  patterns: 'live' | 'expanded';
  /** The part of the page to draw, page px; the whole page by default. */
  region?: Box;
  /** The size to state in the file: CSS lengths such as "120mm", or plain px. */
  width: string;
  height: string;
  /** Output pixels per page px, where known; it sets how wide the underlay of abutting edges must be. */
  scale?: number;
  title?: string;
  /** Draws painted masks; without it they show everything. */
  maskPicture?: MaskPicture;
};

/** A whole layout as the text of an SVG file. */
export function layoutSvg(scene: LayoutScene, options: LayoutSvgOptions): string {
  const region = options.region ?? { x: 0, y: 0, width: scene.width, height: scene.height };
  const writer = new Writer(options, region, options.scale ?? 1);
  for (const shape of scene.shapes) {
    const reach = shape.stroke?.box ?? shape.box;
    if (boxesMeet(shape.box, region) || boxesMeet(reach, region)) writer.shape(shape);
  }
  const viewBox = [region.x, region.y, region.width, region.height].map(factor).join(' ');
  const paper = scene.background
    ? `<rect x="${factor(region.x)}" y="${factor(region.y)}" width="${factor(region.width)}" height="${factor(region.height)}" fill="${scene.background}"/>`
    : '';
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${options.width}" height="${options.height}" viewBox="${viewBox}" preserveAspectRatio="none">`,
    options.title ? `<title>${escapeXml(options.title)}</title>` : '',
    writer.defs.length > 0 ? `<defs>${writer.defs.join('\n')}</defs>` : '',
    paper,
    writer.body.join('\n'),
    '</svg>',
  ]
    .filter((part) => part !== '')
    .join('\n');
}

/** Collects the definitions and the drawing; a definition that two shapes share is written once. */
class Writer {
  readonly defs: string[] = [];
  readonly body: string[] = [];
  private readonly shared = new Map<string, string>();

  constructor(
    private readonly options: Pick<LayoutSvgOptions, 'patterns' | 'maskPicture'>,
    private readonly region: Box,
    private readonly scale: number,
  ) {}

  shape(shape: ShapeScene): void {
    const stroke = strokeOf(shape);
    const parts = [
      ...shape.paints.map((paint) => this.layer(shape, paint)),
      ...(stroke ? stroke.paints.map((paint) => this.layer(stroke, paint)) : []),
    ];
    if (parts.length === 0) return;
    const drawing = shape.masks.reduce(
      (inner, mask) => `<g mask="url(#${this.mask(shape, mask)})">${inner}</g>`,
      parts.join(''),
    );
    this.body.push(
      `<g transform="translate(${factor(shape.x)} ${factor(shape.y)})"><title>${escapeXml(shape.name)}</title>${drawing}</g>`,
    );
  }

  /** One fill: blended and masked as a whole, where it is. */
  private layer(shape: ShapeScene, paint: ShapePaint): string {
    const drawing = this.ink(shape, paint);
    const masked = paint.mask ? `<g mask="url(#${this.mask(shape, paint.mask)})">${drawing}</g>` : drawing;
    return paint.blend === 'normal' ? masked : `<g${blendText(paint.blend)}>${masked}</g>`;
  }

  private ink(shape: ShapeScene, paint: ShapePaint): string {
    switch (paint.kind) {
      case 'colour':
        return outline(shape, paint.colour, paint.opacity);
      case 'gradient': {
        const { value, defs } = gradientPaint(paint.gradient);
        return defs + outline(shape, value, paint.opacity);
      }
      case 'picture':
        return `<g ${this.cut(shape)}${opacityText('opacity', paint.opacity)}>${layPicture(paint)}</g>`;
      case 'pattern':
        return this.ground(shape, paint) + this.motifs(shape, paint);
    }
  }

  private ground(shape: ShapeScene, paint: PatternPaint): string {
    if (!paint.ground) return '';
    const { value, defs } = groundPaint(paint.ground, paint.matrix);
    return defs + outline(shape, value, paint.ground.opacity);
  }

  /** The motifs of a pattern, and the gradient over them alone where there is one. */
  private motifs(shape: ShapeScene, paint: PatternPaint): string {
    const live = this.options.patterns === 'live';
    if (!paint.wash)
      return live ? this.live(shape, paint, paint.opacity) : this.expanded(shape, paint, paint.opacity);
    const drawing = live ? this.live(shape, paint, 1) : this.expanded(shape, paint, 1);
    if (drawing === '') return '';
    const mask = `w${this.defs.length}`;
    this.defs.push(alphaMask(mask, frameBox(shape), drawing));
    const { value, defs } = gradientPaint(paint.wash);
    const below = isOpaqueGradient(paint.wash) ? '' : drawing;
    const over = outline(shape, value, 1, ` mask="url(#${mask})"`);
    return `${defs}<g${opacityText('opacity', paint.opacity)}>${below}${over}</g>`;
  }

  private live(shape: ShapeScene, paint: PatternPaint, opacity: number): string {
    const { scene } = paint.pattern;
    const underlay = underlayWidth(meanScale(paint.matrix) * this.scale);
    const base = this.once(`p|${paintKey(paint)}|${underlay}`, 'p', (id) =>
      throughLook(basePattern(id, scene, paint.colours, underlay), paint.look),
    );
    const id = `f${this.defs.length}`;
    this.defs.push(fillPattern(id, base, scene, paint.matrix));
    return outline(shape, `url(#${id})`, opacity);
  }

  private expanded(shape: ShapeScene, paint: PatternPaint, opacity: number): string {
    const { scene } = paint.pattern;
    const { offsets, region } = visibleCopies(shape, paint, this.region);
    if (offsets.length === 0 && scene.endless.length === 0) return '';
    const unit = this.once(`u|${paintKey(paint)}`, 'u', (id) =>
      throughLook(`<g id="${id}">${unitMarkup(scene, paint.colours)}</g>`, paint.look),
    );
    const art = copiesMarkup(paint, { offsets, region }, unit, this.scale);
    return `<g ${this.cut(shape)}><g${opacityText('opacity', opacity)}>${art}</g></g>`;
  }

  /** The attribute that cuts a drawing to a shape; a line cuts as a mask, for a clip path knows no strokes. */
  private cut(shape: ShapeScene): string {
    const kind = shape.pen ? 'mask' : 'clip';
    const id = this.once(`${kind}|${shape.id}`, kind.charAt(0), (fresh) =>
      shape.pen
        ? `<mask id="${fresh}" maskUnits="userSpaceOnUse" ${boxText(frameBox(shape))}>${outline(shape, '#ffffff', 1)}</mask>`
        : `<clipPath id="${fresh}"><path d="${shape.d}"/></clipPath>`,
    );
    return shape.pen ? `mask="url(#${id})"` : `clip-path="url(#${id})"`;
  }

  private mask(shape: ShapeScene, mask: MaskScene): string {
    const id = `m${this.defs.length}`;
    const none: MaskPicture = () => null;
    this.defs.push(maskMarkup(id, mask, frameBox(shape), this.options.maskPicture ?? none));
    return id;
  }

  private once(key: string, prefix: string, write: (id: string) => string): string {
    const held = this.shared.get(key);
    if (held) return held;
    const id = `${prefix}${this.shared.size}`;
    this.shared.set(key, id);
    this.defs.push(write(id));
    return id;
  }
}

const outline = ({ d, pen }: ShapeScene, paint: string, opacity: number, more = ''): string =>
  `<path d="${d}" ${inkText(pen, paint, opacity)}${more}/>`;

/** A shape's box, with that of its stroke, in its own frame px, a little grown so that no edge of it is cut. */
export function frameBox({ box, x, y, stroke }: Pick<ShapeScene, 'box' | 'x' | 'y' | 'stroke'>): Box {
  const whole = (stroke && unionBoxes([box, stroke.box])) ?? box;
  return grow({ ...whole, x: whole.x - x, y: whole.y - y }, 1);
}

/** The part of a fill's plane that shows, as a convex polygon in pattern px, and the lattice offsets of its copies. */
export type VisibleCopies = { offsets: Point[]; region: Point[] };

/**
 * The pieces that show in a fill's region, each drawn for itself. Renderers that draw a layer for each group cannot
 * bear groups far outside their picture; so unlike {@link copiesMarkup} this draws nothing that does not meet the region.
 */
export function layeredMarkup(paint: PatternPaint, region: readonly Point[]): string {
  const { scene } = paint.pattern;
  const within = regionBox(region, 0);
  const pieces = piecesOver(scene, region)
    .map(({ piece, offset }) => pieceMarkup(piece, offset, paint.colours, within))
    .join('');
  const drawing = endlessMarkup(scene, region, paint.colours) + pieces;
  return `<g transform="${matrixText(paint.matrix)}">${throughLook(drawing, paint.look)}</g>`;
}

/** Every copy of the unit `#unit` at its offset, with endless strokes and underlay below, in the shape's frame space. */
export function copiesMarkup(
  paint: PatternPaint,
  { offsets, region }: VisibleCopies,
  unit: string,
  scale: number,
): string {
  const { scene } = paint.pattern;
  const underlay = UNDERLAY_PIXELS / (meanScale(paint.matrix) * scale);
  const copies = offsets
    .map(({ x, y }) => `<use href="#${unit}" x="${factor(x)}" y="${factor(y)}"/>`)
    .join('');
  const below =
    endlessMarkup(scene, region, paint.colours) + abutmentMarkup(scene, paint.colours, underlay, offsets);
  return `<g transform="${matrixText(paint.matrix)}">${below}${copies}</g>`;
}

/** What of a fill's plane shows inside both its shape and the box `onPage`; offsets in overlap order. */
export function visibleCopies(shape: ShapeScene, paint: PatternPaint, onPage: Box): VisibleCopies {
  const { artBox, lattice } = paint.pattern.scene;
  const seen = intersectBoxes(shape.box, onPage);
  const region = seen && patternRegion(shape, paint, seen);
  if (!region) return { offsets: [], region: [] };
  return { offsets: artBox ? offsetsMeeting(lattice, grow(artBox, 1e-3), region) : [], region };
}

/** A name for what a fill draws in one unit: equal drawings have equal names. */
export const paintKey = ({ pattern, colours, look }: PatternPaint): string =>
  `${pattern.key}|${colourKey(colours)}|${look ? lookKey(look) : ''}`;

/** A name for a set of colours: equal sets have equal names. */
export const colourKey = (colours: Readonly<Record<string, string>>): string =>
  Object.entries(colours)
    .map(([slot, colour]) => `${slot}=${colour}`)
    .sort()
    .join(',');

export function opacityText(name: string, opacity: number): string {
  return opacity < 1 ? ` ${name}="${num(opacity)}"` : '';
}
