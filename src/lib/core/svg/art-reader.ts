import { IDENTITY, determinant, multiply, translation, type Affine } from '../geom/affine';
import { boxesMeet, intersectBoxes, type Box } from '../geom/box';
import { strokeOutline } from '../geom/outline';
import { pathBox, transformPath, type Path } from '../geom/path';
import { polygonArea } from '../geom/polygon';
import { formPath, rectanglePath } from '../geom/shapes';
import type { Hex } from '../colour/parse';
import type { ColourSlot } from '../colour/slots';
import { nearly } from '../num/tolerance';
import { LIMITS } from '../recipe/limits';
import type { DrawingElement, GradientPaint, Paint, Stroke } from '../recipe/recipe';
import { pathText } from '../scene/drawing';
import { elementBox, plainElement } from '../scene/motif';
import { ClipReader, geometryBox, referenceOf, type Clip } from './art-clips';
import { textRuns, type SetText } from './art-text';
import { StyleSheet } from './css';
import { fragmentSvg } from './fragment';
import { readGradient } from './import-gradient';
import { rootViewport, shapePath, viewBoxOf, viewportMatrix } from './import-read';
import { lengthOf, type Measures, type Side } from './lengths';
import { INITIAL_STYLE, propertiesOf, styleOf, type PaintStyle, type Style } from './style';
import { ownTransform } from './transforms';
import type { XmlNode } from './xml';

export type { SetText };
export type { Clip };

/** Draws a file as a picture: cropped to what it shows, with the box of that in the file's px; `null` for nothing. */
export type DrawPicture = (
  svg: string,
  size: { width: number; height: number },
) => { href: string; box: Box } | null;

/** How a drawing is read: what makes ids, sets text, and draws what cannot be kept as vectors. */
export type ReadOptions = { newId: () => string; setText: SetText | null; drawPicture?: DrawPicture | null };

/** Pixels to an inch of what is drawn as a picture. */
export const PICTURE_PPI = 300;

/** Elements that draw nothing themselves and need no word when left out. */
const SILENT = new Set(
  'title desc metadata defs style symbol clipPath linearGradient radialGradient pattern mask filter marker foreign:namedview animate animateTransform animateMotion animateColor set view stop mpath font font-face'.split(
    ' ',
  ),
);
const CONTAINERS = new Set(['g', 'a']);
const DEEPEST_USE = 12;
/** Elements visited, each <use> counted with all that it stands for, and segments of all that is drawn. */
const MOST_VISITS = 60_000;
const MOST_SEGMENTS = 250_000;
/** More parts than this that need a picture make the whole drawing one. */
const MOST_PICTURES = 12;
/** Segments that clips add to what is drawn. */
const MOST_CLIPPING = 60_000;

export type Drawn = { element: DrawingElement; box: Box; path: Path; clip: Clip | null };

type Place = {
  matrix: Affine;
  style: Style;
  clip: Clip | null;
  depth: number;
  viewport: Measures['viewport'];
  /** The outermost <use> that this stands in, and what was drawn before it. */
  outer: { node: XmlNode; start: number } | null;
};

/** What a file is too much for: it is drawn as a picture as a whole, or refused. */
class TooMuch extends Error {}

/**
 * Reads parts of an SVG tree as drawn elements, rebuilt from an allow-list: paths, basic shapes, gradients, clip paths,
 * embedded pictures and, where `setText` can, text. Colours become slots, equal ones merged. What cannot be kept as
 * vectors (masks, filters, markers, patterns, see-through groups whose parts overlap) is drawn as a picture; notes say
 * what was changed or left out.
 */
export class ArtReader {
  readonly notes = new Set<string>();
  readonly slots = new Map<Hex, ColourSlot>();
  /** Pictures inside the file as data URLs; elements name them `pending:0`, `pending:1` … in place of an asset. */
  readonly pictures: string[] = [];
  readonly byId = new Map<string, XmlNode>();
  private drawn: Drawn[] = [];
  private readonly sheet: StyleSheet;
  private readonly clips: ClipReader;
  private readonly pictured = new Set<XmlNode>();
  private visits = 0;
  private segments = 0;
  private clipping = 0;

  constructor(
    private readonly root: XmlNode,
    private readonly options: ReadOptions,
  ) {
    this.sheet = new StyleSheet(this.note);
    this.index(root);
    this.clips = new ClipReader(this.clipSource);
  }

  readonly note = (text: string): void => {
    if (this.notes.size < 60) this.notes.add(text);
  };

  private get clipSource() {
    return { byId: this.byId, sheet: this.sheet, text: (node: XmlNode) => this.textPath(node) };
  }

  /** All that the file draws, in px; `null` where there is too much of it even for a picture. */
  all(): Drawn[] | null {
    const viewport = rootViewport(this.root);
    const matrix = viewport?.matrix ?? IDENTITY;
    const inside = viewBoxOf(this.root) ?? viewport ?? { width: 300, height: 150 };
    const drawn = this.collect(() => this.walk(this.root, { ...this.start(matrix, inside), outer: null }));
    if (drawn) return drawn;
    this.drawn = [];
    return this.picture(this.root, 'The drawing has too many parts to be kept as vectors, so it')
      ? this.drawn
      : null;
  }

  /** What the children of `holder` draw, in the style that they inherit; `null` where there is too much of it. */
  inside(holder: XmlNode, matrix: Affine): Drawn[] | null {
    const viewport = viewBoxOf(this.root) ?? rootViewport(this.root) ?? { width: 300, height: 150 };
    const style = this.styleAt(holder, viewport);
    return this.collect(() => this.children(holder, { ...this.start(matrix, viewport), style }));
  }

  private start(matrix: Affine, viewport: Measures['viewport']): Place {
    const { width, height } = viewport;
    return { matrix, style: INITIAL_STYLE, clip: null, depth: 0, viewport: { width, height }, outer: null };
  }

  /** The style that the children of a node inherit. */
  private styleAt(node: XmlNode, viewport: Measures['viewport']): Style {
    const way: XmlNode[] = [];
    for (let at: XmlNode | null = node; at; at = at.parent) way.unshift(at);
    return way.reduce(
      (held, one) => styleOf(propertiesOf(one, this.sheet), held, viewport, this.note),
      INITIAL_STYLE,
    );
  }

  private collect(read: () => void): Drawn[] | null {
    this.drawn = [];
    try {
      read();
      return this.drawn;
    } catch (error) {
      if (error instanceof TooMuch) return null;
      throw error;
    }
  }

  private index(node: XmlNode): void {
    const { id } = node.attributes;
    if (id && !this.byId.has(id)) this.byId.set(id, node);
    if (node.name === 'style') this.sheet.add(node.text);
    if (node.name.startsWith('animate') || node.name === 'set') this.note('Movements were left out.');
    for (const child of node.children) this.index(child);
  }

  private walk(node: XmlNode, place: Place): void {
    if (SILENT.has(node.name) || (place.outer && this.pictured.has(place.outer.node))) return;
    this.visits += 1;
    if (this.visits > MOST_VISITS) throw new TooMuch();
    if (Object.keys(node.attributes).some((name) => /^on[a-z]/i.test(name)))
      this.note('Event handlers were left out.');
    const own = propertiesOf(node, this.sheet);
    if (own.display?.trim() === 'none') return;
    const style = styleOf(own, place.style, place.viewport, this.note);
    const measures: Measures = { fontSize: style.fontSize, viewport: place.viewport };
    const matrix = node === this.root ? place.matrix : multiply(place.matrix, ownTransform(own, measures));
    const needs = this.needsPicture(node, own, style);
    if (needs && this.asPicture(node, place, needs)) return;
    const clip = this.clipOf(node, own, place.clip, matrix, measures);
    if (clip === 'too-much') {
      if (this.asPicture(node, place, 'a large clip path')) return;
      return this.note('A clip path of too many parts was left out with what it clips.');
    }
    if (clip && clip.path.length === 0) return;
    const here: Place = { ...place, matrix, style, clip };
    this.faded(node, here, () => this.content(node, here, measures));
  }

  /** Draws what is inside; where it is see-through as a whole, its parts are, unless they overlap: then it is a picture. */
  private faded(node: XmlNode, place: Place, draw: () => void): void {
    const { opacity } = place.style;
    if (opacity === 0) return;
    const start = this.drawn.length;
    draw();
    if (opacity === 1) return;
    const added = this.drawn.slice(start);
    if (overlapping(added)) {
      this.drawn.length = start;
      if (this.asPicture(node, place, 'a see-through group whose parts overlap')) return;
      this.drawn.push(...added);
      this.note('The overlaps in a see-through group show through each other.');
    }
    for (let index = start; index < this.drawn.length; index += 1) {
      const one = this.drawn[index]!;
      this.drawn[index] = { ...one, element: { ...one.element, opacity: one.element.opacity * opacity } };
    }
  }

  private content(node: XmlNode, here: Place, measures: Measures): void {
    if (node === this.root || CONTAINERS.has(node.name)) return this.children(node, here);
    if (node.name === 'svg') return this.nested(node, here, measures);
    if (node.name === 'switch') return this.switched(node, here);
    if (node.name === 'use') return this.use(node, here, measures);
    if (node.name === 'image') return this.image(node, here, measures);
    if (node.name === 'text') return this.text(node, here, measures);
    const shape = shapePath(node, measures);
    if (!shape) return this.note(leftOut(node.name));
    if (!shape.ok) return this.note(shape.message);
    if (here.style.visible && shape.path.length > 0) this.draw(node, shape.path, here, measures);
  }

  private children(node: XmlNode, place: Place): void {
    for (const child of node.children) this.walk(child, place);
  }

  /** The first child that can be shown (SVG 2, section 5.7): one that asks for nothing, or for English. */
  private switched(node: XmlNode, place: Place): void {
    const shown = node.children.find(({ name, attributes }) => {
      const { systemLanguage, requiredExtensions } = attributes;
      if (name === 'foreignObject' || name.startsWith('foreign:') || requiredExtensions) return false;
      return systemLanguage === undefined || systemLanguage.split(',').some((one) => /^\s*en\b/i.test(one));
    });
    if (shown) this.walk(shown, place);
  }

  private nested(
    node: XmlNode,
    place: Place,
    measures: Measures,
    size?: { width?: string; height?: string },
  ): void {
    const at = (name: string, side: Side, otherwise: string): number =>
      lengthOf(node.attributes[name] ?? otherwise, measures, side);
    const width = lengthOf(size?.width ?? node.attributes.width ?? '100%', measures, 'x');
    const height = lengthOf(size?.height ?? node.attributes.height ?? '100%', measures, 'y');
    if (!(width > 0) || !(height > 0)) return;
    const corner = node.name === 'svg' ? translation(at('x', 'x', '0'), at('y', 'y', '0')) : IDENTITY;
    const frame = multiply(place.matrix, corner);
    const own = propertiesOf(node, this.sheet);
    const open = own.overflow === 'visible' || own.overflow === 'auto';
    const clip = open ? place.clip : this.windowed(place.clip, frame, width, height);
    const box = viewBoxOf(node);
    this.children(node, {
      ...place,
      clip,
      matrix: multiply(frame, viewportMatrix(node, width, height)),
      viewport: box ? { width: box.width, height: box.height } : { width, height },
    });
  }

  /** A clip with the window of a viewport; a window that is not upright counts as its box. */
  private windowed(clip: Clip | null, frame: Affine, width: number, height: number): Clip {
    const own: Clip = { path: transformPath(frame, rectanglePath(width, height, 0)), rule: 'nonzero' };
    if (!clip) return own;
    const boxes = [pathBox(clip.path), pathBox(own.path)] as const;
    const shared = boxes[0] && boxes[1] && intersectBoxes(boxes[0], boxes[1]);
    return isRectangle(clip.path) && shared
      ? {
          path: transformPath(translation(shared.x, shared.y), rectanglePath(shared.width, shared.height, 0)),
          rule: 'nonzero',
        }
      : clip;
  }

  private use(node: XmlNode, place: Place, measures: Measures): void {
    const href = node.attributes.href ?? '';
    const target = href.startsWith('#') ? this.byId.get(href.slice(1)) : undefined;
    const around = target && holdsNode(target, node);
    if (!target || around || place.depth >= DEEPEST_USE)
      return this.note(
        href.startsWith('#')
          ? 'A <use> without a usable target was left out.'
          : 'A reference to another file was left out.',
      );
    const at = (name: string, side: Side): number => lengthOf(node.attributes[name], measures, side);
    const matrix = multiply(place.matrix, translation(at('x', 'x'), at('y', 'y')));
    const outer = place.outer ?? { node, start: this.drawn.length };
    const inside: Place = { ...place, matrix, depth: place.depth + 1, outer };
    if (target.name !== 'symbol' && target.name !== 'svg') return this.walk(target, inside);
    this.visits += 1;
    const own = propertiesOf(target, this.sheet);
    if (own.display?.trim() === 'none') return;
    const style = styleOf(own, place.style, place.viewport, this.note);
    const { width, height } = node.attributes;
    this.faded(target, { ...inside, style }, () =>
      this.nested(target, { ...inside, style }, measures, { width, height }),
    );
  }

  /** The clip that holds for an element: its own, within the one around it. */
  private clipOf(
    node: XmlNode,
    own: Readonly<Record<string, string>>,
    around: Clip | null,
    matrix: Affine,
    measures: Measures,
  ): Clip | null | 'too-much' {
    const id = referenceOf(own['clip-path']);
    if (id === null || !this.byId.has(id)) {
      if (own['clip-path'] && own['clip-path'] !== 'none' && id === null)
        this.note('A clip path that is no reference was left out.');
      return around;
    }
    return this.clips.within(around, id, matrix, measures, () =>
      geometryBox(node, measures, this.clipSource),
    );
  }

  /** Why an element can only be drawn by a renderer, or `null`. */
  private needsPicture(node: XmlNode, own: Readonly<Record<string, string>>, style: Style): string | null {
    const refers = (name: string, kind: string): boolean => {
      const id = referenceOf(own[name]);
      return id !== null && this.byId.get(id)?.name === kind;
    };
    if (refers('mask', 'mask')) return 'a mask';
    if (refers('filter', 'filter') || /^[a-z-]+\(/.test(own.filter ?? '')) {
      if (referenceOf(own.filter) !== null || !/^url/.test(own.filter ?? '')) return 'a filter';
    }
    const blend = own['mix-blend-mode'];
    if (blend && blend !== 'normal') this.note(`A blend (${blend.slice(0, 30)}) was left out.`);
    const draws = shapePath(node, { fontSize: 16, viewport: { width: 1, height: 1 } }) !== null;
    if (!draws && node.name !== 'text') return null;
    if (['marker', 'marker-start', 'marker-mid', 'marker-end'].some((name) => refers(name, 'marker')))
      return 'markers';
    const pattern = [style.fill, style.stroke].some(
      (paint) => paint?.reference && this.byId.get(paint.reference)?.name === 'pattern',
    );
    return pattern ? 'a pattern' : null;
  }

  /** Draws an element, or the outermost <use> that it stands in, as a picture; false where that cannot be. */
  private asPicture(node: XmlNode, place: Place, why: string): boolean {
    const target = place.outer?.node ?? node;
    if (this.pictured.has(target)) return true;
    if (this.pictured.size >= MOST_PICTURES && this.options.drawPicture) throw new TooMuch();
    const made = this.picture(target, `A part with ${why}`, place.outer?.start);
    if (!made && this.options.drawPicture) this.note(`A part with ${why} was drawn without it.`);
    else if (!made) this.note(`${why[0]?.toUpperCase()}${why.slice(1)} was left out.`);
    return made;
  }

  private picture(target: XmlNode, what: string, start = this.drawn.length): boolean {
    const draw = this.options.drawPicture;
    if (!draw) return false;
    const size = rootViewport(this.root) ?? { width: 512, height: 512 };
    const made = draw(fragmentSvg(this.root, target, size), size);
    if (made === null) return false;
    this.pictured.add(target);
    this.drawn.length = start;
    this.note(`${what} was drawn as a picture at ${PICTURE_PPI} ppi; its colours stay as they are.`);
    const { box, href } = made;
    if (box.width > 0 && box.height > 0)
      this.addPicture(href, translation(box.x, box.y), box, { stretch: true, opacity: 1, clip: null });
    return true;
  }

  private image(node: XmlNode, place: Place, measures: Measures): void {
    const { matrix, style, clip } = place;
    const href = node.attributes.href ?? '';
    if (!style.visible) return;
    if (/^data:image\/svg\+xml[;,]/i.test(href) && this.asPicture(node, place, 'a drawing inside it')) return;
    if (!/^data:image\/(png|jpe?g|webp)[;,]/i.test(href))
      return this.note(
        'A picture that is not inside the SVG was left out; bring it in as a file of its own.',
      );
    const at = (name: string, side: Side): number => lengthOf(node.attributes[name], measures, side);
    const box = { width: at('width', 'x'), height: at('height', 'y') };
    if (!(box.width > 0) || !(box.height > 0)) return this.note('A picture without a size was left out.');
    const placed = multiply(matrix, translation(at('x', 'x'), at('y', 'y')));
    const stretch = node.attributes.preserveAspectRatio?.trim() === 'none';
    this.addPicture(href, placed, box, { stretch, opacity: 1, clip });
  }

  private addPicture(
    href: string,
    matrix: Affine,
    { width, height }: { width: number; height: number },
    { stretch, opacity, clip }: { stretch: boolean; opacity: number; clip: Clip | null },
  ): void {
    const frame = transformPath(matrix, formPath({ kind: 'rectangle', radius: 0 }, width, height));
    const known = this.pictures.indexOf(href);
    const asset = `pending:${known < 0 ? this.pictures.length : known}`;
    if (known < 0) this.pictures.push(href);
    const plain = { d: '', fill: null, fillRule: 'nonzero' as const, stroke: null, opacity };
    // The sides are those of the box until the picture is decoded; a negative width asks for a stretch.
    this.add({ ...plain, picture: { asset, width: stretch ? -width : width, height, matrix } }, frame, clip);
  }

  private text(node: XmlNode, place: Place, measures: Measures): void {
    const source = { sheet: this.sheet, measures, setText: this.options.setText, note: this.note };
    for (const { path, style } of textRuns(node, place.style, source))
      if (path.length > 0) this.draw(node, path, { ...place, style: { ...style, opacity: 1 } }, measures);
  }

  private textPath(node: XmlNode): Path | null {
    const viewport = viewBoxOf(this.root) ?? { width: 300, height: 150 };
    const style = this.styleAt(node, viewport);
    const measures = { fontSize: style.fontSize, viewport };
    const source = { sheet: this.sheet, measures, setText: this.options.setText, note: this.note };
    return textRuns(node, style, source).flatMap(({ path }) => path);
  }

  /** Adds a path (in its own space) with its paints, in their order; they part ways where their opacities differ. */
  private draw(node: XmlNode, path: Path, place: Place, measures: Measures): void {
    const { matrix, style, clip } = place;
    const through = transformPath(matrix, path);
    const fill = style.fillOpacity === 0 ? null : this.paint(style.fill, path, matrix, measures);
    const fillOpacity = style.fillOpacity * (fill?.opacity ?? 1);
    const base = { d: '', fillRule: style.fillRule };
    const inked = this.strokeOf(path, place, measures);
    if (fill && inked?.kind === 'line' && fillOpacity === inked.opacity && !style.strokeFirst)
      return this.add(
        { ...base, fill: fill.paint, stroke: inked.stroke, opacity: fillOpacity },
        through,
        clip,
      );
    const parts: (() => void)[] = [];
    if (fill)
      parts.push(() =>
        this.add({ ...base, fill: fill.paint, stroke: null, opacity: fillOpacity }, through, clip),
      );
    if (inked?.kind === 'line')
      parts.push(() =>
        this.add({ ...base, fill: null, stroke: inked.stroke, opacity: inked.opacity }, through, clip),
      );
    if (inked?.kind === 'area')
      parts.push(() =>
        this.add(
          { d: '', fill: inked.paint, fillRule: 'nonzero', stroke: null, opacity: inked.opacity },
          inked.path,
          clip,
        ),
      );
    for (const part of style.strokeFirst ? parts.reverse() : parts) part();
  }

  /** A stroke as a line, or, where it is stretched or painted with a gradient, as the area that it covers. */
  private strokeOf(
    path: Path,
    { matrix, style }: Place,
    measures: Measures,
  ):
    | { kind: 'line'; stroke: Stroke; opacity: number }
    | { kind: 'area'; path: Path; paint: Paint; opacity: number }
    | null {
    if (style.stroke === null || style.strokeWidth === 0 || style.strokeOpacity === 0) return null;
    const fixed = style.fixedStroke;
    const scale = fixed ? this.rootScale : Math.sqrt(Math.abs(determinant(matrix)));
    if (!(scale > 0)) return null;
    const paint = this.paint(style.stroke, path, matrix, measures);
    if (!paint) return null;
    const opacity = style.strokeOpacity * paint.opacity;
    const { cap, join, miterLimit } = style;
    if (typeof paint.paint === 'string' && (fixed || scalesAlike(matrix)))
      return {
        kind: 'line',
        opacity,
        stroke: {
          ...{ slot: paint.paint, width: style.strokeWidth * scale, cap, join, miterLimit },
          dashes: style.dashes.map((dash) => dash * scale),
          ...(style.dashes.length > 0 && style.dashOffset !== 0
            ? { dashOffset: style.dashOffset * scale }
            : {}),
        },
      };
    const own = {
      width: style.strokeWidth,
      cap,
      join,
      miterLimit,
      dashes: style.dashes,
      dashOffset: style.dashOffset,
    };
    const outline = strokeOutline(path, own, 0.02 / scale);
    if (!outline.ok) return null;
    this.spend(outline.path.length);
    return { kind: 'area', path: transformPath(matrix, outline.path), paint: paint.paint, opacity };
  }

  private get rootScale(): number {
    const matrix = rootViewport(this.root)?.matrix ?? IDENTITY;
    return Math.sqrt(Math.abs(determinant(matrix)));
  }

  private paint(
    style: PaintStyle | null,
    path: Path,
    matrix: Affine,
    measures: Measures,
  ): { paint: Paint; opacity: number } | null {
    if (style === null) return null;
    const plain = (hex: Hex, opacity: number): { paint: Paint; opacity: number } | null =>
      opacity === 0 ? null : { paint: this.slot(hex), opacity };
    if (style.reference === null) return plain(style.hex, style.alpha);
    const target = this.byId.get(style.reference);
    // A reference that leads nowhere paints its fallback, or nothing (SVG 2, section 13.2).
    if (!target) return style.hex === '#808080' ? null : plain(style.hex, style.alpha);
    const source = { byId: this.byId, sheet: this.sheet, measures, note: this.note };
    const read = readGradient(style.reference, source, pathBox(path), matrix);
    if (read === null) {
      if (target.name === 'linearGradient' || target.name === 'radialGradient') return null;
      this.note('A paint that is no gradient was replaced by one plain colour.');
      return plain(style.hex, style.alpha);
    }
    if (read.kind === 'plain') return plain(read.hex, read.opacity);
    if (read.stops.every(({ opacity }) => opacity === 0)) return null;
    const stops = read.stops.map(({ at, hex, opacity }) => ({ at, slot: this.slot(hex), opacity }));
    return { paint: { ...read, stops } satisfies GradientPaint, opacity: 1 };
  }

  private spend(segments: number): void {
    this.segments += segments;
    if (this.segments > MOST_SEGMENTS) throw new TooMuch();
  }

  private add(element: DrawingElement, path: Path, clip: Clip | null): void {
    if (element.opacity === 0 || (clip && clip.path.length === 0)) return;
    if (this.drawn.length >= LIMITS.elements) throw new TooMuch();
    this.spend(path.length);
    const own = clip && !holds(clip, path, element.stroke) ? clip : null;
    this.clipping += own?.path.length ?? 0;
    if (this.clipping > MOST_CLIPPING) throw new TooMuch();
    const box = elementBox({ ...plainElement(path, element), clip: own });
    if (box) this.drawn.push({ element, box, path, clip: own });
  }

  private slot(hex: Hex): string {
    const held = this.slots.get(hex);
    if (held) return held.id;
    const slot = { id: this.options.newId(), name: `Colour ${this.slots.size + 1}`, colour: hex };
    this.slots.set(hex, slot);
    return slot.id;
  }
}

/** True where a matrix scales alike in all directions: then a stroke stays a stroke. */
const scalesAlike = ({ a, b, c, d }: Affine): boolean => {
  const size = Math.hypot(a, b);
  return nearly(size, Math.hypot(c, d), size * 1e-3) && Math.abs(a * c + b * d) < size * size * 1e-3;
};

/** True where a node is another or lies around it. */
function holdsNode(outer: XmlNode, inner: XmlNode): boolean {
  for (let at: XmlNode | null = inner; at; at = at.parent) if (at === outer) return true;
  return false;
}

/** True where some of what is drawn lies over other parts of it; a single element with fill and stroke is one layer. */
function overlapping(drawn: readonly Drawn[]): boolean {
  if (drawn.length > 400) return true;
  return drawn.some(({ box }, index) => drawn.slice(index + 1).some((other) => boxesMeet(box, other.box)));
}

/** A drawn path made an element of the motif: everything moved so that the middle of the art is the origin. */
export function moved({ element, path, clip }: Drawn, move: Affine): DrawingElement {
  const { fill, picture } = element;
  return {
    ...element,
    d: pathText(transformPath(move, path)),
    fill: fill !== null && typeof fill === 'object' ? { ...fill, matrix: multiply(move, fill.matrix) } : fill,
    ...(picture ? { picture: { ...picture, matrix: multiply(move, picture.matrix) } } : {}),
    ...(clip ? { clip: { d: pathText(transformPath(move, clip.path)), rule: clip.rule } } : {}),
  };
}

/** True for four straight sides along the axes. */
function isRectangle(path: Path): boolean {
  const box = pathBox(path);
  const corners = path.flatMap((segment) => (segment.op === 'M' || segment.op === 'L' ? [segment.to] : []));
  const straight = path.every(({ op }, index) => op !== 'C' && (op !== 'M' || index === 0));
  if (!box || !straight || corners.length > 5) return false;
  const area = box.width * box.height;
  return Math.abs(polygonArea(corners) - area) <= area * 1e-6;
}

/** True where a clip is a plain rectangle round all of a path's ink, so that it cuts nothing. */
function holds(clip: Clip, path: Path, stroke: Stroke | null): boolean {
  if (!isRectangle(clip.path)) return false;
  const [outer, inner] = [pathBox(clip.path), pathBox(path)];
  if (!outer || !inner) return false;
  const slack = stroke ? (stroke.width / 2) * (stroke.join === 'miter' ? stroke.miterLimit : 1.5) : -1e-6;
  return (
    inner.x >= outer.x + slack &&
    inner.y >= outer.y + slack &&
    inner.x + inner.width <= outer.x + outer.width - slack &&
    inner.y + inner.height <= outer.y + outer.height - slack
  );
}

function leftOut(name: string): string {
  if (name === 'script') return 'A script was left out.';
  if (name === 'foreignObject' || name.startsWith('foreign:')) return 'Content that is not SVG was left out.';
  return `An element <${name.slice(0, 40)}> was left out.`;
}
