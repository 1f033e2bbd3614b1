import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { madeAsset } from '../../src/lib/core/recipe/made';
import type { Raster } from '../../src/lib/core/raster/composite';
import {
  again,
  drag,
  enter,
  middle,
  named,
  openBrowser,
  press,
  shown,
  still,
  visit,
  type Session,
} from '../support/browser';
import { fromPicture, pixels } from '../support/from-picture';
import { pngOf } from '../support/pictures';
import { pixelOf, texture } from '../support/rasters';

/** What is painted on a repeat, and what else is done to its picture by hand. */
let session: Session;
let page: Session['page'];
const folder = mkdtempSync(join(tmpdir(), 'isle-painted-'));
const file = (name: string): string => join(folder, name);
const { begin, draft, seamNow } = fromPicture(() => page);
/** Plaster with a stain on it, green moss at its foot. */
const PLASTER = texture(240, 240, 12, { light: 30 });
const STAIN = { x: 120, y: 100, radius: 12 };
beforeAll(async () => {
  session = await openBrowser();
  ({ page } = session);
  writeFileSync(
    file('Plaster.png'),
    await pngOf(240, 240, (x, y) => {
      if (Math.hypot(x - STAIN.x, y - STAIN.y) < STAIN.radius) return [30, 20, 10, 255];
      const [r = 0, g = 0, b = 0] = pixelOf(PLASTER, x, y);
      return y > 200 ? [r * 0.5, g, b * 0.4, 255] : [r, g, b, 255];
    }),
  );
});
afterAll(async () => {
  await session.close();
  rmSync(folder, { recursive: true, force: true });
});

/** The unit that the server makes of what is kept. */
const made = async (): Promise<Raster> => pixels(madeAsset(await draft()));
/** A place of the unit on the screen, where the one with the edges lies. */
async function onUnit(x: number, y: number): Promise<[number, number]> {
  const { unit } = {
    unit: await page.$eval('.repeat svg rect', (one) => one.getBoundingClientRect().toJSON()),
  };
  const { region } = (await draft()).pictured;
  return [unit.x + (x / region.width) * unit.width, unit.y + (y / region.height) * unit.height];
}
async function painted(count: number): Promise<void> {
  await page.waitForFunction(
    (wanted) => document.querySelector('.strokes')?.textContent?.includes(wanted),
    {},
    count === 1 ? 'One stroke' : `${count} strokes`,
  );
  await still(page);
}

describe('what takes long to make', () => {
  it('can be stopped: the change is taken back, and what was there is there again', async () => {
    await visit(page, '/library/new?start=picture');
    await press(page, 'Marble');
    await page.waitForSelector('.photo canvas');
    await still(page);
    await enter(page, 'Width of the texture', '500');
    const before = await shown(page, 'Width of the texture');
    const asset = (await draft()).pictured.source.asset;
    await enter(page, 'Width of the texture', '4000');
    await press(page, 'Stop, and take the change back');
    expect(await shown(page, 'Width of the texture')).toBe(before);
    expect((await draft()).pictured.source.asset).toBe(asset);
    await page.waitForFunction(() => !document.querySelector('.making'));
    await seamNow();
    // The threads are free for what comes next.
    await enter(page, 'Height of the texture', '300');
    await seamNow();
    expect((await draft()).pictured.source.height).toBe(300);
  });
});

describe('a repeat', () => {
  it('is healed, cloned on, and gets its original back, each stroke taken back one by one and there after a reload', async () => {
    await begin(file('Plaster.png'));
    await enter(page, 'Width of the region', '160');
    await enter(page, 'Middle of the region, across', '120');
    await enter(page, 'Middle of the region, down', '100');
    await press(page, '1 × 1');
    const before = await made();
    const { region } = (await draft()).pictured;
    const stain: [number, number] = [
      STAIN.x - (region.x - region.width / 2),
      STAIN.y - (region.y - region.height / 2),
    ];
    expect(pixelOf(before, ...stain)[0]).toBe(30);
    await press(page, 'Heal');
    await enter(page, 'Width of the brush', '40');
    const [x, y] = await onUnit(...stain);
    await drag(page, [x - 2, y], [x + 2, y]);
    await painted(1);
    const healed = await made();
    expect(pixelOf(healed, ...stain)[0]).toBeGreaterThan(90);
    expect(pixelOf(healed, stain[0] + 40, stain[1])).toEqual(pixelOf(before, stain[0] + 40, stain[1]));
    // The stroke was painted where all is shifted by half.
    expect(await (await named(page, 'Shifted by half')).evaluate((one) => one.ariaPressed)).toBe('true');

    await press(page, 'Clone');
    await enter(page, 'Width of the brush', '20');
    await enter(page, 'Softness of the brush', '0');
    await page.mouse.click(...(await onUnit(30, 30)));
    const to = await onUnit(60, 30);
    await drag(page, to, [to[0] + 1, to[1]]);
    await painted(2);
    const [, clone] = (await draft()).pictured.retouch!.strokes;
    expect(clone).toMatchObject({ does: 'clone', size: 20 });
    if (!clone || !('from' in clone)) throw new Error('no clone');
    const cloned = await made();
    expect(pixelOf(cloned, 60, 30)).toEqual(pixelOf(healed, 60 + clone.from.x, 30 + clone.from.y));

    // Over the edge, where the join is, the original comes back on both sides of it.
    await press(page, 'Original here');
    const edge = await onUnit(0, 30);
    await drag(page, edge, [edge[0], edge[1] + 20]);
    await painted(3);
    const kept = await made();
    // Only within 20 px of the stroke, over the edge to both sides.
    const changed = { left: 0, right: 0 };
    kept.data.forEach((value, index) => {
      if (value === cloned.data[index]) return;
      const [px, py] = [(index >> 2) % 160, Math.floor((index >> 2) / 160)];
      expect(Math.min(px, 160 - px)).toBeLessThanOrEqual(21);
      expect(Math.abs(py - 40)).toBeLessThan(32);
      changed[px < 80 ? 'left' : 'right'] += 1;
    });
    expect(changed.left + changed.right).toBeGreaterThan(50);
    await again(page);
    await page.waitForSelector('.photo');
    await painted(3);
    await press(page, 'Take the last back');
    await painted(2);
    expect((await made()).data).toEqual(cloned.data);
    await press(page, 'Take all back');
    await page.waitForFunction(() => !document.querySelector('.strokes'));
    expect((await made()).data).toEqual(before.data);
  });

  it('has one colour changed alone, and levels of one channel', async () => {
    await begin(file('Plaster.png'));
    await enter(page, 'Width of the region', '60');
    await enter(page, 'Middle of the region, down', '200');
    const before = await made();
    await press(page, 'Change one colour alone …');
    await enter(page, 'How far colour 1 reaches', '25');
    await enter(page, 'Saturation of colour 1', '-100');
    const grey = await made();
    const spread = (unit: Raster, x: number, y: number): number => {
      const [r = 0, g = 0, b = 0] = pixelOf(unit, x, y);
      return Math.max(r, g, b) - Math.min(r, g, b);
    };
    // The moss is grey now, the plaster as warm as it was.
    expect(spread(before, 30, 48)).toBeGreaterThan(40);
    expect(spread(grey, 30, 48)).toBeLessThan(8);
    expect(Math.abs(spread(grey, 30, 12) - spread(before, 30, 12))).toBeLessThan(6);
    await press(page, 'Blue');
    await enter(page, 'Black becomes', '90');
    await press(page, 'Red');
    expect(await shown(page, 'Black becomes')).toBe('0');
    expect((await draft()).pictured.tone.channels).toEqual({
      blue: { black: 0, middle: 1, white: 255, low: 90, high: 255 },
    });
    expect(pixelOf(await made(), 30, 12)[2]!).toBeGreaterThan(pixelOf(grey, 30, 12)[2]! + 20);
    await press(page, 'As the picture is');
    expect((await made()).data).toEqual(before.data);
  });

  it('becomes a halftone of two slots, which is no seam; the unit is looked at as from a distance', async () => {
    await begin(file('Plaster.png'));
    await enter(page, 'Width of the region', '120');
    await press(page, 'few, as slots', 'label');
    await press(page, 'Halftone');
    await enter(page, 'Dots along the width', '20');
    await enter(page, 'Turn of the screen', '30');
    const kept = await draft();
    expect(kept.pictured.few).toMatchObject({
      how: 'halftone',
      screen: { across: 20, turn: 30, form: 'round' },
    });
    expect(kept.slots).toHaveLength(2);
    const dots = await made();
    const share = (unit: Raster): number => {
      let sum = 0;
      for (let index = 2; index < unit.data.length; index += 4) sum += unit.data[index]! / 255;
      return sum / (unit.data.length / 4);
    };
    expect(share(dots)).toBeGreaterThan(0.1);
    expect(share(dots)).toBeLessThan(0.9);
    await press(page, 'Lines');
    expect((await made()).data).not.toEqual(dots.data);
    expect((await seamNow()).word).toBe('none');
    await page.select('select[aria-label="Distance"]', '2');
    await press(page, 'from 5 m');
    await page.waitForSelector('canvas[aria-label="The repeat as from 5 m"]');
    const { width } = await page.$eval('.repeat svg rect', (one) => one.getBoundingClientRect().toJSON());
    // Half a metre to five: a tenth of its own size, 8 px at the least.
    expect(width).toBeCloseTo(Math.max(8, (await draft()).unit.width / 10), 0);
  });

  it('is straightened by four corners, by hand and by numbers; corners that show no plane say so', async () => {
    // A floor of tiles, its far edge half as wide as its near one.
    writeFileSync(
      file('Floor.png'),
      await pngOf(300, 240, (px, py) => {
        const near = (py + 0.5 - 30) / 200;
        const [x, y] = [(px + 0.5 - 150) / (40 * near), (1 / near - 1) * 3];
        if (near <= 0) return [200, 200, 200, 255];
        const grout = [x, y].some((at) => Math.abs(at - Math.round(at)) < 0.06);
        if (grout) return [120, 112, 100, 255];
        return (Math.floor(x + 8) + Math.floor(y)) % 2 === 0 ? [220, 210, 190, 255] : [60, 80, 90, 255];
      }),
    );
    await begin(file('Floor.png'));
    await enter(page, 'Width of the region', '160');
    await press(page, 'Straightened by four corners', 'label');
    // The corners of four by four tiles: (−2, 3) is 150 − 2 · 40 · ½ across and 30 + 200 · ½ down.
    const corners = { 'Upper left': [110, 130], 'Upper right': [190, 130], 'Lower right': [230, 230] };
    for (const [name, [x, y]] of Object.entries(corners)) {
      await enter(page, `${name} corner, across`, String(x));
      await enter(page, `${name} corner, down`, String(y));
    }
    // The last one by hand: from where it is to where it shall be.
    const grip = await middle(page, '[data-corner="3"]');
    const other = await middle(page, '[data-corner="2"]');
    const upper = await middle(page, '[data-corner="0"]');
    const px = (other[0] - upper[0]) / 120;
    await drag(page, grip, [other[0] - 160 * px, other[1]]);
    const { region } = (await draft()).pictured;
    expect(region.corners![3].x).toBeCloseTo(70, -0.5);
    expect(region.corners![3].y).toBeCloseTo(230, -0.5);
    await enter(page, 'Lower left corner, across', '70');
    await enter(page, 'Lower left corner, down', '230');
    await press(page, 'Keep its proportion', 'label');
    await enter(page, 'Width of the region', '160');
    await enter(page, 'Height of the region', '120');
    const unit = await made();
    expect([unit.width, unit.height]).toEqual([160, 120]);
    // Tiles of 40 px, square-on, away from the joins and from their edges.
    for (const [x, y] of [
      [60, 60],
      [100, 60],
    ] as const) {
      const [r] = pixelOf(unit, x, y);
      const [right] = pixelOf(unit, x + 40 > 120 ? x - 40 : x + 40, y);
      expect(Math.abs(r! - right!)).toBeGreaterThan(120);
    }
    await seamNow();
    // Whole tiles meet as they are cut: a join within a band only makes it worse, and Isle says so.
    await press(page, 'Leave them alone');
    expect((await draft()).pictured.join.on).toBe(false);
    expect((await seamNow()).word).toBe('none');
    await enter(page, 'Upper left corner, down', '400');
    await still(page);
    expect(await page.$eval('header', (one) => one.textContent)).toContain('show no plane');
  });
});
