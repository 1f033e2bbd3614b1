import type { PDFRef } from 'pdf-lib';
import { chain, scaling, translation, type Affine } from '../geom/affine';
import { say, sayMatrix, type PdfFile } from './file';

/** A part of a font as a file takes it: its program (TrueType) and, for each of its glyphs, how wide it is (thousandths of an em) and what letters it stands for. */
export type PdfFont = {
  key: string;
  name: string;
  program: Uint8Array;
  widths: readonly number[];
  letters: readonly string[];
  /** x and y of its lower left and upper right, how far letters go up and down, thousandths of an em. */
  box: readonly [number, number, number, number];
  ascent: number;
  descent: number;
};

/** Set text: lines of glyphs on their baselines, px of a form whose box `matrix` takes to the space it is drawn in. */
export type GlyphRun = {
  font: PdfFont;
  size: number;
  lines: readonly { y: number; glyphs: readonly { glyph: number; x: number }[] }[];
  matrix: Affine;
};

/** The operators that show a run (ISO 32000-1, 9.4), inked or as a clip. */
export function runText(file: PdfFile, { font, size, lines, matrix }: GlyphRun, as: 'fill' | 'clip'): string {
  const name = file.resource('Font', font.key, () => fontObject(file, font));
  const shown = lines.flatMap(({ y, glyphs }) => {
    const [first] = glyphs;
    if (!first) return [];
    // Glyphs stand upright where the space of a page goes down.
    const place = chain(matrix, translation(first.x, y), scaling(size, -size));
    return [`${sayMatrix(place)} Tm`, `[${kerned(glyphs, font, size)}] TJ`];
  });
  return ['BT', `/${name} 1 Tf`, `${as === 'clip' ? 7 : 0} Tr`, ...shown, 'ET'].join('\n');
}

/** Glyphs with what is between them beyond their own widths, thousandths of an em. */
function kerned(glyphs: GlyphRun['lines'][number]['glyphs'], { widths }: PdfFont, size: number): string {
  return glyphs
    .map(({ glyph, x }, at) => {
      const code = `<${glyph.toString(16).padStart(4, '0')}>`;
      const next = glyphs[at + 1];
      if (!next) return code;
      const back = (widths[glyph] ?? 0) - ((next.x - x) / size) * 1000;
      return Math.abs(back) < 1e-4 ? code : `${code} ${say(back)}`;
    })
    .join(' ');
}

/** A composite font of one part of a TrueType font (ISO 32000-1, 9.7), with what its glyphs stand for. */
function fontObject(file: PdfFile, font: PdfFont): PDFRef {
  const base = `/${tagOf(font.key)}+${font.name.replace(/[^A-Za-z0-9-]/g, '')}`;
  const descriptor = file.object({
    ...{ Type: '/FontDescriptor', FontName: base, Flags: 4, FontBBox: font.box, ItalicAngle: 0 },
    ...{ Ascent: font.ascent, Descent: font.descent, CapHeight: font.ascent, StemV: 80 },
    FontFile2: file.stream(font.program, { Length1: font.program.length }),
  });
  const glyphs = file.object({
    ...{ Type: '/Font', Subtype: '/CIDFontType2', BaseFont: base, FontDescriptor: descriptor },
    CIDSystemInfo: { Registry: 'Adobe', Ordering: 'Identity', Supplement: 0 },
    ...{ CIDToGIDMap: '/Identity', DW: 0, W: [0, font.widths] },
  });
  return file.object({
    ...{ Type: '/Font', Subtype: '/Type0', BaseFont: base, Encoding: '/Identity-H' },
    DescendantFonts: [glyphs],
    ToUnicode: file.stream(lettersMap(font.letters)),
  });
}

/** Six capitals before the name of a part of a font, the same for the same part (9.6.4). */
function tagOf(key: string): string {
  let sum = 7;
  for (const letter of key) sum = (Math.imul(sum, 31) + letter.charCodeAt(0)) >>> 0;
  return Array.from({ length: 6 }, (_one, at) =>
    String.fromCharCode(65 + (Math.floor(sum / 26 ** at) % 26)),
  ).join('');
}

/** Which letters glyphs stand for (9.10.3). */
function lettersMap(letters: readonly string[]): string {
  const hex = (text: string): string =>
    Array.from({ length: text.length }, (_one, at) => text.charCodeAt(at).toString(16).padStart(4, '0')).join(
      '',
    );
  const rows = letters.flatMap((text, glyph) =>
    text === '' ? [] : [`<${glyph.toString(16).padStart(4, '0')}> <${hex(text)}>`],
  );
  const blocks: string[] = [];
  for (let at = 0; at < rows.length; at += 100) {
    const some = rows.slice(at, at + 100);
    blocks.push(`${some.length} beginbfchar\n${some.join('\n')}\nendbfchar`);
  }
  return `/CIDInit /ProcSet findresource begin
12 dict begin
begincmap
/CIDSystemInfo << /Registry (Adobe) /Ordering (UCS) /Supplement 0 >> def
/CMapName /Adobe-Identity-UCS def
/CMapType 2 def
1 begincodespacerange
<0000> <ffff>
endcodespacerange
${blocks.join('\n')}
endcmap
CMapName currentdict /CMap defineresource pop
end
end`;
}
