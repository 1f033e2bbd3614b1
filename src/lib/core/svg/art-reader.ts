import { IDENTITY, chain, determinant, multiply, translation, type Affine } from '../geom/affine';
import { combineAreas } from '../geom/boolean';
import type { Box } from '../geom/box';
import { parsePath, pathBox, transformPath, type Path } from '../geom/path';
import { formPath } from '../geom/shapes';
import type { Hex } from '../colour/parse';
import type { ColourSlot } from '../colour/slots';
import { LIMITS } from '../recipe/limits';
import type { DrawingElement, FillRule, GradientPaint, Paint } from '../recipe/recipe';
import { pathText } from '../scene/drawing';
import { elementBox, plainElement } from '../scene/motif';
import { readGradient } from './import-gradient';
import { lengthOf, shapePath, transformOf, viewportMatrix } from './import-read';
import {
  INITIAL_STYLE,
  propertiesOf,
  readRules,
  styleOf,
  type PaintStyle,
  type Style,
  type StyleRule,
} from './style';
import type { XmlNode } from './xml';

/** Sets a line of text as path data from (0, 0) on its baseline; a sentence where that cannot be done. */
export type SetText = (
  text: string,
  font: { family: string; weight: string; size: number },
) => { ok: true; d: string; width: number } | { ok: false; message: string };

/** Elements that draw nothing themselves and need no word when left out. */
const SILENT = new Set([
  'title',
  'desc',
  'metadata',
  'defs',
  'style',
  'symbol',
  'clipPath',
  'linearGradient',
  'radialGradient',
  'pattern',
  'foreign:namedview',
]);
const CONTAINERS = new Set(['g', 'a', 'switch']);
const DEEPEST_USE = 12;

export type Clip = { path: Path; rule: FillRule };
export type Drawn = { element: DrawingElement; box: Box; path: Path; clip: Clip | null };
type Place = { matrix: Affine; style: Style; clip: Clip | null; depth: number };

/**
 * Reads parts of an SVG tree as drawn elements, rebuilt from an allow-list: paths, basic shapes, gradients, clip paths,
 * embedded pictures and, where `setText` can, text. Colours become slots, equal ones merged; notes say what was left out.
 */
export class ArtReader {
  readonly notes = new Set<string>();
  readonly slots = new Map<Hex, ColourSlot>();
  /** Pictures inside the file as data URLs; elements name them `pending:0`, `pending:1` … in place of an asset. */
  readonly pictures: string[] = [];
  readonly byId = new Map<string, XmlNode>();
  private drawn: Drawn[] = [];
  private readonly rules: StyleRule[] = [];
  private tooMany = false;

  constructor(
    private readonly root: XmlNode,
    private readonly newId: () => string,
    private readonly setText: SetText | null,
  ) {
    this.index(root);
  }

  /** All that `node` draws, in its coordinates taken through `matrix`; `null` where there is too much of it. */
  whole(node: XmlNode, matrix: Affine): Drawn[] | null {
    return this.collect(() => this.walk(node, { matrix, style: INITIAL_STYLE, clip: null, depth: 0 }));
  }

  /** What the children of `holder` draw, in the style that they inherit; `null` where there is too much of it. */
  inside(holder: XmlNode, matrix: Affine): Drawn[] | null {
    const style = this.styleAt(holder);
    return this.collect(() => this.children(holder, { matrix, style, clip: null, depth: 0 }));
  }

  /** The style that the children of a node inherit. */
  private styleAt(node: XmlNode): Style {
    const way = wayTo(this.root, node) ?? [node];
    const style = way.reduce((held, one) => styleOf(one, held, this.rules, this.note), INITIAL_STYLE);
    return { ...style, opacity: 1 };
  }

  private collect(read: () => void): Drawn[] | null {
    this.drawn = [];
    this.tooMany = false;
    read();
    return this.tooMany ? null : this.drawn;
  }

  readonly note = (text: string): void => void this.notes.add(text);

  private index(node: XmlNode): void {
    if (node.attributes.id) this.byId.set(node.attributes.id, node);
    if (node.name === 'style') {
      const { rules, skipped } = readRules(node.text);
      this.rules.push(...rules);
      if (skipped) this.note('Style rules with more than a simple selector were left out.');
    }
    for (const child of node.children) this.index(child);
  }

  private walk(node: XmlNode, place: Place): void {
    if (SILENT.has(node.name) || this.tooMany) return;
    if (Object.keys(node.attributes).some((name) => /^on[a-z]/i.test(name)))
      this.note('Event handlers were left out.');
    const style = styleOf(node, place.style, this.rules, this.note);
    const own = node === this.root ? IDENTITY : transformOf(propertiesOf(node, this.rules).transform);
    const matrix = multiply(place.matrix, own);
    const here: Place = { ...place, matrix, style, clip: this.clipOf(node, place.clip, matrix) };
    if (node === this.root || CONTAINERS.has(node.name)) return this.children(node, here);
    if (node.name === 'svg') return this.nested(node, here);
    if (node.name === 'use') return this.use(node, here);
    if (node.name === 'image') return this.picture(node, here);
    if (node.name === 'text') return this.text(node, here);
    const path = shapePath(node);
    if (!path) return this.note(leftOut(node.name));
    if (!path.ok) return this.note(path.message);
    if (style.visible) this.draw(path.path, here);
  }

  private children(node: XmlNode, place: Place): void {
    for (const child of node.children) this.walk(child, place);
  }

  private nested(node: XmlNode, place: Place): void {
    const at = (name: string): number => lengthOf(node.attributes[name]);
    const inner = chain(
      place.matrix,
      translation(at('x'), at('y')),
      viewportMatrix(node, at('width'), at('height')),
    );
    this.children(node, { ...place, matrix: inner });
  }

  private use(node: XmlNode, place: Place): void {
    const href = node.attributes.href ?? '';
    const target = href.startsWith('#') ? this.byId.get(href.slice(1)) : undefined;
    if (!target || place.depth >= DEEPEST_USE)
      return this.note(
        href.startsWith('#')
          ? 'A <use> without a usable target was left out.'
          : 'A reference to another file was left out.',
      );
    const at = (name: string): number => lengthOf(node.attributes[name]);
    const matrix = multiply(place.matrix, translation(at('x'), at('y')));
    const inside: Place = { ...place, matrix, depth: place.depth + 1 };
    if (target.name !== 'symbol') return this.walk(target, inside);
    const fitted = multiply(matrix, viewportMatrix(target, at('width'), at('height')));
    this.children(target, { ...inside, matrix: fitted });
  }

  /** The clip that holds for an element: its own, within the one around it. */
  private clipOf(node: XmlNode, around: Clip | null, matrix: Affine): Clip | null {
    const value = propertiesOf(node, this.rules)['clip-path'];
    const id = /^url\(\s*["']?#([^"')]+)["']?\s*\)/.exec(value?.trim() ?? '')?.[1];
    if (!id) return around;
    const clipPath = this.byId.get(id);
    if (clipPath?.name !== 'clipPath') return around;
    if (clipPath.attributes.clipPathUnits === 'objectBoundingBox') {
      this.note('A clip path in shares of a box was left out.');
      return around;
    }
    const own = this.clipArea(clipPath, multiply(matrix, transformOf(clipPath.attributes.transform)));
    if (!around) return own;
    const shared = combineAreas('intersect', [around, own]);
    return { path: shared.ok ? shared.path : [], rule: 'nonzero' };
  }

  private clipArea(node: XmlNode, matrix: Affine): Clip {
    const areas: Clip[] = [];
    for (const child of node.children) {
      const target = child.name === 'use' ? this.byId.get((child.attributes.href ?? '').slice(1)) : child;
      const shape = target && shapePath(target);
      if (!target || !shape?.ok) continue;
      const style = styleOf(
        target,
        styleOf(node, INITIAL_STYLE, this.rules, this.note),
        this.rules,
        this.note,
      );
      const own = transformOf(propertiesOf(target, this.rules).transform);
      areas.push({ path: transformPath(multiply(matrix, own), shape.path), rule: style.clipRule });
    }
    const [only] = areas;
    if (only && areas.length === 1) return only;
    const whole = combineAreas('unite', areas);
    return { path: whole.ok ? whole.path : [], rule: 'nonzero' };
  }

  private picture(node: XmlNode, { matrix, style, clip }: Place): void {
    const href = node.attributes.href ?? '';
    if (!style.visible) return;
    if (!/^data:image\/(png|jpe?g|webp)[;,]/i.test(href))
      return this.note(
        'A picture that is not inside the SVG was left out; bring it in as a file of its own.',
      );
    const at = (name: string): number => lengthOf(node.attributes[name]);
    const [width, height] = [at('width'), at('height')];
    if (!(width > 0) || !(height > 0)) return this.note('A picture without a size was left out.');
    const placed = multiply(matrix, translation(at('x'), at('y')));
    const frame = transformPath(placed, formPath({ kind: 'rectangle', radius: 0 }, width, height));
    const asset = `pending:${this.pictures.length}`;
    this.pictures.push(href);
    const stretch = node.attributes.preserveAspectRatio === 'none';
    this.add(
      {
        d: '',
        fill: null,
        fillRule: 'nonzero',
        stroke: null,
        opacity: style.opacity,
        // The sides are those of the box until the picture is decoded; a negative width asks for a stretch.
        picture: { asset, width: stretch ? -width : width, height, matrix: placed },
      },
      frame,
      clip,
    );
  }

  private text(node: XmlNode, place: Place): void {
    if (!place.style.visible) return;
    const said = textOf(node).replace(/\s+/g, ' ').trim();
    if (said === '') return;
    const { fontFamily: family, fontWeight: weight, fontSize: size } = place.style;
    const set = this.setText?.(said, { family, weight, size }) ?? {
      ok: false as const,
      message: 'Text was left out; turn it into outlines first.',
    };
    if (!set.ok) return this.note(set.message);
    if (node.children.some((child) => child.name === 'tspan'))
      this.note('Text in several parts was set as one line.');
    const read = parsePath(set.d);
    if (!read.ok) return;
    const [x, y] = ['x', 'y'].map((name) => lengthOf(node.attributes[name]?.trim().split(/[\s,]+/)[0]));
    const shift = { start: 0, middle: -set.width / 2, end: -set.width }[place.style.textAnchor] ?? 0;
    this.draw(transformPath(translation((x ?? 0) + shift, y ?? 0), read.path), place);
  }

  /** Adds a path (in its own space) with its paints; fill and stroke part ways where their opacities differ. */
  private draw(path: Path, { matrix, style, clip }: Place): void {
    const through = transformPath(matrix, path);
    const scale = Math.sqrt(Math.abs(determinant(matrix)));
    const fill = style.fillOpacity === 0 ? null : this.paint(style.fill, path, matrix);
    const strokePaint = style.stroke;
    if (strokePaint?.gradient) this.note('A gradient on a stroke became one plain colour.');
    const stroke =
      strokePaint === null || style.strokeWidth * scale === 0 || style.strokeOpacity === 0
        ? null
        : {
            slot: this.slot(strokePaint.hex),
            width: style.strokeWidth * scale,
            cap: style.cap,
            join: style.join,
            miterLimit: style.miterLimit,
            dashes: style.dashes.map((dash) => dash * scale),
          };
    const base = { d: '', fillRule: style.fillRule };
    const fillOpacity = style.opacity * style.fillOpacity * (fill?.opacity ?? 1);
    const strokeOpacity = style.opacity * style.strokeOpacity;
    if (fill !== null && stroke !== null && fillOpacity === strokeOpacity)
      return this.add({ ...base, fill: fill.paint, stroke, opacity: fillOpacity }, through, clip);
    if (fill !== null)
      this.add({ ...base, fill: fill.paint, stroke: null, opacity: fillOpacity }, through, clip);
    if (stroke !== null) this.add({ ...base, fill: null, stroke, opacity: strokeOpacity }, through, clip);
  }

  private paint(
    style: PaintStyle | null,
    path: Path,
    matrix: Affine,
  ): { paint: Paint; opacity: number } | null {
    if (style === null) return null;
    if (style.gradient === null) return { paint: this.slot(style.hex), opacity: 1 };
    const read = readGradient(style.gradient, this.byId, this.rules, path, matrix, this.note);
    if (read === null) {
      this.note('A paint that is no gradient was replaced by one plain colour.');
      return { paint: this.slot(style.hex), opacity: 1 };
    }
    if (read.kind === 'plain') return { paint: this.slot(read.hex), opacity: read.opacity };
    const stops = read.stops.map(({ at, hex, opacity }) => ({ at, slot: this.slot(hex), opacity }));
    return { paint: { ...read, stops } satisfies GradientPaint, opacity: 1 };
  }

  private add(element: DrawingElement, path: Path, clip: Clip | null): void {
    if (element.opacity === 0 || (clip && clip.path.length === 0)) return;
    if (this.drawn.length >= LIMITS.elements) {
      this.tooMany = true;
      return;
    }
    const box = elementBox({ ...plainElement(path, element), clip });
    if (box) this.drawn.push({ element, box, path, clip });
  }

  private slot(hex: Hex): string {
    const held = this.slots.get(hex);
    if (held) return held.id;
    const slot = { id: this.newId(), name: `Colour ${this.slots.size + 1}`, colour: hex };
    this.slots.set(hex, slot);
    return slot.id;
  }
}

/** The nodes from `root` down to `node`, both counted; `null` where it is not in the tree. */
function wayTo(root: XmlNode, node: XmlNode): XmlNode[] | null {
  if (root === node) return [root];
  for (const child of root.children) {
    const way = wayTo(child, node);
    if (way) return [root, ...way];
  }
  return null;
}

/** A drawn path made an element of the motif: everything moved so that the middle of the art is the origin. */
export function moved({ element, path, clip }: Drawn, move: Affine): DrawingElement {
  const { fill, picture } = element;
  return {
    ...element,
    d: pathText(transformPath(move, path)),
    fill: fill !== null && typeof fill === 'object' ? { ...fill, matrix: multiply(move, fill.matrix) } : fill,
    ...(picture ? { picture: { ...picture, matrix: multiply(move, picture.matrix) } } : {}),
    ...(clip && !holds(clip, path)
      ? { clip: { d: pathText(transformPath(move, clip.path)), rule: clip.rule } }
      : {}),
  };
}

/** True where a clip is a plain rectangle round all of a path, so that it cuts nothing (fills; strokes may lose a rim). */
function holds(clip: Clip, path: Path): boolean {
  const [outer, inner] = [pathBox(clip.path), pathBox(path)];
  const corners = clip.path.filter((segment) => segment.op !== 'Z');
  const upright =
    corners.length <= 5 &&
    corners.every(
      (segment) =>
        segment.op !== 'C' &&
        outer !== null &&
        (Math.abs(segment.to.x - outer.x) < 1e-6 || Math.abs(segment.to.x - outer.x - outer.width) < 1e-6) &&
        (Math.abs(segment.to.y - outer.y) < 1e-6 || Math.abs(segment.to.y - outer.y - outer.height) < 1e-6),
    );
  if (!upright || !outer || !inner) return false;
  const slack = Math.max(outer.width, outer.height) * 0.05;
  return (
    inner.x >= outer.x + slack &&
    inner.y >= outer.y + slack &&
    inner.x + inner.width <= outer.x + outer.width - slack &&
    inner.y + inner.height <= outer.y + outer.height - slack
  );
}

const textOf = (node: XmlNode): string => node.text + node.children.map(textOf).join(' ');

function leftOut(name: string): string {
  if (name === 'script') return 'A script was left out.';
  if (name === 'foreignObject' || name.startsWith('foreign:')) return 'Content that is not SVG was left out.';
  return `An element <${name}> was left out.`;
}
