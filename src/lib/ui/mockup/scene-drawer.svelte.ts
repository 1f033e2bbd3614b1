import { browser } from '$app/environment';
import type { Hex } from '$lib/core/colour/parse';
import type { Point } from '$lib/core/geom/point';
import type { Size } from '$lib/core/lattice/size';
import type { Camera, LightSetting, Standing } from '$lib/core/mockup/mockup';
import { cutSheet } from '$lib/core/mockup/objects';
import { clamp } from '$lib/core/num/tolerance';
import { drawSheet, type PageThere, type SheetPicture } from './draw-sheet';
import type { Met, ObjectScene } from './scene/object-scene';
import { MOST_SHEET, PictureTooLarge, stillOf } from './still';

/** What a view shows now. */
export type SceneNow = {
  objects: readonly Standing[];
  pages: ReadonlyMap<string, PageThere>;
  camera: Camera;
  light: LightSetting;
  ground: Hex | null;
  /** Px of the canvas. */
  px: Size;
  /** Something on the pages is being dragged. */
  hurried: boolean;
  onrest: () => void;
};

/**
 * Sheets are drawn with so many px along their longer side, coarsely at first after each change, and anew with more where one
 * looks closely.
 */
const SIDE = 1800;
const HURRIED = 900;
const STEP = 1.7;
const WAIT = 40;
/** After so long without a movement it is drawn finer, ms. */
const REST = 140;
/** Moving pictures have so many px at first, then fewer or more by how long they are drawn, ms. */
const QUICK = { px: 300_000, least: 60_000, most: 4_000_000, slow: 26, fast: 14 };

/** Which picture of a sheet an object has: of what, and how fine. */
type Drawn = { of: PageThere; side: number; object: string; made: SheetPicture };

/** What draws in space is fetched while the page is made. */
const fetchScene = (): Promise<typeof import('./scene/object-scene')> => import('./scene/object-scene');

/** Draws a scene onto a canvas: quickly while something moves, ever finer at rest; and the sheets of its objects. */
export class SceneDrawer {
  scene: ObjectScene | null = $state.raw(null);
  fault: string | null = $state(null);
  /** The graphics were taken away and are not back yet. */
  lost = $state(false);
  /** The look that the canvas shows; `null` until all sheets are on it. */
  shownAs: string | null = $state(null);
  private canvas: HTMLCanvasElement | null = null;
  private readonly loading = browser ? fetchScene() : null;
  private readonly drawn = new Map<string, Drawn>();
  private working = false;
  private wanted: { finer: boolean } | null = null;
  private frame = 0;
  private rest: ReturnType<typeof setTimeout> | undefined;
  private quickPx = QUICK.px;
  private timing = false;
  /** While a picture is made nothing else is drawn. */
  private held = false;

  constructor(private readonly now: () => SceneNow) {}

  /** Begins on a canvas; answers what ends it. */
  start(canvas: HTMLCanvasElement): () => void {
    this.canvas = canvas;
    void this.begin(canvas);
    // The graphics may be taken away (a driver that is started again) and given back.
    const away = (event: Event): void => {
      event.preventDefault();
      this.lost = true;
    };
    const back = (): void => {
      this.lost = false;
      this.scene?.begunAnew();
      this.draw();
    };
    canvas.addEventListener('webglcontextlost', away);
    canvas.addEventListener('webglcontextrestored', back);
    return () => {
      canvas.removeEventListener('webglcontextlost', away);
      canvas.removeEventListener('webglcontextrestored', back);
      cancelAnimationFrame(this.frame);
      clearTimeout(this.rest);
      this.scene?.dispose();
      this.scene = null;
    };
  }

  private async begin(canvas: HTMLCanvasElement): Promise<void> {
    try {
      const { ObjectScene: Made } = await this.loading!;
      this.scene = new Made(canvas);
      this.fault = null;
    } catch {
      this.fault =
        'This browser draws nothing in space (WebGL 2 is missing or turned off), so the objects cannot be turned here. Everything else works.';
    }
  }

  /** Has sheets whose pages changed drawn anew, one after the other; what changes meanwhile is drawn after that. */
  want(finer: boolean): void {
    this.wanted = { finer: finer && (this.wanted?.finer ?? true) };
    if (this.working) return;
    this.working = true;
    setTimeout(() => void this.work(), this.drawn.size === 0 || this.now().hurried ? 0 : WAIT);
  }

  private async work(): Promise<void> {
    try {
      while (this.wanted && this.scene) {
        const { finer } = this.wanted;
        this.wanted = null;
        await this.sheets(this.scene, finer);
      }
      this.fault = null;
    } catch {
      this.fault = 'What is drawn on the page cannot be shown on the object just now.';
    } finally {
      this.working = false;
      this.draw();
    }
  }

  private async sheets(own: ObjectScene, finer: boolean): Promise<void> {
    const { objects, pages } = this.now();
    for (const one of objects) {
      const { id, object } = one;
      const page = pages.get(id);
      const cut = cutSheet(object);
      const before = this.drawn.get(id);
      if (!page || !cut.ok) {
        this.drawn.delete(id);
        own.setSheet(id, null);
        continue;
      }
      const side = finer ? this.sideNow(own, one) : before?.of === page ? before.side : HURRIED;
      const key = JSON.stringify(object);
      const stays = before?.of === page && before.object === key && before.side >= side;
      const made = stays
        ? before.made
        : await drawSheet(page, cut.sheet, Math.min(side, own.mostTexture - 8));
      if (!stays) this.drawn.set(id, { of: page, side, object: key, made });
      own.setSheet(id, made);
      this.draw();
      // What has changed meanwhile is drawn at once.
      if (this.wanted) return;
    }
  }

  /** How fine a sheet need be for what is seen of it. */
  private sideNow(own: ObjectScene, { object }: Standing): number {
    const cut = cutSheet(object);
    if (!cut.ok) return SIDE;
    const need = Math.max(cut.sheet.width, cut.sheet.height) * own.pxPerMm(this.now().px) * STEP;
    let side = SIDE;
    while (side < need && side < MOST_SHEET) side *= STEP;
    return Math.min(MOST_SHEET, Math.round(side));
  }

  /** Draws with the next frame, and ever finer once nothing moves. */
  draw(): void {
    if (this.frame || !this.scene) return;
    this.frame = requestAnimationFrame(() => {
      this.frame = 0;
      const { px, objects, pages, camera } = this.now();
      if (!this.scene || this.lost || px.width < 2 || px.height < 2) return;
      this.scene.drawQuick(px, Math.min(1, Math.sqrt(this.quickPx / (px.width * px.height))));
      void this.time(this.scene);
      const blank = objects.some(({ id }) => pages.has(id) && !this.drawn.has(id));
      this.shownAs = blank ? null : `${camera.turn} ${camera.raised}`;
      clearTimeout(this.rest);
      this.rest = setTimeout(() => this.finer(), REST);
    });
  }

  /** How long the graphics take for a quick picture tells how many px the next one has. */
  private async time(own: ObjectScene): Promise<void> {
    if (this.timing) return;
    this.timing = true;
    const from = performance.now();
    await own.drawn();
    const took = performance.now() - from;
    this.timing = false;
    const by = took > QUICK.slow ? 0.75 : took < QUICK.fast ? 1.15 : 1;
    this.quickPx = clamp(this.quickPx * by, QUICK.least, QUICK.most);
  }

  private finer(): void {
    const own = this.scene;
    if (this.frame || !own || this.lost || this.held) return;
    const coarse = this.now().objects.some((one) => {
      const held = this.drawn.get(one.id);
      return held !== undefined && this.sideNow(own, one) > held.side;
    });
    if (coarse && !this.working) this.want(true);
    const step = async (): Promise<void> => {
      if (this.frame || this.scene !== own || this.lost || this.held) return;
      const more = own.drawFiner(this.now().px);
      // No more is asked of the graphics than they have done: what one does meanwhile comes first.
      await own.drawn();
      if (this.frame || this.scene !== own) return;
      if (more) this.rest = setTimeout(() => void step(), 0);
      else if (!this.working) this.now().onrest();
    };
    void step();
  }

  /** A finished picture of what is seen, of any size; `ground` says whether its own is clear. */
  async still(
    size: Size,
    of: { ground: Hex | null; camera?: Camera; rounds?: number; told?: (share: number) => void },
  ): Promise<HTMLCanvasElement> {
    const own = this.scene;
    if (!own) throw new PictureTooLarge(this.fault ?? 'Nothing is drawn yet.');
    const { light, camera, ground } = this.now();
    this.held = true;
    try {
      const sheets = new Map(
        [...this.drawn].map(([id, { of: page, object }]) => [
          id,
          { page, object: JSON.parse(object) as Standing['object'] },
        ]),
      );
      return await stillOf(own, sheets, size, { light, camera, ...of });
    } finally {
      this.held = false;
      own.setLight(light, ground);
      own.look(camera);
      for (const [id, { made }] of this.drawn) own.setSheet(id, made);
      this.draw();
    }
  }

  /** A copy of what is seen now; `null` where it is not drawn finely yet. */
  seen(): HTMLCanvasElement | null {
    const { canvas } = this;
    const { px } = this.now();
    if (!canvas || !this.scene || this.lost || canvas.width !== px.width || canvas.height !== px.height)
      return null;
    const copy = document.createElement('canvas');
    [copy.width, copy.height] = [canvas.width, canvas.height];
    copy.getContext('2d')!.drawImage(canvas, 0, 0);
    return copy;
  }

  /** What lies at a place of the picture, in shares of it. */
  at(share: Point): Met | null {
    return this.scene?.at(share, this.now().px) ?? null;
  }

  /** What is drawn at a place of an object's sheet, mm: its own colour, without light and shade. */
  colourAt(id: string, sheet: Point): [number, number, number] | null {
    const made = this.drawn.get(id)?.made;
    if (!made) return null;
    const [x, y] = [sheet.x * made.px + made.bleed, sheet.y * made.px + made.bleed];
    const data = made.picture.getContext('2d')?.getImageData(Math.floor(x), Math.floor(y), 1, 1).data;
    return data ? [data[0]!, data[1]!, data[2]!] : null;
  }

  /** What is seen at a place of the picture, in shares of it. */
  seenAt(share: Point): [number, number, number] | null {
    const { canvas } = this;
    if (!canvas) return null;
    const one = document.createElement('canvas');
    [one.width, one.height] = [1, 1];
    const context = one.getContext('2d')!;
    const [x, y] = [share.x * canvas.width, share.y * canvas.height];
    context.drawImage(canvas, Math.floor(x), Math.floor(y), 1, 1, 0, 0, 1, 1);
    const { data } = context.getImageData(0, 0, 1, 1);
    return data[3] === 0 ? null : [data[0]!, data[1]!, data[2]!];
  }
}
