import { Resvg } from '@resvg/resvg-js';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { checkRecipe } from '../../src/lib/core/recipe/check';
import { readPatterns } from '../../src/lib/core/svg/import-patterns';
import { readSvgTree } from '../../src/lib/core/svg/xml';
import { FOREIGN } from '../support/foreign-patterns';
import { againstOriginal, redrawn } from '../support/redraw';

const numbered = () => {
  let count = 0;
  return () => `n${(count += 1)}`;
};
function read(svg: string) {
  const tree = readSvgTree(svg);
  if (!tree.ok) throw new Error(tree.message);
  return readPatterns(tree.root, numbered(), null);
}

const withResvg = async (svg: string): Promise<Uint8Array> => new Resvg(svg).render().pixels;
const withLibrsvg = async (svg: string): Promise<Uint8Array> =>
  sharp(Buffer.from(svg)).ensureAlpha().raw().toBuffer();

const LIBRSVG_DIFFERS = /<pattern [^>]*viewBox="[-\d. ]+"(?! preserveAspectRatio="none")/;

// SVG 2, section 14.3: the file as resvg and librsvg draw it, against the pattern read from it and drawn anew by both.
describe.each(FOREIGN)('a pattern of another maker: $name', ({ svg, id }) => {
  const { patterns, notes } = read(svg);
  const pattern = patterns.find((one) => one.name === id) ?? patterns.at(-1);

  it('is read into a sound recipe', () => {
    expect(notes.filter((note) => !note.includes('tile without a size'))).toEqual([]);
    expect(pattern && checkRecipe(pattern.recipe)).toEqual([]);
  });

  // librsvg 2.x places a viewBox of another shape than its tile otherwise than resvg and Chromium, which agree with us.
  const engines = [['resvg', withResvg] as const, ['librsvg', withLibrsvg] as const];
  it.each(LIBRSVG_DIFFERS.test(svg) ? engines.slice(0, 1) : engines)(
    'looks as %s draws the original',
    async (_, draw) => {
      expect(await againstOriginal(svg, redrawn(pattern!), draw)).toBeLessThan(0.03);
    },
  );
});

describe('reading patterns', () => {
  it('puts pieces that were wrapped by hand together into one that wraps by itself', () => {
    const { patterns } = read(FOREIGN.find((one) => one.name === 'wrapped by hand')!.svg);
    expect(patterns[0]?.recipe.placings).toHaveLength(1);
  });

  it('takes a full rectangle for the ground, and titles and descriptions for names', () => {
    const { patterns } = read(
      `<svg xmlns="http://www.w3.org/2000/svg"><pattern id="x" width="20" height="20" patternUnits="userSpaceOnUse"><title>Sea &amp; sand</title><desc>Dots</desc><rect width="20" height="20" fill="#fff"/><circle cx="9" cy="9" r="3"/></pattern></svg>`,
    );
    expect(patterns[0]).toMatchObject({
      name: 'Sea & sand',
      description: 'Dots',
      recipe: { ground: { kind: 'slot' } },
    });
  });

  it.each([
    ['no size', '<pattern id="x" width="0" height="9"><path d="M0 0H1V1"/></pattern>', /without a size/],
    [
      'nothing in it',
      '<pattern id="x" width="9" height="9" patternUnits="userSpaceOnUse"/>',
      /draws nothing/,
    ],
    [
      'flattened',
      '<pattern id="x" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="scale(1 0)"><path d="M0 0H5V5"/></pattern>',
      /flattened/,
    ],
    [
      'loop',
      '<pattern id="x" href="#y" width="9" height="9" patternUnits="userSpaceOnUse"/><pattern id="y" href="#x"/>',
      /draws nothing/,
    ],
    [
      'huge',
      '<pattern id="x" width="1e9" height="9" patternUnits="userSpaceOnUse"><path d="M0 0H5V5"/></pattern>',
      /sides from/,
    ],
  ])('leaves out what cannot be one, and says so: %s', (_, markup, sentence) => {
    const { patterns, notes } = read(`<svg xmlns="http://www.w3.org/2000/svg">${markup}</svg>`);
    expect(patterns).toEqual([]);
    expect(notes[0]).toMatch(sentence);
  });
});
