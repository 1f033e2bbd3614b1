import { readFileSync, readdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { byLibrsvg, byResvg, difference, redrawnMotif } from '../support/redraw-motif';

/**
 * Real drawings of different makers from the package registry, brought in as motifs and drawn again, against the originals
 * as resvg and librsvg draw them: flag-icons (MIT; files as their maker saved them, with clips, uses and gradients), Noto
 * Emoji (Apache 2.0, Google; gradients, groups), Meteocons (MIT, B. Castelein; masks, symbols, many gradients), Phosphor
 * Duotone (MIT; see-through parts). Every so manieth of each.
 */
const load = createRequire(import.meta.url);

type Drawing = { name: string; svg: string };

function iconSet(set: string, every: number, which: (name: string) => boolean = () => true): Drawing[] {
  type Icons = {
    width?: number;
    height?: number;
    icons: Record<string, { body: string; width?: number; height?: number }>;
  };
  const { width = 16, height = 16, icons } = load(`@iconify-json/${set}/icons.json`) as Icons;
  return Object.entries(icons)
    .filter(([name]) => which(name))
    .filter((_, index) => index % every === 0)
    .map(([name, icon]) => {
      const [w, h] = [icon.width ?? width, icon.height ?? height];
      const open = `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="${w}" height="${h}" viewBox="0 0 ${w} ${h}">`;
      return { name, svg: `${open}${icon.body}</svg>` };
    });
}

function flags(): Drawing[] {
  const folder = join(dirname(load.resolve('flag-icons/package.json')), 'flags', '4x3');
  return readdirSync(folder)
    .filter((name) => name.endsWith('.svg'))
    .filter((_, index) => index % 2 === 0)
    .map((name) => ({ name, svg: readFileSync(join(folder, name), 'utf8') }));
}

/** Within so many pixels a drawing counts as the same; and this share of them has to be. */
const WITHIN = 0.02;
const GOAL = 0.985;
const SIDE = 80;

const SETS: [string, () => Drawing[]][] = [
  ['flag-icons', flags],
  ['Noto Emoji', () => iconSet('noto', 18)],
  ['Meteocons', () => iconSet('meteocons', 3)],
  ['Phosphor Duotone', () => iconSet('ph', 20, (name) => name.endsWith('-duotone'))],
];

type Count = { set: string; all: number; resvg: number; librsvg: number; either: number; pictures: number };
const found: Count[] = [];

describe.each(SETS)('drawings of %s', (set, drawings) => {
  it('come in as they are drawn elsewhere, and nothing is lost without a word', async () => {
    const wrong: string[] = [];
    const count = { set, all: 0, resvg: 0, librsvg: 0, either: 0, pictures: 0 };
    for (const { name, svg } of drawings()) {
      const original = byResvg(svg, SIDE);
      // Drawings that only appear while they move show nothing as they stand.
      if (!original.data.some((value) => value > 0)) continue;
      count.all += 1;
      const again = await redrawnMotif(svg);
      if (typeof again === 'string') {
        wrong.push(`${name}: ${again}`);
        continue;
      }
      if (again.pictures > 0) count.pictures += 1;
      const one = difference(original, byResvg(again.svg, SIDE));
      const other = difference(await byLibrsvg(svg, SIDE), await byLibrsvg(again.svg, SIDE), 48, false);
      if (one <= WITHIN) count.resvg += 1;
      if (other <= WITHIN) count.librsvg += 1;
      if (one <= WITHIN || other <= WITHIN) count.either += 1;
      if (one > WITHIN || other > WITHIN)
        wrong.push(
          `${name}: ${(one * 100).toFixed(1)} % by resvg, ${(other * 100).toFixed(1)} % by librsvg ${again.notes.join(' ')}`,
        );
      // What differs must be said.
      if (one > 0.1 && again.notes.length === 0) wrong.push(`${name}: silent loss`);
    }
    found.push(count);
    const few = wrong.slice(0, 20).join('\n');
    expect(wrong.filter((text) => text.endsWith('silent loss'))).toEqual([]);
    expect(count.resvg / count.all, few).toBeGreaterThanOrEqual(GOAL);
    // The two renderers disagree about some originals (a <use> in a clip path that leads to another <use>).
    expect(count.librsvg / count.all, few).toBeGreaterThanOrEqual(0.88);
    expect(count.either / count.all, few).toBeGreaterThanOrEqual(GOAL);
  }, 240_000);
});

afterAll(() => {
  const sum = (key: Exclude<keyof Count, 'set'>) => found.reduce((all, one) => all + one[key], 0);
  const share = (part: number, all: number): string => `${((part / all) * 100).toFixed(1)} %`;
  for (const { set, all, resvg, librsvg, pictures } of found)
    console.log(
      `${set}: ${all} drawings, within 2 % of pixels by resvg ${share(resvg, all)}, by librsvg ${share(librsvg, all)}; ${pictures} with a part as a picture`,
    );
  console.log(
    `all: ${sum('all')} drawings, within 2 % by resvg ${share(sum('resvg'), sum('all'))}, by librsvg ${share(sum('librsvg'), sum('all'))}, by one of them ${share(sum('either'), sum('all'))}`,
  );
});
