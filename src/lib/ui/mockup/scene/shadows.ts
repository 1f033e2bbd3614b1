import {
  Box3,
  Color,
  DepthTexture,
  LessEqualCompare,
  Matrix4,
  MeshBasicMaterial,
  OrthographicCamera,
  UnsignedIntType,
  Vector3,
  WebGLRenderTarget,
  type Scene,
  type WebGLRenderer,
  DoubleSide,
} from 'three';
import { onFloor, RAYS, type Ray } from './rig';
import { FIELDS } from './shader';
import type { Shared } from './surfaces';

/** Px of one ray's shadows, each way. */
const SIDE = 512;
const SCALE_TO_SHARE = new Matrix4().set(0.5, 0, 0, 0.5, 0, 0.5, 0, 0.5, 0, 0, 0.5, 0.5, 0, 0, 0, 1);

/** The light of one round: its rays, and what stands in the way of each, seen along it: one square of depths for all of them. */
export class Shadows {
  /** Whose rays these are; `null` before they are made. */
  round: number | null = null;
  private readonly rays = Array.from({ length: RAYS }, () => new Matrix4());
  private readonly towards = Array.from({ length: RAYS }, () => new Vector3(0, 1, 0));
  private readonly lights = Array.from({ length: RAYS }, () => new Vector3());
  /** What a floor gets of it where nothing stands in the way. */
  readonly whole = new Color(1, 1, 1);
  private lift = 1;
  private readonly target: WebGLRenderTarget;
  private readonly camera = new OrthographicCamera();
  private readonly depthOnly = new MeshBasicMaterial({ side: DoubleSide, colorWrite: false });

  constructor(private readonly renderer: WebGLRenderer) {
    const side = SIDE * FIELDS;
    const depths = new DepthTexture(side, side, UnsignedIntType);
    depths.compareFunction = LessEqualCompare;
    this.target = new WebGLRenderTarget(side, side, { depthTexture: depths, depthBuffer: true });
  }

  /** Has the surfaces look for their light here. */
  use(shared: Shared): void {
    shared.rays!.value = this.rays;
    shared.towards!.value = this.towards;
    shared.lights!.value = this.lights;
    shared.shadows!.value = this.target.depthTexture;
    shared.lift!.value = this.lift;
  }

  /** Makes the shadows of what stands within `box`, of every so many of the rays. */
  make(scene: Scene, box: Box3, rays: readonly Ray[], round: number, stride = 1): void {
    this.round = round;
    const used = rays.filter((_, index) => index % stride === 0);
    this.whole.setRGB(...onFloor(used)).multiplyScalar(stride);
    rays.forEach(({ towards, light }, index) => {
      this.towards[index]!.copy(towards);
      this.lights[index]!.set(...light);
    });
    const { renderer, camera, target } = this;
    const middle = box.getCenter(new Vector3());
    const reach = box.getSize(new Vector3()).length() / 2 || 1;
    const before = { clear: renderer.autoClear, target: renderer.getRenderTarget() };
    renderer.autoClear = false;
    renderer.setRenderTarget(target);
    target.scissorTest = false;
    target.viewport.set(0, 0, target.width, target.height);
    renderer.setRenderTarget(target);
    renderer.clear(true, true, false);
    scene.overrideMaterial = this.depthOnly;
    rays.forEach(({ towards }, index) => {
      if (index % stride !== 0) return;
      camera.left = camera.bottom = -reach;
      camera.right = camera.top = reach;
      camera.near = 0;
      camera.far = 4 * reach;
      camera.position.copy(middle).addScaledVector(towards, 2 * reach);
      camera.up.set(0, Math.abs(towards.y) > 0.98 ? 0 : 1, Math.abs(towards.y) > 0.98 ? 1 : 0);
      camera.lookAt(middle);
      camera.updateMatrixWorld();
      camera.updateProjectionMatrix();
      const [column, row] = [index % FIELDS, Math.floor(index / FIELDS)];
      target.viewport.set(column * SIDE, row * SIDE, SIDE, SIDE);
      target.scissor.set(column * SIDE, row * SIDE, SIDE, SIDE);
      target.scissorTest = true;
      renderer.setRenderTarget(target);
      renderer.render(scene, camera);
      this.rays[index]!.copy(SCALE_TO_SHARE)
        .multiply(camera.projectionMatrix)
        .multiply(camera.matrixWorldInverse);
    });
    scene.overrideMaterial = null;
    renderer.setRenderTarget(before.target);
    renderer.autoClear = before.clear;
    // A little more than a field's pixel, so that no surface shades itself.
    this.lift = ((2 * reach) / SIDE) * 1.6;
  }

  dispose(): void {
    this.target.depthTexture?.dispose();
    this.target.dispose();
    this.depthOnly.dispose();
  }
}
