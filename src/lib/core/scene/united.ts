import { boxesMeet, grow, type Box } from '../geom/box';
import { IDENTITY } from '../geom/affine';
import { flatten, reversedPath, type Path } from '../geom/path';
import { edgesAbut, type Edge } from '../lattice/abut';
import { elementEdges } from './edges';
import { elementBox, plainElement, type CompiledMotif, type Element } from './motif';

/** Motifs of more elements, or elements of more edges, are left as they are: uniting them would take too long. */
const MOST_ELEMENTS = 120;
const MOST_EDGES = 400;

const united = new WeakMap<CompiledMotif, CompiledMotif>();

/**
 * A motif in which parts of one colour that meet edge to edge are one part: drawn one after the other, each with soft
 * edges of its own, they would show what lies below along the line where they meet; within one path a renderer adds up what
 * they cover.
 */
export function unitedMotif(motif: CompiledMotif): CompiledMotif {
  const held = united.get(motif);
  if (held) return held;
  const elements = unite(motif.elements);
  const made = elements.length === motif.elements.length ? motif : { ...motif, elements };
  united.set(motif, made);
  return made;
}

type Part = { element: Element; box: Box | null; edges: Edge[] | null };

/** Filled with one colour, and so that outlines in one path add up: by the rule of windings, or of one ring. */
const isPlain = ({ fill, stroke, opacity, picture, clip, fillRule, path }: Element): boolean =>
  typeof fill === 'string' &&
  !stroke &&
  opacity === 1 &&
  !picture &&
  !clip &&
  (fillRule === 'nonzero' || path.filter(({ op }) => op === 'M').length === 1);

function unite(elements: readonly Element[]): Element[] {
  if (elements.length < 2 || elements.length > MOST_ELEMENTS) return [...elements];
  const parts: Part[] = [];
  for (const element of elements) {
    const part: Part = { element, box: elementBox(element), edges: null };
    if (!isPlain(element) || !joinInto(parts, part)) parts.push(part);
  }
  return parts.map(({ element }) => element);
}

/** Joins a part to an earlier one of its colour that it abuts, where nothing that lies between them would be covered. */
function joinInto(parts: readonly Part[], part: Part): boolean {
  const { box } = part;
  if (!box) return false;
  for (let at = parts.length - 1; at >= 0; at -= 1) {
    const below = parts[at]!;
    if (!below.box || !boxesMeet(grow(below.box, 1e-3), box)) continue;
    const alike = isPlain(below.element) && below.element.fill === part.element.fill;
    if (alike && abut(below, part)) {
      const path = [...below.element.path, ...alignedWith(below.element.path, part.element.path)];
      below.element = plainElement(path, { fill: part.element.fill, fillRule: 'nonzero' });
      below.box = elementBox(below.element);
      below.edges = null;
      return true;
    }
    // Below something else that it meets the part would be hidden.
    if (!alike) return false;
  }
  return false;
}

function abut(one: Part, other: Part): boolean {
  one.edges ??= elementEdges(one.element, IDENTITY, 0);
  other.edges ??= elementEdges(other.element, IDENTITY, 1);
  if (one.edges.length > MOST_EDGES || other.edges.length > MOST_EDGES) return false;
  return edgesAbut(one.edges, other.edges);
}

/** The second outline run through as the first one is: in one path both then count up to what they cover together. */
const alignedWith = (one: Path, other: Path): Path =>
  turns(one) * turns(other) < 0 ? reversedPath(other) : other;

/** Twice the area of an outline with its sign, holes taken off. */
const turns = (path: Path): number =>
  flatten(path, 8).reduce((sum, { points }) => sum + twiceArea(points), 0);

const twiceArea = (points: readonly { x: number; y: number }[]): number =>
  points.reduce((sum, from, index) => {
    const to = points[(index + 1) % points.length]!;
    return sum + from.x * to.y - to.x * from.y;
  }, 0);
