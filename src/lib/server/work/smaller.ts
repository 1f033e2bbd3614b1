import sharp from 'sharp';
import { done } from '../../contract/failure';
import type { Answer, Ask } from '../../contract/work';
import { pictureBytes } from './making';
import { libraryAt } from './tools';

/** A picture with so many px along its longer side (Lanczos, by libvips), for views that show it no larger. */
export async function smallerPicture({ store, asset, side }: Ask<'smaller'>): Promise<Answer<'smaller'>> {
  const file = await pictureBytes(libraryAt(store), asset);
  if (!file.ok) return file;
  const bytes = await sharp(file.value.bytes, { failOn: 'none' })
    .resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true })
    .png({ compressionLevel: 4 })
    .toBuffer();
  return done({ bytes });
}
