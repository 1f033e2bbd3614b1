import { chain, scaling, type Affine } from '$lib/core/geom/affine';
import type { Hex } from '$lib/core/colour/parse';
import {
  meanScale,
  type GradientScene,
  type PatternPaint,
  type ShapePaint,
  type ShapeScene,
} from '$lib/core/scene/layout';
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
  prepare(scenes: readonly ShapeScene[], zoom: number): void {
    const wanted = new Map<string, { paint: PatternPaint; scale: number }>();
    for (const paint of scenes.flatMap(({ paints }) => paints)) {
      if (paint.kind !== 'pattern') continue;
      const key = paintKey(paint);
      const scale = Math.max(wanted.get(key)?.scale ?? 0, meanScale(paint.matrix) * zoom);
      wanted.set(key, { paint, scale });
    }
    for (const [key, { paint, scale }] of wanted) {
      const held = this.tiles.get(key);
      if (held === 'coming' || (held && held.scale > scale / 2)) continue;
      this.tiles.set(key, 'coming');
      void drawTile(paint, scale).then((tile) => this.tiles.set(key, tile));
    }
  }

  /** True where every pattern of `scenes` has its picture, and nothing needs more than a canvas fills at once. */
  ready(scenes: readonly ShapeScene[]): boolean {
    return scenes.every(
      ({ paints, masks, stroke }) =>
        masks.length === 0 &&
        stroke === null &&
        paints.every(
          (paint) =>
            paint.mask === null &&
            paint.kind !== 'picture' &&
            (paint.kind !== 'pattern' ||
              (paint.wash === null && typeof this.tiles.get(paintKey(paint)) === 'object')),
        ),
    );
  }

  /** Draws the page as the stage shows it. */
  draw(
    canvas: HTMLCanvasElement,
    scenes: readonly ShapeScene[],
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
      if (scene.paints.length === 0) continue;
      place(scene.x, scene.y);
      const path = this.path(scene.d);
      for (const paint of scene.paints) {
        context.globalCompositeOperation = paint.blend === 'normal' ? 'source-over' : paint.blend;
        this.paint(context, path, paint, patterns);
      }
    }
    context.globalCompositeOperation = 'source-over';
  }

  private paint(
    context: CanvasRenderingContext2D,
    path: Path2D,
    paint: ShapePaint,
    patterns: Map<string, CanvasPattern | null>,
  ): void {
    if (paint.kind === 'picture') return;
    if (paint.kind === 'colour') {
      fill(context, path, paint.colour, paint.opacity);
      return;
    }
    if (paint.kind === 'gradient') {
      fill(context, path, gradientOf(context, paint.gradient), paint.opacity);
      return;
    }
    // A gradient ground shows as its first colour while things move.
    if (paint.ground) fill(context, path, paint.ground.colour, paint.ground.opacity);
    const key = paintKey(paint);
    const tile = this.tiles.get(key);
    if (typeof tile !== 'object') return;
    if (!patterns.has(key)) patterns.set(key, context.createPattern(tile.picture, 'repeat'));
    const pattern = patterns.get(key);
    if (!pattern) return;
    const { cell } = paint.pattern.scene;
    const toTile = scaling(cell.width / tile.picture.width, cell.height / tile.picture.height);
    pattern.setTransform(matrixOf(chain(paint.matrix, cell.matrix, toTile)));
    fill(context, path, pattern, paint.opacity);
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

/** A gradient of a fill; a canvas has no matrix for it, so a turned radial one is drawn by its middle and rim alone. */
function gradientOf(
  context: CanvasRenderingContext2D,
  { kind, matrix, stops }: GradientScene,
): CanvasGradient {
  const { a, b, e, f } = matrix;
  const gradient =
    kind === 'linear'
      ? context.createLinearGradient(e, f, e + a, f + b)
      : context.createRadialGradient(e, f, 0, e, f, Math.hypot(a, b));
  for (const { at, colour, opacity } of stops) {
    const alpha = Math.round(opacity * 255)
      .toString(16)
      .padStart(2, '0');
    gradient.addColorStop(at, `${colour}${alpha}`);
  }
  return gradient;
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

async function drawTile(paint: PatternPaint, scale: number): Promise<Tile> {
  const { scene } = paint.pattern;
  const { width, height } = scene.cell;
  const fit = Math.min(scale * globalThis.devicePixelRatio, LARGEST_SIDE / Math.max(width, height));
  const picture = document.createElement('canvas');
  picture.width = Math.max(1, Math.round(width * fit));
  picture.height = Math.max(1, Math.round(height * fit));
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${picture.width}" height="${picture.height}" viewBox="0 0 ${width} ${height}" preserveAspectRatio="none">${throughLook(cellMarkup(scene, paint.colours, underlayWidth(fit)), paint.look)}</svg>`;
  const image = await imageOf(svg);
  picture.getContext('2d')?.drawImage(image, 0, 0);
  return { picture, scale };
}
