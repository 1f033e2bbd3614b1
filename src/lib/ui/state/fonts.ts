import { glyphPathData } from '$lib/core/geom/glyphs';
import opentype, { type Font } from 'opentype.js';
import { call, urlOf } from './api';
import bitter from '@fontsource/bitter/files/bitter-latin-700-normal.woff?url';
import brush from '@fontsource/caveat-brush/files/caveat-brush-latin-400-normal.woff?url';
import limelight from '@fontsource/limelight/files/limelight-latin-400-normal.woff?url';
import plain from '@fontsource/schibsted-grotesk/files/schibsted-grotesk-latin-400-normal.woff?url';
import grotesk from '@fontsource/schibsted-grotesk/files/schibsted-grotesk-latin-700-normal.woff?url';
import mono from '@fontsource/spline-sans-mono/files/spline-sans-mono-latin-600-normal.woff?url';

/** The fonts that ship with Isle (all under the SIL Open Font License), by the name that a drawing keeps. */
export const FONTS: readonly { id: string; label: string; url: string }[] = [
  { id: 'schibsted-grotesk-700', label: 'Schibsted Grotesk', url: grotesk },
  { id: 'bitter-700', label: 'Bitter', url: bitter },
  { id: 'limelight-400', label: 'Limelight', url: limelight },
  { id: 'caveat-brush-400', label: 'Caveat Brush', url: brush },
  { id: 'spline-sans-mono-600', label: 'Spline Sans Mono', url: mono },
];

/** What Isle itself writes in, upright and bold. */
export const OWN_FONTS = {
  plain: { id: 'schibsted-grotesk-400', label: 'Schibsted Grotesk', url: plain },
  bold: { id: 'schibsted-grotesk-700', label: 'Schibsted Grotesk', url: grotesk },
} as const;

/** How the names of fonts begin that people brought. */
const STUDIO_FONT = 'own-';

/** Where a font is fetched; `null` for one that is not known. */
export const fontAddress = (fontId: string): string | null =>
  fontId.startsWith(STUDIO_FONT)
    ? urlOf('GET /fonts/{id}/file', { id: fontId })
    : (FONTS.find((font) => font.id === fontId)?.url ?? null);

const loaded = new Map<string, Promise<Font>>();

export type TextOutline = { ok: true; d: string; width: number } | { ok: false; message: string };

/**
 * A line of text as outlines, its baseline beginning at (0, 0), `size` px to the em; `width` is how far it advances. It is set on the
 * server by a library that knows the rules of fonts and scripts.
 */
export async function outlineText(text: string, fontId: string, size: number): Promise<TextOutline> {
  const set = await call('GET /fonts/{id}/line', {
    id: fontId,
    query: { size, text },
  });
  return set.ok ? { ok: true, ...set.value } : { ok: false, message: set.failure.message };
}

/** The same here, in a font that is at hand: for labels, which are not kerned. */
export async function outlineIn(
  known: { id: string; label: string; url: string },
  text: string,
  size: number,
): Promise<TextOutline> {
  let font: Font;
  try {
    font = await fontOf(known.id, known.url);
  } catch {
    loaded.delete(known.id);
    return {
      ok: false,
      message: `The font ${known.label} could not be loaded; check the connection and try again.`,
    };
  }
  const missing = [
    ...new Set([...text].filter((letter) => letter.trim() !== '' && !font.charToGlyphIndex(letter))),
  ];
  if (missing.length > 0)
    return {
      ok: false,
      message: `${known.label} has no ${missing.slice(0, 5).join(' ')}; choose another font or other letters.`,
    };
  const d = glyphPathData(font.getPath(text, 0, 0, size).commands);
  return { ok: true, d, width: font.getAdvanceWidth(text, size) };
}

function fontOf(id: string, url: string): Promise<Font> {
  const held = loaded.get(id);
  if (held) return held;
  const fresh = fetch(url).then(async (answer) => {
    if (!answer.ok) throw new Error(`The font answered ${answer.status}.`);
    return opentype.parse(await answer.arrayBuffer());
  });
  loaded.set(id, fresh);
  return fresh;
}
