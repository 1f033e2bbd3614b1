import { keptStill } from '../mockup/kept-still';
import { ask, call, urlOf } from '../state/api';
import type { SheetItem } from '$lib/core/sheet/client-sheet';
import { swatchUrl } from '../library/say';
import { pictureOfMockup } from '../mockup/offscreen';
import { drawPalette } from './palette-picture';
import { factsOf, type SheetSources } from './sources';

/** The longer side of a picture that clients see, px. */
const CLIENT_PX = 1600;
const POLL_MS = 250;
/** A hanger shows so much of its pattern, CSS px. */
const SWATCH = { width: 640, height: 400, scale: 1 };

/** Where the picture of something can be fetched for looking at it here; `null` where it must be made. */
export function previewOf(sources: SheetSources, { kind, of }: SheetItem): string | null {
  switch (kind) {
    case 'mock-up': {
      const found = sources.mockups.find(({ id }) => id === of);
      return found ? keptStill(found) : null;
    }
    case 'layout': {
      const found = sources.layouts.find(({ id }) => id === of);
      return found
        ? urlOf('GET /layouts/{id}/svg', { id: of, query: { patterns: 'live', version: found.version } })
        : null;
    }
    case 'pattern': {
      const found = sources.patterns.find(({ id }) => id === of);
      return found ? swatchUrl(found, SWATCH.width, SWATCH.height, SWATCH.scale) : null;
    }
    default:
      return null;
  }
}

/** A finished picture of something on a sheet; `null` of words, and of what is gone. */
export async function pictureOf(
  sources: SheetSources,
  item: SheetItem,
  px: number = CLIENT_PX,
): Promise<HTMLCanvasElement | null> {
  const { aspect } = factsOf(sources, item);
  if (aspect === null) return null;
  const size =
    aspect >= 1
      ? { width: px, height: Math.round(px / aspect) }
      : { width: Math.round(px * aspect), height: px };
  switch (item.kind) {
    case 'mock-up': {
      const made = await pictureOfMockup(item.of, size);
      if (made) return made;
      const kept = previewOf(sources, item);
      return kept ? onCanvas(await loaded(kept), size) : null;
    }
    case 'palette': {
      const found = sources.palettes.find(({ id }) => id === item.of);
      return found ? drawPalette(found.colours, px) : null;
    }
    case 'strike-off':
      return onCanvas(await strikeOff(item.of), size);
    case 'layout':
    case 'pattern': {
      const address = previewOf(sources, item);
      return address ? onCanvas(await loaded(address), size) : null;
    }
    case 'note':
      return null;
  }
}

async function loaded(address: string): Promise<HTMLImageElement> {
  const image = new Image();
  image.src = address;
  await image.decode();
  return image;
}

/** An image on white, filling its size; what is beyond is cut off. */
function onCanvas(
  image: HTMLImageElement | ImageBitmap,
  size: { width: number; height: number },
): HTMLCanvasElement {
  const made = document.createElement('canvas');
  [made.width, made.height] = [size.width, size.height];
  const context = made.getContext('2d')!;
  context.fillStyle = '#ffffff';
  context.fillRect(0, 0, size.width, size.height);
  context.imageSmoothingQuality = 'high';
  const by = Math.max(size.width / image.width, size.height / image.height);
  const [width, height] = [image.width * by, image.height * by];
  context.drawImage(image, (size.width - width) / 2, (size.height - height) / 2, width, height);
  return made;
}

/** A strike-off as the server draws it. */
async function strikeOff(id: string): Promise<ImageBitmap> {
  const begun = await call('POST /strike-offs/{id}/exports', { id, body: { ppi: 96 } });
  if (!begun.ok) throw new Error(begun.failure.message);
  for (let job = begun.value; ;) {
    if (job.state === 'done') break;
    if (job.state === 'failed' || job.state === 'cancelled') throw new Error('The strike-off was not drawn.');
    await new Promise((resolve) => setTimeout(resolve, POLL_MS));
    const next = await call('GET /exports/{id}', { id: begun.value.id });
    if (!next.ok) throw new Error(next.failure.message);
    job = next.value;
  }
  const file = await ask('GET /exports/{id}/file', { id: begun.value.id });
  return createImageBitmap(await file.blob());
}
