import sharp from 'sharp';
import { done, fail } from '../../contract/failure';
import type { Answer, Ask } from '../../contract/work';
import type { Problem } from '../../core/recipe/problem';
import { checkStrokes } from '../../core/recipe/stroke';
import { cutOut } from '../../core/picture/matte';
import { pictureBytes } from './making';
import { libraryAt } from './tools';

/** Cuts a subject out of a picture at its full size, as a PNG of what is left. */
export async function cutPicture({ store, hash, by }: Ask<'cutOut'>): Promise<Answer<'cutOut'>> {
  const problems: Problem[] = [];
  checkStrokes(by.strokes ?? [], 'strokes', problems);
  if (problems[0]) return fail('invalid', problems[0].message, 'strokes');
  const file = await pictureBytes(libraryAt(store), hash);
  if (!file.ok) return file;
  const { data, info } = await sharp(file.value.bytes, { failOn: 'none' })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const { width, height } = info;
  const made = cutOut({ width, height, data }, by);
  if (!made)
    return fail(
      'unsupported',
      'Nothing is left of the picture; move black and white, or take another channel.',
    );
  const { picture, box } = made;
  const bytes = await sharp(picture.data, { raw: { width, height, channels: 4 } })
    .extract({ left: box.x, top: box.y, width: box.width, height: box.height })
    .png({ compressionLevel: 6 })
    .toBuffer();
  return done({ bytes, ...box });
}
