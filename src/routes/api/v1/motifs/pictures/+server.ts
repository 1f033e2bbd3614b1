import type { ImportedMotif } from '$lib/contract/data';
import { done } from '$lib/contract/failure';
import { scaling, translation, multiply } from '$lib/core/geom/affine';
import { CSS_PPI } from '$lib/core/num/length';
import { LIMITS } from '$lib/core/recipe/limits';
import { drawingOf, pictureElement } from '$lib/core/scene/drawing';
import { api } from '$lib/server/app/http';
import { readPicture } from '$lib/server/render/picture';
import { storeAsset } from '$lib/server/repo/assets';

export const POST = api('importPicture', async ({ app, file }) => {
  const read = await readPicture(file.bytes, file.name);
  if (!read.ok) return read;
  const { bytes, mediaType, width, height, ppi, notes } = read.value;
  const source = storeAsset(app.db, {
    bytes: file.bytes,
    mediaType: read.value.sourceType,
    fileName: file.name,
  });
  const asset = bytes === file.bytes ? source : storeAsset(app.db, { bytes, mediaType, fileName: file.name });
  const scale = CSS_PPI / (ppi ?? CSS_PPI);
  const matrix = multiply(scaling(scale), translation(-width / 2, -height / 2));
  const content = drawingOf([pictureElement({ asset, width, height, matrix })], source);
  const name = file.name.replace(/\.[a-z]+$/i, '').slice(0, LIMITS.nameLength) || 'Picture';
  return done<ImportedMotif>({ asset: source, name, content, slots: [], notes });
});
