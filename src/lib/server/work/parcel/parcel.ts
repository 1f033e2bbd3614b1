import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { strToU8 } from 'fflate';
import type {
  LayoutData,
  PageForUse,
  ParcelContents,
  ParcelWish,
  ProjectDetail,
  StudioFont,
} from '../../../contract/data';
import { done, fail } from '../../../contract/failure';
import type { Answer } from '../../../contract/work';
import { withBleed } from '../../../core/draw/reframe';
import { lowerLayout } from '../../../core/draw/lower';
import { paletteCss, paletteCsv, paletteSvg } from '../../../core/formats/palette-files';
import { tokensOf } from '../../../core/formats/tokens';
import { pixelSize } from '../../../core/num/length';
import type { Inks } from '../../../core/colour/inks';
import { creditsDue, freeSlug, slug } from '../../../core/recipe/library';
import { LIMITS } from '../../../core/recipe/limits';
import { spaceFailure } from '../../render/space';
import type { Db } from '../../db/open';
import { listFonts } from '../../repo/fonts';
import { inksInUse } from '../../repo/layout-inks';
import { getLayout, layoutInUse } from '../../repo/layouts';
import { listPalettes } from '../../repo/palettes';
import { getProject } from '../../repo/projects';
import { writePng } from '../draw-png';
import { layoutsPdf, pagesPdf, type PdfWish } from '../layout-pdf';
import { sceneOf } from '../layout-scene';
import { layoutFile } from '../layout-svg';
import { swatchPicture } from '../swatch-picture';
import type { Tools } from '../tools';
import { addPattern, patternsShown } from './patterns';
import { must, Refused } from './refused';
import { specHtml, specPages, type SpecPattern } from './spec';
import { ZipFile } from './zip-file';

type Ask = { project: string; wish: ParcelWish; path: string };

/**
 * All that belongs to a project as one zip: its layouts, the patterns they use, palettes, credits, a spec sheet, and a manifest with
 * the sum of every file. The same project gives the same bytes. A file that is not whole is never left.
 */
export async function writeParcel(
  tools: Tools,
  { project: id, wish, path }: Ask,
  progress: (share: number) => void,
): Promise<Answer<'parcel'>> {
  const project = getProject(tools.db, id);
  if (!project.ok) return project;
  const zip = new ZipFile(path);
  try {
    const contents = await new Parcel(tools, project.value, wish, zip, path, progress).write();
    zip.close(true);
    return done(contents);
  } catch (error) {
    zip.close(false);
    rmSync(path, { force: true });
    if (error instanceof Refused) return { ok: false, failure: error.failure };
    const failure = spaceFailure(error, 'The parcel');
    if (failure) return failure;
    throw error;
  }
}

class Parcel {
  private steps = 1;
  private taken = 0;

  constructor(
    private readonly tools: Tools,
    private readonly project: ProjectDetail,
    private readonly wish: ParcelWish,
    private readonly zip: ZipFile,
    private readonly path: string,
    private readonly progress: (share: number) => void,
  ) {}

  async write(): Promise<ParcelContents> {
    const layouts = this.layouts();
    const stop = new AbortController();
    const drawn = this.wish.png ? this.drawPages(layouts, stop.signal) : Promise.resolve([]);
    // What goes wrong with it is told where it is waited for.
    drawn.catch(() => undefined);
    try {
      return await this.fill(layouts, drawn);
    } finally {
      stop.abort();
      await drawn.catch(() => undefined);
      rmSync(this.parts, { recursive: true, force: true });
    }
  }

  /** Where pages lie until they are taken in. */
  private get parts(): string {
    return `${this.path}.part`;
  }

  /**
   * Draws the layouts as PNG, one after the other, and answers where they lie. Threads do most of it, and this one writes all else
   * meanwhile.
   */
  private async drawPages(layouts: readonly LayoutData[], signal: AbortSignal): Promise<string[]> {
    const { tools, wish } = this;
    mkdirSync(this.parts, { recursive: true });
    const paths: string[] = [];
    for (const [at, layout] of layouts.entries()) {
      const path = join(this.parts, String(at));
      const scene = withBleed(sceneOf(tools.db, layout), wish.bleed ? layout.bleed : 0);
      must(await writePng(tools, scene, { ppi: wish.ppi, path, signal, progress: () => undefined }));
      paths.push(path);
      this.step();
    }
    return paths;
  }

  private async fill(layouts: readonly LayoutData[], drawn: Promise<string[]>): Promise<ParcelContents> {
    const { wish, zip, project } = this;
    const shown = withPages(this.tools.db, layouts);
    const patterns =
      wish.patterns || wish.spec ? patternsShown(this.tools.db, shown, this.inksOf(layouts)) : [];
    this.steps =
      layouts.length * [wish.pdf, wish.png, wish.svg].filter(Boolean).length + 2 * patterns.length + 2;
    const pages: { layout: LayoutData; files: string[] }[] = [];
    const stems = new Set<string>();
    const pictures: string[] = [];
    for (const layout of layouts) {
      const stem = `layouts/${freeSlug(layout.name, stems, 'layout')}`;
      const files = [
        wish.pdf ? [`${stem}.pdf`] : [],
        wish.png ? [`${stem}.png`] : [],
        wish.svg ? [`${stem}.svg`] : [],
      ];
      pages.push({ layout, files: files.flat() });
      pictures.push(`${stem}.png`);
      await this.layout(layout, stem);
    }
    if (wish.patterns) for (const one of patterns) await addPattern(this.tools, zip, one, () => this.step());
    if (wish.palettes) this.palettes();
    if (wish.spec) await this.spec(pages, patterns, shown);
    const due = creditsDue(patterns.map(({ pattern }) => pattern));
    if (due.length > 0) zip.add('CREDITS.txt', strToU8(`Credits that are due:\n\n${due.join('\n')}\n`));
    const fonts = fontsOf(shown);
    const brought = listFonts(this.tools.db);
    if (fonts.length > 0)
      zip.add(
        'FONTS.txt',
        strToU8(
          `Words are outlines, or parts of fonts within a PDF; no font is needed to show them. They are set in:\n\n${fonts.map((font) => licenceOf(font, brought)).join('\n')}\n`,
        ),
      );
    for (const [at, path] of (await drawn).entries()) zip.take(pictures[at] ?? '', path);
    const contents: ParcelContents = {
      layouts: shown.map(({ id, name, version }) => ({ id, name, version })),
      patterns: patterns.map(({ pattern, revision }) => ({ id: pattern.id, name: pattern.name, revision })),
      files: [...zip.entries].sort((one, other) => (one.path < other.path ? -1 : 1)),
    };
    const manifest = { isle: 'parcel', version: 1, project: project.name, choices: wish, ...contents };
    zip.add('manifest.json', strToU8(`${JSON.stringify(manifest, null, 1)}\n`));
    return contents;
  }

  private step(): void {
    this.taken += 1;
    this.progress(Math.min(1, this.taken / this.steps));
  }

  /** The layouts that are chosen, and whether all that is asked of them can be drawn: counted before anything is. */
  private layouts(): LayoutData[] {
    const { wish, project } = this;
    const most = LIMITS.parcelLayouts;
    if (wish.layouts.length > most)
      must(
        fail(
          'too_large',
          `These are ${wish.layouts.length} layouts; one parcel has at most ${most}. Hand them over in two.`,
          'layouts',
        ),
      );
    const layouts = wish.layouts.map((id) => must(getLayout(this.tools.db, id)));
    for (const layout of layouts) {
      if (layout.projectId !== project.id)
        must(fail('not_found', `“${layout.name}” is not in this project.`, 'layouts'));
      const round = wish.bleed ? 2 * layout.bleed : 0;
      const { width, height } = pixelSize(
        { width: layout.width + round, height: layout.height + round },
        wish.ppi,
      );
      if (wish.png && (Math.max(width, height) > LIMITS.exportSide || width * height > LIMITS.exportPixels))
        must(
          fail(
            'too_large',
            `“${layout.name}” would be ${width} × ${height} px as PNG; choose fewer ppi, or hand it over as PDF.`,
            'ppi',
          ),
        );
    }
    return layouts;
  }

  private inksOf(layouts: readonly LayoutData[]): Inks {
    const { db } = this.tools;
    return inksInUse(
      db,
      layouts.map((layout) => layoutInUse(db, layout)),
    );
  }

  /** A layout as vectors. */
  private async layout(layout: LayoutData, stem: string): Promise<void> {
    const { tools, wish, zip } = this;
    const bleed = wish.bleed ? layout.bleed : 0;
    if (wish.pdf) {
      zip.add(`${stem}.pdf`, must(await layoutsPdf(tools, [layout], layout.name, pdfWish(wish))));
      this.step();
    }
    if (wish.svg) {
      const svg = must(layoutFile(tools.db, layout, { as: 'live', bleed }));
      zip.add(`${stem}.svg`, strToU8(await tools.pictures.embed(svg)));
      this.step();
    }
  }

  /** The palettes that the project has of its own, and those that all share. */
  private palettes(): void {
    const taken = new Set<string>();
    for (const palette of listPalettes(this.tools.db, this.project.id)) {
      const stem = `palettes/${freeSlug(palette.name, taken, 'palette')}`;
      this.zip.add(`${stem}.tokens.json`, strToU8(tokensOf([palette])));
      this.zip.add(`${stem}.css`, strToU8(paletteCss(palette)));
      this.zip.add(`${stem}.csv`, strToU8(paletteCsv(palette)));
      this.zip.add(`${stem}.svg`, strToU8(paletteSvg(palette)));
    }
    this.step();
  }

  private async spec(
    pages: readonly { layout: LayoutData; files: readonly string[] }[],
    patterns: readonly SpecPattern[],
    shown: readonly PageForUse[],
  ): Promise<void> {
    const { tools, zip, project } = this;
    const stem = `spec/${slug(project.name, 'project')}`;
    if (!this.wish.patterns)
      for (const { folder, recipe } of patterns)
        zip.add(
          `${folder}/swatch.png`,
          await swatchPicture(tools, recipe, {}, { width: 480, height: 360, scale: 1, pixels: 2 }),
        );
    zip.add(`${stem}.html`, strToU8(specHtml(project.name, pages, patterns, shown)));
    const compiled = new Map(patterns.map((of) => [of.folder, of.compiled]));
    const paper = specPages(project.name, patterns, shown).slice(0, LIMITS.pdfPages);
    const lists = paper.map((page) => ({
      ...{ name: project.name, cut: 0 },
      list: lowerLayout(page, ({ pattern }) => compiled.get(pattern) ?? null),
    }));
    const key = JSON.stringify(
      patterns.map((of) => [of.pattern.id, of.revision, of.colours, of.pattern.name]),
    );
    const facts = { title: `${project.name}: patterns`, author: '', key };
    const wish = { bleed: false, marks: false, register: false, ppi: 300 };
    zip.add(`${stem}.pdf`, must(await pagesPdf(tools, lists, facts, wish)));
    this.step();
  }
}

/** "bitter-700: SIL Open Font License 1.1": fonts that come with Isle have this one, others what is noted of them. */
function licenceOf(id: string, brought: readonly StudioFont[]): string {
  const own = brought.find((one) => one.id === id);
  return own ? `${own.name}: ${own.licence}` : `${id}: SIL Open Font License 1.1`;
}

/** The fonts of the words on these layouts, by the names that they are kept under. */
const fontsOf = (layouts: readonly PageForUse[]): string[] =>
  [
    ...new Set(
      layouts.flatMap(({ shapes }) =>
        shapes.flatMap(({ form }) => (form.kind === 'text' ? [form.font] : [])),
      ),
    ),
  ].sort();

const pdfWish = ({ bleed, marks, register, exchange, fonts, layers, ppi }: ParcelWish): PdfWish => ({
  ...{ bleed, marks, register, ppi },
  ...{ exchange: exchange ?? false, fonts: fonts ?? false, layers: layers ?? false },
});

/** Layouts, and those that lie in them; each once. */
const withPages = (db: Db, layouts: readonly LayoutData[]): (PageForUse & { version: number })[] => [
  ...new Map(
    [...layouts, ...layouts.flatMap((layout) => layoutInUse(db, layout).pages)].map((one) => [one.id, one]),
  ).values(),
];
