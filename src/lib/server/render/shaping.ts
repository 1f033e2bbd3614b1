import { Blob, Buffer as Letters, Face, Font, shape } from 'harfbuzzjs';
import { parsePath, transformPath, type Path } from '../../core/geom/path';

/** A glyph of a line: its number in the font, where it begins, px, and the first of the letters that it stands for. */
export type ShapedGlyph = { glyph: number; x: number; y: number; cluster: number };

/** A line as its font sets it, its baseline beginning at (0, 0), y down. */
export type ShapedLine = { glyphs: ShapedGlyph[]; path: Path; width: number; missing: string[] };

/** A font that sets lines by HarfBuzz: kerned, with ligatures, from right to left where its letters are. */
export class ShapedFont {
  private readonly font: Font;
  private readonly perEm: number;
  private readonly outlines = new Map<number, Path>();

  /** `bytes` are those of a TrueType or OpenType font. */
  constructor(bytes: Uint8Array, perEm: number) {
    this.font = new Font(new Face(new Blob(bytes)));
    this.perEm = perEm;
  }

  /** Sets a line, `size` px to the em. */
  line(text: string, size: number): ShapedLine {
    const letters = new Letters();
    letters.addText(text);
    letters.guessSegmentProperties();
    shape(this.font, letters);
    const share = size / this.perEm;
    const glyphs: ShapedGlyph[] = [];
    const missing = new Set<string>();
    const path: Path = [];
    let at = 0;
    const places = letters.getGlyphPositions();
    for (const [index, { codepoint, cluster }] of letters.getGlyphInfos().entries()) {
      const { xAdvance, xOffset, yOffset } = places[index]!;
      const letter = String.fromCodePoint(text.codePointAt(cluster) ?? 32);
      if (codepoint === 0 && letter.trim() !== '') missing.add(letter);
      const [x, y] = [(at + xOffset) * share, -yOffset * share];
      glyphs.push({ glyph: codepoint, x, y, cluster });
      path.push(...transformPath({ a: share, b: 0, c: 0, d: -share, e: x, f: y }, this.outline(codepoint)));
      at += xAdvance;
    }
    return { glyphs, path, width: at * share, missing: [...missing] };
  }

  private outline(glyph: number): Path {
    const held = this.outlines.get(glyph);
    if (held) return held;
    const read = parsePath(this.font.glyphToPath(glyph));
    const path = read.ok ? read.path : [];
    this.outlines.set(glyph, path);
    return path;
  }
}
