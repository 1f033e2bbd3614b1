import sharp, { type Metadata } from 'sharp';
import { done, fail, type Outcome } from '../../contract/failure';
import { LIMITS } from '../../core/recipe/limits';

/** A picture made ready for drawing: PNG or JPEG, upright, eight bits, sRGB. */
export type ReadyPicture = {
  bytes: Buffer;
  mediaType: 'image/png' | 'image/jpeg';
  sourceType: string;
  width: number;
  height: number;
  /** Pixels per inch as the file states them; `null` where it states none. */
  ppi: number | null;
  /** Whether one can see through some of it. */
  clear: boolean;
  /** What was changed, in sentences. */
  notes: string[];
};

const KNOWN: Record<string, string> = { png: 'image/png', jpeg: 'image/jpeg', webp: 'image/webp' };

/** Reads a PNG, JPEG or WebP file by its content, whatever its name says. What it cannot keep as it is, it says. */
export async function readPicture(bytes: Buffer, name: string): Promise<Outcome<ReadyPicture>> {
  const said = `“${name}”`;
  let metadata: Metadata;
  try {
    metadata = await sharp(bytes, { failOn: 'none' }).metadata();
  } catch {
    return fail(
      'unsupported',
      `${said} is no picture that Isle can read; bring in a PNG, JPEG or WebP file.`,
    );
  }
  const format = String(metadata.format);
  const sourceType = KNOWN[format];
  const { width, height } = metadata;
  if (!sourceType || !width || !height)
    return fail(
      'unsupported',
      `${said} is a ${format.toUpperCase()} file; bring in a PNG, JPEG or WebP file.`,
    );
  if (Math.max(width, height) > LIMITS.pictureSide)
    return fail(
      'too_large',
      `${said} is ${width} × ${height} px; a side may have at most ${LIMITS.pictureSide} px. Make it smaller first.`,
    );
  if (width * height > LIMITS.picturePixels) {
    const [million, most] = [Math.round((width * height) / 1e6), LIMITS.picturePixels / 1e6];
    return fail(
      'too_large',
      `${said} has ${million} million pixels; at most ${most} million are taken. Make it smaller first.`,
    );
  }
  const notes = notesOn(metadata, said);
  const ppi = metadata.density && metadata.density > 1 ? metadata.density : null;
  try {
    const image = sharp(bytes, {
      failOn: 'truncated',
      pages: 1,
      limitInputPixels: LIMITS.picturePixels,
    }).autoOrient();
    if (notes.length === 0 && format !== 'webp') {
      // Nothing to change; decoding all of it once finds a damaged file.
      const { isOpaque } = await image.stats();
      return done({
        clear: !isOpaque,
        bytes,
        mediaType: format === 'png' ? 'image/png' : 'image/jpeg',
        sourceType,
        width,
        height,
        ppi,
        notes,
      });
    }
    const { data, info } = await image
      .toColourspace('srgb')
      .png({ compressionLevel: 6 })
      .toBuffer({ resolveWithObject: true });
    const size = { width: info.width, height: info.height };
    const { isOpaque } = await sharp(data).stats();
    return done({
      bytes: data,
      mediaType: 'image/png',
      sourceType,
      ...size,
      ppi,
      clear: !isOpaque,
      notes: notes.filter((note) => note !== TURNED),
    });
  } catch {
    return fail(
      'unreadable',
      `${said} is damaged or cut off: not all of it can be read. Save it again and bring it in anew.`,
    );
  }
}

/** Stands for a change that is exact and needs no word. */
const TURNED = '';

function notesOn(metadata: Metadata, said: string): string[] {
  const notes: string[] = [];
  if (metadata.space === 'cmyk')
    notes.push(`${said} is in CMYK; its colours were converted to sRGB and may look different.`);
  if (metadata.depth === 'ushort' || metadata.depth === 'float')
    notes.push(`${said} has more than eight bits a channel; eight were kept.`);
  if ((metadata.pages ?? 1) > 1) notes.push(`${said} is animated; its first picture was taken.`);
  if ((metadata.orientation ?? 1) !== 1) notes.push(TURNED);
  if (metadata.space !== 'cmyk' && metadata.icc && !isSrgb(metadata.icc))
    notes.push(`The colours of ${said} have a profile of their own; they were taken into sRGB.`);
  return notes;
}

/** Whether an ICC profile says that it describes sRGB (ISO 15076-1: its description is plain text or UTF-16). */
function isSrgb(profile: Buffer): boolean {
  const text = profile.toString('latin1').replaceAll('\0', '');
  return text.includes('sRGB') || text.includes('IEC61966-2.1') || text.includes('IEC 61966-2');
}
