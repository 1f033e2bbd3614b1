import { attachment } from '$lib/server/app/files';
import { handOut } from '$lib/server/app/handing-out';
import { api } from '$lib/server/app/http';

export const POST = api('handOut', async ({ app, body }) => {
  const made = await handOut(app, body);
  if (!made.ok) return made;
  const { fileName, mediaType, bytes } = made.value;
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': mediaType, 'content-disposition': attachment(fileName) },
  });
});
