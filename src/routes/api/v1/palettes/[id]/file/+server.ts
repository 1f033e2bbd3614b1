import { tokensOf } from '$lib/core/formats/tokens';
import { paletteCss, paletteCsv, paletteSvg } from '$lib/core/formats/palette-files';
import { slug } from '$lib/core/recipe/library';
import { fileHeaders } from '$lib/server/app/files';
import { api } from '$lib/server/app/http';
import { getPalette } from '$lib/server/repo/palettes';

export const GET = api('paletteFile', ({ db, params, query }) => {
  const found = getPalette(db, params.id);
  if (!found.ok) return found;
  const palette = found.value;
  const files = {
    tokens: () => ['tokens.json', 'application/json', tokensOf([palette])],
    css: () => ['css', 'text/css', paletteCss(palette)],
    csv: () => ['csv', 'text/csv', paletteCsv(palette)],
    svg: () => ['svg', 'image/svg+xml', paletteSvg(palette)],
  } as const;
  const [ending, mediaType, text] = files[query.as as keyof typeof files]();
  const fileName = `${slug(palette.name, 'palette')}.${ending}`;
  const headers = fileHeaders({ fileName, mediaType: `${mediaType}; charset=utf-8` });
  return new Response(text, { headers });
});
