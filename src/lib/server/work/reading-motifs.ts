import { readFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { nanoid } from 'nanoid';
import { done, fail } from '../../contract/failure';
import type { Answer, Ask } from '../../contract/work';
import { tidyName } from '../../core/num/text';
import { LIMITS } from '../../core/recipe/limits';
import { importSvg } from '../../core/svg/import';
import { picturesWithin } from '../render/fragment';
import { readPicture } from '../render/picture';
import { setText } from '../render/text';
import { settlePictures } from './pictures-in';

/** An SVG file as a motif, with the pictures inside it made ready. */
export async function readMotif({ fileName, svg }: Ask<'readMotif'>): Promise<Answer<'readMotif'>> {
  const read = importSvg(svg, () => nanoid(12), { setText, drawPicture: picturesWithin() });
  if (!read.ok) return fail('unsupported', `“${fileName}”: ${read.message}`, 'svg');
  const { elements, assets, notes } = await settlePictures(read.content.elements, read.pictures, fileName);
  if (elements.length === 0)
    return fail('unsupported', `“${fileName}”: none of its pictures can be read. ${notes.join(' ')}`, 'svg');
  const name = tidyName(read.title) || tidyName(fileName.replace(/\.svg$/i, '')) || 'Motif';
  const motif = {
    name: name.slice(0, LIMITS.nameLength).trim(),
    content: { ...read.content, elements },
    slots: read.slots,
    notes: [...read.notes, ...notes],
  };
  return done({ motif, pictures: assets });
}

/** A picture file checked, and made ready to draw where it is not yet. */
export async function readPictureFile({
  path,
  fileName,
}: Ask<'readPicture'>): Promise<Answer<'readPicture'>> {
  const bytes = readFileSync(path);
  const read = await readPicture(bytes, fileName);
  if (!read.ok) return read;
  const { bytes: ready, mediaType, ...rest } = read.value;
  const hash = (): string => createHash('sha256').update(ready).digest('hex');
  return done({
    ...rest,
    ready: ready === bytes ? null : { hash: hash(), mediaType, fileName, bytes: ready },
  });
}
