import { SvelteSet } from 'svelte/reactivity';
import { tiledOf, type DrawnShape, type TiledItem } from '$lib/core/draw/list';
import { meanScale } from '$lib/core/geom/affine';
import { isNumbered } from '$lib/core/scene/pictures';
import { paintKey } from '$lib/core/svg/layout';
import { isPlainLook } from '$lib/core/colour/look';
import { pictureAddress, picturesIn, throughLook } from '$lib/core/svg/paint';
import { cellMarkup, underlayWidth, unitMarkup } from '$lib/core/svg/pieces';

/**
 * Tiles of more device px² than this are drawn by their copies instead: Chromium's renderer draws a pattern through
 * one picture of the tile, which it makes coarser above 2048 × 2048 px and slow to redraw long before.
 */
const LARGEST_TILE = 1600 * 1600;

/** What several fills share on a stage: the base <pattern> of a drawing, or its unit for expanded drawing. */
export type Base = { id: string; kind: 'live' | 'expanded'; width: number; height: number; markup: string };

/** How a fill is drawn on the stage at a zoom. */
export function drawingKind(item: TiledItem, zoom: number): Base['kind'] {
  const { cell } = item.pattern.scene;
  const scale = meanScale(item.matrix) * zoom * (globalThis.devicePixelRatio ?? 1);
  return cell.width * cell.height * scale ** 2 > LARGEST_TILE ? 'expanded' : 'live';
}

/** Whether a fill shows pictures that are recoloured for it. */
const waits = ({ look, pattern }: TiledItem): boolean =>
  (look !== null && !isPlainLook(look)) || isNumbered(pattern.scene);

/** Keeps one base for every drawing that is on the stage, with ids that stay as long as the drawing does. */
export class Bases {
  private readonly held = new Map<string, Base>();
  private next = 0;

  /** Recoloured pictures that the browser has; a drawing waits for its own, and the last good one stays until then. */
  private readonly ready = new SvelteSet<string>();
  private readonly asked = new Set<string>();
  private readonly lastGood = new Map<string, Base>();

  constructor(private readonly prefix: string) {}

  /** What a item was last drawn with: most of many shapes stay as they are from frame to frame. */
  private readonly recent = new WeakMap<TiledItem, { zoom: number; base: Base }>();

  /** The base of a fill, made when it is first asked for. */
  of(item: TiledItem, zoom: number): Base {
    const recent = this.recent.get(item);
    if (recent?.zoom === zoom) return recent.base;
    const base = this.find(item, zoom);
    // A recoloured picture may still be on its way: it is asked for anew each time.
    if (!waits(item)) this.recent.set(item, { zoom, base });
    return base;
  }

  private find(item: TiledItem, zoom: number): Base {
    const kind = drawingKind(item, zoom);
    const underlay = kind === 'live' ? underlayWidth(meanScale(item.matrix) * zoom) : 0;
    const key = `${kind}|${paintKey(item)}|${underlay}`;
    const held = this.held.get(key) ?? this.make(key, kind, item, underlay);
    if (!waits(item)) return held;
    const drawing = `${kind}|${item.pattern.key}`;
    if (this.isReady(held)) {
      this.lastGood.set(drawing, held);
      return held;
    }
    const last = this.lastGood.get(drawing);
    if (last || !item.look) return last ?? held;
    return this.of({ ...item, look: null }, zoom);
  }

  /** True where all pictures of a drawing are at hand; asks for those that are not. */
  private isReady({ markup }: Base): boolean {
    // The server draws what the browser then fetches.
    if (typeof Image === 'undefined') return true;
    const missing = picturesIn(markup)
      .map(pictureAddress)
      .filter((address) => !this.ready.has(address));
    for (const address of missing) {
      if (this.asked.has(address)) continue;
      this.asked.add(address);
      const image = new Image();
      image.onload = () => this.ready.add(address);
      image.src = address;
    }
    return missing.length === 0;
  }

  private make(key: string, kind: Base['kind'], item: TiledItem, underlay: number): Base {
    const { scene } = item.pattern;
    const drawing =
      kind === 'live' ? cellMarkup(scene, item.colours, underlay) : unitMarkup(scene, item.colours);
    const markup = throughLook(drawing, item.look);
    const base: Base = {
      id: `${this.prefix}-${this.next++}`,
      kind,
      width: scene.cell.width,
      height: scene.cell.height,
      markup,
    };
    this.held.set(key, base);
    return base;
  }

  /** The bases that `shapes` need, each once. */
  needed(shapes: readonly DrawnShape[], zoom: number): Base[] {
    const used = new Set<Base>();
    for (const shape of shapes) for (const item of tiledOf(shape)) used.add(this.of(item, zoom));
    return [...used];
  }
}
