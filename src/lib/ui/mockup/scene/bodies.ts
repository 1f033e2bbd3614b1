import {
  BufferAttribute,
  BufferGeometry,
  CanvasTexture,
  Group,
  LinearFilter,
  LinearMipmapLinearFilter,
  Mesh,
  SRGBColorSpace,
  Vector2,
  Vector3,
  type Raycaster,
  type Scene,
  type ShaderMaterial,
} from 'three';
import type { Point } from '$lib/core/geom/point';
import type { MadeOf } from '$lib/core/mockup/blanks';
import { aroundOf, type Around } from '$lib/core/mockup/camera';
import { meshOf, type Mesh as MeshData } from '$lib/core/mockup/mesh';
import type { Standing } from '$lib/core/mockup/mockup';
import { cutSheet } from '$lib/core/mockup/objects';
import type { SheetPicture } from '../draw-sheet';
import { bareSurface, printedSurface, type Shared } from './surfaces';

type Body = {
  standing: Standing;
  group: Group;
  /** What is printed lies on it; none where an object has no such part. */
  printed: Mesh<BufferGeometry, ShaderMaterial> | null;
  picture: SheetPicture | null;
  texture: CanvasTexture | null;
};

/** What a press met: the object and where on its sheet, mm. */
export type Met = { id: string; sheet: Point | null };

/** The objects of a scene as triangles, with the pictures of their sheets. */
export class Bodies {
  private readonly bodies = new Map<string, Body>();
  /** What nothing is printed on yet. */
  private readonly blank = blankTexture();

  constructor(
    private readonly scene: Scene,
    private readonly shared: Shared,
    private readonly anisotropy: number,
  ) {}

  /** Puts objects where they stand; what is the same stays as it is. */
  set(objects: readonly Standing[]): void {
    const wanted = new Set(objects.map(({ id }) => id));
    for (const [id, body] of this.bodies) {
      if (wanted.has(id)) continue;
      this.takeApart(body);
      body.texture?.dispose();
      this.bodies.delete(id);
    }
    for (const standing of objects) {
      const held = this.bodies.get(standing.id);
      if (held && sameBody(held.standing, standing)) {
        held.standing = standing;
        place(held.group, standing);
        continue;
      }
      if (held) this.takeApart(held);
      this.bodies.set(standing.id, this.build(standing, held?.picture ?? null, held?.texture ?? null));
    }
  }

  /** What is drawn on the sheet of one object; `null` is blank paper. False where it is there already. */
  setSheet(id: string, picture: SheetPicture | null): boolean {
    const held = this.bodies.get(id);
    if (!held || held.picture === picture) return false;
    held.texture?.dispose();
    held.picture = picture;
    held.texture = picture && textureOf(picture, this.anisotropy);
    if (held.printed) {
      const { picture: shown, sheetEdge } = held.printed.material.uniforms;
      shown!.value = held.texture ?? this.blank;
      (sheetEdge!.value as Vector2).copy(edgeOf(picture));
    }
    return true;
  }

  /** The box about all of it. */
  get around(): Around {
    return aroundOf([...this.bodies.values()].map(({ standing }) => standing));
  }

  /** Shows all of it, or hides it for a moment. */
  set visible(visible: boolean) {
    for (const { group } of this.bodies.values()) group.visible = visible;
  }

  /** What a ray meets first. */
  met(ray: Raycaster): Met | null {
    const groups = [...this.bodies.values()].map(({ group }) => group);
    for (const { object, face, point } of ray.intersectObjects(groups, true)) {
      const body = [...this.bodies.values()].find(({ group }) => group === object.parent);
      if (!body) continue;
      const printed = object === body.printed && face ? sheetAt(body.printed, face, point) : null;
      return { id: body.standing.id, sheet: printed };
    }
    return null;
  }

  /** What it holds on the graphics: triangles, and bytes of pictures with their smaller ones. */
  weight(): { triangles: number; bytes: number } {
    let [triangles, bytes] = [0, 0];
    for (const { group, picture } of this.bodies.values()) {
      for (const child of group.children)
        triangles += ((child as Mesh<BufferGeometry>).geometry.index?.count ?? 0) / 3;
      if (picture) bytes += (picture.picture.width * picture.picture.height * 4 * 4) / 3;
    }
    return { triangles, bytes };
  }

  dispose(): void {
    for (const body of this.bodies.values()) {
      this.takeApart(body);
      body.texture?.dispose();
    }
    this.blank.dispose();
  }

  private build(standing: Standing, picture: SheetPicture | null, texture: CanvasTexture | null): Body {
    const body: Body = { standing, group: new Group(), printed: null, picture, texture };
    const cut = cutSheet(standing.object);
    if (cut.ok) {
      const { printed, blanks } = meshOf(cut.sheet);
      const { material, bare } = standing;
      if (printed.index.length > 0) {
        const sheet = { size: new Vector2(cut.sheet.width, cut.sheet.height), edge: edgeOf(picture) };
        const surface = printedSurface(this.shared, material, bare, texture ?? this.blank, sheet);
        body.printed = new Mesh(geometryOf(printed), surface);
        body.group.add(body.printed);
      }
      for (const [of, data] of Object.entries(blanks) as [MadeOf, MeshData][])
        body.group.add(new Mesh(geometryOf(data), bareSurface(this.shared, of, bare)));
    }
    place(body.group, standing);
    this.scene.add(body.group);
    return body;
  }

  private takeApart({ group }: Body): void {
    for (const child of group.children) {
      const { geometry, material } = child as Mesh<BufferGeometry, ShaderMaterial>;
      geometry.dispose();
      material.dispose();
    }
    this.scene.remove(group);
  }
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

/** The bleed about a sheet, as shares of its picture. */
const edgeOf = (picture: SheetPicture | null): Vector2 =>
  picture
    ? new Vector2(picture.bleed / picture.picture.width, picture.bleed / picture.picture.height)
    : new Vector2();

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
  made.anisotropy = anisotropy;
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
