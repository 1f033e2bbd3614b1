import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import type { TraceBy, Traced } from '../../src/lib/contract/data';
import { seededRandom } from '../../src/lib/core/num/random';
import { compileElement } from '../../src/lib/core/scene/motif';
import { elementMarkup } from '../../src/lib/core/svg/pieces';
import { traceBytes } from '../../src/lib/server/work/tracing';
import { pngOf } from '../support/pictures';

const SIZE = { width: 300, height: 240 };
const INK = [24, 40, 82];
const BY: TraceBy = { colours: 2, speck: 12, corner: 60, paper: true };

/** An ink drawing on grainy paper: a disc with a hole, a square, a few specks. Edges are as smooth as a scan has them. */
async function drawing(): Promise<Buffer> {
  const random = seededRandom(3);
  const specks = Array.from({ length: 30 }, () => [random() * 300, random() * 240] as const);
  return pngOf(SIZE.width, SIZE.height, (x, y) => {
    const [px, py] = [x + 0.5, y + 0.5];
    const far = Math.hypot(px - 90, py - 120);
    const disc = Math.min(60 - far, far - 25);
    const square = Math.min(px - 190, 260 - px, py - 80, 150 - py);
    const speck = Math.max(...specks.map(([sx, sy]) => 1.2 - Math.hypot(px - sx, py - sy)));
    const ink = Math.max(0, Math.min(1, Math.max(disc, square, speck) + 0.5));
    const paper = [240, 232, 214].map((value) => value + (random() - 0.5) * 16);
    return [...paper.map((value, index) => Math.round(value + (INK[index]! - value) * ink)), 255] as never;
  });
}

async function traced(bytes: Buffer, by: Partial<TraceBy> = {}): Promise<Traced> {
  const made = await traceBytes(bytes, { ...BY, ...by });
  if (!made.ok) throw new Error(made.failure.message);
  return made.value;
}

/** What was traced, drawn four times as large: how many px² of the picture are inked, and whether a place is. */
function drawn({ elements, slots }: Traced): { area: number; at: (x: number, y: number) => boolean } {
  const colours = Object.fromEntries(slots.map(({ id, colour }) => [id, colour]));
  const body = elements.flatMap((one) => compileElement(one) ?? []).map((one) => elementMarkup(one, colours));
  const [wide, high] = [SIZE.width * 4, SIZE.height * 4];
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${wide}" height="${high}" viewBox="0 0 300 240">${body.join('')}</svg>`;
  const { pixels } = new Resvg(svg).render();
  let area = 0;
  for (let at = 3; at < pixels.length; at += 4) area += pixels[at]! / 255 / 16;
  return { area, at: (x, y) => pixels[(Math.round(y * 4) * wide + Math.round(x * 4)) * 4 + 3]! > 128 };
}

describe('an ink drawing', () => {
  it('becomes paths of one colour with its hole open, its corners kept and its specks dropped', async () => {
    const found = await traced(await drawing());
    expect(found.slots).toHaveLength(1);
    expect(found.differs).toBeLessThan(0.01);
    const { area, at } = drawn(found);
    // π·(60² − 25²) and 70².
    const true_ = Math.PI * (60 ** 2 - 25 ** 2) + 70 ** 2;
    expect(Math.abs(area / true_ - 1)).toBeLessThan(0.015);
    expect([at(90, 120), at(90, 75), at(225, 115)]).toEqual([false, true, true]);
    // The corners of the square, to a px and a half.
    for (const [x, y, dx, dy] of [
      [190, 80, 1, 1],
      [260, 80, -1, 1],
      [260, 150, -1, -1],
      [190, 150, 1, -1],
    ] as const) {
      expect(at(x + 1.5 * dx, y + 1.5 * dy)).toBe(true);
      expect(at(x - 1.5 * dx, y - 1.5 * dy)).toBe(false);
    }
    // Two forms and nothing else.
    expect(found.elements.length).toBeLessThanOrEqual(2);
  });

  it('has its specks where they are wanted, and its paper', async () => {
    const bytes = await drawing();
    const specks = await traced(bytes, { speck: 0 });
    expect(specks.elements.length).toBeGreaterThan(12);
    const paper = await traced(bytes, { paper: false });
    expect(paper.slots).toHaveLength(2);
    expect(drawn(paper).at(10, 10)).toBe(true);
  });

  it('of one colour is refused in a sentence', async () => {
    const flat = await pngOf(40, 40, () => [90, 90, 90, 255]);
    expect(await traceBytes(flat, BY)).toMatchObject({
      ok: false,
      failure: { message: 'This picture has one colour alone; there is nothing to trace in it.' },
    });
  });

  it('of nothing but grain is refused, and says what to do', async () => {
    const random = seededRandom(8);
    const grain = await pngOf(500, 500, () => [random() * 255, random() * 255, random() * 255, 255]);
    const made = await traceBytes(grain, { ...BY, colours: 8, speck: 0, paper: false });
    expect(made).toMatchObject({ ok: false, failure: { code: 'too_large' } });
    if (!made.ok) expect(made.failure.message).toMatch(/take fewer colours, or larger specks/);
  });

  it('larger than it is traced at keeps its place and size', async () => {
    const large = await pngOf(2400, 400, (x, y) =>
      Math.abs(x - 2000) < 150 && Math.abs(y - 200) < 100 ? [0, 0, 0, 255] : [255, 255, 255, 255],
    );
    const [element] = (await traced(large)).elements;
    const numbers = (element?.d.match(/-?[\d.]+/g) ?? []).map(Number);
    const [across, down] = [0, 1].map((odd) => numbers.filter((_, index) => index % 2 === odd));
    expect(Math.min(...across!)).toBeCloseTo(1850, -1);
    expect(Math.max(...across!)).toBeCloseTo(2150, -1);
    expect(Math.min(...down!)).toBeCloseTo(100, -1);
    expect(Math.max(...down!)).toBeCloseTo(300, -1);
  });
});
