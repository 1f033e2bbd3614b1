import { readFile } from 'node:fs/promises';
import { done, fail, type Outcome } from '../../contract/failure';
import { LIMITS } from '../../core/recipe/limits';
import type { Still } from '../repo/mockups';
import type { Call } from './http';

/** A picture that a view made of something and hands in: read in a child process, as any file from outside. */
export async function readStill({ app, file, asking }: Call): Promise<Outcome<Still>> {
  const read = await app.processes.run('readPicture', { path: file.path, fileName: file.name }, asking);
  if (!read.ok) return read;
  const { ready, sourceType, width, height } = read.value;
  if (Math.max(width, height) > LIMITS.stillSide)
    return fail('too_large', `Such a picture has at most ${LIMITS.stillSide} px a side; make it smaller.`);
  // Nothing of it need be changed to be drawn: what came is what is kept, which is smaller than what it was made into.
  const bytes = ready && sourceType !== 'image/webp' ? Buffer.from(ready.bytes) : await readFile(file.path);
  const mediaType = ready && sourceType !== 'image/webp' ? ready.mediaType : sourceType;
  return done({ bytes, mediaType, width, height });
}
