import { generate, parse, walk } from 'css-tree';
import papa from 'papaparse';
import { inkFault } from '../colour/inks';
import type { Hex } from '../colour/parse';
import { readColour, sayOklch } from '../colour/space';
import { LIMITS } from '../recipe/limits';
import { freeSlug, slug, type PaletteEntry } from '../recipe/library';
import { escapeXml } from '../svg/print';
import { readSvgTree, type XmlNode } from '../svg/xml';
import type { FoundColour, FoundPalette } from './found';
import { readTokens } from './tokens';

type Named = { name: string; colours: readonly PaletteEntry[] };

/** A palette as CSS custom properties: `--pool-deep-water: #10394d;`; a gradient as linear-gradient(). */
export function paletteCss({ name, colours }: Named): string {
  const taken = new Set<string>();
  const stem = slug(name, 'palette');
  const wide: string[] = [];
  const lines = colours.map((entry) => {
    const property = `--${stem}-${freeSlug(entry.name, taken, 'colour')}`;
    if (entry.gradient) {
      const stops = entry.gradient.map(({ at, hex }) => `${hex} ${+(at * 100).toFixed(2)}%`).join(', ');
      return `  ${property}: linear-gradient(to right, ${stops});`;
    }
    // What is no colour alone could be anything: it is not written.
    if (entry.css && isColourAlone(entry.css)) wide.push(`    ${property}: ${entry.css.trim()};`);
    return `  ${property}: ${entry.hex};`;
  });
  const more = wide.length > 0 ? `\n@media (color-gamut: p3) {\n  :root {\n${wide.join('\n')}\n  }\n}\n` : '';
  return `:root {\n${lines.join('\n')}\n}\n${more}`;
}

const isColourAlone = (text: string): boolean => /^[\w\s.,%()/#+-]+$/.test(text) && readColour(text).ok;

/**
 * A palette as CSV with a head: name, hex, CSS, OKLCH, spot ink and its tint in %. Gradients are left out. A name that a spreadsheet would take for a
 * formula gets an apostrophe before it.
 */
export function paletteCsv({ colours }: Named): string {
  const rows = colours
    .filter((entry) => !entry.gradient)
    .map(({ name, hex, css, ink }) => [
      ...[name, hex, css ?? '', sayOklch(hex)],
      ...(ink ? [ink.name, String(+(ink.tint * 100).toFixed(2))] : ['', '']),
    ]);
  return `${papa.unparse([['name', 'hex', 'css', 'oklch', 'ink', 'tint'], ...rows], { escapeFormulae: true })}\r\n`;
}

/** A palette as an SVG sheet: a labelled square for each colour. */
export function paletteSvg({ name, colours }: Named): string {
  const side = 120;
  const columns = Math.max(1, Math.min(6, colours.length));
  const rows = Math.ceil(colours.length / columns);
  const squares = colours.map((entry, index) => {
    const [x, y] = [(index % columns) * (side + 16) + 16, Math.floor(index / columns) * (side + 56) + 16];
    const text = escapeXml(entry.name);
    const gradient = entry.gradient
      ? `<linearGradient id="g${index}">${entry.gradient.map(({ at, hex }) => `<stop offset="${at}" stop-color="${hex}"/>`).join('')}</linearGradient>`
      : '';
    const fill = entry.gradient ? `url(#g${index})` : entry.hex;
    return `<g>${gradient}<rect x="${x}" y="${y}" width="${side}" height="${side}" fill="${fill}"><title>${text}</title></rect><text x="${x}" y="${y + side + 18}" font-family="sans-serif" font-size="13">${text}</text><text x="${x}" y="${y + side + 34}" font-family="monospace" font-size="11">${entry.gradient ? 'gradient' : entry.hex}</text></g>`;
  });
  const [width, height] = [columns * (side + 16) + 16, rows * (side + 56) + 16];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><title>${escapeXml(name)}</title>\n${squares.join('\n')}\n</svg>\n`;
}

/** Reads the palettes of a file by its content: tokens, CSS, CSV or SVG. A sentence where there are none. */
export function readPaletteFile(fileName: string, text: string): FoundPalette[] | string {
  const plain = text.replace(/^\uFEFF/, '');
  const stem = fileName.replace(/\.[^.]*$/, '').replace(/\.tokens$/, '');
  const found = readBy(fileName, plain);
  if (typeof found === 'string') return `“${fileName}”: ${found}`;
  const named = found.map((palette) =>
    withSoundInks({
      ...palette,
      name: clean(palette.name || stem, 'Palette'),
      colours: palette.colours.map((entry) => ({ ...entry, name: clean(entry.name, entry.hex) })),
    }),
  );
  const colours = named.reduce((sum, palette) => sum + palette.colours.length, 0);
  if (colours === 0) return `“${fileName}” holds no colours that Isle can read.`;
  if (named.some((palette) => palette.colours.length > LIMITS.paletteColours))
    return `“${fileName}” holds a palette of more than ${LIMITS.paletteColours} colours; part it first.`;
  return named;
}

/** A palette without its inks where these contradict each other, with a note. */
function withSoundInks(palette: FoundPalette): FoundPalette {
  const fault = inkFault(palette.colours);
  if (!fault) return palette;
  const colours = palette.colours.map(({ ink: _ink, ...entry }) => entry);
  return { ...palette, colours, notes: [...palette.notes, `Its spot inks were left out: ${fault.message}`] };
}

const clean = (name: string, otherwise: string): string =>
  name.replace(/\s+/g, ' ').trim().slice(0, LIMITS.nameLength) || otherwise;

function readBy(fileName: string, text: string): FoundPalette[] | string {
  const start = text.trimStart();
  if (start.startsWith('{') || /\.(json|tokens)$/i.test(fileName)) return readTokens(text);
  if (start.startsWith('<')) return readSheet(text);
  if (/\.css$/i.test(fileName) || /--[\w-]{1,100}\s{0,20}:/.test(text)) return readProperties(text);
  return readCsv(text);
}

/** Colours of custom properties; `var()` is followed, a loop is named and left out. */
function readProperties(text: string): FoundPalette[] | string {
  const values = customProperties(text);
  if (typeof values === 'string') return values;
  const notes: string[] = [];
  const colours: FoundColour[] = [];
  for (const name of values.keys()) {
    const value = followed(name, values);
    if (value === null) {
      if (notes.length < MOST_NOTES)
        notes.push(`${name.slice(0, 80)} leads back to itself or to nothing and was left out.`);
      continue;
    }
    const read = readColour(value);
    if (read.ok)
      colours.push({
        name: name.slice(2).replace(/[-_]+/g, ' '),
        hex: read.hex,
        ...(read.outside ? { css: value } : {}),
      });
  }
  if (colours.length === 0) return 'no custom property holds a colour.';
  return [{ name: '', colours, notes }];
}

const MOST_NOTES = 20;
/** A style sheet of colours is never this long, nor has it so many properties. */
const MOST_CSS = 1_000_000;
const MOST_PROPERTIES = 20_000;
/** Properties that lead to others are followed so far. */
const LONGEST_WAY = 100;

/** All custom properties of a style sheet by name, the first of each. */
function customProperties(text: string): Map<string, string> | string {
  if (text.length > MOST_CSS)
    return `a style sheet may have at most ${MOST_CSS / 1e6} MB to be read for colours.`;
  const values = new Map<string, string>();
  try {
    const tree = parse(text, {
      parseCustomProperty: false,
      parseValue: false,
      onParseError: () => undefined,
    });
    walk(tree, {
      visit: 'Declaration',
      enter: ({ property, value }) => {
        if (!property.startsWith('--') || values.has(property) || values.size >= MOST_PROPERTIES) return;
        values.set(property, (value.type === 'Raw' ? value.value : generate(value)).trim());
      },
    });
  } catch {
    return 'its style sheet cannot be read.';
  }
  return values;
}

/** The value of a property with `var()` followed to its end; `null` where it leads nowhere. */
function followed(start: string, values: ReadonlyMap<string, string>): string | null {
  const way = new Set<string>();
  let fallback: string | null = null;
  for (let name = start; way.size < LONGEST_WAY;) {
    const value = values.get(name);
    if (value === undefined || way.has(name)) return fallback;
    way.add(name);
    if (value.length > 500) return null;
    const inner = /^var\(\s*(--[^\s,()]+)\s*(?:,\s*(.+))?\)$/s.exec(value);
    if (!inner?.[1]) return value;
    fallback = inner[2]?.trim() ?? fallback;
    name = inner[1];
  }
  return null;
}

/** What is read of a table. */
const MOST_CSV = 5_000_000;
const MOST_ROWS = 5000;
const MOST_CELLS = 40;

/** Rows of a CSV: the first cell that is a colour counts, the first other cell is its name. A head is told by having no colour. */
function readCsv(text: string): FoundPalette[] | string {
  if (text.length > MOST_CSV) return `a table may have at most ${MOST_CSV / 1e6} MB to be read for colours.`;
  const { data, errors } = papa.parse(text, {
    preview: MOST_ROWS,
    skipEmptyLines: 'greedy',
    delimiter: delimiterOf(text),
  });
  const notes = errors.slice(0, 3).map(({ message, row }) => `Row ${(row ?? 0) + 1}: ${message}.`);
  const head = data[0]?.map((cell) => cell.trim().toLowerCase()) ?? [];
  const wideAt = head.indexOf('css');
  const colours: FoundColour[] = [];
  for (const [index, row] of data.entries()) {
    const wide = wideAt >= 0 && index > 0 ? readWide(row[wideAt] ?? '') : null;
    const found = row.slice(0, MOST_CELLS).map((cell) => readColour(cell));
    const at = found.findIndex((cell) => cell.ok);
    const cell = found[at];
    if (!cell?.ok) {
      if (index > 0 && notes.length < MOST_NOTES)
        notes.push(`Row ${index + 1} holds no colour and was left out.`);
      continue;
    }
    const name = row.find((text, place) => place !== at && text.trim() !== '' && !found[place]?.ok)?.trim();
    const own = cell.outside ? { hex: cell.hex, css: row[at]!.trim() } : { hex: cell.hex };
    colours.push({ name: name ?? '', ...(wide ?? own) });
  }
  if (colours.length === 0) return 'no row holds a colour.';
  return [{ name: '', colours, notes: notes.slice(0, 20) }];
}

/** The separator of a CSV: what stands most often in its first line, quoted parts left out. */
function delimiterOf(text: string): string {
  const line = (/^.*$/m.exec(text)?.[0] ?? '').replace(/"[^"]*"/g, '');
  const count = (mark: string): number => line.split(mark).length;
  return [',', ';', '\t', '|'].reduce((best, mark) => (count(mark) > count(best) ? mark : best));
}

function readWide(text: string): { hex: Hex; css: string } | null {
  const read = readColour(text);
  return read.ok && read.outside ? { hex: read.hex, css: text.trim() } : null;
}

/** The fills of an SVG, each once, named by their elements' titles. */
function readSheet(text: string): FoundPalette[] | string {
  const tree = readSvgTree(text);
  if (!tree.ok) return tree.message;
  const colours = new Map<Hex, FoundColour>();
  const visit = (node: XmlNode): void => {
    const fill =
      node.attributes.fill ?? /(?:^|;)\s*fill\s*:\s*([^;]+)/.exec(node.attributes.style ?? '')?.[1];
    const read = fill === undefined || node.name === 'text' ? null : readColour(fill);
    if (read?.ok && !colours.has(read.hex)) {
      const title = node.children.find((child) => child.name === 'title')?.text.trim();
      colours.set(read.hex, { name: title || node.attributes.id || read.hex, hex: read.hex });
    }
    for (const child of node.children) visit(child);
  };
  visit(tree.root);
  const title = tree.root.children.find((child) => child.name === 'title')?.text.trim() ?? '';
  return colours.size === 0
    ? 'no element has a plain fill.'
    : [{ name: title, colours: [...colours.values()], notes: [] }];
}
