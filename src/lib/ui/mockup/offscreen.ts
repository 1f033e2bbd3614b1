import type { LayoutInUse, MockupData } from '$lib/contract/data';
import type { Size } from '$lib/core/lattice/size';
import { layoutsIn } from '$lib/core/mockup/mockup';
import { call } from '../state/api';
import { pagesOf } from './pages';
import { stillOf } from './still';

/** A finished picture of a mock-up as it is now, of any size; `null` where it cannot be drawn here. */
export async function pictureOfMockup(id: string, size: Size): Promise<HTMLCanvasElement | null> {
  const found = await call<MockupData>('GET', `/mock-ups/${id}`);
  if (!found.ok) return null;
  const { body } = found.value;
  const used: LayoutInUse[] = [];
  for (const layout of layoutsIn(body)) {
    const answer = await call<LayoutInUse>('GET', `/layouts/${layout}`);
    if (answer.ok) used.push(answer.value);
  }
  const { ObjectScene } = await import('./scene/object-scene');
  let scene;
  try {
    scene = new ObjectScene(document.createElement('canvas'));
  } catch {
    return null;
  }
  try {
    scene.setObjects(body.objects);
    const pages = pagesOf(body.objects, used);
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
