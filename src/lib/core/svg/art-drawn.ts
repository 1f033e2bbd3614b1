import type { Hex } from '../colour/parse';
import type { ColourSlot } from '../colour/slots';
import { multiply, type Affine } from '../geom/affine';
import { boxesMeet, type Box } from '../geom/box';
import { pathBox, transformPath, type Path } from '../geom/path';
import { polygonArea } from '../geom/polygon';
import { formPath } from '../geom/shapes';
import { LIMITS } from '../recipe/limits';
import type { DrawingElement, Stroke } from '../recipe/recipe';
import { pathText } from '../scene/drawing';
import { elementBox, plainElement } from '../scene/motif';
import type { Clip } from './art-clips';

/** Elements visited, each <use> counted with all that it stands for, and segments of all that is drawn. */
const MOST_VISITS = 60_000;
const MOST_SEGMENTS = 250_000;
/** Segments that clips add to what is drawn. */
const MOST_CLIPPING = 60_000;
/** Beyond so many parts they are taken to overlap. */
const MOST_COMPARED = 400;

export type Drawn = { element: DrawingElement; box: Box; path: Path; clip: Clip | null };

/** What a file is too much for: it is drawn as a picture as a whole, or refused. */
export class TooMuch extends Error {}

/** What has been drawn of a file so far, with its colours and pictures; counts what it takes, and throws {@link TooMuch}. */
export class DrawnArt {
  readonly slots = new Map<Hex, ColourSlot>();
  /** Pictures inside the file as data URLs; elements name them `pending:0`, `pending:1` … in place of an asset. */
  readonly pictures: string[] = [];
  private list: Drawn[] = [];
  private visits = 0;
  private segments = 0;
  private clipping = 0;

  constructor(private readonly newId: () => string) {}

  /** What `draw` draws, or `null` where it is too much. */
  collect(draw: () => void): Drawn[] | null {
    this.list = [];
    try {
      draw();
      return this.list;
    } catch (error) {
      if (error instanceof TooMuch) return null;
      throw error;
    }
  }

  get length(): number {
    return this.list.length;
  }

  /** Takes back what was drawn from an index on, and returns it. */
  takeBack(start: number): Drawn[] {
    return this.list.splice(start);
  }

  /** Puts drawn parts on top, see-through by `opacity`. */
  put(parts: readonly Drawn[], opacity: number): void {
    for (const one of parts)
      this.list.push({ ...one, element: { ...one.element, opacity: one.element.opacity * opacity } });
  }

  visit(): void {
    this.visits += 1;
    if (this.visits > MOST_VISITS) throw new TooMuch();
  }

  spend(segments: number): void {
    this.segments += segments;
    if (this.segments > MOST_SEGMENTS) throw new TooMuch();
  }

  add(element: DrawingElement, path: Path, clip: Clip | null): void {
    if (element.opacity === 0 || (clip && clip.path.length === 0)) return;
    if (this.list.length >= LIMITS.elements) throw new TooMuch();
    this.spend(path.length);
    const own = clip && !holds(clip, path, element.stroke) ? clip : null;
    this.clipping += own?.path.length ?? 0;
    if (this.clipping > MOST_CLIPPING) throw new TooMuch();
    const box = elementBox({ ...plainElement(path, element), clip: own });
    if (box) this.list.push({ element, box, path, clip: own });
  }

  addPicture(
    href: string,
    matrix: Affine,
    { width, height }: { width: number; height: number },
    { stretch, clip }: { stretch: boolean; clip: Clip | null },
  ): void {
    const frame = transformPath(matrix, formPath({ kind: 'rectangle', radius: 0 }, width, height));
    const known = this.pictures.indexOf(href);
    const asset = `pending:${known < 0 ? this.pictures.length : known}`;
    if (known < 0) this.pictures.push(href);
    const plain = { d: '', fill: null, fillRule: 'nonzero' as const, stroke: null, opacity: 1 };
    // The sides are those of the box until the picture is decoded; a negative width asks for a stretch.
    this.add({ ...plain, picture: { asset, width: stretch ? -width : width, height, matrix } }, frame, clip);
  }

  /** The id of a colour's slot. */
  slot(hex: Hex): string {
    const held = this.slots.get(hex);
    if (held) return held.id;
    const slot = { id: this.newId(), name: `Colour ${this.slots.size + 1}`, colour: hex };
    this.slots.set(hex, slot);
    return slot.id;
  }
}

/** True where some of what is drawn lies over other parts of it; a single element with fill and stroke is one layer. */
export function overlapping(drawn: readonly Drawn[]): boolean {
  if (drawn.length > MOST_COMPARED) return true;
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
export function isRectangle(path: Path): boolean {
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
