import { inflateSync } from 'node:zlib';
import * as fontkit from 'fontkit';
import { decompress } from 'wawoff2';
import { done, fail, type Outcome } from '../../contract/failure';
import { LIMITS } from '../../core/recipe/limits';

/** A font that was read: its name, and its bytes as TrueType or OpenType, whatever it came in. */
export type ReadFont = { name: string; bytes: Uint8Array };

/** A font file checked: one that has outlines and may be embedded. */
export async function readFont(file: Uint8Array, fileName: string): Promise<Outcome<ReadFont>> {
  const bytes = await unpacked(file, fileName);
  if (!bytes.ok) return bytes;
  let font: fontkit.Font;
  try {
    font = fontkit.create(Buffer.from(bytes.value)) as fontkit.Font;
    if (!(font.unitsPerEm > 0) || !(font.numGlyphs > 0)) throw new Error('It has no glyphs.');
  } catch {
    return fail('unreadable', `“${fileName}” is a damaged font; fetch it once more.`);
  }
  const tables = (font as unknown as { directory: { tables: Record<string, unknown> } }).directory.tables;
  if (!tables['glyf'] && !tables['CFF '] && !tables['CFF2'])
    return fail(
      'unsupported',
      `“${fileName}” has no outlines (it holds pictures of letters); Isle needs letters that are drawn.`,
    );
  if (font['OS/2']?.fsType?.noEmbedding)
    return fail(
      'forbidden',
      `“${fileName}” says that it must not be embedded in files; ask its maker for a licence that allows it.`,
    );
  const name = (font.fullName ?? font.familyName ?? '').trim();
  return done({ name: name.slice(0, LIMITS.nameLength) || fileName, bytes: bytes.value });
}

/** What a font's first four bytes say that it is (OpenType 1.9, WOFF 1.0, WOFF 2.0). */
async function unpacked(file: Uint8Array, fileName: string): Promise<Outcome<Uint8Array>> {
  const word = String.fromCharCode(...file.subarray(0, 4));
  const view = new DataView(file.buffer, file.byteOffset, file.byteLength);
  const tooLarge = (): ReturnType<typeof fail> =>
    fail(
      'too_large',
      `“${fileName}” comes to more than ${LIMITS.fontUnpacked / 1e6} MB once it is unpacked.`,
    );
  try {
    switch (word) {
      case 'wOF2':
        if (view.getUint32(16) > LIMITS.fontUnpacked) return tooLarge();
        return done(await decompress(file));
      case 'wOFF':
        if (view.getUint32(16) > LIMITS.fontUnpacked) return tooLarge();
        return done(fromWoff(file, view));
      case 'OTTO':
      case 'true':
      case '\u0000\u0001\u0000\u0000':
        return done(file);
      case 'ttcf':
        return fail('unsupported', `“${fileName}” holds several fonts; bring them in one by one.`);
      default:
        return fail('unsupported', `“${fileName}” is no font; Isle reads WOFF2, WOFF, OTF and TTF.`);
    }
  } catch {
    return fail('unreadable', `“${fileName}” is a damaged font; fetch it once more.`);
  }
}

/** A WOFF 1.0 file as the font that is packed in it: its tables inflated one by one (W3C, WOFF 1.0, 4 and 5). */
function fromWoff(file: Uint8Array, view: DataView): Uint8Array {
  const count = view.getUint16(12);
  const entries = Array.from({ length: count }, (_one, index) => {
    const at = 44 + 20 * index;
    const [tag, from, packed, length, sum] = [0, 4, 8, 12, 16].map((part) => view.getUint32(at + part));
    const raw = file.subarray(from!, from! + packed!);
    return {
      ...{ tag: tag!, length: length!, sum: sum! },
      bytes: packed! < length! ? inflateSync(raw, { maxOutputLength: length! }) : raw,
    };
  });
  const head = 12 + 16 * count;
  const padded = (length: number): number => Math.ceil(length / 4) * 4;
  const out = new Uint8Array(head + entries.reduce((all, { length }) => all + padded(length), 0));
  if (out.length > LIMITS.fontUnpacked) throw new Error('It is too large.');
  const to = new DataView(out.buffer);
  const power = 2 ** Math.floor(Math.log2(Math.max(1, count)));
  to.setUint32(0, view.getUint32(4));
  [count, power * 16, Math.log2(power), count * 16 - power * 16].forEach((value, index) =>
    to.setUint16(4 + 2 * index, value),
  );
  let at = head;
  for (const [index, { tag, length, sum, bytes }] of entries.entries()) {
    [tag, sum, at, length].forEach((value, part) => to.setUint32(12 + 16 * index + 4 * part, value));
    out.set(bytes.subarray(0, length), at);
    at += padded(length);
  }
  return out;
}
