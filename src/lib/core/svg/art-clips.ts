import { chain, multiply, scaling, translation, type Affine } from '../geom/affine';
import { combineAreas } from '../geom/boolean';
import { unionBoxes, type Box } from '../geom/box';
import { pathBox, transformPath, type Path } from '../geom/path';
import type { FillRule } from '../recipe/recipe';
import type { StyleSheet } from './css';
import { shapePath } from './import-read';
import type { Measures } from './lengths';
import { INITIAL_STYLE, propertiesOf, styleOf } from './style';
import { ownTransform } from './transforms';
import type { XmlNode } from './xml';

export type Clip = { path: Path; rule: FillRule };

/** A clip, nothing to clip by, or `too-much` where a renderer has to do it. */
export type ClipResult = Clip | null | 'too-much';

/** Segments of one area held against those of another, over all clips of a file. */
const MOST_PAIRS = 250_000;
const DEEPEST = 8;

export type ClipSource = {
  byId: ReadonlyMap<string, XmlNode>;
  sheet: StyleSheet;
  /** Outlines of a text, where they can be had. */
  text: (node: XmlNode) => Path | null;
};

/** Reads clip paths as areas; the same one at the same place is read once. */
export class ClipReader {
  private readonly held = new Map<string, ClipResult>();
  private pairs = 0;

  constructor(private readonly source: ClipSource) {}

  /** The area that `around` and the clip path `id` share; `box` is that of what is clipped, in its own space. */
  within(
    around: Clip | null,
    id: string,
    matrix: Affine,
    measures: Measures,
    box: () => Box | null,
  ): ClipResult {
    const own = this.area(id, matrix, measures, box, 0);
    return this.shared(around, own);
  }

  private shared(one: Clip | null, other: ClipResult): ClipResult {
    if (other === 'too-much' || other === null) return other === null ? one : other;
    if (!one) return other;
    if (!this.spend(one.path.length * other.path.length)) return 'too-much';
    const shared = combineAreas('intersect', [one, other]);
    return { path: shared.ok ? shared.path : [], rule: 'nonzero' };
  }

  private spend(pairs: number): boolean {
    this.pairs += pairs;
    return this.pairs <= MOST_PAIRS;
  }

  private area(
    id: string,
    matrix: Affine,
    measures: Measures,
    box: () => Box | null,
    depth: number,
  ): ClipResult {
    const node = this.source.byId.get(id);
    if (node?.name !== 'clipPath' || depth > DEEPEST) return null;
    const inBox = node.attributes.clipPathUnits === 'objectBoundingBox';
    const frame = inBox ? box() : null;
    if (inBox && !frame) return { path: [], rule: 'nonzero' };
    const key = `${id} ${Object.values(matrix).join()} ${frame ? Object.values(frame).join() : ''}`;
    const known = this.held.get(key);
    if (known !== undefined) return known;
    const own = ownTransform(propertiesOf(node, this.source.sheet), measures);
    const units = frame ? chain(translation(frame.x, frame.y), scaling(frame.width, frame.height)) : null;
    const inner = units ? chain(matrix, own, units) : multiply(matrix, own);
    const made = this.areaOf(node, inner, measures, depth);
    const clipped = this.clipOf(node, made, matrix, measures, box, depth);
    this.held.set(key, clipped);
    return clipped;
  }

  /** A clip path may itself be clipped. */
  private clipOf(
    node: XmlNode,
    made: ClipResult,
    matrix: Affine,
    measures: Measures,
    box: () => Box | null,
    depth: number,
  ): ClipResult {
    const id = referenceOf(propertiesOf(node, this.source.sheet)['clip-path']);
    if (id === null || made === null || made === 'too-much') return made;
    return this.shared(made, this.area(id, matrix, measures, box, depth + 1));
  }

  private areaOf(node: XmlNode, matrix: Affine, measures: Measures, depth: number): ClipResult {
    const areas: Clip[] = [];
    for (const child of node.children) {
      const area = this.childArea(child, matrix, measures, depth);
      if (area === 'too-much') return area;
      if (area && area.path.length > 0) areas.push(area);
    }
    const [only] = areas;
    if (!only) return { path: [], rule: 'nonzero' };
    if (areas.length === 1) return only;
    const segments = areas.reduce((sum, { path }) => sum + path.length, 0);
    if (!this.spend((segments * segments) / 2)) return 'too-much';
    const whole = combineAreas('unite', areas);
    return { path: whole.ok ? whole.path : [], rule: 'nonzero' };
  }

  private childArea(child: XmlNode, matrix: Affine, measures: Measures, depth: number): ClipResult {
    const own = propertiesOf(child, this.source.sheet);
    if (own.display?.trim() === 'none') return null;
    const style = styleOf(own, INITIAL_STYLE, measures.viewport, () => undefined);
    if (!style.visible) return null;
    const inner = multiply(matrix, ownTransform(own, measures));
    let path: Path | null = null;
    let placed = inner;
    let rule = style.clipRule;
    if (child.name === 'use') {
      // The standard has a <use> in a clip path lead straight to a shape; files have it lead through others.
      let target: XmlNode = child;
      for (let hops = 0; target.name === 'use' && hops < DEEPEST; hops += 1) {
        const next = this.source.byId.get((target.attributes.href ?? '').slice(1));
        if (!next) return null;
        const at = (name: string): number => Number.parseFloat(target.attributes[name] ?? '0') || 0;
        const below = propertiesOf(next, this.source.sheet);
        placed = chain(placed, translation(at('x'), at('y')), ownTransform(below, measures));
        rule = styleOf(below, { ...style, clipRule: rule }, measures.viewport, () => undefined).clipRule;
        target = next;
      }
      path = this.outline(target, measures);
    } else path = this.outline(child, measures);
    if (!path) return null;
    const area = { path: transformPath(placed, path), rule };
    const id = referenceOf(own['clip-path']);
    if (id === null) return area;
    return this.shared(
      area,
      this.area(id, matrix, measures, () => pathBox(path), depth + 1),
    );
  }

  private outline(node: XmlNode, measures: Measures): Path | null {
    if (node.name === 'text') return this.source.text(node);
    const shape = shapePath(node, measures);
    return shape?.ok ? shape.path : null;
  }
}

/** The id that a url(#…) names, or `null`. */
export function referenceOf(value: string | undefined): string | null {
  if (!value || value.length > 300) return null;
  return /^url\(\s*["']?#([^"')]+)["']?\s*\)/.exec(value.trim())?.[1] ?? null;
}

/** The box of what an element draws, strokes not counted, in its own space (SVG 2, section 8.10). */
export function geometryBox(node: XmlNode, measures: Measures, source: ClipSource, depth = 0): Box | null {
  if (depth > 30) return null;
  const shape = shapePath(node, measures);
  if (shape) return shape.ok ? pathBox(shape.path) : null;
  if (node.name === 'text') {
    const path = source.text(node);
    return path && pathBox(path);
  }
  if (node.name === 'use') {
    const target = source.byId.get((node.attributes.href ?? '').slice(1));
    const at = (name: string): number => Number.parseFloat(node.attributes[name] ?? '0') || 0;
    const box = target ? boxThrough(target, measures, source, depth) : null;
    return box && { ...box, x: box.x + at('x'), y: box.y + at('y') };
  }
  if (node.name !== 'g' && node.name !== 'a' && node.name !== 'svg') return null;
  return unionBoxes(node.children.flatMap((child) => boxThrough(child, measures, source, depth) ?? []));
}

function boxThrough(node: XmlNode, measures: Measures, source: ClipSource, depth: number): Box | null {
  const own = propertiesOf(node, source.sheet);
  if (own.display?.trim() === 'none') return null;
  const box = geometryBox(node, measures, source, depth + 1);
  if (!box) return null;
  const corners: Path = [
    { op: 'M', to: { x: box.x, y: box.y } },
    { op: 'L', to: { x: box.x + box.width, y: box.y } },
    { op: 'L', to: { x: box.x + box.width, y: box.y + box.height } },
    { op: 'L', to: { x: box.x, y: box.y + box.height } },
  ];
  return pathBox(transformPath(ownTransform(own, measures), corners));
}
