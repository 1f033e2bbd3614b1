import { Box3, Color, PerspectiveCamera, Raycaster, Scene, Vector2, Vector3, WebGLRenderer } from 'three';
import type { Hex } from '$lib/core/colour/parse';
import type { Point } from '$lib/core/geom/point';
import type { Size } from '$lib/core/lattice/size';
import { cameraPlace, LENS_ANGLE, type Around } from '$lib/core/mockup/camera';
import { FRESH_CAMERA, type Camera, type LightSetting, type Standing } from '$lib/core/mockup/mockup';
import type { SheetPicture } from '../draw-sheet';
import { Bodies, type Met } from './bodies';
import { Floor } from './floor';
import { Gathered } from './gathered';
import { raysOf } from './rig';
import { Shadows } from './shadows';
import type { Shared } from './surfaces';

export type { Met };

/** Pictures that are laid over each other for soft shadows and edges once all is at rest; fewer without graphics of its own. */
const ROUNDS = { graphics: 24, soft: 10 };
/** Each round at rest looks at every so many of its rays; without graphics of its own at fewer, of which the next has others. */
const STRIDE = { quick: 2, graphics: 1, soft: 4 };
/** At rest so many px are drawn at once, so that nothing else waits for long. */
const BAND_PX = { graphics: 2_000_000, soft: 90_000 };
/** How sharp what is seen aslant is. */
const ANISOTROPY = { graphics: 8, soft: 2 };
/** Pictures that are saved are drawn in parts of so many px each way. */
const PART = 1024;

/** Objects on a floor, drawn with WebGL onto a canvas of their own. */
export class ObjectScene {
  /** Drawn without a graphics processor: finer pictures take seconds. */
  readonly soft: boolean;
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera = new PerspectiveCamera(LENS_ANGLE, 1, 1, 1000);
  private readonly shared: Shared;
  /** The light while something moves, and that of each round at rest. */
  private readonly quick: Shadows;
  private readonly fine: Shadows;
  private readonly gathered: Gathered;
  private readonly bodies: Bodies;
  private readonly floor: Floor;
  private light: LightSetting = 'window';
  private ground: Hex | null = null;
  private looks: Camera = FRESH_CAMERA;
  private around: Around = { least: { x: 0, y: 0, z: 0 }, most: { x: 1, y: 1, z: 1 } };

  constructor(canvas: HTMLCanvasElement) {
    const ways = { antialias: false, alpha: true, premultipliedAlpha: true, preserveDrawingBuffer: true };
    this.renderer = new WebGLRenderer({ canvas, ...ways });
    // Colours are encoded by our own surfaces.
    this.renderer.outputColorSpace = 'srgb-linear';
    this.renderer.setClearColor(0, 0);
    this.soft = isSoftware(this.renderer);
    this.quick = new Shadows(this.renderer);
    this.fine = new Shadows(this.renderer);
    this.gathered = new Gathered(this.renderer);
    this.shared = {
      ...{ rays: { value: [] }, towards: { value: [] }, lights: { value: [] }, shadows: { value: null } },
      flatLight: { value: false },
      lift: { value: 1 },
      stride: { value: 1 },
    };
    this.floor = new Floor(this.renderer, this.scene, this.shared);
    const most = this.renderer.capabilities.getMaxAnisotropy();
    const sharp = Math.min(most, this.soft ? ANISOTROPY.soft : ANISOTROPY.graphics);
    this.bodies = new Bodies(this.scene, this.shared, sharp);
  }

  /** The longest side of a texture here, px. */
  get mostTexture(): number {
    return this.renderer.capabilities.maxTextureSize;
  }

  /** Puts objects where they stand; what is the same stays as it is. */
  setObjects(objects: readonly Standing[]): void {
    this.bodies.set(objects);
    this.around = this.bodies.around;
    this.floor.lieUnder(this.around);
    this.newLight();
  }

  /** What is drawn on the sheet of one object; `null` is blank paper. */
  setSheet(id: string, picture: SheetPicture | null): void {
    if (this.bodies.setSheet(id, picture)) this.gathered.forget();
  }

  setLight(light: LightSetting, ground: Hex | null): void {
    if (light === this.light && ground === this.ground) return;
    if (light !== this.light) this.newLight();
    this.light = light;
    this.ground = ground;
    this.gathered.forget();
  }

  look(camera: Camera): void {
    this.looks = camera;
    this.gathered.forget();
  }

  /** Draws once, quickly: while something moves. `share` of the px is drawn, each way. */
  drawQuick({ width, height }: Size, share: number): void {
    const size = {
      width: Math.max(1, Math.round(width * share)),
      height: Math.max(1, Math.round(height * share)),
    };
    this.size(size);
    this.useRays('quick', 0);
    this.aim(size);
    this.renderer.setRenderTarget(null);
    this.clearGround();
    this.renderer.render(this.scene, this.camera);
    this.gathered.forget();
  }

  /**
   * Draws a part of one more picture, and lays it over those before where it is whole: each has light and edges of its own.
   * False once there are enough.
   */
  drawFiner(size: Size): boolean {
    const rounds = this.soft ? ROUNDS.soft : ROUNDS.graphics;
    if (this.gathered.count >= rounds) return false;
    // The canvas keeps what it shows until all of the picture is there: another size would clear it.
    this.gathered.fit(size);
    const most = this.soft ? BAND_PX.soft : BAND_PX.graphics;
    const rows = Math.max(1, Math.floor(most / size.width));
    const from = this.gathered.rows;
    this.gatherOne(size, null, { from, to: Math.min(size.height, from + rows) });
    if (this.gathered.rows === 0) {
      this.size(size);
      this.gathered.show();
    }
    return this.gathered.count < rounds;
  }

  /** Resolves once all that was asked of the graphics is drawn. */
  async drawn(): Promise<void> {
    const context = this.renderer.getContext() as WebGL2RenderingContext;
    const fence = context.fenceSync(context.SYNC_GPU_COMMANDS_COMPLETE, 0);
    if (!fence) return;
    context.flush();
    while (context.getSyncParameter(fence, context.SYNC_STATUS) === context.UNSIGNALED) {
      if (context.isContextLost()) break;
      await new Promise((resolve) => setTimeout(resolve, 4));
    }
    context.deleteSync(fence);
  }

  /** A finished picture of any size, drawn in parts that the graphics can hold; `onPart` is told the share that is done. */
  async still(
    { width, height }: Size,
    rounds: number,
    onPart: (share: number) => Promise<void>,
  ): Promise<HTMLCanvasElement> {
    const whole = document.createElement('canvas');
    [whole.width, whole.height] = [width, height];
    const context = whole.getContext('2d')!;
    const part = Math.min(PART, this.mostTexture);
    const count = Math.ceil(width / part) * Math.ceil(height / part);
    let made = 0;
    for (let y = 0; y < height; y += part)
      for (let x = 0; x < width; x += part) {
        const own = { width: Math.min(part, width - x), height: Math.min(part, height - y) };
        this.gathered.forget();
        this.gathered.fit(own);
        for (let round = 0; round < rounds; round += 1) this.gatherOne({ width, height }, { x, y, ...own });
        context.putImageData(new ImageData(this.gathered.pixels(own), own.width, own.height), x, y);
        made += 1;
        await onPart(made / count);
      }
    this.gathered.forget();
    return whole;
  }

  /** What lies at a place of the picture, in shares from its upper left corner. */
  at(share: Point, size: Size): Met | null {
    this.aim(size);
    const ray = new Raycaster();
    ray.setFromCamera(new Vector2(share.x * 2 - 1, 1 - share.y * 2), this.camera);
    return this.bodies.met(ray);
  }

  /** Px of the picture to a mm where all stands, for pictures of sheets as fine as they are seen. */
  pxPerMm(size: Size): number {
    const { distance } = cameraPlace(this.looks, this.around, size);
    return size.height / (2 * Math.max(1, distance) * Math.tan((LENS_ANGLE * Math.PI) / 360));
  }

  /** What it holds on the graphics: triangles and bytes of pictures. */
  weight(): { triangles: number; bytes: number } {
    return this.bodies.weight();
  }

  /** After the graphics were gone: what was made on them is made anew. */
  begunAnew(): void {
    this.newLight();
  }

  dispose(): void {
    this.bodies.dispose();
    this.floor.dispose();
    this.quick.dispose();
    this.fine.dispose();
    this.gathered.dispose();
    this.renderer.dispose();
    this.renderer.forceContextLoss();
  }

  private newLight(): void {
    this.quick.round = this.fine.round = null;
    this.floor.forgetLight();
    this.gathered.forget();
  }

  /** Has all surfaces lit by the rays of a round; shadows and the floor's light are made where they do not lie ready. */
  private useRays(which: 'quick' | 'fine', round: number): void {
    const isFlat = this.light === 'flat';
    const own = this[which];
    const stride = which === 'quick' ? STRIDE.quick : this.soft ? STRIDE.soft : STRIDE.graphics;
    this.shared.flatLight!.value = isFlat;
    // Surfaces look for shadows even where they show none.
    const wanted = isFlat ? 0 : round;
    if (own.round !== wanted) {
      const { least, most } = this.around;
      const box = new Box3(new Vector3(least.x, least.y, least.z), new Vector3(most.x, most.y, most.z));
      this.floor.visible = false;
      own.make(
        this.scene,
        box,
        raysOf(isFlat ? 'even' : (this.light as 'window' | 'even'), wanted),
        wanted,
        stride,
      );
    }
    this.floor.visible = !isFlat;
    own.use(this.shared);
    this.shared.stride!.value = stride;
    this.floor.setWhole(own.whole);
    if (isFlat) return;
    this.floor.keepLight(which, round, (draw) => {
      this.bodies.visible = false;
      draw();
      this.bodies.visible = true;
    });
  }

  private size({ width, height }: Size): void {
    const now = this.renderer.getSize(new Vector2());
    if (now.x !== width || now.y !== height) this.renderer.setSize(width, height, false);
    this.gathered.fit({ width, height });
  }

  /** Draws the next of the pictures that are laid over each other, or some rows of it. */
  private gatherOne(
    size: Size,
    part: (Point & Size) | null,
    rows: { from: number; to: number } = { from: 0, to: part?.height ?? size.height },
  ): void {
    this.useRays('fine', this.gathered.count);
    this.aim(size, part, this.gathered.count);
    this.gathered.begin(rows);
    this.clearGround();
    this.renderer.render(this.scene, this.camera);
    if (rows.to >= (part?.height ?? size.height)) this.gathered.take();
    else this.gathered.goOn(rows.to);
  }

  private clearGround(): void {
    this.floor.setGround(this.ground);
    // The clear colour is written as it stands: encoded.
    const encoded = new Color().setStyle(this.ground ?? '#000000').convertLinearToSRGB();
    this.renderer.setClearColor(encoded, this.ground === null ? 0 : 1);
    this.renderer.clear(true, true, false);
  }

  /** Sets the camera by numbers, for a picture of this size, or a part of it, slid by less than a px for the round. */
  private aim(size: Size, part: (Point & Size) | null = null, round = 0): void {
    const { camera, looks } = this;
    const { eye, middle, up, near, far } = cameraPlace(looks, this.around, size);
    camera.aspect = size.width / size.height;
    camera.position.set(eye.x, eye.y, eye.z);
    camera.up.set(up.x, up.y, up.z);
    camera.near = near;
    camera.far = far;
    camera.lookAt(middle.x, middle.y, middle.z);
    const [slideX, slideY] = round === 0 ? [0, 0] : [halton(round, 2) - 0.5, halton(round, 3) - 0.5];
    camera.setViewOffset(
      size.width,
      size.height,
      (part?.x ?? 0) + slideX - looks.x * size.height,
      (part?.y ?? 0) + slideY - looks.y * size.height,
      part?.width ?? size.width,
      part?.height ?? size.height,
    );
    camera.updateMatrixWorld();
  }
}

/** Numbers of the sequence of Halton: evenly spread however many there are. */
function halton(index: number, base: number): number {
  let [rest, share, sum] = [index, 1, 0];
  while (rest > 0) {
    share /= base;
    sum += share * (rest % base);
    rest = Math.floor(rest / base);
  }
  return sum;
}

/** Whether the graphics are drawn by the processor. */
function isSoftware(renderer: WebGLRenderer): boolean {
  const context = renderer.getContext();
  const known = context.getExtension('WEBGL_debug_renderer_info');
  const name = known ? String(context.getParameter(known.UNMASKED_RENDERER_WEBGL)) : '';
  return /swiftshader|llvmpipe|software|basic render/i.test(name);
}
