import { zlibSync } from 'fflate';
import { clamp } from '../../core/num/tolerance';
import { filterRows, pngChunk, pngHead } from '../../core/formats/png';

/** Pictures for the demo, painted by formulas: made up, and nobody's. Each answers a PNG file. */

export type Painted = { bytes: Buffer; width: number; height: number };

type Colour = [red: number, green: number, blue: number, alpha?: number];

/** A PNG whose pixels a function gives. */
export function png(width: number, height: number, colourAt: (x: number, y: number) => Colour): Painted {
  const data = new Uint8Array(width * height * 4);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const [red, green, blue, alpha = 255] = colourAt(x, y);
      const to = (y * width + x) * 4;
      data[to] = (clamp(red, 0, 255) * alpha) / 255;
      data[to + 1] = (clamp(green, 0, 255) * alpha) / 255;
      data[to + 2] = (clamp(blue, 0, 255) * alpha) / 255;
      data[to + 3] = alpha;
    }
  const rows = zlibSync(filterRows(data, width, true), { level: 6 });
  const bytes = Buffer.concat([
    pngHead({ width, height, alpha: true, ppi: 150 }),
    pngChunk('IDAT', rows),
    pngChunk('IEND', new Uint8Array(0)),
  ]);
  return { bytes, width, height };
}

function mix(one: Colour, other: Colour, share: number): Colour {
  const t = clamp(share, 0, 1);
  const at = (from: number, to: number): number => from * (1 - t) + to * t;
  return [at(one[0], other[0]), at(one[1], other[1]), at(one[2], other[2])];
}

/** Light that water gathers into lines, 0 to 1. */
function gathered(x: number, y: number, turn: number): number {
  const warpX = x + 14 * Math.sin(y / 37 + turn) + 6 * Math.sin(y / 11);
  const warpY = y + 12 * Math.sin(x / 41 - turn) + 5 * Math.sin(x / 13);
  const one = 1 - Math.abs(Math.sin(warpX / 33 + Math.sin(warpY / 29)));
  const other = 1 - Math.abs(Math.sin(warpY / 27 + Math.sin(warpX / 31 + turn)));
  return (one ** 5 + other ** 5) / 1.6;
}

/** Morning light on the tiles of a pool, seen from above, deeper towards the foot. */
export function poolPhoto(): Painted {
  return png(960, 640, (x, y) => {
    const near = 0.6 + (0.9 * y) / 640;
    const [floorX, floorY] = [
      x + 7 * Math.sin(y / 21) * near + 4 * Math.sin(x / 17),
      y + 6 * Math.sin(x / 25) * near + 3 * Math.sin(y / 9),
    ];
    const joint = Math.min(Math.abs(((floorX % 64) + 64) % 64), Math.abs(((floorY % 64) + 64) % 64)) < 2.5;
    const depth = mix([126, 208, 214], [18, 92, 128], (y / 640) * 0.85 + 0.12 * Math.sin(x / 260));
    const lane = Math.abs(floorX - 480) < 34 ? mix(depth, [12, 46, 82], 0.55) : depth;
    const tile = joint ? mix(lane, [226, 240, 236], 0.3) : lane;
    const light = gathered(x / near, y / near, 0.7) * (1.05 - y / 900);
    return mix(tile, [250, 255, 248], light * 0.62);
  });
}

/** A boat line's ship at dusk, its windows lit, and its light on the sea. */
export function duskPhoto(): Painted {
  const horizon = 330;
  return png(720, 720, (x, y) => {
    if (y >= horizon) return seaAt(x, y - horizon);
    const sky = mix(mix([22, 30, 58], [112, 52, 86], y / 190), [246, 158, 88], (y - 150) / 190);
    const cloud = Math.sin(x / 90 + Math.sin(y / 17) * 1.4) * Math.sin(y / 23 + x / 260);
    const lit = mix(sky, [255, 196, 140], Math.max(0, cloud - 0.35) * 0.7);
    const sun = Math.exp(-(((x - 520) / 130) ** 2) - ((y - 322) / 60) ** 2);
    return shipAt(x, y) ?? mix(lit, [255, 226, 170], sun);
  });
}

function seaAt(x: number, down: number): Colour {
  const wave = Math.sin(down / (2 + down / 40) + Math.sin(x / (14 + down / 6)) * 2.2);
  const sea = mix([58, 46, 74], [12, 24, 44], down / 300);
  const path = Math.exp(-(((x - 520) / (40 + down * 0.55)) ** 2));
  const glint = wave > 0.55 ? path * (1 - down / 520) : path * 0.18;
  const ship = x > 70 && x < 400 && wave > 0.5 && down < 60 ? 0.35 * (1 - down / 60) : 0;
  return mix(mix(sea, [255, 190, 120], glint), [250, 214, 140], ship);
}

function shipAt(x: number, y: number): Colour | null {
  const hull = y > 286 && x > 60 + (y - 286) * 0.9 && x < 410 - (y - 286) * 0.35;
  const decks = y > 236 && y <= 286 && x > 110 + (286 - y) * 0.5 && x < 352 - (286 - y) * 0.3;
  const funnel = y > 196 && y <= 236 && x > 250 && x < 286;
  if (!hull && !decks && !funnel) return null;
  if (funnel) return y > 208 && y < 222 ? [196, 70, 48] : [30, 30, 46];
  const row = Math.floor((y - 240) / 15);
  const window = decks && (y - 240) % 15 > 4 && (y - 240) % 15 < 11 && (x + row * 5) % 14 < 8;
  if (window) return [255, 214, 138];
  return hull ? mix([24, 28, 46], [46, 34, 52], (x - 60) / 350) : [38, 38, 56];
}

const BALL: Colour[] = [
  [248, 244, 232],
  [229, 87, 46],
  [248, 244, 232],
  [47, 143, 171],
  [248, 244, 232],
  [243, 193, 75],
];

/** A beach ball cut out of its surroundings: nothing but the ball is opaque. */
export function beachBall(): Painted {
  const side = 520;
  const radius = 250;
  return png(side, side, (px, py) => {
    const x = (px - side / 2) / radius;
    const y = (py - side / 2) / radius;
    const square = x * x + y * y;
    const away = (Math.sqrt(square) - 1) * radius;
    if (away > 0.5) return [0, 0, 0, 0];
    const z = Math.sqrt(Math.max(0, 1 - square));
    // Its axis leans to the right and towards the viewer.
    const [ax, ay] = [x * 0.87 - y * 0.5, x * 0.5 + y * 0.87];
    const [bx, bz] = [ax, z * 0.8 + ay * 0.6];
    const top = ay * 0.8 - z * 0.6;
    const gore = Math.floor((((Math.atan2(bx, bz) / (2 * Math.PI)) * 6 + 6) % 6) + 1e-9);
    const own = top < -0.93 ? ([248, 244, 232] as Colour) : (BALL[gore] ?? [255, 255, 255]);
    const light = Math.max(0, -0.45 * x - 0.62 * y + 0.64 * z);
    const shade = 0.42 + 0.66 * light;
    const shine = Math.max(0, -0.36 * x - 0.5 * y + 0.79 * z) ** 60;
    const lit: Colour = [own[0] * shade, own[1] * shade, own[2] * shade];
    const [red, green, blue] = mix(lit, [255, 255, 255], shine * 0.85);
    return [red, green, blue, Math.round(255 * Math.min(1, 0.5 - away))];
  });
}
