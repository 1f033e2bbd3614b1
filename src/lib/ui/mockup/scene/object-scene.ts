import {
  Box3,
  BufferAttribute,
  BufferGeometry,
  Color,
  Group,
  LinearFilter,
  LinearMipmapLinearFilter,
  Mesh,
  OrthographicCamera,
  PerspectiveCamera,
  PlaneGeometry,
  Raycaster,
  Scene,
  SRGBColorSpace,
  CanvasTexture,
  Vector2,
  Vector3,
  WebGLRenderer,
  WebGLRenderTarget,
  type ShaderMaterial,
} from 'three';
import type { Point } from '$lib/core/geom/point';
import type { Size } from '$lib/core/lattice/size';
import type { MadeOf } from '$lib/core/mockup/blanks';
import { meshOf, type Mesh as MeshData } from '$lib/core/mockup/mesh';
import { aroundOf, cameraPlace, LENS_ANGLE, type Around } from '$lib/core/mockup/camera';
import { FRESH_CAMERA, type Camera, type LightSetting, type Standing } from '$lib/core/mockup/mockup';
import { cutSheet } from '$lib/core/mockup/objects';
import type { Hex } from '$lib/core/colour/parse';
import type { SheetPicture } from '../draw-sheet';
import { Gathered } from './gathered';
import { raysOf } from './rig';
import { Shadows } from './shadows';
import { bareSurface, floorSurface, linear, printedSurface, type Shared } from './surfaces';

/** Pictures that are laid over each other for soft shadows and edges once all is at rest; fewer without graphics of its own. */
const ROUNDS = { graphics: 24, soft: 10 };
/** The light on the floor is kept in so many px each way: while something moves, and for each round at rest. */
const FLOOR_SIDE = { quick: 256, fine: 768 };
/** Each round at rest looks at every so many of its rays; without graphics of its own at fewer, of which the next has others. */
const STRIDE = { quick: 2, graphics: 1, soft: 4 };
/** At rest so many px are drawn at once, so that nothing else waits for long. */
const BAND_PX = { graphics: 2_000_000, soft: 90_000 };

type Shown = {
  standing: Standing;
  group: Group;
  picture: SheetPicture | null;
  texture: CanvasTexture | null;
};

/** What a click met: the object and where on its sheet, mm. */
export type Met = { id: string; sheet: Point | null };

/** Objects on a floor, drawn with WebGL onto a canvas of their own. */
export class ObjectScene {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera = new PerspectiveCamera(LENS_ANGLE, 1, 1, 1000);
  /** The light while something moves, and that of each round at rest. */
  private readonly quick: Shadows;
  private readonly fine: Shadows;
  private readonly gathered: Gathered;
  private readonly shared: Shared;
  private readonly floor: Mesh<PlaneGeometry, ShaderMaterial>;
  private readonly floorLight: { quick: WebGLRenderTarget; fine: WebGLRenderTarget };
  /** What nothing is printed on yet. */
  private readonly blank = blankTexture();
  /** Drawn without a graphics processor: finer pictures take seconds. */
  readonly soft: boolean;
  private readonly shown = new Map<string, Shown>();
  private light: LightSetting = 'window';
  private ground: Hex | null = null;
  private looks: Camera | null = null;
  private readonly box = new Box3();
  private get around(): Around {
    return { least: this.box.min, most: this.box.max };
  }
  /** The rounds whose light on the floor is kept. */
  private floorKept: { quick: number | null; fine: number | null } = { quick: null, fine: null };

  constructor(canvas: HTMLCanvasElement) {
    this.renderer = new WebGLRenderer({
      canvas,
      antialias: false,
      alpha: true,
      premultipliedAlpha: true,
      preserveDrawingBuffer: true,
    });
    // Colours are encoded by our own surfaces.
    this.renderer.outputColorSpace = 'srgb-linear';
    this.renderer.setClearColor(0, 0);
    this.quick = new Shadows(this.renderer);
    this.fine = new Shadows(this.renderer);
    this.gathered = new Gathered(this.renderer);
    this.shared = {
      ...{ rays: { value: [] }, towards: { value: [] }, lights: { value: [] }, shadows: { value: null } },
      flatLight: { value: false },
      lift: { value: 1 },
      stride: { value: 1 },
    };
    const plane = new PlaneGeometry(1, 1).rotateX(-Math.PI / 2);
    plane.setAttribute('sheet', plane.getAttribute('uv'));
    this.floor = new Mesh(plane, floorSurface(this.shared));
    const light = (side: number): WebGLRenderTarget =>
      new WebGLRenderTarget(side, side, { depthBuffer: false });
    this.floorLight = { quick: light(FLOOR_SIDE.quick), fine: light(FLOOR_SIDE.fine) };
    this.scene.add(this.floor);
    this.soft = isSoftware(this.renderer);
  }

  /** The longest side of a texture here, px. */
  get mostTexture(): number {
    return this.renderer.capabilities.maxTextureSize;
  }

  /** Puts objects where they stand; what is the same stays as it is. */
  setObjects(objects: readonly Standing[]): void {
    const wanted = new Map(objects.map((one) => [one.id, one]));
    for (const [id, { group, texture }] of this.shown) {
      if (wanted.has(id)) continue;
      dispose(group);
      texture?.dispose();
      this.scene.remove(group);
      this.shown.delete(id);
    }
    for (const standing of objects) {
      const held = this.shown.get(standing.id);
      if (held && sameBody(held.standing, standing)) {
        held.standing = standing;
        place(held.group, standing);
        continue;
      }
      if (held) {
        dispose(held.group);
        this.scene.remove(held.group);
      }
      const fresh: Shown = {
        standing,
        group: new Group(),
        picture: held?.picture ?? null,
        texture: held?.texture ?? null,
      };
      this.build(fresh);
      place(fresh.group, standing);
      this.scene.add(fresh.group);
      this.shown.set(standing.id, fresh);
    }
    this.measure();
    this.newLight();
  }

  /** What is drawn on the sheet of one object; `null` is blank paper. */
  setSheet(id: string, picture: SheetPicture | null): void {
    const held = this.shown.get(id);
    if (!held || held.picture === picture) return;
    held.texture?.dispose();
    held.picture = picture;
    held.texture =
      picture && textureOf(picture, this.soft ? 2 : this.renderer.capabilities.getMaxAnisotropy());
    dispose(held.group);
    held.group.clear();
    this.build(held);
    this.gathered.forget();
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
    this.useRays(this.quick, 0, STRIDE.quick);
    this.keepFloor('quick', 0);
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
    this.size(size);
    const most = this.soft ? BAND_PX.soft : BAND_PX.graphics;
    const rows = Math.max(1, Math.floor(most / size.width));
    const from = this.gathered.rows;
    this.gatherOne(size, null, { from, to: Math.min(size.height, from + rows) });
    if (this.gathered.rows === 0) this.gathered.show();
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
    const part = Math.min(1024, this.renderer.capabilities.maxTextureSize);
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
    this.newLight();
    return whole;
  }

  /** What lies at a place of the picture, in shares from its upper left corner. */
  at(share: Point, size: Size): Met | null {
    this.aim(size);
    const ray = new Raycaster();
    ray.setFromCamera(new Vector2(share.x * 2 - 1, 1 - share.y * 2), this.camera);
    for (const { object, face, point } of ray.intersectObjects(
      [...this.shown.values()].map(({ group }) => group),
      true,
    )) {
      const id = object.parent?.userData.id as string | undefined;
      if (id === undefined) continue;
      const printed = object.userData.printed === true && face !== null && face !== undefined;
      return { id, sheet: printed ? sheetAt(object as Mesh, face, point) : null };
    }
    return null;
  }

  /** Px of the picture to a mm where all stands, for pictures of sheets as fine as they are seen. */
  pxPerMm(size: Size): number {
    this.aim(size);
    const far = this.camera.position.distanceTo(this.box.getCenter(new Vector3()));
    return size.height / (2 * Math.max(1, far) * Math.tan((LENS_ANGLE * Math.PI) / 360));
  }

  /** What it holds on the graphics: triangles and bytes of pictures. */
  weight(): { triangles: number; bytes: number } {
    let [triangles, bytes] = [0, 0];
    for (const { group, picture } of this.shown.values()) {
      for (const child of group.children)
        triangles += ((child as Mesh<BufferGeometry>).geometry.index?.count ?? 0) / 3;
      if (picture) bytes += (picture.picture.width * picture.picture.height * 4 * 4) / 3;
    }
    return { triangles, bytes };
  }

  /** After the graphics were gone: what was made on them is made anew. */
  begunAnew(): void {
    this.newLight();
    this.gathered.forget();
  }

  dispose(): void {
    for (const { group, texture } of this.shown.values()) {
      dispose(group);
      texture?.dispose();
    }
    this.floor.geometry.dispose();
    this.floor.material.dispose();
    this.floorLight.quick.dispose();
    this.floorLight.fine.dispose();
    this.blank.dispose();
    this.quick.dispose();
    this.fine.dispose();
    this.gathered.dispose();
    this.renderer.dispose();
    this.renderer.forceContextLoss();
  }

  private build({ group, standing, texture, picture }: Shown): void {
    const cut = cutSheet(standing.object);
    if (!cut.ok) return;
    group.userData.id = standing.id;
    const { printed, blanks } = meshOf(cut.sheet);
    const size = new Vector2(cut.sheet.width, cut.sheet.height);
    if (printed.index.length > 0) {
      const edge = picture
        ? new Vector2(picture.bleed / picture.picture.width, picture.bleed / picture.picture.height)
        : new Vector2();
      const { material, bare } = standing;
      const surface = printedSurface(this.shared, material, bare, texture ?? this.blank, { size, edge });
      const mesh = new Mesh(geometryOf(printed), surface);
      mesh.userData.printed = true;
      group.add(mesh);
    }
    for (const [of, data] of Object.entries(blanks) as [MadeOf, MeshData][])
      group.add(new Mesh(geometryOf(data), bareSurface(this.shared, of, standing.bare)));
  }

  private measure(): void {
    const { least, most } = aroundOf([...this.shown.values()].map(({ standing }) => standing));
    this.box.set(new Vector3(least.x, least.y, least.z), new Vector3(most.x, most.y, most.z));
    const size = this.box.getSize(new Vector3());
    const middle = this.box.getCenter(new Vector3());
    // As far as shadows reach: the lowest light stands no lower than half as high as it is far.
    const wide = Math.hypot(size.x, size.z) + 2 * (2.2 * size.y + 0.3 * size.length());
    this.floor.scale.set(wide, 1, wide);
    this.floor.position.set(middle.x, this.box.min.y - 0.0006 * size.y, middle.z);
  }

  private newLight(): void {
    this.quick.round = this.fine.round = null;
    this.floorKept = { quick: null, fine: null };
    this.gathered.forget();
  }

  /** Has all surfaces lit by the rays of a round; its shadows are made where they do not lie ready. */
  private useRays(own: Shadows, round: number, stride: number): void {
    this.floor.visible = this.light !== 'flat';
    this.shared.flatLight!.value = this.light === 'flat';
    // Surfaces look for shadows even where they show none.
    const wanted = this.light === 'flat' ? 0 : round;
    if (own.round !== wanted) {
      const rays = raysOf(this.light === 'flat' ? 'even' : this.light, wanted);
      this.floor.visible = false;
      own.make(this.scene, this.box, rays, wanted, stride);
      this.floor.visible = this.light !== 'flat';
    }
    own.use(this.shared);
    this.shared.stride!.value = stride;
    (this.floor.material.uniforms.whole!.value as Color).copy(own.whole);
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
    this.useRays(this.fine, this.gathered.count, this.soft ? STRIDE.soft : STRIDE.graphics);
    this.keepFloor('fine', this.gathered.count);
    this.aim(size, part, this.gathered.count);
    this.gathered.begin(rows);
    this.clearGround();
    this.renderer.render(this.scene, this.camera);
    if (rows.to >= (part?.height ?? size.height)) this.gathered.take();
    else this.gathered.goOn(rows.to);
  }

  /** Keeps the light that comes to the floor in a round, as a picture from above, and has the floor look for it there. */
  private keepFloor(which: 'quick' | 'fine', round: number): void {
    const { picture: shown } = this.floor.material.uniforms;
    shown!.value = this.floorLight[which].texture;
    if (this.floorKept[which] === round || this.light === 'flat') return;
    this.floorKept[which] = round;
    const { floor, renderer } = this;
    const [half, { x, y, z }] = [floor.scale.x / 2, floor.position];
    const above = new OrthographicCamera(-half, half, half, -half, 1, 20);
    above.position.set(x, y + 10, z);
    above.up.set(0, 0, -1);
    above.lookAt(x, y, z);
    above.updateMatrixWorld();
    const alone = [...this.shown.values()].map(({ group }) => group);
    for (const group of alone) group.visible = false;
    const { keeps, kept, picture } = floor.material.uniforms;
    keeps!.value = true;
    kept!.value = false;
    picture!.value = null;
    renderer.setRenderTarget(this.floorLight[which]);
    renderer.setClearColor(0xffffff, 1);
    renderer.render(this.scene, above);
    renderer.setRenderTarget(null);
    keeps!.value = false;
    kept!.value = true;
    picture!.value = this.floorLight[which].texture;
    for (const group of alone) group.visible = true;
  }

  private clearGround(): void {
    const { own, clear } = this.floor.material.uniforms;
    clear!.value = this.ground === null;
    (own!.value as Color).copy(linear(this.ground ?? '#ffffff'));
    // The clear colour is written as it stands: encoded.
    const encoded = new Color().setStyle(this.ground ?? '#000000').convertLinearToSRGB();
    this.renderer.setClearColor(encoded, this.ground === null ? 0 : 1);
    this.renderer.clear(true, true, false);
  }

  /** Sets the camera by numbers, for a picture of this size, or a part of it, slid by less than a px for the round. */
  private aim(size: Size, part: (Point & Size) | null = null, round = 0): void {
    const { camera } = this;
    const looks = this.looks ?? FRESH_CAMERA;
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

const sameBody = (one: Standing, other: Standing): boolean =>
  one.material === other.material &&
  one.bare === other.bare &&
  one.object.kind === other.object.kind &&
  JSON.stringify(one.object.numbers) === JSON.stringify(other.object.numbers);

function place(group: Group, { x, z, turn }: Standing): void {
  group.position.set(x, 0, z);
  group.rotation.y = (turn * Math.PI) / 180;
  group.updateMatrixWorld(true);
}

function geometryOf({ places, normals, sheet, index }: MeshData): BufferGeometry {
  const made = new BufferGeometry();
  const on = sheet.length > 0 ? sheet : new Array<number>((places.length / 3) * 2).fill(0);
  made.setAttribute('position', new BufferAttribute(new Float32Array(places), 3));
  made.setAttribute('normal', new BufferAttribute(new Float32Array(normals), 3));
  made.setAttribute('sheet', new BufferAttribute(new Float32Array(on), 2));
  made.setIndex(new BufferAttribute(new Uint32Array(index), 1));
  return made;
}

function textureOf({ picture }: SheetPicture, anisotropy: number): CanvasTexture {
  const made = new CanvasTexture(picture);
  made.colorSpace = SRGBColorSpace;
  made.generateMipmaps = true;
  made.minFilter = LinearMipmapLinearFilter;
  made.magFilter = LinearFilter;
  made.anisotropy = Math.min(8, anisotropy);
  return made;
}

function blankTexture(): CanvasTexture {
  const white = document.createElement('canvas');
  white.width = white.height = 1;
  const context = white.getContext('2d')!;
  context.fillStyle = '#f4f1ea';
  context.fillRect(0, 0, 1, 1);
  const made = new CanvasTexture(white);
  made.colorSpace = SRGBColorSpace;
  return made;
}

/** Where on the sheet a place on a printed triangle lies, by the shares of its corners. */
function sheetAt(mesh: Mesh, face: { a: number; b: number; c: number }, place: Vector3): Point {
  const own = mesh.worldToLocal(place.clone());
  const { position, sheet } = mesh.geometry.attributes as Record<string, BufferAttribute>;
  const corner = (at: number): Vector3 => new Vector3().fromBufferAttribute(position!, at);
  const [a, b, c] = [corner(face.a), corner(face.b), corner(face.c)];
  const [ab, ac, ap] = [b.sub(a), c.sub(a), own.sub(a)];
  const [d00, d01, d11, d20, d21] = [ab.dot(ab), ab.dot(ac), ac.dot(ac), ap.dot(ab), ap.dot(ac)];
  const whole = d00 * d11 - d01 * d01;
  const v = (d11 * d20 - d01 * d21) / whole;
  const w = (d00 * d21 - d01 * d20) / whole;
  const mix = (get: (at: number) => number): number =>
    get(face.a) * (1 - v - w) + get(face.b) * v + get(face.c) * w;
  return { x: mix((at) => sheet!.getX(at)), y: mix((at) => sheet!.getY(at)) };
}

function dispose(group: Group): void {
  for (const child of group.children) {
    const { geometry, material } = child as Mesh<BufferGeometry, ShaderMaterial>;
    geometry.dispose();
    material.dispose();
  }
}

/** Whether the graphics are drawn by the processor. */
function isSoftware(renderer: WebGLRenderer): boolean {
  const context = renderer.getContext();
  const known = context.getExtension('WEBGL_debug_renderer_info');
  const name = known ? String(context.getParameter(known.UNMASKED_RENDERER_WEBGL)) : '';
  return /swiftshader|llvmpipe|software|basic render/i.test(name);
}
