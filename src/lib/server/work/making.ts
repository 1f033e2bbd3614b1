import sharp from 'sharp';
import { done, fail, type Outcome } from '../../contract/failure';
import { numbered } from '../../core/picture/few';
import { makeUnit, type AtHand } from '../../core/picture/make';
import { resized } from '../../core/picture/size';
import { makeTexture } from '../../core/picture/texture/make';
import type { MadeBy } from '../../core/recipe/made';
import { fewOf } from '../../core/recipe/pictured';
import { premultiply, straighten } from '../../core/raster/alpha';
import type { Db } from '../db/open';
import { readAsset } from '../repo/assets';
import { madeBytes, stepsOf } from '../repo/made';

/** The bytes of a picture: a file that was brought in, what steps made and was kept, or what they make now. */
export async function pictureBytes(
  db: Db,
  hash: string,
): Promise<Outcome<{ bytes: Uint8Array; mediaType: string }>> {
  const file = readAsset(db, hash);
  if (file?.mediaType === 'image/svg+xml') return fail('not_found', `“${hash}” is no picture.`, 'hash');
  if (file) return done(file);
  const kept = madeBytes(db, hash);
  const made = kept ? done({ bytes: kept }) : await makePicture(db, hash);
  return made.ok ? done({ bytes: made.value.bytes, mediaType: 'image/png' }) : made;
}

/** Makes the picture of a name by its steps, at full size, as PNG bytes. */
export async function makePicture(db: Db, hash: string): Promise<Outcome<{ bytes: Uint8Array }>> {
  const steps = stepsOf(db, hash);
  const source = steps && (await sourceOf(db, steps));
  if (!steps || !source) return fail('not_found', `There is no motif file “${hash}”.`, 'hash');
  return done({ bytes: await madeFrom(source, steps) });
}

/** The picture that steps begin with: made from its numbers, or read. */
async function sourceOf(db: Db, { pictured }: MadeBy): Promise<AtHand | null> {
  const { asset, width, texture } = pictured.source;
  if (texture) return { picture: makeTexture(texture), scale: 1 };
  const file = readAsset(db, asset);
  if (!file) return null;
  const { data, info } = await sharp(file.bytes, { failOn: 'none' })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  premultiply(data);
  // What was kept may be smaller than the steps say, where it was brought in again from elsewhere.
  return { picture: { width: info.width, height: info.height, data }, scale: info.width / width };
}

async function madeFrom(source: AtHand, { pictured, lay }: MadeBy): Promise<Uint8Array> {
  const unit = resized(makeUnit(source, pictured, lay), pictured, lay, true);
  const clear = straighten(unit.data);
  const few = fewOf(pictured);
  if (few) unit.data.set(numbered(unit, few, lay).data);
  const image = sharp(unit.data, { raw: { width: unit.width, height: unit.height, channels: 4 } });
  return (clear ? image : image.removeAlpha()).png({ compressionLevel: 6 }).toBuffer();
}
