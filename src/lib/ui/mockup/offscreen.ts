import type { LayoutInUse } from '$lib/contract/data';
import type { Size } from '$lib/core/lattice/size';
import { layoutsIn, type Mockup } from '$lib/core/mockup/mockup';
import type { Photo } from '$lib/core/mockup/photo';
import { call, urlOf } from '../state/api';
import { pagesOf } from './pages';
import { frontOf, photoStill } from './photo-still';
import { stillOf } from './still';

/** A finished picture of a mock-up as it is now, of any size; `null` where it cannot be drawn here. */
export async function pictureOfMockup(id: string, size: Size): Promise<HTMLCanvasElement | null> {
  const found = await call('GET /mock-ups/{id}', { id });
  if (!found.ok) return null;
  const { body } = found.value;
  const used: LayoutInUse[] = [];
  for (const layout of layoutsIn(body)) {
    const answer = await call('GET /layouts/{id}', { id: layout });
    if (answer.ok) used.push(answer.value);
  }
  const pages = pagesOf(body.objects, used);
  if (body.photo) return onPhotograph(body, body.photo, pages, size);
  const { ObjectScene } = await import('./scene/object-scene');
  let scene;
  try {
    scene = new ObjectScene(document.createElement('canvas'));
  } catch {
    return null;
  }
  try {
    scene.setObjects(body.objects);
    const sheets = new Map(
      body.objects.flatMap(({ id: own, object }) => {
        const page = pages.get(own);
        return page ? [[own, { page, object }] as const] : [];
      }),
    );
    const { light, ground, camera } = body;
    return await stillOf(scene, sheets, size, { light, ground, camera, rounds: scene.soft ? 8 : 24 });
  } finally {
    scene.dispose();
  }
}

/** A picture of a mock-up on a photograph; `null` where the photograph cannot be had, or nothing can be drawn on it. */
async function onPhotograph(
  body: Mockup,
  photo: Photo,
  pages: ReturnType<typeof pagesOf>,
  size: Size,
): Promise<HTMLCanvasElement | null> {
  const image = new Image();
  image.src = urlOf('GET /motifs/{hash}', { hash: photo.asset });
  const { PhotoScene } = await import('./scene/photo-scene');
  let scene;
  try {
    await image.decode();
    scene = new PhotoScene(document.createElement('canvas'), image, photo);
  } catch {
    return null;
  }
  try {
    scene.setFront(frontOf(photo, photo.strokes));
    return await photoStill(scene, body, pages, size);
  } finally {
    scene.dispose();
  }
}
