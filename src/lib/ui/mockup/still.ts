import type { Hex } from '$lib/core/colour/parse';
import type { Size } from '$lib/core/lattice/size';
import type { Camera, LightSetting } from '$lib/core/mockup/mockup';
import { cutSheet, type ObjectSpec } from '$lib/core/mockup/objects';
import { drawSheet, type PageThere } from './draw-sheet';
import type { ObjectScene } from './scene/object-scene';

/** The longest side of the picture of a sheet, px. */
export const MOST_SHEET = 8184;
/** Sides of a picture that is saved, px. */
export const STILL_SIDES = { least: 256, most: 8192 };
/** Pictures laid over each other for one that is saved; a large one has fewer. */
const ROUNDS = { graphics: { small: 24, large: 12 }, soft: { small: 10, large: 3 }, from: 5_000_000 };

/** Why a picture cannot be made, as a sentence. */
export class PictureTooLarge extends Error {}

type Of = {
  light: LightSetting;
  ground: Hex | null;
  camera: Camera;
  rounds?: number;
  told?: (share: number) => void;
};

/** A finished picture of what stands in a scene, its sheets drawn as finely as it shows them. */
export async function stillOf(
  scene: ObjectScene,
  sheets: ReadonlyMap<string, { page: PageThere; object: ObjectSpec }>,
  size: Size,
  { light, ground, camera, rounds, told }: Of,
): Promise<HTMLCanvasElement> {
  scene.setLight(light, ground);
  scene.look(camera);
  const most = Math.min(MOST_SHEET, scene.mostTexture - 8);
  const fine = scene.pxPerMm(size) * 1.5;
  for (const [id, { page, object }] of sheets) {
    const cut = cutSheet(object);
    if (!cut.ok) continue;
    const longer = Math.max(cut.sheet.width, cut.sheet.height);
    scene.setSheet(id, await drawSheet(page, cut.sheet, Math.min(most, Math.max(512, longer * fine))));
  }
  const of = scene.soft ? ROUNDS.soft : ROUNDS.graphics;
  const many = size.width * size.height > ROUNDS.from ? of.large : of.small;
  const made = await scene.still(
    size,
    light === 'flat' ? Math.min(12, many) : (rounds ?? many),
    async (share) => {
      told?.(share);
      await new Promise((resolve) => setTimeout(resolve, 0));
    },
  );
  return made;
}

/** A canvas as a file's bytes. */
export async function blobOf(
  canvas: HTMLCanvasElement,
  type: 'image/png' | 'image/webp' | 'image/jpeg',
): Promise<Blob> {
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, type, 0.92));
  if (!blob || blob.type !== type)
    throw new PictureTooLarge('The browser could not make so large a picture; try a smaller one.');
  return blob;
}
