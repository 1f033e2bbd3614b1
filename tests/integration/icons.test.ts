import { createRequire } from 'node:module';
import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { IDENTITY, translation } from '../../src/lib/core/geom/affine';
import { resolveSlots } from '../../src/lib/core/colour/slots';
import { compileMotif } from '../../src/lib/core/scene/motif';
import { elementMarkup } from '../../src/lib/core/svg/pieces';
import { importSvg } from '../../src/lib/core/svg/import';
import { matrixText } from '../../src/lib/core/svg/print';

type Icons = {
  width?: number;
  height?: number;
  icons: Record<string, { body: string; width?: number; height?: number }>;
};
const load = createRequire(import.meta.url);

/**
 * Real drawings from two open icon sets on the package registry: Tabler Icons (MIT; strokes with round ends) and Phosphor
 * (MIT; filled outlines with arcs, some see-through). Every so manieth, so that the whole alphabet of each is met.
 */
const SETS: [string, number][] = [
  ['tabler', 18],
  ['ph', 22],
];

const SIDE = 96;

function drawn(svg: string): Uint8Array {
  return new Resvg(svg, { fitTo: { mode: 'width', value: SIDE } }).render().pixels;
}

describe.each(SETS)('icons of the set %s', (set, every) => {
  const { width = 24, height = 24, icons } = load(`@iconify-json/${set}/icons.json`) as Icons;
  const names = Object.keys(icons).filter((_, index) => index % every === 0);

  it('come in and are drawn as resvg draws the originals', () => {
    const wrong: string[] = [];
    for (const name of names) {
      const icon = icons[name];
      if (!icon) continue;
      const [w, h] = [icon.width ?? width, icon.height ?? height];
      const source = `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}" viewBox="0 0 ${w} ${h}">${icon.body}</svg>`;
      const read = importSvg(source, () => 'ink');
      if (!read.ok) {
        wrong.push(`${name}: ${read.message}`);
        continue;
      }
      const { elements } = compileMotif({ id: 'm', name, content: read.content });
      const colours = resolveSlots(read.slots, {});
      const art = elements.map((element) => elementMarkup(element, colours)).join('');
      const place = translation(read.origin.x, read.origin.y);
      const ours = `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}" viewBox="0 0 ${w} ${h}"><g transform="${matrixText(place ?? IDENTITY)}">${art}</g></svg>`;
      const [one, other] = [drawn(source), drawn(ours)];
      let off = 0;
      for (let at = 3; at < one.length; at += 4)
        if (Math.abs((one[at] ?? 0) - (other[at] ?? 0)) > 48) off += 1;
      if (off > (SIDE * SIDE) / 400 || read.notes.length > 0)
        wrong.push(`${name}: ${off} px, ${read.notes.join(' ')}`);
    }
    expect(wrong).toEqual([]);
    expect(names.length).toBeGreaterThan(250);
  });
});
