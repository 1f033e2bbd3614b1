import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import opentype, { type Font } from 'opentype.js';
import { glyphPathData } from '../../core/geom/glyphs';
import { appRoot } from '../root';

/** The fonts that ship with Isle, by the family names that files ask for; for each the nearest weight there is. */
const FILES: Record<string, string> = {
  'schibsted grotesk': 'schibsted-grotesk/files/schibsted-grotesk-latin-700-normal.woff',
  bitter: 'bitter/files/bitter-latin-700-normal.woff',
  limelight: 'limelight/files/limelight-latin-400-normal.woff',
  'caveat brush': 'caveat-brush/files/caveat-brush-latin-400-normal.woff',
  'spline sans mono': 'spline-sans-mono/files/spline-sans-mono-latin-600-normal.woff',
};

const held = new Map<string, Font>();

/** Sets a line of text of an SVG file in the first of its fonts that ships with Isle. */
export function setText(
  text: string,
  font: { family: string; size: number },
): { ok: true; d: string; width: number } | { ok: false; message: string } {
  const asked = font.family.split(',').map((name) => name.trim().replace(/^["']|["']$/g, ''));
  const family = asked.find((name) => FILES[name.toLowerCase()]);
  const said = `The text “${text.slice(0, 40)}”`;
  if (!family)
    return {
      ok: false,
      message: `${said} was left out: the font ${asked[0] || 'that it needs'} does not come with Isle. Turn it into outlines first.`,
    };
  const set = fontOf(family.toLowerCase());
  if ([...text].some((letter) => letter.trim() !== '' && !set.charToGlyphIndex(letter)))
    return { ok: false, message: `${said} was left out: ${family} lacks some of its letters.` };
  const d = glyphPathData(set.getPath(text, 0, 0, font.size).commands);
  return { ok: true, d, width: set.getAdvanceWidth(text, font.size) };
}

/** A font by the name that a drawing keeps, such as “bitter-700”, and its file's bytes (WOFF); `null` where it does not come with Isle. */
export function fontById(id: string): { font: Font; bytes: Uint8Array } | null {
  const family = Object.keys(FILES).find(
    (name) => FILES[name]!.replace(/^.*\/([\w-]+)-latin-(\d+)-normal\.woff$/, '$1-$2') === id,
  );
  return family === undefined ? null : { font: fontOf(family), bytes: fileOf(family) };
}

const fileOf = (family: string): Buffer => {
  const find = createRequire(join(appRoot(), 'package.json'));
  return readFileSync(find.resolve(`@fontsource/${FILES[family] ?? ''}`));
};

function fontOf(family: string): Font {
  const known = held.get(family);
  if (known) return known;
  const bytes = fileOf(family);
  const font = opentype.parse(
    bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer,
  );
  held.set(family, font);
  return font;
}
