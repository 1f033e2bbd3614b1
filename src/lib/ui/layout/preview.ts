import { chain, invert, meanScale, scaling, type Affine } from '$lib/core/geom/affine';
import type { Hex } from '$lib/core/colour/parse';
import {
  tiledOf,
  type DrawItem,
  type DrawnShape,
  type GradientInk,
  type TiledItem,
} from '$lib/core/draw/list';
import { paintKey } from '$lib/core/svg/layout';
import { throughLook } from '$lib/core/svg/paint';
import { cellMarkup, underlayWidth } from '$lib/core/svg/pieces';
import { imageOf } from '../state/raster';
import type { View } from './view.svelte';

/** From so many moving fills on, a drag is shown by the canvas: browsers redraw as many SVG patterns too slowly. */
export const MANY = 24;
const LARGEST_SIDE = 1024;

type Tile = { picture: HTMLCanvasElement; scale: number };

/**
 * Shows a whole layout on a canvas while many fills move at once: each pattern's cell is drawn once as a picture, and
 * every fill repeats it through its own matrix. When the drag ends the stage's own drawing takes over again.
 */
export class Preview {
  private readonly tiles = new Map<string, Tile | 'coming'>();
  private readonly paths = new Map<string, Path2D>();

  /** Makes the pictures of all patterns that `scenes` show at a zoom, in the background. */
  prepare(scenes: readonly DrawnShape[], zoom: number): void {
    const wanted = new Map<string, { item: TiledItem; scale: number }>();
    for (const item of scenes.flatMap(tiledOf)) {
      const key = paintKey(item);
      const scale = Math.max(wanted.get(key)?.scale ?? 0, meanScale(item.matrix) * zoom);
      wanted.set(key, { item, scale });
    }
    for (const [key, { item, scale }] of wanted) {
      const held = this.tiles.get(key);
      if (held === 'coming' || (held && held.scale > scale / 2)) continue;
      this.tiles.set(key, 'coming');
      void drawTile(item, scale).then((tile) => this.tiles.set(key, tile));
    }
  }

  /** True where every pattern of `scenes` has its picture, and nothing needs more than a canvas fills at once. */
  ready(scenes: readonly DrawnShape[]): boolean {
    const can = (item: DrawItem): boolean =>
      item.kind === 'path' ||
      (item.kind === 'tiled' && item.wash === null && typeof this.tiles.get(paintKey(item)) === 'object');
    return scenes.every(
      ({ layers, masks, stroke }) =>
        masks.length === 0 &&
        stroke === null &&
        layers.every(({ mask, items }) => mask === null && items.every(can)),
    );
  }

  /** Draws the page as the stage shows it. */
  draw(
    canvas: HTMLCanvasElement,
    scenes: readonly DrawnShape[],
    page: { width: number; height: number; background: Hex | null },
    view: View,
  ): void {
    const context = canvas.getContext('2d');
    if (!context) return;
    const ratio = globalThis.devicePixelRatio;
    const patterns = new Map<string, CanvasPattern | null>();
    const place = (x: number, y: number): void => {
      const zoom = view.zoom * ratio;
      context.setTransform(
        zoom,
        0,
        0,
        zoom,
        (view.pan.x + x * view.zoom) * ratio,
        (view.pan.y + y * view.zoom) * ratio,
      );
    };
    context.reset();
    // The pictures have the stage's own resolution; the nearest pixel is near enough while things move.
    context.imageSmoothingEnabled = false;
    place(0, 0);
    context.beginPath();
    context.rect(0, 0, page.width, page.height);
    context.clip();
    context.fillStyle = page.background ?? '#ffffff';
    context.fill();
    for (const scene of scenes) {
      if (scene.layers.length === 0) continue;
      place(scene.x, scene.y);
      const path = this.path(scene.d);
      for (const { blend, items } of scene.layers) {
        context.globalCompositeOperation = blend === 'normal' ? 'source-over' : blend;
        for (const item of items) this.item(context, path, item, patterns);
      }
    }
    context.globalCompositeOperation = 'source-over';
  }

  private item(
    context: CanvasRenderingContext2D,
    path: Path2D,
    item: DrawItem,
    patterns: Map<string, CanvasPattern | null>,
  ): void {
    switch (item.kind) {
      case 'picture':
      case 'page':
        return;
      case 'path':
        if (typeof item.ink === 'string') fill(context, path, item.ink, item.opacity);
        else fillGradient(context, path, item.ink, item.opacity);
        return;
      case 'tiled': {
        const key = paintKey(item);
        const tile = this.tiles.get(key);
        if (typeof tile !== 'object') return;
        if (!patterns.has(key)) patterns.set(key, context.createPattern(tile.picture, 'repeat'));
        const pattern = patterns.get(key);
        if (!pattern) return;
        const { cell } = item.pattern.scene;
        const toTile = scaling(cell.width / tile.picture.width, cell.height / tile.picture.height);
        pattern.setTransform(matrixOf(chain(item.matrix, cell.matrix, toTile)));
        fill(context, path, pattern, item.opacity);
      }
    }
  }

  private path(d: string): Path2D {
    const held = this.paths.get(d);
    if (held) return held;
    if (this.paths.size > 2000) this.paths.clear();
    const path = new Path2D(d);
    this.paths.set(d, path);
    return path;
  }
}

/** Fills a path with a gradient through its own matrix: the canvas goes into its space, and the path out of it. */
function fillGradient(
  context: CanvasRenderingContext2D,
  path: Path2D,
  { kind, matrix, spread, stops }: GradientInk,
  opacity: number,
): void {
  const back = invert(matrix);
  // One that begins anew shows as its first colour while things move, as does one without any width.
  if (spread === 'repeat' || !back) return fill(context, path, stops[0]?.colour ?? 'transparent', opacity);
  const gradient =
    kind === 'linear'
      ? context.createLinearGradient(0, 0, 1, 0)
      : context.createRadialGradient(0, 0, 0, 0, 0, 1);
  for (const { at, colour, opacity: see } of stops) {
    const alpha = Math.round(see * 255)
      .toString(16)
      .padStart(2, '0');
    gradient.addColorStop(at, `${colour}${alpha}`);
  }
  const own = new Path2D();
  own.addPath(path, matrixOf(back));
  context.save();
  context.transform(matrix.a, matrix.b, matrix.c, matrix.d, matrix.e, matrix.f);
  fill(context, own, gradient, opacity);
  context.restore();
}

const matrixOf = ({ a, b, c, d, e, f }: Affine): DOMMatrix => new DOMMatrix([a, b, c, d, e, f]);

function fill(
  context: CanvasRenderingContext2D,
  path: Path2D,
  style: string | CanvasPattern | CanvasGradient,
  opacity: number,
): void {
  context.globalAlpha = opacity;
  context.fillStyle = style;
  context.fill(path);
}

async function drawTile(item: TiledItem, scale: number): Promise<Tile> {
  const { scene } = item.pattern;
  const { width, height } = scene.cell;
  const fit = Math.min(scale * globalThis.devicePixelRatio, LARGEST_SIDE / Math.max(width, height));
  const picture = document.createElement('canvas');
  picture.width = Math.max(1, Math.round(width * fit));
  picture.height = Math.max(1, Math.round(height * fit));
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${picture.width}" height="${picture.height}" viewBox="0 0 ${width} ${height}" preserveAspectRatio="none">${throughLook(cellMarkup(scene, item.colours, underlayWidth(fit)), item.look)}</svg>`;
  const image = await imageOf(svg);
  picture.getContext('2d')?.drawImage(image, 0, 0);
  return { picture, scale };
}
