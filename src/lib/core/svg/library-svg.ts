import { IDENTITY } from '../geom/affine';
import { resolveSlots } from '../colour/slots';
import {
  LIBRARY_VERSION,
  creditLine,
  freeSlug,
  type KeptPattern,
  type LibraryContent,
} from '../recipe/library';
import { resolveGround } from '../scene/pattern';
import { compileUnit } from '../scene/unit';
import { cellAttributes } from './live';
import { groundPaint } from './fill';
import { cellMarkup, underlayWidth } from './pieces';
import { escapeXml, factor, matrixText, num } from './print';

/** The namespace of what Isle keeps in the metadata of its files. It names a form of data and leads nowhere. */
export const ISLE_NAMESPACE = 'urn:isle:library:1';

const SAMPLE = { width: 220, height: 150, gap: 24, label: 44, columns: 4, margin: 32 };

/**
 * A set of patterns as one SVG file: each is a <pattern> with title, description and its recipe as metadata, and fills
 * a labelled sample. One pattern alone fills the whole picture. Colours stand as they are now; what they follow is in
 * the metadata.
 */
export function librarySvg(content: LibraryContent, title: string): string {
  const { patterns } = content;
  const taken = new Set<string>();
  const parts = patterns.map((pattern) => partOf(pattern, freeSlug(pattern.name, taken)));
  const single = patterns.length === 1;
  const columns = Math.max(1, Math.min(SAMPLE.columns, patterns.length));
  const rows = Math.ceil(patterns.length / columns);
  const { width, height, gap, label, margin } = SAMPLE;
  const size = single
    ? { width: 600, height: 400 }
    : {
        width: margin * 2 + columns * (width + gap) - gap,
        height: margin * 2 + rows * (height + label + gap) - gap,
      };
  const samples = parts.map((part, index) => {
    if (single) return sampleMarkup(part, { x: 0, y: 0, ...size }, null);
    const x = margin + (index % columns) * (width + gap);
    const y = margin + Math.floor(index / columns) * (height + label + gap);
    return sampleMarkup(part, { x, y, width, height }, patterns[index] as KeptPattern);
  });
  const { palettes, assets } = content;
  const kept = { version: LIBRARY_VERSION, palettes, assets };
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:isle="${ISLE_NAMESPACE}" width="${size.width}" height="${size.height}" viewBox="0 0 ${size.width} ${size.height}">`,
    `<title>${escapeXml(title)}</title>`,
    `<metadata><isle:kept-library>${jsonText(kept)}</isle:kept-library></metadata>`,
    `<defs>`,
    ...parts.map((part) => part.definition),
    `</defs>`,
    single ? '' : `<rect width="100%" height="100%" fill="#ffffff"/>`,
    ...samples,
    `</svg>`,
    '',
  ]
    .filter((line, index, all) => line !== '' || index === all.length - 1)
    .join('\n');
}

type Part = { id: string; definition: string; ground: { value: string; defs: string } | null };

function partOf(pattern: KeptPattern, id: string): Part {
  const scene = compileUnit(pattern.recipe);
  const colours = resolveSlots(pattern.recipe.slots, {});
  const ground = resolveGround(scene, colours);
  const definition = [
    `<pattern id="${id}" ${cellAttributes(scene)} patternTransform="${matrixText(scene.cell.matrix)}">`,
    `<title>${escapeXml(pattern.name)}</title>`,
    pattern.description ? `<desc>${escapeXml(pattern.description)}</desc>` : '',
    `<metadata><isle:kept-pattern>${jsonText({ version: LIBRARY_VERSION, ...pattern })}</isle:kept-pattern></metadata>`,
    cellMarkup(scene, colours, underlayWidth(1)),
    `</pattern>`,
  ].join('');
  return { id, definition, ground: ground && groundPaint(ground, IDENTITY) };
}

type Place = { x: number; y: number; width: number; height: number };

function sampleMarkup({ id, ground }: Part, place: Place, labelled: KeptPattern | null): string {
  const { x, y, width, height } = place;
  const rect = (fill: string): string =>
    `<rect width="${num(width)}" height="${num(height)}" fill="${fill}"/>`;
  const under = ground ? ground.defs + rect(ground.value) : '';
  const lines = labelled ? labelMarkup(labelled, height) : '';
  return `<g transform="translate(${factor(x)} ${factor(y)})">${under}${rect(`url(#${id})`)}${lines}</g>`;
}

function labelMarkup({ name, credit }: KeptPattern, y: number): string {
  const due = credit.attribution ? creditLine('Credit', credit) : '';
  const line = (at: number, size: number, weight: number, text: string): string =>
    text
      ? `<text x="0" y="${num(y + at)}" font-family="sans-serif" font-size="${size}" font-weight="${weight}" fill="#14211f">${escapeXml(shortened(text))}</text>`
      : '';
  return line(18, 13, 600, name) + line(34, 10.5, 400, due);
}

const shortened = (text: string): string => (text.length > 40 ? `${text.slice(0, 39)}…` : text);

/** Data as JSON inside an XML element; what XML cannot hold is written as JSON escapes. */
function jsonText(data: unknown): string {
  const json = JSON.stringify(data).replace(
    /[\ufffe\uffff]/g,
    (unit) => `\\u${unit.charCodeAt(0).toString(16)}`,
  );
  return escapeXml(json);
}
