import { readFile } from 'node:fs/promises';
import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { addProfile, listProfiles } from '$lib/server/repo/press-profiles';

export const GET = api('listPressProfiles', ({ db }) => done(listProfiles(db)));

export const POST = api('addPressProfile', async ({ app, db, file, asking }) => {
  const read = await app.processes.run('readProfile', { path: file.path, fileName: file.name }, asking);
  if (!read.ok) return read;
  return addProfile(db, { name: read.value.name, bytes: await readFile(file.path) });
});
