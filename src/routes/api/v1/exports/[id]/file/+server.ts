import { createReadStream } from 'node:fs';
import { Readable } from 'node:stream';
import { fileHeaders } from '$lib/server/app/files';
import { api } from '$lib/server/app/http';

export const GET = api('exportFile', ({ app, person, params }) => {
  const file = app.exports.file(params.id, person.id);
  if (!file.ok) return file;
  const { path, job } = file.value;
  return new Response(Readable.toWeb(createReadStream(path)) as ReadableStream, {
    headers: {
      ...fileHeaders({ fileName: job.fileName, mediaType: job.mediaType }),
      'content-length': String(job.bytes),
    },
  });
});
