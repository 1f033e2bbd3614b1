import { boxesMeet, grow, type Box } from '../geom/box';
import { combineAreas } from '../geom/boolean';
import { IDENTITY } from '../geom/affine';
import { edgesAbut, type Edge } from '../lattice/abut';
import { elementEdges } from './edges';
import { elementBox, plainElement, type CompiledMotif, type Element } from './motif';

/** Motifs of more elements, or elements of more edges, are left as they are: uniting them would take too long. */
const MOST_ELEMENTS = 120;
const MOST_EDGES = 400;

const united = new WeakMap<CompiledMotif, CompiledMotif>();

/**
 * A motif in which parts of one colour that meet edge to edge are one part: drawn one after the other, each with soft
 * edges of its own, they would show what lies below along the line where they meet.
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

const isPlain = ({ fill, stroke, opacity, picture, clip }: Element): boolean =>
  typeof fill === 'string' && !stroke && opacity === 1 && !picture && !clip;

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
      const joined = combineAreas('unite', [areaOf(below.element), areaOf(part.element)]);
      if (!joined.ok) return false;
      below.element = plainElement(joined.path, { fill: part.element.fill, fillRule: 'nonzero' });
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

const areaOf = ({ path, fillRule }: Element) => ({ path, rule: fillRule });
