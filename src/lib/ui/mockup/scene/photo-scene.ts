import {
  BufferAttribute,
  BufferGeometry,
  CanvasTexture,
  LinearFilter,
  LinearMipmapLinearFilter,
  Mesh,
  OrthographicCamera,
  PlaneGeometry,
  Scene,
  ShaderMaterial,
  SRGBColorSpace,
  Vector2,
  WebGLRenderer,
} from 'three';
import type { Point } from '$lib/core/geom/point';
import type { Size } from '$lib/core/lattice/size';
import type { Standing } from '$lib/core/mockup/mockup';
import type { SurfaceGrid } from '$lib/core/mockup/photo';
import { isPlane, onPhoto, rowsOf } from '$lib/core/mockup/photo';
import type { SheetPicture } from '../draw-sheet';
import { Gathered } from './gathered';

/** A surface is drawn in so many parts each way. */
const PARTS = 48;
const ROUNDS = 8;
/** What is taken for the white of a surface: as light as all but this share of it. */
const WHITE_SHARE = 0.06;
/** The photograph is looked at for its whites with so many px a side. */
const SAMPLE = 320;

const PLACE = /* glsl */ `
  attribute vec2 share;
  varying vec2 on;
  varying vec2 photoOn;
  uniform vec2 photoSize;
  void main() {
    on = share;
    photoOn = vec2(position.x / photoSize.x, 1.0 - position.y / photoSize.y);
    gl_Position = projectionMatrix * viewMatrix * vec4(position, 1.0);
  }
`;

const ENCODE = /* glsl */ `
  vec3 encoded(vec3 linear) {
    vec3 low = linear * 12.92;
    vec3 high = 1.055 * pow(max(linear, vec3(0.0)), vec3(1.0 / 2.4)) - 0.055;
    return mix(high, low, vec3(lessThanEqual(linear, vec3(0.0031308))));
  }
`;

const PHOTO = /* glsl */ `
  ${ENCODE}
  uniform sampler2D photo;
  varying vec2 photoOn;
  void main() {
    gl_FragColor = vec4(encoded(texture(photo, photoOn).rgb), 1.0);
  }
`;

/**
 * What is printed, times how light the photograph is there against the white of the blank surface; where it is lighter than that,
 * the rest is added as a high light. Colours are linear, as light adds.
 */
const SURFACE = /* glsl */ `
  ${ENCODE}
  uniform sampler2D photo;
  uniform sampler2D picture;
  uniform sampler2D front;
  uniform vec2 edge;
  uniform vec3 white;
  uniform float light;
  uniform float gloss;
  varying vec2 on;
  varying vec2 photoOn;
  void main() {
    vec3 seen = texture(photo, photoOn).rgb;
    vec3 print = texture(picture, mix(edge, 1.0 - edge, vec2(on.x, 1.0 - on.y))).rgb;
    vec3 share = seen / white;
    vec3 lit = print * mix(vec3(1.0), min(share, vec3(1.0)), light) + gloss * max(share - 1.0, vec3(0.0)) * white;
    float shown = texture(front, photoOn).r;
    gl_FragColor = vec4(encoded(mix(seen, min(lit, vec3(1.0)), shown)), 1.0);
  }
`;

/** A photograph with what is printed laid on its surfaces. */
export class PhotoScene {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera: OrthographicCamera;
  private readonly gathered: Gathered;
  private readonly photo: CanvasTexture;
  private readonly light: { width: number; height: number; data: Uint8ClampedArray };
  private front: CanvasTexture;
  private readonly shown = new Map<
    string,
    { mesh: Mesh<BufferGeometry, ShaderMaterial>; texture: CanvasTexture }
  >();

  constructor(
    canvas: HTMLCanvasElement,
    image: CanvasImageSource & { width: number; height: number },
    private readonly size: Size,
  ) {
    this.renderer = new WebGLRenderer({
      canvas,
      antialias: false,
      alpha: false,
      preserveDrawingBuffer: true,
    });
    this.renderer.outputColorSpace = 'srgb-linear';
    this.gathered = new Gathered(this.renderer);
    const most = Math.min(this.renderer.capabilities.maxTextureSize, 4096);
    this.photo = textureOf(scaled(image, Math.min(1, most / Math.max(size.width, size.height))));
    const small = scaled(image, Math.min(1, SAMPLE / Math.max(size.width, size.height)));
    const { width, height } = small;
    this.light = { width, height, data: small.getContext('2d')!.getImageData(0, 0, width, height).data };
    this.front = this.all();
    // Rows go down, as those of pictures do.
    this.camera = new OrthographicCamera(0, size.width, 0, size.height, -1, 1);
    const plane = new PlaneGeometry(size.width, size.height).translate(size.width / 2, size.height / 2, 0);
    plane.setAttribute('share', plane.getAttribute('uv'));
    const ground = new ShaderMaterial({
      vertexShader: PLACE,
      fragmentShader: PHOTO,
      depthTest: false,
      side: 2,
      uniforms: { photo: { value: this.photo }, photoSize: { value: this.photoSize } },
    });
    const back = new Mesh(plane, ground);
    back.renderOrder = 0;
    back.frustumCulled = false;
    this.scene.add(back);
  }

  /** What lies in front of all surfaces: white where they show, black where the photograph does. */
  setFront(mask: HTMLCanvasElement | null): void {
    this.front.dispose();
    this.front = mask ? textureOf(mask) : this.all();
    this.front.colorSpace = '';
    for (const { mesh } of this.shown.values()) mesh.material.uniforms.front!.value = this.front;
    this.gathered.forget();
  }

  /** Lays a picture on a surface, or takes it off. */
  setSurface(one: Standing, picture: SheetPicture | null, order: number): void {
    this.drop(one.id);
    if (!picture || !one.grid) return;
    const texture = textureOf(picture.picture);
    texture.anisotropy = Math.min(8, this.renderer.capabilities.getMaxAnisotropy());
    const material = new ShaderMaterial({
      vertexShader: PLACE,
      fragmentShader: SURFACE,
      depthTest: false,
      side: 2,
      uniforms: {
        photo: { value: this.photo },
        photoSize: { value: this.photoSize },
        picture: { value: texture },
        front: { value: this.front },
        edge: {
          value: new Vector2(picture.bleed / picture.picture.width, picture.bleed / picture.picture.height),
        },
        white: { value: this.whiteOf(one.grid) },
        light: { value: one.grid.light },
        gloss: { value: one.grid.gloss },
      },
    });
    const mesh = new Mesh(surfaceOf(one.grid), material);
    mesh.renderOrder = order + 1;
    mesh.frustumCulled = false;
    this.scene.add(mesh);
    this.shown.set(one.id, { mesh, texture });
    this.gathered.forget();
  }

  /** The handles of a surface were moved, or its light set. */
  moveSurface({ id, grid }: Standing): void {
    const held = this.shown.get(id);
    if (!held || !grid) return;
    held.mesh.geometry.dispose();
    held.mesh.geometry = surfaceOf(grid);
    const { white, light, gloss } = held.mesh.material.uniforms;
    white!.value = this.whiteOf(grid);
    light!.value = grid.light;
    gloss!.value = grid.gloss;
    this.gathered.forget();
  }

  keepOnly(ids: ReadonlySet<string>): void {
    for (const id of this.shown.keys()) if (!ids.has(id)) this.drop(id);
  }

  draw({ width, height }: Size): void {
    this.renderer.setSize(width, height, false);
    this.gathered.fit({ width, height });
    this.camera.clearViewOffset();
    this.renderer.setRenderTarget(null);
    this.renderer.render(this.scene, this.camera);
    this.gathered.forget();
  }

  /** One more picture with soft edges over those before; false once there are enough. */
  drawFiner({ width, height }: Size): boolean {
    if (this.gathered.count >= ROUNDS) return false;
    this.renderer.setSize(width, height, false);
    this.gathered.fit({ width, height });
    this.round({ width, height }, { x: 0, y: 0, width, height });
    this.gathered.show();
    return this.gathered.count < ROUNDS;
  }

  /** A finished picture of any size, drawn in parts. */
  async still({ width, height }: Size, told: (share: number) => void): Promise<HTMLCanvasElement> {
    const whole = document.createElement('canvas');
    [whole.width, whole.height] = [width, height];
    const context = whole.getContext('2d')!;
    const part = 1024;
    const count = Math.ceil(width / part) * Math.ceil(height / part);
    let made = 0;
    for (let y = 0; y < height; y += part)
      for (let x = 0; x < width; x += part) {
        const own = { x, y, width: Math.min(part, width - x), height: Math.min(part, height - y) };
        this.gathered.forget();
        this.gathered.fit(own);
        for (let round = 0; round < ROUNDS; round += 1) this.round({ width, height }, own);
        context.putImageData(new ImageData(this.gathered.pixels(own), own.width, own.height), x, y);
        made += 1;
        told(made / count);
        await new Promise((resolve) => setTimeout(resolve, 0));
      }
    this.gathered.forget();
    return whole;
  }

  get mostTexture(): number {
    return this.renderer.capabilities.maxTextureSize;
  }

  dispose(): void {
    for (const id of [...this.shown.keys()]) this.drop(id);
    this.photo.dispose();
    this.front.dispose();
    this.gathered.dispose();
    this.renderer.dispose();
    this.renderer.forceContextLoss();
  }

  private get photoSize(): Vector2 {
    return new Vector2(this.size.width, this.size.height);
  }

  private round(size: Size, part: Point & Size): void {
    const at = this.gathered.count;
    const [x, y] = [((at * 0.61803) % 1) - 0.5, ((at / ROUNDS) % 1) - 0.5 + 0.5 / ROUNDS];
    this.camera.setViewOffset(size.width, size.height, part.x + x, part.y + y, part.width, part.height);
    this.gathered.begin({ from: 0, to: part.height });
    this.renderer.render(this.scene, this.camera);
    this.gathered.take();
    this.camera.clearViewOffset();
  }

  private all(): CanvasTexture {
    const white = document.createElement('canvas');
    white.width = white.height = 1;
    const context = white.getContext('2d')!;
    context.fillStyle = '#fff';
    context.fillRect(0, 0, 1, 1);
    const made = textureOf(white);
    made.colorSpace = '';
    return made;
  }

  private drop(id: string): void {
    const held = this.shown.get(id);
    if (!held) return;
    this.scene.remove(held.mesh);
    held.mesh.geometry.dispose();
    held.mesh.material.dispose();
    held.texture.dispose();
    this.shown.delete(id);
    this.gathered.forget();
  }

  /** The light of the blank surface where it is lit best, linear, channel by channel: its own tint counts as white. */
  private whiteOf(grid: SurfaceGrid): { x: number; y: number; z: number } {
    const at = onPhoto(grid);
    const { width, height, data } = this.light;
    const found: [number, number, number][] = [];
    for (let row = 0; row < 24; row += 1)
      for (let column = 0; column < 24; column += 1) {
        const { x, y } = at((column + 0.5) / 24, (row + 0.5) / 24);
        const [px, py] = [
          Math.floor((x / this.size.width) * width),
          Math.floor((y / this.size.height) * height),
        ];
        if (px < 0 || py < 0 || px >= width || py >= height) continue;
        const from = (py * width + px) * 4;
        found.push([toLinear(data[from]!), toLinear(data[from + 1]!), toLinear(data[from + 2]!)]);
      }
    const channel = (which: 0 | 1 | 2): number => {
      const sorted = found.map((one) => one[which]).sort((one, other) => other - one);
      return Math.max(0.02, sorted[Math.floor(sorted.length * WHITE_SHARE)] ?? 1);
    };
    return { x: channel(0), y: channel(1), z: channel(2) };
  }
}

const toLinear = (byte: number): number => {
  const value = byte / 255;
  return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
};

function scaled(image: CanvasImageSource & { width: number; height: number }, by: number): HTMLCanvasElement {
  const made = document.createElement('canvas');
  made.width = Math.max(1, Math.round(image.width * by));
  made.height = Math.max(1, Math.round(image.height * by));
  const context = made.getContext('2d', { willReadFrequently: true })!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(image, 0, 0, made.width, made.height);
  return made;
}

function textureOf(canvas: HTMLCanvasElement): CanvasTexture {
  const made = new CanvasTexture(canvas);
  made.colorSpace = SRGBColorSpace;
  made.generateMipmaps = true;
  made.minFilter = LinearMipmapLinearFilter;
  made.magFilter = LinearFilter;
  return made;
}

/** A surface as triangles on the photograph, px; those of a curved grid end at its handles, too. */
function surfaceOf(grid: SurfaceGrid): BufferGeometry {
  const columns = isPlane(grid) ? PARTS : Math.ceil(PARTS / (grid.columns - 1)) * (grid.columns - 1);
  const rows = isPlane(grid) ? PARTS : Math.ceil(PARTS / (rowsOf(grid) - 1)) * (rowsOf(grid) - 1);
  const at = onPhoto(grid);
  const places: number[] = [];
  const shares: number[] = [];
  for (let row = 0; row <= rows; row += 1)
    for (let column = 0; column <= columns; column += 1) {
      const { x, y } = at(column / columns, row / rows);
      places.push(x, y, 0);
      shares.push(column / columns, row / rows);
    }
  const index: number[] = [];
  for (let row = 0; row < rows; row += 1)
    for (let column = 0; column < columns; column += 1) {
      const first = row * (columns + 1) + column;
      const below = first + columns + 1;
      index.push(first, below, first + 1, first + 1, below, below + 1);
    }
  const made = new BufferGeometry();
  made.setAttribute('position', new BufferAttribute(new Float32Array(places), 3));
  made.setAttribute('share', new BufferAttribute(new Float32Array(shares), 2));
  made.setIndex(index);
  return made;
}
