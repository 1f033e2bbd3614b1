import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Db } from '../db/open';
import { storeAsset } from '../repo/assets';
import { keepPhotoObject, listPhotoObjects } from '../repo/photo-objects';
import { appRoot } from '../root';
import { BLANK_PHOTOS, blankMockup } from './blank-photos';

/** Keeps the blank photographs that ship with Isle, those that are not kept yet. */
export function keepStockPhotos(db: Db): void {
  const kept = new Set(listPhotoObjects(db).map(({ name }) => name));
  for (const photo of BLANK_PHOTOS) {
    if (kept.has(photo.name)) continue;
    const bytes = readFileSync(join(appRoot(), 'photos', photo.file));
    const asset = storeAsset(db, { bytes, mediaType: 'image/jpeg', fileName: photo.file });
    const saved = keepPhotoObject(db, { name: photo.name, body: blankMockup(photo, asset) });
    if (!saved.ok) throw new Error(saved.failure.message);
  }
}
