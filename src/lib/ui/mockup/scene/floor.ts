import {
  Color,
  Mesh,
  OrthographicCamera,
  PlaneGeometry,
  WebGLRenderTarget,
  type Scene,
  type ShaderMaterial,
  type WebGLRenderer,
} from 'three';
import type { Hex } from '$lib/core/colour/parse';
import type { Around } from '$lib/core/mockup/camera';
import { floorSurface, linear, type Shared } from './surfaces';

/** The light on the floor is kept in so many px each way: while something moves, and for each round at rest. */
const SIDE = { quick: 256, fine: 768 };
type Which = keyof typeof SIDE;

/**
 * The floor on which all stands: its own colour where all light comes to it. That light does not depend on where one looks from, so it
 * is kept as a picture from above.
 */
export class Floor {
  private readonly mesh: Mesh<PlaneGeometry, ShaderMaterial>;
  private readonly light: Record<Which, WebGLRenderTarget>;
  /** The rounds whose light is kept. */
  private kept: Record<Which, number | null> = { quick: null, fine: null };

  constructor(
    private readonly renderer: WebGLRenderer,
    private readonly scene: Scene,
    shared: Shared,
  ) {
    const plane = new PlaneGeometry(1, 1).rotateX(-Math.PI / 2);
    plane.setAttribute('sheet', plane.getAttribute('uv'));
    this.mesh = new Mesh(plane, floorSurface(shared));
    scene.add(this.mesh);
    const made = (side: number): WebGLRenderTarget =>
      new WebGLRenderTarget(side, side, { depthBuffer: false });
    this.light = { quick: made(SIDE.quick), fine: made(SIDE.fine) };
  }

  set visible(visible: boolean) {
    this.mesh.visible = visible;
  }

  /** As far as shadows of what stands there reach: the lowest light stands no lower than half as high as it is far. */
  lieUnder({ least, most }: Around): void {
    const [x, y, z] = [most.x - least.x, most.y - least.y, most.z - least.z];
    const wide = Math.hypot(x, z) + 2 * (2.2 * y + 0.3 * Math.hypot(x, y, z));
    this.mesh.scale.set(wide, 1, wide);
    this.mesh.position.set((least.x + most.x) / 2, least.y - 0.0006 * y, (least.z + most.z) / 2);
  }

  /** Its colour, or `null` where only its shadows are seen. */
  setGround(ground: Hex | null): void {
    const { own, clear } = this.mesh.material.uniforms;
    clear!.value = ground === null;
    (own!.value as Color).copy(linear(ground ?? '#ffffff'));
  }

  /** What it gets of all light where nothing stands in the way. */
  setWhole(whole: Color): void {
    (this.mesh.material.uniforms.whole!.value as Color).copy(whole);
  }

  forgetLight(): void {
    this.kept = { quick: null, fine: null };
  }

  /** Keeps the light that comes to it in a round, and has it look for it there. What stands on it must be out of sight. */
  keepLight(which: Which, round: number, alone: (draw: () => void) => void): void {
    const { uniforms } = this.mesh.material;
    const target = this.light[which];
    if (this.kept[which] !== round) {
      this.kept[which] = round;
      uniforms.keeps!.value = true;
      uniforms.kept!.value = false;
      uniforms.picture!.value = null;
      alone(() => this.drawFromAbove(target));
      uniforms.keeps!.value = false;
      uniforms.kept!.value = true;
    }
    uniforms.picture!.value = target.texture;
  }

  dispose(): void {
    this.mesh.geometry.dispose();
    this.mesh.material.dispose();
    this.light.quick.dispose();
    this.light.fine.dispose();
  }

  private drawFromAbove(target: WebGLRenderTarget): void {
    const { renderer, mesh } = this;
    const [half, { x, y, z }] = [mesh.scale.x / 2, mesh.position];
    const above = new OrthographicCamera(-half, half, half, -half, 1, 20);
    above.position.set(x, y + 10, z);
    above.up.set(0, 0, -1);
    above.lookAt(x, y, z);
    above.updateMatrixWorld();
    renderer.setRenderTarget(target);
    renderer.setClearColor(0xffffff, 1);
    renderer.render(this.scene, above);
    renderer.setRenderTarget(null);
  }
}
