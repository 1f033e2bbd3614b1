import { IDENTITY, multiply, translation, type Affine } from '../geom/affine';
import { boxesMeet, grow, moveBox, type Box } from '../geom/box';
import type { Path } from '../geom/path';
import { boxCorners } from '../geom/polygon';
import type { Point } from '../geom/point';
import { lookKey, withColours, type PictureLook } from '../colour/look';
import type { Inks } from '../colour/inks';
import { colourOf, numberColours } from '../colour/slots';
import { cellCorners } from '../lattice/cell';
import { offsetsMeeting } from '../lattice/meet';
import type { GradientPaint, Paint, PicturePaint } from '../recipe/recipe';
import type { TiledItem } from '../draw/list';
import { inksOfItem, slotOverprints } from '../draw/plates';
import { endlessOver } from '../scene/endless';
import type { Element } from '../scene/motif';
import type { Piece, UnitScene } from '../scene/unit';
import { underlayLines, underlayPictures } from '../scene/underlay';
import type { Drawing, PdfInk } from './drawing';
import { showPicture, type PdfSources } from './picture';

type Use = Pick<TiledItem, 'pattern' | 'colours' | 'look'>;

/** A name for what a use draws in one unit: equal drawings have equal names. */
export const useKey = ({ pattern, colours, look }: Use): string =>
  `${pattern.key} ${JSON.stringify(colours)} ${look ? lookKey(look) : ''}`;

/** Draws the pieces of a pattern in pattern px. */
export class UnitDrawer {
  private readonly inks: Inks;

  constructor(
    private readonly sources: PdfSources,
    private readonly use: Use,
    inks: Inks,
  ) {
    this.inks = inksOfItem(use, inks);
  }

  /** The pieces of one unit in stack order, nothing wrapped. */
  unit(on: Drawing): void {
    this.use.pattern.scene.pieces.forEach((piece, index) => this.piece(on, piece, index));
  }

  /** What runs on without an end, and what lies under edges that meet, over a region of the plane. */
  below(on: Drawing, region: readonly Point[], offsets: readonly Point[], width: number): void {
    const { scene } = this.use.pattern;
    for (const { element, path } of endlessOver(scene.endless, scene.lattice, region))
      this.element(on, { ...element, path });
    for (const { paint, wide, lines } of underlayLines(scene, width, offsets)) {
      const path = lines.flatMap(({ from, to }): Path => [
        { op: 'M', to: from },
        { op: 'L', to },
      ]);
      const line = { width: wide, cap: 'butt', join: 'miter', miterLimit: 4, dashes: [] } as const;
      on.stroke(path, this.colour(paint), line);
    }
    for (const picture of underlayPictures(scene, width, offsets)) this.picture(on, picture, 1);
  }

  private piece(on: Drawing, piece: Piece, index: number): void {
    on.within(null, () => {
      if (piece.window) on.clip(piece.window);
      if (piece.effects) return this.withEffects(on, index, piece.opacity);
      on.within(piece.matrix, () => {
        const [only, ...others] = piece.elements;
        if (piece.opacity >= 1) for (const one of piece.elements) this.element(on, one);
        else if (only && others.length === 0 && !(only.fill && only.stroke))
          this.element(on, { ...only, opacity: only.opacity * piece.opacity });
        else
          on.group({ opacity: piece.opacity }, (inner) => {
            for (const one of piece.elements) this.element(inner, one);
          });
      });
    });
  }

  /** Shadows and relief are no drawing in PDF: such a piece is a picture, made beforehand at the file's resolution. */
  private withEffects(on: Drawing, index: number, opacity: number): void {
    const made = this.sources.effects(this.use, index);
    if (!made) return;
    const { box, picture } = made;
    showPicture(on, `effects ${useKey(this.use)} ${index}`, picture, {
      opacity,
      matrix: { a: box.width, b: 0, c: 0, d: box.height, e: box.x, f: box.y },
    });
  }

  private element(on: Drawing, element: Element): void {
    const { path, fill, fillRule, stroke, clip, picture, opacity } = element;
    on.within(null, () => {
      if (clip) on.clip(clip.path, clip.rule);
      if (picture) {
        on.clip(path, fillRule);
        return this.picture(on, picture, opacity);
      }
      const both = fill !== null && stroke !== null && opacity < 1;
      const draw = (to: Drawing, own: number): void => {
        if (fill !== null) to.fill(path, this.ink(fill), own, fillRule);
        if (stroke) to.stroke(path, this.colour(stroke.slot), stroke, own);
      };
      if (both) on.group({ opacity }, (inner) => draw(inner, 1));
      else draw(on, opacity);
    });
  }

  private picture(on: Drawing, { asset, width, height, matrix, slots }: PicturePaint, opacity: number): void {
    const look: PictureLook | null = withColours(this.use.look, numberColours(slots, this.use.colours));
    const found = this.sources.picture({ asset, look });
    if (!found) return;
    showPicture(on, `${asset} ${look ? lookKey(look) : ''}`, found, {
      opacity,
      matrix: multiply(matrix, { a: width, b: 0, c: 0, d: height, e: 0, f: 0 }),
    });
  }

  private ink(paint: Paint): PdfInk {
    return typeof paint === 'string' ? this.colour(paint) : this.gradient(paint);
  }
  private gradient({ kind, matrix, stops, spread, focus }: GradientPaint): PdfInk {
    const { colours } = this.use;
    const own = stops.map(({ at, slot, opacity }) => ({ at, opacity, colour: colourOf(colours, slot) }));
    return { kind, matrix, spread, stops: own, inks: this.inks, ...(focus ? { focus } : {}) };
  }
  private colour(slot: string): PdfInk {
    const { colours, pattern } = this.use;
    const { inks } = this;
    return { colour: colourOf(colours, slot), inks, alone: slotOverprints(pattern.scene, slot) };
  }
}

/** How the units of a pattern repeat as a PDF pattern: the offsets of those in one cell; `null` where they must be drawn one by one. */
export function tilingOf(scene: UnitScene): Point[] | null {
  const held = tilings.get(scene);
  if (held !== undefined) return held;
  const found = findTiling(scene);
  tilings.set(scene, found);
  return found;
}
const tilings = new WeakMap<UnitScene, Point[] | null>();

function findTiling(scene: UnitScene): Point[] | null {
  const { artBox, cell, lattice, endless, abutments, meeting, pieces } = scene;
  // What meets edge to edge would show lines between tiles, and what runs on has no tile.
  if (!artBox || endless.length > 0 || abutments.length > 0 || meeting.length > 0) return null;
  // The order in which tiles lie over each other is nobody's: pieces must not reach those of other units.
  const reach = grow(artBox, 1e-3);
  const others = offsetsMeeting(lattice, reach, boxCorners(IDENTITY, reach)).filter(
    ({ x, y }) => Math.hypot(x, y) > 1e-6,
  );
  if (others.some((offset) => crosses(pieces, reach, offset))) return null;
  if (artBox.width > cell.width || artBox.height > cell.height) return null;
  return unitsIn(scene);
}

/** Whether a unit is drawn in fewer bytes than it takes to draw it apart and refer to it. */
export const isSmall = ({ pieces }: UnitScene): boolean =>
  pieces.length <= 8 &&
  pieces.every(({ effects }) => !effects) &&
  pieces.flatMap(({ elements }) => elements).reduce((sum, { path }) => sum + path.length, 0) <= 24;

/** Whether pieces of a unit and of one that lies `offset` from it meet; so many that it would take long to tell are said to. */
function crosses(pieces: readonly Piece[], art: Box, offset: Point): boolean {
  const near = pieces.filter(({ box }) => boxesMeet(box, moveBox(art, offset)));
  const moved = pieces
    .map(({ box }) => moveBox(grow(box, 1e-3), offset))
    .filter((box) => boxesMeet(box, art));
  if (near.length * moved.length > MOST_PAIRS) return true;
  return near.some(({ box }) => moved.some((other) => boxesMeet(box, other)));
}
const MOST_PAIRS = 1_000_000;

/** The offsets of the units that begin in one cell. */
function unitsIn({ cell, lattice }: UnitScene): Point[] {
  const dot: Box = { x: 0, y: 0, width: 1e-6, height: 1e-6 };
  const { a, b, c, d } = cell.matrix;
  const det = a * d - b * c;
  const inside = ({ x, y }: Point): boolean => {
    const [u, v] = [(d * x - c * y) / det / cell.width, (a * y - b * x) / det / cell.height];
    return u > -1e-6 && u < 1 - 1e-6 && v > -1e-6 && v < 1 - 1e-6;
  };
  return offsetsMeeting(lattice, dot, cellCorners(cell)).filter(inside);
}

/** What a unit draws at most, a little grown so that no edge of it is cut; `null` for one without pieces. */
export const unitBox = ({ artBox }: UnitScene): Box | null => artBox && grow(artBox, 1);

/** Where a unit is moved to. */
export const movedBy = ({ x, y }: Point): Affine => (x === 0 && y === 0 ? IDENTITY : translation(x, y));
