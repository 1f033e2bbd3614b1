import { IDENTITY, chain, invert, meanScale, multiply, translation, type Affine } from '../geom/affine';
import { boxesMeet, grow, intersectBoxes, unionBoxes, type Box } from '../geom/box';
import { lookKey } from '../colour/look';
import type { InkedStroke } from '../geom/outline';
import { parsePath, type Path } from '../geom/path';
import type { Point } from '../geom/point';
import { boxCorners } from '../geom/polygon';
import { polygonPath } from '../geom/shapes';
import {
  patternRegion,
  strokeOf,
  type DrawItem,
  type DrawnMask,
  type DrawnShape,
  type Ink,
  type Layer,
  type PageItem,
  type TiledItem,
} from '../draw/list';
import { cellCorners } from '../lattice/cell';
import { offsetsMeeting } from '../lattice/meet';
import { MITER_LIMIT, type Pen } from '../recipe/layout';
import { costOver } from '../scene/cost';
import { Drawing, type Area, type PdfInk, type SoftMask } from './drawing';
import type { PdfFile } from './file';
import { boxThrough, isSolid, matrixList, type Shade } from './ink';
import { showGrey, showPicture, type PdfSources } from './picture';
import { isSmall, movedBy, tilingOf, unitBox, UnitDrawer, useKey } from './unit';

/** CSS px are 96 to the inch, points 72. */
export const PT_PER_PX = 72 / 96;

/** Copies of a unit are drawn one by one up to so many; of more the cell is repeated, cut at its edges. */
const MOST_COPIES = 20_000;
/** … and in one file up to so many, with so many segments of lines below them. */
const ALL_COPIES = 200_000;
const ALL_SEGMENTS = 2_000_000;

/** What may still be drawn copy by copy in a file, whether patterns of a page may be tilings, and outlines that were read: many shapes have the same. */
export type Room = { copies: number; segments: number; tilings: boolean; outlines: Map<string, Path> };
export const freshRoom = (): Room => ({
  ...{ copies: ALL_COPIES, segments: ALL_SEGMENTS, tilings: true },
  outlines: new Map(),
});
const MOST_OUTLINES = 200;
const LONGEST_OUTLINE = 2000;

function outlineOf(d: string, { outlines }: Room): Path {
  const held = outlines.get(d);
  if (held) return held;
  const read = parsePath(d);
  const path = read.ok ? read.path : [];
  if (d.length <= LONGEST_OUTLINE && outlines.size < MOST_OUTLINES) outlines.set(d, path);
  return path;
}
/** What lies under edges that meet is so wide, pt: two px and a half on a screen of 96 to the inch. */
const UNDERLAY_PT = 1.875;
const WHITE = '#ffffff';

/** Draws a shape with all of its layers, on a page of so many px. */
export class ShapeDrawer {
  private readonly path: Path;
  /** What its fills ink: its outline, or its words as glyphs of a font. */
  private area: Area;
  /** All that the shape can reach, with its stroke, frame px. */
  private readonly box: Box;

  constructor(
    private readonly shape: DrawnShape,
    private readonly page: Box,
    private readonly sources: PdfSources,
    private readonly room: Room,
  ) {
    this.path = outlineOf(shape.d, room);
    const run = shape.text && sources.text(shape.text);
    this.area = run && shape.text ? { ...run, matrix: shape.text.matrix } : this.path;
    const whole = (shape.stroke && unionBoxes([shape.box, shape.stroke.box])) ?? shape.box;
    this.box = grow({ ...whole, x: whole.x - shape.x, y: whole.y - shape.y }, 1);
  }

  draw(on: Drawing): void {
    const { shape, page } = this;
    const onPage = { ...this.box, x: this.box.x + shape.x, y: this.box.y + shape.y };
    if (!boxesMeet(onPage, page)) return;
    on.within(translation(shape.x, shape.y), () => this.masked(on, shape.masks));
  }

  private masked(on: Drawing, masks: readonly DrawnMask[]): void {
    const [mask, ...others] = masks;
    if (!mask) return this.layers(on);
    on.group({ mask: this.mask(on, mask) }, (inner) => this.masked(inner, others));
  }

  private layers(on: Drawing): void {
    for (const layer of this.shape.layers) this.layer(on, layer);
    const stroke = strokeOf(this.shape);
    if (stroke) new ShapeDrawer(stroke, this.page, this.sources, this.room).layers(on);
  }

  private layer(on: Drawing, { items, blend, mask }: Layer): void {
    const draw = (to: Drawing): void => {
      for (const item of items) this.item(to, item);
    };
    if (blend === 'normal' && !mask) return draw(on);
    on.group({ blend, ...(mask ? { mask: this.mask(on, mask) } : {}) }, draw);
  }

  private item(on: Drawing, item: DrawItem): void {
    switch (item.kind) {
      case 'path':
        return this.inked(on, inkOf(item.ink), item.opacity);
      case 'picture': {
        const { asset, look, width, height, opacity } = item;
        const found = this.sources.picture({ asset, look });
        if (!found) return;
        const matrix = multiply(item.matrix, { a: width, b: 0, c: 0, d: height, e: 0, f: 0 });
        const key = `${asset} ${look ? lookKey(look) : ''}`;
        return this.cut(on, (inner) => showPicture(inner, key, found, { matrix, opacity }));
      }
      case 'tiled':
        return this.tiled(on, item);
      case 'page':
        return this.cut(on, (inner) => this.within(inner, item));
    }
  }

  /** A page that lies in this one, by itself and cut at its edges. */
  private within(on: Drawing, { list, matrix, opacity }: PageItem): void {
    const page: Box = { x: 0, y: 0, width: list.width, height: list.height };
    on.group({ opacity }, (group) =>
      group.within(matrix, () => {
        group.clip(polygonPath(boxCorners(IDENTITY, page)));
        if (list.background !== null) group.rectangle(page, list.background);
        for (const shape of list.shapes) new ShapeDrawer(shape, page, this.sources, this.room).draw(group);
      }),
    );
  }

  /** The outline, filled or drawn along. */
  private inked(on: Drawing, ink: PdfInk, opacity: number): void {
    const { pen } = this.shape;
    if (pen) on.stroke(this.path, ink, lineOf(pen), opacity);
    else on.fill(this.words(), ink, opacity);
  }

  /** What is inked: words stand in a file once, whatever lies over each other in them. */
  private words(): Area {
    const { area } = this;
    this.area = this.path;
    return area;
  }

  /** Draws something that the outline cuts off; a line cuts as a mask. */
  private cut(on: Drawing, draw: (to: Drawing) => void): void {
    if (this.shape.pen) return on.group({ mask: this.outlineMask(on) }, draw);
    on.within(null, () => {
      on.clip(this.words());
      draw(on);
    });
  }

  private outlineMask(on: Drawing): SoftMask {
    const form = on.form(on.around, (inner) => this.inked(inner, WHITE, 1), { group: '/DeviceGray' });
    return { form, of: 'light' };
  }

  /** The motifs of a pattern, and the gradient over them alone where there is one. */
  private tiled(on: Drawing, item: TiledItem): void {
    const { wash, opacity } = item;
    if (!wash) {
      if (opacity >= 1) return this.motifs(on, item, 1);
      // Motifs of one pattern that lie over each other are see-through as a whole.
      return on.group({ opacity }, (inner) => this.motifs(inner, item, 1));
    }
    const form = on.form(on.around, (inner) => this.motifs(inner, item, 1), { group: on.file.rgb });
    on.group({ opacity }, (inner) => {
      if (!isSolid(wash)) inner.show(`motifs ${form.tag}`, () => form);
      inner.group({ mask: { form, of: 'opacity' } }, (over) => this.inked(over, wash, 1));
    });
  }

  private motifs(on: Drawing, item: TiledItem, opacity: number): void {
    const { scene } = item.pattern;
    const { shape } = this;
    const seen = intersectBoxes(shape.box, this.page);
    const region = seen && patternRegion(shape, item, seen);
    const art = unitBox(scene);
    if (!region || (!art && scene.endless.length === 0)) return;
    const units = this.room.tilings ? tilingOf(scene) : null;
    if (units) {
      for (const offset of units) this.inked(on, { pattern: this.tiling(on, item, offset) }, opacity);
      return;
    }
    const copies = art ? offsetsMeeting(scene.lattice, art, region) : [];
    if (!this.hasRoom(item, region, copies.length)) {
      this.inked(on, { pattern: this.cells(on, item) }, opacity);
      return;
    }
    this.cut(on, (inner) => inner.within(item.matrix, () => this.copies(inner, item, region, copies)));
  }

  /** Each copy of a unit, what runs on, and what lies under edges that meet. */
  private copies(on: Drawing, item: TiledItem, region: readonly Point[], offsets: readonly Point[]): void {
    const drawer = new UnitDrawer(this.sources, item, on.file.inks);
    drawer.below(on, region, offsets, UNDERLAY_PT / (PT_PER_PX * meanScale(item.matrix)));
    for (const offset of offsets) on.within(movedBy(offset), () => this.unit(on, item));
  }

  /** One unit, drawn once in a file and referred to. */
  private unit(on: Drawing, item: TiledItem): void {
    const art = unitBox(item.pattern.scene);
    if (!art) return;
    on.show(`unit ${useKey(item)}`, () =>
      on.form(art, (to) => new UnitDrawer(this.sources, item, on.file.inks).unit(to)),
    );
  }

  /** Whether so many copies can be drawn one by one; where they can, they are counted. */
  private hasRoom({ pattern }: TiledItem, region: readonly Point[], copies: number): boolean {
    const { scene } = pattern;
    const rows = scene.endless.length > 0 ? costOver(scene, region).segments : 0;
    const segments = rows + 2 * copies * scene.abutments.length;
    const { room } = this;
    if (copies > MOST_COPIES || copies > room.copies || segments > room.segments) return false;
    room.copies -= copies;
    room.segments -= segments;
    return true;
  }

  /** A tiling pattern of one unit of a cell, uncut: it repeats as the cell does. */
  private tiling(on: Drawing, item: TiledItem, offset: { x: number; y: number }): string {
    const { scene } = item.pattern;
    const { cell } = scene;
    const matrix = chain(on.matrix, item.matrix, movedBy(offset), cell.matrix);
    const key = `unit ${useKey(item)} ${JSON.stringify(matrix)}`;
    return on.file.resource('Pattern', key, () => {
      const art = unitBox(scene)!;
      // Within the cell the plane is unskewed, so that the steps are straight.
      const back = inverseOf(cell.matrix);
      const box = boxThrough(back, art);
      const drawing = new Drawing(on.file, box);
      drawing.within(back, () =>
        isSmall(scene)
          ? new UnitDrawer(this.sources, item, on.file.inks).unit(drawing)
          : this.unit(drawing, item),
      );
      return tilingPattern(on.file, drawing, { box, step: cell, matrix });
    });
  }

  /** A tiling pattern of a whole cell, cut at its edges: for so many copies that they cannot be drawn one by one. */
  private cells(on: Drawing, item: TiledItem): string {
    const { scene } = item.pattern;
    const { cell } = scene;
    const matrix = chain(on.matrix, item.matrix, cell.matrix);
    const key = `cell ${useKey(item)} ${JSON.stringify(matrix)}`;
    return on.file.resource('Pattern', key, () => {
      const box: Box = { x: 0, y: 0, width: cell.width, height: cell.height };
      const drawing = new Drawing(on.file, box);
      const art = unitBox(scene);
      const region = cellCorners(scene.cell);
      const copies = art ? offsetsMeeting(scene.lattice, art, region) : [];
      drawing.within(inverseOf(cell.matrix), () => this.copies(drawing, item, region, copies));
      return tilingPattern(on.file, drawing, { box, step: cell, matrix });
    });
  }

  private mask(on: Drawing, mask: DrawnMask): SoftMask {
    const group = { group: on.file.rgb };
    const { box } = this;
    switch (mask.kind) {
      case 'gradient':
        return on.opacities(shadeOf(mask.gradient));
      case 'picture': {
        const found = this.sources.picture({ asset: mask.asset, look: null });
        const { asset, width, height, inverted } = mask;
        const matrix = multiply(mask.matrix, { a: width, b: 0, c: 0, d: height, e: 0, f: 0 });
        const form = on.form(
          on.around,
          (inner) => {
            if (found) showPicture(inner, `${asset} `, found, { matrix, inverted });
          },
          group,
        );
        return { form, of: 'light' };
      }
      case 'painted': {
        const made = this.sources.mask(mask);
        const starts = mask.starts ?? 'shown';
        const form = on.form(
          on.around,
          (inner) => {
            if (starts === 'shown') inner.rectangle(grow(box, 1), WHITE);
            if (made)
              inner.within(mask.matrix, () =>
                showGrey(inner, JSON.stringify([mask.strokes, starts, made.width]), made),
              );
          },
          group,
        );
        return { form, of: 'light' };
      }
    }
  }
}

const tilingPattern = (
  file: PdfFile,
  drawing: Drawing,
  { box, step, matrix }: { box: Box; step: { width: number; height: number }; matrix: Affine },
): ReturnType<PdfFile['object']> =>
  file.stream(drawing.content, {
    Type: '/Pattern',
    PatternType: 1,
    PaintType: 1,
    TilingType: 2,
    BBox: [box.x, box.y, box.x + box.width, box.y + box.height],
    XStep: step.width,
    YStep: step.height,
    Resources: file.shared,
    Matrix: matrixList(matrix),
  });

const shadeOf = ({ kind, matrix, spread, stops }: Exclude<Ink, string>): Shade => ({
  ...{ kind, matrix, spread, stops },
});
const inkOf = (ink: Ink): PdfInk => (typeof ink === 'string' ? ink : shadeOf(ink));

const lineOf = ({ width, cap, join, dashes }: Pen): InkedStroke => ({
  ...{ width, cap, join, dashes, miterLimit: MITER_LIMIT },
});

const inverseOf = (matrix: Affine): Affine => invert(matrix) ?? IDENTITY;
