import sharp from 'sharp';
import { done, fail, type Outcome } from '../../contract/failure';
import { makeUnit } from '../../core/picture/make';
import type { MadeBy } from '../../core/recipe/pictured';
import { premultiply, straighten } from '../../core/raster/alpha';
import type { Raster } from '../../core/raster/composite';
import type { Db } from '../db/open';
import { readAsset } from '../repo/assets';
import { stepsOf } from '../repo/made';

/** Makes the picture of a name by its steps, at full size, as PNG bytes. */
export async function makePicture(db: Db, hash: string): Promise<Outcome<{ bytes: Uint8Array }>> {
  const steps = stepsOf(db, hash);
  const source = steps && readAsset(db, steps.pictured.source.asset);
  if (!steps || !source) return fail('not_found', `There is no motif file “${hash}”.`, 'hash');
  return done({ bytes: await madeFrom(source.bytes, steps) });
}

async function madeFrom(bytes: Buffer, { pictured, lay }: MadeBy): Promise<Uint8Array> {
  const { data, info } = await sharp(bytes, { failOn: 'none' })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const picture: Raster = { width: info.width, height: info.height, data };
  premultiply(picture.data);
  // What was kept may be smaller than the steps say, where it was brought in again from elsewhere.
  const scale = info.width / pictured.source.width;
  const unit = makeUnit({ picture, scale }, pictured, lay);
  const clear = straighten(unit.data);
  const image = sharp(unit.data, { raw: { width: unit.width, height: unit.height, channels: 4 } });
  return (clear ? image : image.removeAlpha()).png({ compressionLevel: 6 }).toBuffer();
}
