import * as fontkit from 'fontkit';
import { done, fail } from '../../contract/failure';
import type { Answer, Ask } from '../../contract/work';
import { formatPath } from '../../core/geom/path';
import type { Db } from '../db/open';
import { fontBytes, listFonts, noFont } from '../repo/fonts';
import { readFont } from '../render/font-file';
import { ShapedFont } from '../render/shaping';
import { fontById } from '../render/text';
import { libraryAt } from './tools';

export type OpenFont = { shaped: ShapedFont; whole: fontkit.Font };

/** A few fonts stay open: words are set again with each letter that is typed. */
const MOST_OPEN = 8;
const open = new Map<string, OpenFont>();

/** A font that comes with Isle or that somebody brought, ready to set lines; `null` where there is none. */
export async function openFont(db: Db, id: string): Promise<OpenFont | null> {
  const held = open.get(id);
  if (held) return held;
  const bytes = fontBytes(db, id) ?? (await shippedBytes(id));
  if (!bytes) return null;
  const whole = fontkit.create(Buffer.from(bytes)) as fontkit.Font;
  const fresh = { shaped: new ShapedFont(bytes, whole.unitsPerEm), whole };
  for (const old of [...open.keys()].slice(0, Math.max(0, open.size - MOST_OPEN + 1))) open.delete(old);
  open.set(id, fresh);
  return fresh;
}

async function shippedBytes(id: string): Promise<Uint8Array | null> {
  const found = fontById(id);
  const read = found && (await readFont(found.bytes, id));
  return read?.ok ? read.value.bytes : null;
}

export const setLine = ({ store, ...line }: Ask<'setLine'>): Promise<Answer<'setLine'>> =>
  setLineIn(libraryAt(store), line);

/** A line of words as outlines. */
export async function setLineIn(
  db: Db,
  { font, text, size }: Omit<Ask<'setLine'>, 'store'>,
): Promise<Answer<'setLine'>> {
  const found = await openFont(db, font);
  if (!found) return noFont();
  const { path, width, missing } = found.shaped.line(text, size);
  if (missing.length > 0) {
    const name = listFonts(db).find((one) => one.id === font)?.name ?? found.whole.familyName ?? 'The font';
    return fail(
      'unsupported',
      `${name} has no ${missing.slice(0, 5).join(' ')}; choose another font or other letters.`,
    );
  }
  return done({ d: formatPath(path), width });
}
