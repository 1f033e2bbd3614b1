import svgpath from 'svgpath';
import { IDENTITY, apply, chain, multiply, scaling, translation, type Affine } from '../geom/affine';
import { boxCentre, unionBoxes, type Box } from '../geom/box';
import { formatPath, parsePath, transformPath, type Path } from '../geom/path';
import { polygonPath, rectanglePath } from '../geom/shapes';
import type { Hex } from '../colour/parse';
import type { ColourSlot } from '../colour/slots';
import { isLengthUnit, toPx } from '../num/length';
import { LIMITS } from '../recipe/limits';
import type { DrawingElement, MotifContent } from '../recipe/recipe';
import { elementBox, plainElement } from '../scene/motif';
import { INITIAL_STYLE, readClassRules, styleOf, type Style } from './style';
import { readSvgTree, type XmlNode } from './xml';

export type DrawingContent = Extract<MotifContent, { kind: 'drawing' }>;

export type SvgImport =
  | { ok: true; title: string; content: DrawingContent; slots: ColourSlot[]; notes: string[] }
  | { ok: false; message: string };

/**
 * Reads an SVG file as a motif: its paths and basic shapes, rebuilt from an allow-list, with all transforms applied
 * and the middle of the art at (0, 0). Its colours become slots, equal ones merged. `notes` says what was left out.
 * `newId` makes slot ids.
 */
export function importSvg(text: string, newId: () => string): SvgImport {
  const tree = readSvgTree(text);
  if (!tree.ok) return tree;
  const walker = new Walker(tree.root, newId);
  return walker.run();
}

/** Elements that draw nothing themselves and need no word when left out. */
const SILENT = new Set(['title', 'desc', 'metadata', 'defs', 'style', 'symbol']);
const DEEPEST_USE = 12;

type Drawn = { element: DrawingElement; box: Box; path: Path };

class Walker {
  private readonly notes = new Set<string>();
  private readonly slots = new Map<Hex, ColourSlot>();
  private readonly drawn: Drawn[] = [];
  private readonly byId = new Map<string, XmlNode>();
  private rules = new Map<string, Record<string, string>>();
  private tooMany = false;

  constructor(
    private readonly root: XmlNode,
    private readonly newId: () => string,
  ) {}

  run(): SvgImport {
    this.index(this.root);
    this.walk(this.root, rootMatrix(this.root), INITIAL_STYLE, 0);
    if (this.tooMany)
      return { ok: false, message: `The SVG draws more than ${LIMITS.elements} paths; simplify it first.` };
    const box = unionBoxes(this.drawn.map((item) => item.box));
    if (!box || (box.width === 0 && box.height === 0))
      return {
        ok: false,
        message: 'The SVG draws nothing that Isle can use: no visible path or shape was found.',
      };
    const centre = boxCentre(box);
    const move = translation(-centre.x, -centre.y);
    const elements = this.drawn.map(({ element, path }) => ({
      ...element,
      d: formatPath(transformPath(move, path)),
    }));
    const title = this.root.children.find((child) => child.name === 'title')?.text.trim() ?? '';
    const size = { width: Math.max(box.width, 0.01), height: Math.max(box.height, 0.01) };
    return {
      ok: true,
      title: title.slice(0, LIMITS.nameLength),
      content: { kind: 'drawing', asset: null, ...size, elements },
      slots: [...this.slots.values()],
      notes: [...this.notes],
    };
  }

  private index(node: XmlNode): void {
    if (node.attributes.id) this.byId.set(node.attributes.id, node);
    if (node.name === 'style') {
      const { rules, skipped } = readClassRules(node.text);
      this.rules = new Map([...this.rules, ...rules]);
      if (skipped) this.notes.add('Style rules other than plain classes were left out.');
    }
    for (const child of node.children) this.index(child);
  }

  private walk(node: XmlNode, matrix: Affine, parent: Style, depth: number): void {
    if (SILENT.has(node.name) || this.tooMany) return;
    const style = styleOf(node, parent, this.rules, (text) => this.notes.add(text));
    const here = node === this.root ? matrix : multiply(matrix, transformOf(node.attributes.transform));
    if (Object.keys(node.attributes).some((name) => /^on[a-z]/i.test(name)))
      this.notes.add('Event handlers were left out.');
    if (node.name === 'svg' || node.name === 'g' || node.name === 'a' || node.name === 'switch') {
      for (const child of node.children) this.walk(child, here, style, depth);
      return;
    }
    if (node.name === 'use') return this.use(node, here, style, depth);
    const path = shapePath(node);
    if (!path) {
      this.notes.add(leftOut(node.name));
      return;
    }
    if (!path.ok) {
      this.notes.add(path.message);
      return;
    }
    if (style.visible) this.draw(transformPath(here, path.path), here, style);
  }

  private use(node: XmlNode, matrix: Affine, style: Style, depth: number): void {
    const href = node.attributes.href ?? '';
    const target = href.startsWith('#') ? this.byId.get(href.slice(1)) : undefined;
    if (!target || depth >= DEEPEST_USE) {
      this.notes.add(
        href.startsWith('#')
          ? 'A <use> without a usable target was left out.'
          : 'A reference to another file was left out.',
      );
      return;
    }
    const at = multiply(matrix, translation(length(node.attributes.x), length(node.attributes.y)));
    if (target.name !== 'symbol') return this.walk(target, at, style, depth + 1);
    for (const child of target.children) this.walk(child, at, style, depth + 1);
  }

  /** Adds a path with its paints; fill and stroke part ways where their opacities differ. */
  private draw(path: Path, matrix: Affine, style: Style): void {
    if (this.drawn.length >= LIMITS.elements) {
      this.tooMany = true;
      return;
    }
    const scale = Math.sqrt(Math.abs(matrix.a * matrix.d - matrix.b * matrix.c));
    const fill = style.fill === null || style.fillOpacity === 0 ? null : this.slot(style.fill);
    const stroke =
      style.stroke === null || style.strokeWidth * scale === 0 || style.strokeOpacity === 0
        ? null
        : {
            slot: this.slot(style.stroke),
            width: style.strokeWidth * scale,
            cap: style.cap,
            join: style.join,
            miterLimit: style.miterLimit,
            dashes: style.dashes.map((dash) => dash * scale),
          };
    const base = { d: '', fillRule: style.fillRule };
    const fillOpacity = style.opacity * style.fillOpacity;
    const strokeOpacity = style.opacity * style.strokeOpacity;
    if (fill !== null && stroke !== null && fillOpacity === strokeOpacity) {
      this.add({ ...base, fill, stroke, opacity: fillOpacity }, path);
      return;
    }
    if (fill !== null) this.add({ ...base, fill, stroke: null, opacity: fillOpacity }, path);
    if (stroke !== null) this.add({ ...base, fill: null, stroke, opacity: strokeOpacity }, path);
  }

  private add(element: DrawingElement, path: Path): void {
    if (element.opacity === 0) return;
    const box = elementBox({ ...plainElement(path, element), path });
    if (box) this.drawn.push({ element, box, path });
  }

  private slot(hex: Hex): string {
    const held = this.slots.get(hex);
    if (held) return held.id;
    const slot = { id: this.newId(), name: `Colour ${this.slots.size + 1}`, colour: hex };
    this.slots.set(hex, slot);
    return slot.id;
  }
}

function leftOut(name: string): string {
  if (name === 'script') return 'A script was left out.';
  if (name === 'foreignObject' || name.startsWith('foreign:')) return 'Content that is not SVG was left out.';
  if (name === 'image') return 'A picture inside the SVG was left out; bring it in as a file of its own.';
  if (name === 'text') return 'Text was left out; turn it into outlines first.';
  return `An element <${name}> was left out.`;
}

type ShapeResult = { ok: true; path: Path } | { ok: false; message: string } | null;

function shapePath(node: XmlNode): ShapeResult {
  const at = (name: string): number => length(node.attributes[name]);
  const path = (value: Path): ShapeResult => ({ ok: true, path: value });
  const moved = (x: number, y: number, value: Path): ShapeResult =>
    path(transformPath(translation(x, y), value));
  switch (node.name) {
    case 'path':
      return parsePath(node.attributes.d ?? '');
    case 'rect': {
      const radius = Math.max(at('rx'), at('ry'));
      return moved(at('x'), at('y'), rectanglePath(at('width'), at('height'), radius));
    }
    case 'circle':
      return moved(at('cx') - at('r'), at('cy') - at('r'), rectanglePath(2 * at('r'), 2 * at('r'), Infinity));
    case 'ellipse':
      return moved(
        at('cx') - at('rx'),
        at('cy') - at('ry'),
        rectanglePath(2 * at('rx'), 2 * at('ry'), Infinity),
      );
    case 'line':
      return path([
        { op: 'M', to: { x: at('x1'), y: at('y1') } },
        { op: 'L', to: { x: at('x2'), y: at('y2') } },
      ]);
    case 'polyline':
    case 'polygon': {
      const numbers = (node.attributes.points ?? '')
        .trim()
        .split(/[\s,]+/)
        .map(Number);
      if (numbers.some((value) => !Number.isFinite(value)))
        return { ok: false, message: `The points of a <${node.name}> cannot be read; it was left out.` };
      const points = Array.from({ length: Math.floor(numbers.length / 2) }, (_, index) => ({
        x: numbers[index * 2] ?? 0,
        y: numbers[index * 2 + 1] ?? 0,
      }));
      const closed = polygonPath(points);
      return path(node.name === 'polygon' ? closed : closed.slice(0, -1));
    }
    default:
      return null;
  }
}

/** User units → px: the file's size in CSS lengths over its viewBox. */
function rootMatrix(root: XmlNode): Affine {
  const [x, y, width, height] = (root.attributes.viewBox ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const stated = { width: length(root.attributes.width), height: length(root.attributes.height) };
  if (!width || !height || !(width > 0) || !(height > 0)) return IDENTITY;
  const across = stated.width > 0 ? stated.width / width : 1;
  const down = stated.height > 0 ? stated.height / height : across;
  const scale = Math.min(across, down);
  return chain(scaling(Number.isFinite(scale) && scale > 0 ? scale : 1), translation(-(x ?? 0), -(y ?? 0)));
}

/** A CSS length in px; percentages and unknown units count as 0, a bare number as px. */
function length(text: string | undefined): number {
  const match = /^\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)\s*([a-z%]*)\s*$/i.exec(text ?? '');
  const value = Number(match?.[1]);
  const unit = match?.[2]?.toLowerCase() ?? '';
  if (!match || !Number.isFinite(value)) return 0;
  if (unit === '') return value;
  if (unit === 'cm') return toPx(value * 10, 'mm');
  return isLengthUnit(unit) ? toPx(value, unit) : 0;
}

/** An SVG transform list as a matrix, read by svgpath: where it takes the origin and the two unit points. */
function transformOf(text: string | undefined): Affine {
  if (!text) return IDENTITY;
  const read = parsePath(svgpath('M0 0L1 0L0 1').transform(text).toString());
  const points = read.ok
    ? read.path.map((segment) => (segment.op === 'Z' ? { x: 0, y: 0 } : segment.to))
    : [];
  const [o, u, v] = points;
  if (!o || !u || !v) return IDENTITY;
  const matrix: Affine = { a: u.x - o.x, b: u.y - o.y, c: v.x - o.x, d: v.y - o.y, e: o.x, f: o.y };
  const finite = Number.isFinite(apply(matrix, { x: 1, y: 1 }).x + apply(matrix, { x: 1, y: 1 }).y);
  return finite ? matrix : IDENTITY;
}
