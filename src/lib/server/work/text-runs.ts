import { createHash } from 'node:crypto';
import * as fontkit from 'fontkit';
import type { Font as Read, Glyph } from 'opentype.js';
import { glyphPathData } from '../../core/geom/glyphs';
import { formatPath, parsePath, type Path } from '../../core/geom/path';
import { setLines } from '../../core/geom/set-lines';
import { listsIn, type DisplayList } from '../../core/draw/list';
import type { PdfSources } from '../../core/pdf/picture';
import type { PdfFont } from '../../core/pdf/text';
import type { TextForm } from '../../core/recipe/form';
import type { Db } from '../db/open';
import type { ShapedFont } from '../render/shaping';
import { fontById } from '../render/text';
import { openFont } from './setting-lines';

/** What the package’s types say otherwise: glyphs are asked for by their numbers, and get new ones. */
type Subset = { includeGlyph(glyph: number): number; encode(): Uint8Array };

type Lines = { y: number; glyphs: { glyph: number; x: number }[] }[];

/**
 * The words of pages as glyphs of fonts, of each font only what is used of it. Words whose outlines are not what their font makes of them,
 * as after a newer version of it, stay outlines.
 */
export async function textRuns(lists: readonly DisplayList[], db: Db): Promise<PdfSources['text']> {
  const parts = new Map<string, FontPart>();
  const runs = new Map<TextForm, { part: FontPart; lines: Lines }>();
  for (const { form } of lists
    .flatMap((list) => listsIn(list))
    .flatMap(({ list }) => list.shapes.flatMap(({ text }) => text ?? []))) {
    if (runs.has(form)) continue;
    const part = parts.get(form.font) ?? (await FontPart.open(form.font, db));
    if (!part) continue;
    parts.set(form.font, part);
    const lines = part.set(form);
    if (lines) runs.set(form, { part, lines });
  }
  return ({ form }) => {
    const found = runs.get(form);
    return found ? { font: found.part.finish(), size: form.size, lines: found.lines } : null;
  };
}

/** Sets a line as the font that it is of was set when the words were written. */
type LineSetter = (
  line: string,
  size: number,
) => { path: Path; width: number; glyphs: { glyph: number; letters: string; x: number; y: number }[] };

/** Lines as opentype.js sets them. */
const plainLines =
  (read: Read): LineSetter =>
  (line, size) => {
    const glyphs: ReturnType<LineSetter>['glyphs'] = [];
    read.forEachGlyph(line, 0, 0, size, undefined, (glyph, x) => {
      glyphs.push({ glyph: glyph.index, letters: lettersOf(read, glyph), x, y: 0 });
    });
    const outline = parsePath(glyphPathData(read.getPath(line, 0, 0, size).commands));
    return { glyphs, path: outline.ok ? outline.path : [], width: read.getAdvanceWidth(line, size) };
  };

/** What a glyph stands for; a ligature is named after its letters. */
function lettersOf(read: Read, { unicodes, name }: Glyph): string {
  const [code] = unicodes;
  const parts = name?.split('_').map((one) => read.nameToGlyph(one)?.unicode) ?? [];
  return String.fromCodePoint(...(code === undefined ? parts.filter((one) => one !== undefined) : [code]));
}

/** Lines as HarfBuzz sets them, which says of each glyph where its letters begin. */
const shapedLines =
  (shaped: ShapedFont): LineSetter =>
  (line, size) => {
    const { glyphs, path, width } = shaped.line(line, size);
    const starts = [...new Set(glyphs.map(({ cluster }) => cluster))].sort((one, other) => one - other);
    const lettersAt = (cluster: number): string =>
      line.slice(cluster, starts[starts.indexOf(cluster) + 1] ?? line.length);
    // The way by which it came to the browser rounds as this does.
    const read = parsePath(formatPath(path));
    return {
      width,
      path: read.ok ? read.path : [],
      // Of several glyphs for the same letters the first stands for them.
      glyphs: glyphs.map(({ cluster, ...rest }, at) => ({
        ...rest,
        letters: glyphs[at - 1]?.cluster === cluster ? '' : lettersAt(cluster),
      })),
    };
  };

/** What is used of a font. */
class FontPart {
  private readonly whole: fontkit.Font;
  private readonly subset: Subset;
  private readonly widths: number[];
  private readonly letters: string[] = [''];
  private finished: PdfFont | null = null;

  private constructor(
    private readonly id: string,
    private readonly setters: readonly LineSetter[],
    whole: fontkit.Font,
  ) {
    this.whole = whole;
    this.subset = whole.createSubset() as unknown as Subset;
    this.widths = [this.widthOf(0)];
  }

  /** `null` for a font that is not at hand, must not be embedded, or is none of TrueType. */
  static async open(id: string, db: Db): Promise<FontPart | null> {
    const opened = await openFont(db, id);
    if (!opened) return null;
    const { whole, shaped } = opened;
    const { directory } = whole as unknown as { directory: { tables: Record<string, unknown> } };
    if (whole['OS/2']?.fsType?.noEmbedding || !directory.tables['glyf']) return null;
    const shipped = fontById(id);
    // Words of before HarfBuzz set them are as opentype.js did.
    const before = shipped ? [plainLines(shipped.font)] : [];
    return new FontPart(id, [shapedLines(shaped), ...before], whole);
  }

  /** The lines of a form as glyphs of the part; `null` where its outlines are others. */
  set(form: TextForm): Lines | null {
    for (const setter of this.setters) {
      const rows = form.text.split('\n').map((line) => setter(line, form.size));
      const set = setLines(rows, form);
      // A line has one baseline: where letters are raised, words stay outlines.
      const raised = rows.some(({ glyphs }) => glyphs.some(({ y }) => Math.abs(y) > 1e-6));
      if (!set || raised || formatPath(set.path) !== form.d) continue;
      return rows.map(({ glyphs }, index) => {
        const start = set.starts[index]!;
        return {
          y: start.y,
          glyphs: glyphs.map(({ glyph, letters, x }) => ({
            glyph: this.include(glyph, letters),
            x: start.x + x,
          })),
        };
      });
    }
    return null;
  }

  private include(index: number, letters: string): number {
    const glyph = this.subset.includeGlyph(index);
    if (this.letters[glyph] === undefined) {
      this.widths[glyph] = this.widthOf(index);
      this.letters[glyph] = letters;
    }
    return glyph;
  }

  private widthOf(index: number): number {
    return (this.whole.getGlyph(index).advanceWidth / this.whole.unitsPerEm) * 1000;
  }

  finish(): PdfFont {
    if (this.finished) return this.finished;
    const { whole, widths, letters } = this;
    const program = new Uint8Array(this.subset.encode());
    const share = (value: number): number => Math.round((value / whole.unitsPerEm) * 1000);
    const { minX, minY, maxX, maxY } = whole.bbox;
    this.finished = {
      key: `${this.id} ${createHash('sha256').update(program).digest('hex')}`,
      ...{ name: whole.postscriptName ?? this.id, program, widths, letters },
      box: [share(minX), share(minY), share(maxX), share(maxY)],
      ...{ ascent: share(whole.ascent), descent: share(whole.descent) },
    };
    return this.finished;
  }
}
