import type { LayoutData, PageForUse, PatternDetail } from '../../../contract/data';
import { contrastRatio } from '../../../core/colour/contrast';
import type { Inked, Inks } from '../../../core/colour/inks';
import type { Hex } from '../../../core/colour/parse';
import { formatPath, parsePath, transformPath } from '../../../core/geom/path';
import { translation } from '../../../core/geom/affine';
import { fromPx, toPx } from '../../../core/num/length';
import { colourFill, freshFill } from '../../../core/recipe/fill';
import { formOfPath } from '../../../core/recipe/form';
import { freshPage, freshShape, patternFills, type Layout, type Shape } from '../../../core/recipe/layout';
import { creditLine } from '../../../core/recipe/library';
import type { Recipe } from '../../../core/recipe/recipe';
import { resolveGround, type CompiledPattern } from '../../../core/scene/pattern';
import { escapeXml } from '../../../core/svg/print';
import { setText } from '../../render/text';

/** A pattern of a parcel: at which revision, where its files lie, and in which layouts it is used how. */
export type SpecPattern = {
  pattern: PatternDetail;
  recipe: Recipe;
  revision: number;
  compiled: CompiledPattern;
  colours: Record<string, Hex>;
  folder: string;
  /** The spot inks that the parcel's layouts are printed in. */
  inks: Inks;
};

const number = (value: number, digits = 2): string => String(Number(value.toFixed(digits))).replace('-', '−');
const size = ({ width, height }: { width: number; height: number }): string =>
  `${number(fromPx(width, 'mm'))} × ${number(fromPx(height, 'mm'))} mm (${number(width)} × ${number(height)} px)`;

/** How a pattern repeats, in words. */
function repeatOf(recipe: Recipe): string {
  if (recipe.kind !== 'composed') return recipe.kind === 'measured' ? 'by its numbers' : 'a picture';
  const { repeat } = recipe;
  switch (repeat.kind) {
    case 'brick':
    case 'half-drop':
      return `${repeat.kind}, step ${number(repeat.step * 100)} % (${repeat.run})`;
    case 'group':
      return `plane group ${repeat.group}`;
    default:
      return repeat.kind;
  }
}

/** The ink that a colour is printed in, in words; nothing for process colours. */
function sayInk(inked: Inked | null): string {
  if (!inked) return '';
  const { ink, tint } = inked;
  const much = tint < 1 ? ` ${number(tint * 100)} %` : '';
  return `, ink “${ink.name}”${much}${ink.overprint ? ', prints over others' : ''}`;
}

/** All that is said of a pattern, line by line. */
export function linesOf(of: SpecPattern, layouts: readonly PageForUse[]): [string, string][] {
  const { pattern, recipe, revision, compiled, colours, inks } = of;
  const ground = resolveGround(compiled.scene, colours)?.colour ?? null;
  const uses = layouts.flatMap((layout) =>
    layout.shapes.flatMap((shape) =>
      patternFills(shape)
        .filter((fill) => fill.pattern === pattern.id && (fill.held ?? pattern.newest) === revision)
        .map(({ scaleX, scaleY, rotation }) => {
          const scale =
            scaleX === scaleY
              ? `${number(scaleX * 100)} %`
              : `${number(scaleX * 100)} · ${number(scaleY * 100)} %`;
          return `${layout.name}, ${shape.name}: ${scale}${rotation === 0 ? '' : `, ${number(rotation)}°`}`;
        }),
    ),
  );
  const shown = uses.length > 6 ? [...uses.slice(0, 5), `and ${uses.length - 5} more`] : uses;
  return [
    [
      'Revision',
      revision === pattern.newest
        ? `${revision} (the newest)`
        : `${revision} (held; the newest is ${pattern.newest})`,
    ],
    ['Unit', size(compiled.scene.pitch)],
    ['Repeat', repeatOf(recipe)],
    ...recipe.slots.map(({ id, name }): [string, string] => {
      const hex = colours[id] ?? '';
      const against =
        ground && hex && hex !== ground
          ? `, ${number(contrastRatio(hex, ground))} : 1 against its ground`
          : '';
      return [name, `${hex}${sayInk(inks.of(hex))}${against}`];
    }),
    ...(pattern.credit.author || pattern.credit.licence
      ? [
          [
            'Credit',
            `${creditLine(pattern.name, pattern.credit)}${pattern.credit.attribution ? ' (due)' : ''}`,
          ] as [string, string],
        ]
      : []),
    ...shown.map((use, at): [string, string] => [at === 0 ? 'Used in' : '', use]),
  ];
}

/** The spec sheet as a page for browsers; its pictures lie beside it. */
export function specHtml(
  project: string,
  layouts: readonly { layout: LayoutData; files: readonly string[] }[],
  patterns: readonly SpecPattern[],
  shown: readonly PageForUse[],
): string {
  const link = (path: string): string => path.split('/').map(encodeURIComponent).join('/');
  const rows = (lines: readonly [string, string][]): string =>
    lines
      .map(([what, text]) => {
        const chip = /^#[0-9a-f]{6}/.test(text) ? `<i style="background:${text.slice(0, 7)}"></i>` : '';
        return `<tr><th>${escapeXml(what)}</th><td>${chip}${escapeXml(text)}</td></tr>`;
      })
      .join('');
  const parts = patterns.map(
    (of) =>
      `<section><img src="../${link(of.folder)}/swatch.png" width="240" height="180" alt=""><div><h2>${escapeXml(of.pattern.name)}</h2><table>${rows(linesOf(of, shown))}</table></div></section>`,
  );
  const pages = layouts.map(({ layout, files }) => {
    const links = files
      .map((file) => `<a href="../${link(file)}">${escapeXml(file.split('.').at(-1)!.toUpperCase())}</a>`)
      .join(' ');
    const lines: [string, string][] = [['Size', size(layout)]];
    if (layout.bleed > 0) lines.push(['Bleed', `${number(fromPx(layout.bleed, 'mm'))} mm`]);
    return `<section><div><h2>${escapeXml(layout.name)}</h2><table>${rows(lines)}<tr><th>Files</th><td>${links}</td></tr></table></div></section>`;
  });
  return [
    '<!doctype html><html lang="en"><head><meta charset="utf-8">',
    `<title>${escapeXml(project)}: spec sheet</title><style>`,
    'body{margin:40px auto;max-width:860px;padding:0 20px;font:15px/1.5 system-ui,sans-serif;color:#14211f}',
    'section{display:flex;gap:24px;padding:20px 0;border-top:1px solid #d8dad7}h2{margin:0 0 6px;font-size:18px}',
    'img{flex:none;border:1px solid #d8dad7}th{padding-right:16px;color:#5c6664;font-weight:400;text-align:left;vertical-align:top;white-space:nowrap}',
    'i{display:inline-block;width:12px;height:12px;margin-right:6px;border:1px solid #8b938f;border-radius:6px;vertical-align:-1px}',
    `</style></head><body><h1>${escapeXml(project)}</h1>`,
    ...(pages.length > 0 ? ['<h3>Layouts</h3>', ...pages] : []),
    ...(parts.length > 0 ? ['<h3>Patterns</h3>', ...parts] : []),
    '</body></html>\n',
  ].join('\n');
}

const mm = (length: number): number => toPx(length, 'mm');
const PAGE = { width: mm(210), height: mm(297) };
const EDGE = mm(18);
const ROW = mm(4.6);
const SWATCH = { width: mm(52), height: mm(39) };

/** The spec sheet as pages of paper (A4): each pattern with its swatch and what is said of it. */
export function specPages(
  project: string,
  patterns: readonly SpecPattern[],
  shown: readonly PageForUse[],
): Layout[] {
  const pages: Layout[] = [];
  let shapes: Shape[] = [];
  let count = 0;
  const put = (text: string, x: number, y: number, pt: number, colour: Hex, room: number): void => {
    const shape = written(text, { x, y, pt, colour, room, id: `t${(count += 1)}` });
    if (shape) shapes.push(shape);
  };
  const begin = (): number => {
    shapes = [];
    pages.push({ ...freshPage(PAGE.width, PAGE.height), measure: 'mm', ppi: 300, shapes });
    put(`${project}: patterns`, EDGE, EDGE + mm(3), 9, '#5c6664', PAGE.width - 2 * EDGE);
    return EDGE + mm(12);
  };
  let y = begin();
  for (const of of patterns) {
    const lines = linesOf(of, shown);
    const high = Math.max(SWATCH.height, mm(8) + lines.length * ROW) + mm(9);
    if (y + high > PAGE.height - EDGE && y > EDGE + mm(12)) y = begin();
    const id = `p${(count += 1)}`;
    shapes.push(
      freshShape({
        ...{ id, name: of.pattern.name, form: { kind: 'rectangle', radius: 0 }, x: EDGE, y, ...SWATCH },
        fills: [{ ...freshFill(id, of.folder), scaleX: 0.5, scaleY: 0.5 }],
      }),
    );
    const x = EDGE + SWATCH.width + mm(7);
    const room = PAGE.width - EDGE - x;
    put(of.pattern.name, x, y + mm(4.5), 13, '#14211f', room);
    for (const [at, [what, text]] of lines.entries()) {
      const line = y + mm(11) + at * ROW;
      put(what, x, line, 8, '#5c6664', mm(24));
      put(text, x + mm(26), line, 8, '#14211f', room - mm(26));
    }
    y += high;
  }
  return pages;
}

/** A line of words whose baseline begins at a place; what is too wide for its room is made narrower. */
function written(
  text: string,
  { x, y, pt, colour, room, id }: { x: number; y: number; pt: number; colour: Hex; room: number; id: string },
): Shape | null {
  const plain = [...text].map((letter) => (setText(letter, FONT(1)).ok ? letter : '?')).join('');
  const set = setText(plain, FONT(toPx(pt, 'pt')));
  const read = set.ok ? parsePath(set.d) : null;
  if (!set.ok || !read?.ok) return null;
  const made = formOfPath(transformPath(translation(x, y), read.path), (path) => formatPath(path));
  if (!made) return null;
  const share = Math.min(1, room / set.width);
  const { frame } = made;
  return freshShape({
    ...{
      id,
      name: plain,
      form: made.form,
      ...frame,
      x: x + (frame.x - x) * share,
      width: frame.width * share,
    },
    fills: [colourFill(id, { colour })],
  });
}

const FONT = (px: number): { family: string; size: number } => ({ family: 'Schibsted Grotesk', size: px });
