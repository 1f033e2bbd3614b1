import {
  AdditiveBlending,
  CustomBlending,
  HalfFloatType,
  Mesh,
  NearestFilter,
  NoBlending,
  OneFactor,
  OrthographicCamera,
  PlaneGeometry,
  Scene,
  ShaderMaterial,
  WebGLRenderTarget,
  type WebGLRenderer,
} from 'three';
import type { Size } from '$lib/core/lattice/size';
import { ONTO, SHARE } from './shader';

/** Pictures laid over each other, each by an equal share: light and edges of all of them come out soft. */
export class Gathered {
  count = 0;
  private readonly one: WebGLRenderTarget;
  private readonly sum: WebGLRenderTarget;
  private readonly out: WebGLRenderTarget;
  private readonly adding: ShaderMaterial;
  private readonly writing: ShaderMaterial;
  private readonly quad: Mesh<PlaneGeometry, ShaderMaterial>;
  private readonly scene = new Scene();
  private readonly camera = new OrthographicCamera();

  constructor(private readonly renderer: WebGLRenderer) {
    const plain = { minFilter: NearestFilter, magFilter: NearestFilter } as const;
    this.one = new WebGLRenderTarget(1, 1, { ...plain, depthBuffer: true });
    this.sum = new WebGLRenderTarget(1, 1, { ...plain, type: HalfFloatType, depthBuffer: false });
    this.out = new WebGLRenderTarget(1, 1, { ...plain, depthBuffer: false });
    const surface = (blending: typeof AdditiveBlending | typeof NoBlending): ShaderMaterial =>
      new ShaderMaterial({
        vertexShader: ONTO,
        fragmentShader: SHARE,
        uniforms: { picture: { value: null }, share: { value: 1 } },
        depthTest: false,
        depthWrite: false,
        ...(blending === NoBlending
          ? { blending }
          : { blending: CustomBlending, blendSrc: OneFactor, blendDst: OneFactor, transparent: true }),
      });
    this.adding = surface(AdditiveBlending);
    this.writing = surface(NoBlending);
    this.quad = new Mesh(new PlaneGeometry(2, 2), this.adding);
    this.quad.frustumCulled = false;
    this.scene.add(this.quad);
  }

  /** The rows of the next picture that are drawn already. */
  rows = 0;

  forget(): void {
    this.count = 0;
    this.rows = 0;
  }

  fit({ width, height }: Size): void {
    if (this.one.width === width && this.one.height === height) return;
    for (const target of [this.one, this.sum, this.out]) target.setSize(width, height);
    this.forget();
  }

  /** Some rows of the next picture are drawn into a place of its own. */
  begin({ from, to }: { from: number; to: number }): void {
    this.one.scissorTest = true;
    this.one.scissor.set(0, from, this.one.width, to - from);
    this.renderer.setRenderTarget(this.one);
  }
  goOn(rows: number): void {
    this.rows = rows;
  }

  /** Lays what was drawn over the others. */
  take(): void {
    const { renderer } = this;
    renderer.setRenderTarget(this.sum);
    const before = renderer.autoClear;
    renderer.autoClear = false;
    if (this.count === 0) {
      renderer.setClearColor(0, 0);
      renderer.clear(true, false, false);
    }
    this.draw(this.adding, this.one, 1);
    this.rows = 0;
    renderer.autoClear = before;
    this.count += 1;
  }

  /** Puts all of them together onto the canvas. */
  show(): void {
    this.renderer.setRenderTarget(null);
    this.draw(this.writing, this.sum, 1 / Math.max(1, this.count));
  }

  /** All of them together as pixels from the upper left corner, not premultiplied. */
  pixels({ width, height }: Size): Uint8ClampedArray<ArrayBuffer> {
    this.renderer.setRenderTarget(this.out);
    this.draw(this.writing, this.sum, 1 / Math.max(1, this.count));
    const read = new Uint8Array(width * height * 4);
    this.renderer.readRenderTargetPixels(this.out, 0, 0, width, height, read);
    this.renderer.setRenderTarget(null);
    const made = new Uint8ClampedArray(width * height * 4);
    for (let y = 0; y < height; y += 1) {
      const [from, to] = [(height - 1 - y) * width * 4, y * width * 4];
      for (let at = 0; at < width * 4; at += 4) {
        const alpha = read[from + at + 3]!;
        const by = alpha === 0 ? 0 : 255 / alpha;
        made[to + at] = read[from + at]! * by;
        made[to + at + 1] = read[from + at + 1]! * by;
        made[to + at + 2] = read[from + at + 2]! * by;
        made[to + at + 3] = alpha;
      }
    }
    return made;
  }

  dispose(): void {
    for (const target of [this.one, this.sum, this.out]) target.dispose();
    this.adding.dispose();
    this.writing.dispose();
    this.quad.geometry.dispose();
  }

  private draw(surface: ShaderMaterial, from: WebGLRenderTarget, share: number): void {
    surface.uniforms.picture!.value = from.texture;
    surface.uniforms.share!.value = share;
    this.quad.material = surface;
    this.renderer.render(this.scene, this.camera);
  }
}
