import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { addFont, listFonts } from '$lib/server/repo/fonts';

export const GET = api('listFonts', ({ db }) => done(listFonts(db)));

export const POST = api('addFont', async ({ app, db, file, query, asking }) => {
  const read = await app.processes.run('readFont', { path: file.path, fileName: file.name }, asking);
  if (!read.ok) return read;
  const { name, bytes } = read.value;
  return addFont(db, { name, licence: query.licence, bytes: Buffer.from(bytes) });
});
