import type { Hex } from '../colour/parse';
import { determinant, type Affine } from '../geom/affine';
import { strokeOutline } from '../geom/outline';
import { pathBox, transformPath, type Path } from '../geom/path';
import { nearly } from '../num/tolerance';
import type { GradientPaint, Paint, Stroke } from '../recipe/recipe';
import type { Clip } from './art-clips';
import type { DrawnArt } from './art-drawn';
import type { StyleSheet } from './css';
import { readGradient } from './import-gradient';
import type { Measures } from './lengths';
import type { PaintStyle, Style } from './style';
import type { XmlNode } from './xml';

/** How far the outline of a stroke may lie from the stroke, px of the drawing. */
const OUTLINE_WITHIN = 0.02;

/** What a path is drawn with. */
export type Brush = { matrix: Affine; style: Style; clip: Clip | null; measures: Measures };

type Painted = { paint: Paint; opacity: number };

type Inked =
  | { kind: 'line'; stroke: Stroke; opacity: number }
  | { kind: 'area'; path: Path; paint: Paint; opacity: number };

/** Turns styled paths into drawn elements: fills, gradients, strokes, in the order that they are painted in. */
export class PathPainter {
  constructor(
    private readonly art: DrawnArt,
    private readonly source: {
      byId: ReadonlyMap<string, XmlNode>;
      sheet: StyleSheet;
      note: (text: string) => void;
      /** How much larger the whole file is drawn than its own units: what strokes that keep their width are in. */
      rootScale: number;
    },
  ) {}

  /** Adds a path (in its own space) with its paints; they part ways where their opacities or their order ask for it. */
  draw(path: Path, brush: Brush): void {
    const { matrix, style, clip } = brush;
    const through = transformPath(matrix, path);
    const fill = style.fillOpacity === 0 ? null : this.paint(style.fill, path, brush);
    const fillOpacity = style.fillOpacity * (fill?.opacity ?? 1);
    const inked = this.strokeOf(path, brush);
    const line = inked?.kind === 'line' ? inked : null;
    const base = { d: '', fillRule: style.fillRule };
    if (fill && line && fillOpacity === line.opacity && !style.strokeFirst)
      return this.art.add(
        { ...base, fill: fill.paint, stroke: line.stroke, opacity: fillOpacity },
        through,
        clip,
      );
    const filled = (): void => {
      if (fill)
        this.art.add({ ...base, fill: fill.paint, stroke: null, opacity: fillOpacity }, through, clip);
    };
    const stroked = (): void => {
      if (line)
        this.art.add({ ...base, fill: null, stroke: line.stroke, opacity: line.opacity }, through, clip);
      else if (inked?.kind === 'area')
        this.art.add(
          { d: '', fill: inked.paint, fillRule: 'nonzero', stroke: null, opacity: inked.opacity },
          inked.path,
          clip,
        );
    };
    for (const part of style.strokeFirst ? [stroked, filled] : [filled, stroked]) part();
  }

  /** A stroke as a line, or, where it is stretched or painted with a gradient, as the area that it covers. */
  private strokeOf(path: Path, brush: Brush): Inked | null {
    const { matrix, style } = brush;
    if (style.stroke === null || style.strokeWidth === 0 || style.strokeOpacity === 0) return null;
    const fixed = style.fixedStroke;
    const scale = fixed ? this.source.rootScale : Math.sqrt(Math.abs(determinant(matrix)));
    if (!(scale > 0)) return null;
    const painted = this.paint(style.stroke, path, brush);
    if (!painted) return null;
    const opacity = style.strokeOpacity * painted.opacity;
    const { cap, join, miterLimit, dashes, dashOffset, strokeWidth: width } = style;
    if (typeof painted.paint === 'string' && (fixed || scalesAlike(matrix)))
      return {
        kind: 'line',
        opacity,
        stroke: {
          ...{ slot: painted.paint, width: width * scale, cap, join, miterLimit },
          dashes: dashes.map((dash) => dash * scale),
          ...(dashes.length > 0 && dashOffset !== 0 ? { dashOffset: dashOffset * scale } : {}),
        },
      };
    const own = { width, cap, join, miterLimit, dashes, dashOffset };
    const outline = strokeOutline(path, own, OUTLINE_WITHIN / scale);
    if (!outline.ok) return null;
    this.art.spend(outline.path.length);
    return { kind: 'area', path: transformPath(matrix, outline.path), paint: painted.paint, opacity };
  }

  private paint(style: PaintStyle | null, path: Path, { matrix, measures }: Brush): Painted | null {
    if (style === null) return null;
    const { byId, sheet, note } = this.source;
    const plain = (hex: Hex, opacity: number): Painted | null =>
      opacity === 0 ? null : { paint: this.art.slot(hex), opacity };
    if (style.reference === null) return plain(style.hex, style.alpha);
    const target = byId.get(style.reference);
    // A reference that leads nowhere paints its fallback, or nothing (SVG 2, section 13.2).
    if (!target) return style.hex === '#808080' ? null : plain(style.hex, style.alpha);
    const read = readGradient(style.reference, { byId, sheet, measures, note }, pathBox(path), matrix);
    if (read === null) {
      if (target.name === 'linearGradient' || target.name === 'radialGradient') return null;
      note('A paint that is no gradient was replaced by one plain colour.');
      return plain(style.hex, style.alpha);
    }
    if (read.kind === 'plain') return plain(read.hex, read.opacity);
    if (read.stops.every(({ opacity }) => opacity === 0)) return null;
    const stops = read.stops.map(({ at, hex, opacity }) => ({ at, slot: this.art.slot(hex), opacity }));
    return { paint: { ...read, stops } satisfies GradientPaint, opacity: 1 };
  }
}

/** True where a matrix scales alike in all directions: then a stroke stays a stroke. */
const scalesAlike = ({ a, b, c, d }: Affine): boolean => {
  const size = Math.hypot(a, b);
  return nearly(size, Math.hypot(c, d), size * 1e-3) && Math.abs(a * c + b * d) < size * size * 1e-3;
};
