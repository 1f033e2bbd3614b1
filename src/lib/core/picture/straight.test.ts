import perspective from 'perspective-transform';
import { describe, expect, it } from 'vitest';
import { pixelOf, rasterOf } from '../../../../tests/support/rasters';
import { showPlane, sidesOf, type Corners } from '../geom/corners';
import { seededRandom } from '../num/random';
import { madeAsset } from '../recipe/made';
import { freshPictured, movedRegion, type Pictured } from '../recipe/pictured';
import { makeUnit } from './make';
import { cornersOf, placed, placing } from './straight';

const STRAIGHT = { kind: 'straight' } as const;
const square = (corners: Corners, width: number, height: number) => ({
  ...{ x: 0, y: 0, width, height, turn: 0 },
  corners,
});
const put = (region: Parameters<typeof placing>[0], u: number, v: number): [number, number] => {
  const { x, y } = placed(placing(region), { x: u, y: v });
  return [x, y];
};

describe('four corners', () => {
  // perspective-transform (MIT) solves the eight equations of the general case instead.
  it('place what is between them as another library does', () => {
    const random = seededRandom(4);
    for (let turn = 0; turn < 40; turn += 1) {
      const near = (x: number, y: number) => ({ x: x + random() * 60, y: y + random() * 60 });
      const corners: Corners = [near(0, 0), near(200, 10), near(210, 160), near(5, 150)];
      const [width, height] = [80 + random() * 40, 60 + random() * 40];
      const other = perspective(
        [0, 0, width, 0, width, height, 0, height],
        corners.flatMap(({ x, y }) => [x, y]),
      );
      for (const [u, v] of [
        [0.5, 0.5],
        [0.1, 0.9],
        [-0.2, 1.2],
      ] as const) {
        const [x, y] = put(square(corners, width, height), u * width, v * height);
        const [wantedX, wantedY] = other.transform(u * width, v * height);
        expect(x).toBeCloseTo(wantedX!, 4);
        expect(y).toBeCloseTo(wantedY!, 4);
      }
    }
  });

  it('of an upright or turned rectangle are that rectangle', () => {
    const region = { x: 120, y: 90, width: 80, height: 50, turn: 20 };
    for (const [u, v] of [
      [0, 0],
      [33, 12],
      [80, 50],
    ] as const) {
      const [x, y] = put({ ...region, corners: cornersOf(region) }, u, v);
      const [wantedX, wantedY] = put(region, u, v);
      expect([x, y]).toEqual([expect.closeTo(wantedX, 8), expect.closeTo(wantedY, 8)]);
    }
    const { width, height } = sidesOf(cornersOf(region));
    expect([width, height]).toEqual([expect.closeTo(80, 8), expect.closeTo(50, 8)]);
  });

  it('show a plane only where they go round once', () => {
    const corners = cornersOf({ x: 50, y: 50, width: 60, height: 40, turn: 0 });
    expect(showPlane(corners)).toBe(true);
    expect(showPlane([corners[1], corners[0], corners[2], corners[3]])).toBe(false);
    expect(showPlane([corners[0], corners[1], { x: 30, y: 40 }, corners[3]])).toBe(false);
  });
});

describe('a tiled floor photographed at an angle', () => {
  /** Tiles of 1 × 1 seen from above the near edge: depth y of the floor lies at 300 / (1 + y / 4) px. */
  const TILE = { light: [220, 210, 190], dark: [60, 80, 90] };
  const onPhoto = (x: number, y: number) => {
    const near = 1 / (1 + y / 4);
    return { x: 200 + (x - 3) * 60 * near, y: 40 + 240 * near };
  };
  const onFloor = (px: number, py: number): [number, number] => {
    const near = (py - 40) / 240;
    return [3 + (px - 200) / (60 * near), (1 / near - 1) * 4];
  };
  const photo = rasterOf(400, 300, (px, py) => {
    // Sixteen samples to a pixel: the far tiles are small.
    const sum = [0, 0, 0];
    for (let at = 0; at < 16; at += 1) {
      const [x, y] = onFloor(px + ((at % 4) + 0.5) / 4, py + (Math.floor(at / 4) + 0.5) / 4);
      const tile = (Math.floor(x) + Math.floor(y)) % 2 === 0 ? TILE.light : TILE.dark;
      tile.forEach((value, channel) => (sum[channel]! += value / 16));
    }
    return sum;
  });
  const corners: Corners = [onPhoto(1, 4), onPhoto(5, 4), onPhoto(5, 0), onPhoto(1, 0)];
  const fresh = freshPictured({ asset: 'a'.repeat(64), width: 400, height: 300, name: 'Floor' });
  const pictured: Pictured = {
    ...fresh,
    region: { x: 200, y: 200, width: 160, height: 160, turn: 0, corners },
    join: { ...fresh.join, on: false },
  };

  it('becomes square-on: every tile as large as the others', () => {
    const unit = makeUnit({ picture: photo, scale: 1 }, pictured, STRAIGHT);
    expect([unit.width, unit.height]).toEqual([160, 160]);
    for (let y = 0; y < 160; y += 1)
      for (let x = 0; x < 160; x += 1) {
        // Four tiles of 40 px each way; what lies within 4 px of their edges is a mixture.
        if (Math.min(x % 40, 39 - (x % 40), y % 40, 39 - (y % 40)) < 4) continue;
        const [column, row] = [1 + Math.floor(x / 40), 3 - Math.floor(y / 40)];
        const wanted = (column + row) % 2 === 0 ? TILE.light : TILE.dark;
        const found = pixelOf(unit, x, y);
        wanted.forEach((value, channel) => expect(Math.abs(found[channel]! - value)).toBeLessThan(12));
      }
  });

  it('has a name of its own by its corners, which go with it when it is moved', () => {
    const name = (region: Pictured['region']): string =>
      madeAsset({ pictured: { ...pictured, region }, lay: STRAIGHT });
    const { corners: _, ...upright } = pictured.region;
    expect(name(pictured.region)).not.toBe(name(upright));
    const moved = movedRegion(pictured.region, { x: 5, y: -3 });
    expect(moved.corners![2]).toEqual({ x: corners[2].x + 5, y: corners[2].y - 3 });
    expect(name(moved)).not.toBe(name(pictured.region));
  });
});
