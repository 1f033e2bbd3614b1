import { readFile } from 'node:fs/promises';
import type { ImportedMotif } from '$lib/contract/data';
import { done } from '$lib/contract/failure';
import { scaling, translation, multiply } from '$lib/core/geom/affine';
import { CSS_PPI } from '$lib/core/num/length';
import { LIMITS } from '$lib/core/recipe/limits';
import { drawingOf, pictureElement } from '$lib/core/scene/drawing';
import { api } from '$lib/server/app/http';
import { storeAsset } from '$lib/server/repo/assets';

export const POST = api('importPicture', async ({ app, db, file, asking }) => {
  const fileName = file.name;
  const read = await app.processes.run('readPicture', { path: file.path, fileName }, asking);
  if (!read.ok) return read;
  const { ready, sourceType, width, height, ppi, clear, notes } = read.value;
  const source = storeAsset(db, { bytes: await readFile(file.path), mediaType: sourceType, fileName });
  const asset = ready ? storeAsset(db, { ...ready, bytes: Buffer.from(ready.bytes) }) : source;
  const scale = CSS_PPI / (ppi ?? CSS_PPI);
  const matrix = multiply(scaling(scale), translation(-width / 2, -height / 2));
  const picture = { asset, width, height, matrix, ...(clear ? { clear } : {}) };
  const content = drawingOf([pictureElement(picture)], source);
  const name =
    fileName
      .replace(/\.[a-z]+$/i, '')
      .slice(0, LIMITS.nameLength)
      .trim() || 'Picture';
  return done<ImportedMotif>({ asset: source, name, content, slots: [], notes });
});
