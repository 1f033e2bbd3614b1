import { fileHeaders } from '$lib/server/app/files';
import { api, sentOnce } from '$lib/server/app/http';

export const POST = api('handOut', async ({ app, body, asking }) => {
  const path = app.workFile();
  const made = await app.processes.run('handOut', { ...body, store: app.store, path }, asking);
  if (!made.ok) {
    app.forget(path);
    return made;
  }
  const { leftOut } = made.value;
  return sentOnce(path, {
    ...fileHeaders(made.value),
    ...(leftOut.length > 0 ? { 'x-isle-left-out': encodeURIComponent(leftOut.slice(0, 20).join(', ')) } : {}),
  });
});
