import { boxesMeet, boxOfPoints, grow, intersectBoxes, moveBox, unionBoxes, type Box } from '../geom/box';
import { boxCorners } from '../geom/polygon';
import { costOver } from '../scene/cost';
import type { Point } from '../geom/point';
import { offsetsMeeting } from '../lattice/meet';
import { invert, meanScale, multiply, scaling } from '../geom/affine';
import {
  patternRegion,
  strokeOf,
  tiledOf,
  type DisplayList,
  type DrawItem,
  type DrawnMask,
  type DrawnShape,
  type Layer,
  type PageItem,
  type TiledItem,
} from '../draw/list';
import {
  alphaMask,
  blendText,
  boxText,
  gradientPaint,
  inkPaint,
  isOpaqueGradient,
  layPicture,
  maskMarkup,
  type MaskPicture,
} from './fill';
import { inkText } from './ink';
import { basePattern, blockOf, blockPattern, fillPattern, type CellBlock } from './live';
import { throughLook } from './paint';
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
  /** Gathers cells of live patterns so that they lie right where a renderer draws them on whole pixels, too. */
  wholePixels?: boolean;
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

/** A page as the text of an SVG file. */
export function layoutSvg(scene: DisplayList, options: LayoutSvgOptions): string {
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

/** A page within a page has its patterns drawn copy by copy up to so many; beyond that they stay live. */
const MOST_NESTED = 20_000;

/** A page that lies in another one, cut at its edges; `region` is what shows of it, in px of the frame it lies in. */
export function pageMarkup(
  { list, matrix, opacity }: PageItem,
  {
    patterns,
    region,
    scale,
    prefix,
    maskPicture,
  }: Pick<LayoutSvgOptions, 'patterns' | 'maskPicture'> & { region: Box; scale: number; prefix: string },
): string {
  const back = invert(matrix);
  const whole: Box = { x: 0, y: 0, width: list.width, height: list.height };
  const around = back && boxOfPoints(boxCorners(back, region));
  const seen = around && intersectBoxes(around, whole);
  if (!seen) return '';
  const shapes = list.shapes.filter((shape) => boxesMeet(shape.stroke?.box ?? shape.box, seen));
  const copies = patterns === 'live' ? 0 : copiesIn(shapes, seen);
  const writer = new Writer(
    {
      patterns: copies > MOST_NESTED ? 'live' : patterns,
      ...(maskPicture ? { maskPicture } : {}),
    },
    seen,
    scale * meanScale(matrix),
    prefix,
  );
  for (const shape of shapes) writer.shape(shape);
  const edge = `${prefix}e`;
  const page = `<rect width="${factor(list.width)}" height="${factor(list.height)}"`;
  return [
    `<g transform="${matrixText(matrix)}"${opacityText('opacity', opacity)} style="isolation:isolate">`,
    `<defs><clipPath id="${edge}">${page}/></clipPath>${writer.defs.join('')}</defs>`,
    `<g clip-path="url(#${edge})">${list.background ? `${page} fill="${list.background}"/>` : ''}${writer.body.join('')}</g></g>`,
  ].join('');
}

/** How many pieces the patterns of some shapes come to within a part of their page. */
const copiesIn = (shapes: readonly DrawnShape[], seen: Box): number =>
  shapes
    .flatMap((shape) => tiledOf(shape).map((item) => ({ shape, item })))
    .reduce((sum, { shape, item }) => {
      const box = intersectBoxes(shape.stroke?.box ?? shape.box, seen);
      const region = box && patternRegion(shape, item, box);
      return sum + (region ? costOver(item.pattern.scene, region).copies : 0);
    }, 0);

const MOST_GATHERED = 60_000;

/** Collects the definitions and the drawing; a definition that two shapes share is written once. */
class Writer {
  readonly defs: string[] = [];
  readonly body: string[] = [];
  private readonly shared = new Map<string, string>();
  /** So many cells may still be gathered in this file; beyond that patterns repeat one. */
  private cells = MOST_GATHERED;

  constructor(
    private readonly options: Pick<LayoutSvgOptions, 'patterns' | 'wholePixels' | 'maskPicture'>,
    private readonly region: Box,
    private readonly scale: number,
    /** What its ids begin with, so that they are others than those around it. */
    private readonly prefix = '',
  ) {}
  private pages = 0;

  shape(shape: DrawnShape): void {
    const stroke = strokeOf(shape);
    const parts = [
      ...shape.layers.map((layer) => this.layer(shape, layer)),
      ...(stroke ? stroke.layers.map((layer) => this.layer(stroke, layer)) : []),
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
  private layer(shape: DrawnShape, { items, blend, mask }: Layer): string {
    const drawing = items.map((item) => this.item(shape, item)).join('');
    const masked = mask ? `<g mask="url(#${this.mask(shape, mask)})">${drawing}</g>` : drawing;
    return blend === 'normal' ? masked : `<g${blendText(blend)}>${masked}</g>`;
  }

  private item(shape: DrawnShape, item: DrawItem): string {
    switch (item.kind) {
      case 'path': {
        const { value, defs } = inkPaint(item.ink);
        return defs + outline(shape, value, item.opacity);
      }
      case 'picture':
        return `<g ${this.cut(shape)}${opacityText('opacity', item.opacity)}>${layPicture(item)}</g>`;
      case 'tiled':
        return this.motifs(shape, item);
      case 'page':
        return `<g ${this.cut(shape)}>${this.page(shape, item)}</g>`;
    }
  }

  /** A page that lies in this one, with ids of its own. */
  private page(shape: DrawnShape, item: PageItem): string {
    const { options, region, scale } = this;
    const seen = intersectBoxes(frameBox(shape), moveBox(region, { x: -shape.x, y: -shape.y }));
    const prefix = `${this.prefix}n${(this.pages += 1)}`;
    return seen ? pageMarkup(item, { ...options, region: seen, scale, prefix }) : '';
  }

  /** The motifs of a pattern, and the gradient over them alone where there is one. */
  private motifs(shape: DrawnShape, item: TiledItem): string {
    const live = this.options.patterns === 'live';
    if (!item.wash)
      return live ? this.live(shape, item, item.opacity) : this.expanded(shape, item, item.opacity);
    const drawing = live ? this.live(shape, item, 1) : this.expanded(shape, item, 1);
    if (drawing === '') return '';
    const mask = `${this.prefix}w${this.defs.length}`;
    this.defs.push(alphaMask(mask, frameBox(shape), drawing));
    const { value, defs } = gradientPaint(item.wash);
    const below = isOpaqueGradient(item.wash) ? '' : drawing;
    const over = outline(shape, value, 1, ` mask="url(#${mask})"`);
    return `${defs}<g${opacityText('opacity', item.opacity)}>${below}${over}</g>`;
  }

  private live(shape: DrawnShape, item: TiledItem, opacity: number): string {
    const { scene } = item.pattern;
    const underlay = underlayWidth(meanScale(item.matrix) * this.scale);
    const key = `p|${paintKey(item)}|${underlay}`;
    const block = this.block(shape, item);
    const base = block
      ? this.gathered(`${key}|${block.columns} ${block.rows}`, item, { underlay, block })
      : this.once(key, 'p', (id) => throughLook(basePattern(id, scene, item.colours, underlay), item.look));
    const id = `${this.prefix}f${this.defs.length}`;
    this.defs.push(fillPattern(id, base, scene, item.matrix));
    return outline(shape, `url(#${id})`, opacity);
  }

  /** How many cells are gathered for renderers that draw them on whole pixels; `null` where one does. */
  private block(shape: DrawnShape, item: TiledItem): CellBlock | null {
    const seen = this.options.wholePixels ? intersectBoxes(shape.box, this.region) : null;
    if (!seen) return null;
    const reach = Math.hypot(seen.width, seen.height) * this.scale;
    const block = blockOf(item.pattern.scene, multiply(scaling(this.scale), item.matrix), reach);
    const count = block.columns * block.rows;
    return count > 1 && count <= this.cells ? block : null;
  }

  private gathered(
    key: string,
    { pattern, colours, look }: TiledItem,
    { underlay, block }: { underlay: number; block: CellBlock },
  ): string {
    const unit = this.unit({ pattern, colours, look });
    return this.once(key, 'p', (id) => {
      this.cells -= block.columns * block.rows;
      return throughLook(blockPattern(id, pattern.scene, unit, { colours, underlay, block }), look);
    });
  }

  /** The drawing of one unit of a pattern, written once. */
  private unit({ pattern, colours, look }: Pick<TiledItem, 'pattern' | 'colours' | 'look'>): string {
    return this.once(`u|${paintKey({ pattern, colours, look })}`, 'u', (id) =>
      throughLook(`<g id="${id}">${unitMarkup(pattern.scene, colours)}</g>`, look),
    );
  }

  private expanded(shape: DrawnShape, item: TiledItem, opacity: number): string {
    const { offsets, region } = visibleCopies(shape, item, this.region);
    if (offsets.length === 0 && item.pattern.scene.endless.length === 0) return '';
    const unit = this.unit(item);
    const art = copiesMarkup(item, { offsets, region }, unit, this.scale);
    return `<g ${this.cut(shape)}><g${opacityText('opacity', opacity)}>${art}</g></g>`;
  }

  /** The attribute that cuts a drawing to a shape; a line cuts as a mask, for a clip path knows no strokes. */
  private cut(shape: DrawnShape): string {
    const kind = shape.pen ? 'mask' : 'clip';
    const id = this.once(`${kind}|${shape.id}`, kind.charAt(0), (fresh) =>
      shape.pen
        ? `<mask id="${fresh}" maskUnits="userSpaceOnUse" ${boxText(frameBox(shape))}>${outline(shape, '#ffffff', 1)}</mask>`
        : `<clipPath id="${fresh}"><path d="${shape.d}"/></clipPath>`,
    );
    return shape.pen ? `mask="url(#${id})"` : `clip-path="url(#${id})"`;
  }

  private mask(shape: DrawnShape, mask: DrawnMask): string {
    const id = `${this.prefix}m${this.defs.length}`;
    const none: MaskPicture = () => null;
    this.defs.push(maskMarkup(id, mask, frameBox(shape), this.options.maskPicture ?? none));
    return id;
  }

  private once(key: string, prefix: string, write: (id: string) => string): string {
    const held = this.shared.get(key);
    if (held) return held;
    const id = `${this.prefix}${prefix}${this.shared.size}`;
    this.shared.set(key, id);
    this.defs.push(write(id));
    return id;
  }
}

const outline = ({ d, pen }: DrawnShape, paint: string, opacity: number, more = ''): string =>
  `<path d="${d}" ${inkText(pen, paint, opacity)}${more}/>`;

/** A shape's box, with that of its stroke, in its own frame px, a little grown so that no edge of it is cut. */
export function frameBox({ box, x, y, stroke }: Pick<DrawnShape, 'box' | 'x' | 'y' | 'stroke'>): Box {
  const whole = (stroke && unionBoxes([box, stroke.box])) ?? box;
  return grow({ ...whole, x: whole.x - x, y: whole.y - y }, 1);
}

/** The part of a fill's plane that shows, as a convex polygon in pattern px, and the lattice offsets of its copies. */
export type VisibleCopies = { offsets: Point[]; region: Point[] };

/**
 * The pieces that show in a fill's region, each drawn for itself. Renderers that draw a layer for each group cannot
 * bear groups far outside their picture; so unlike {@link copiesMarkup} this draws nothing that does not meet the region.
 */
export function layeredMarkup(item: TiledItem, region: readonly Point[]): string {
  const { scene } = item.pattern;
  const within = regionBox(region, 0);
  const pieces = piecesOver(scene, region)
    .map(({ piece, offset }) => pieceMarkup(piece, offset, item.colours, within))
    .join('');
  const drawing = endlessMarkup(scene, region, item.colours) + pieces;
  return `<g transform="${matrixText(item.matrix)}">${throughLook(drawing, item.look)}</g>`;
}

/** Every copy of the unit `#unit` at its offset, with endless strokes and underlay below, in the shape's frame space. */
export function copiesMarkup(
  item: TiledItem,
  { offsets, region }: VisibleCopies,
  unit: string,
  scale: number,
): string {
  const { scene } = item.pattern;
  const underlay = UNDERLAY_PIXELS / (meanScale(item.matrix) * scale);
  const copies = offsets
    .map(({ x, y }) => `<use href="#${unit}" x="${factor(x)}" y="${factor(y)}"/>`)
    .join('');
  const below =
    endlessMarkup(scene, region, item.colours) + abutmentMarkup(scene, item.colours, underlay, offsets);
  return `<g transform="${matrixText(item.matrix)}">${below}${copies}</g>`;
}

/** What of a fill's plane shows inside both its shape and the box `onPage`; offsets in overlap order. */
export function visibleCopies(shape: DrawnShape, item: TiledItem, onPage: Box): VisibleCopies {
  const { artBox, lattice } = item.pattern.scene;
  const seen = intersectBoxes(shape.box, onPage);
  const region = seen && patternRegion(shape, item, seen);
  if (!region) return { offsets: [], region: [] };
  return { offsets: artBox ? offsetsMeeting(lattice, grow(artBox, 1e-3), region) : [], region };
}

/** A name for what a fill draws in one unit: equal drawings have equal names. */
export const paintKey = ({
  pattern,
  colours,
  look,
}: Pick<TiledItem, 'pattern' | 'colours' | 'look'>): string =>
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
