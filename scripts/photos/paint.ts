import { seededRandom } from '../../src/lib/core/num/random';
import { clamp } from '../../src/lib/core/num/tolerance';
import { png, type Painted } from '../../src/lib/server/demo/paint';

/** Photographs for the demo, made of geometry, light and grain: made up, and nobody's. */

/** A picture that is worked on in linear steps: three values a pixel, 0 to 255. */
class Sheet {
  readonly pixels: Float32Array;

  constructor(
    readonly width: number,
    readonly height: number,
    ground: (x: number, y: number) => readonly number[],
  ) {
    this.pixels = new Float32Array(width * height * 3);
    for (let y = 0; y < height; y += 1)
      for (let x = 0; x < width; x += 1) this.pixels.set(ground(x, y), (y * width + x) * 3);
  }

  /** Lays colour over what is there within a box: `paint` answers it with its cover, or `null`. */
  over(
    box: { x: number; y: number; reach: number },
    paint: (x: number, y: number) => { colour: readonly number[]; cover: number } | null,
  ): void {
    const left = Math.max(0, Math.floor(box.x - box.reach));
    const top = Math.max(0, Math.floor(box.y - box.reach));
    const right = Math.min(this.width - 1, Math.ceil(box.x + box.reach));
    const foot = Math.min(this.height - 1, Math.ceil(box.y + box.reach));
    for (let y = top; y <= foot; y += 1)
      for (let x = left; x <= right; x += 1) {
        const found = paint(x, y);
        if (!found) continue;
        const at = (y * this.width + x) * 3;
        for (let channel = 0; channel < 3; channel += 1)
          this.pixels[at + channel] =
            this.pixels[at + channel]! * (1 - found.cover) + found.colour[channel]! * found.cover;
      }
  }

  done(): Painted {
    const { width, pixels } = this;
    return png(width, this.height, (x, y) => {
      const at = (y * width + x) * 3;
      return [pixels[at]!, pixels[at + 1]!, pixels[at + 2]!];
    });
  }
}

/** Smooth grain from −1 to 1 at a size in px, the same for the same seed. */
function grain(seed: number, size: number): (x: number, y: number) => number {
  const value = (i: number, j: number): number => {
    let hash = (Math.imul(i, 374761393) + Math.imul(j, 668265263) + Math.imul(seed, 974634777)) | 0;
    hash = Math.imul(hash ^ (hash >>> 13), 1274126177);
    return ((hash ^ (hash >>> 16)) >>> 0) / 2147483648 - 1;
  };
  const soft = (t: number): number => t * t * (3 - 2 * t);
  return (x, y) => {
    const [u, v] = [x / size, y / size];
    const [i, j] = [Math.floor(u), Math.floor(v)];
    const [fx, fy] = [soft(u - i), soft(v - j)];
    const upper = value(i, j) * (1 - fx) + value(i + 1, j) * fx;
    return upper * (1 - fy) + (value(i, j + 1) * (1 - fx) + value(i + 1, j + 1) * fx) * fy;
  };
}

const STONES = [
  [196, 186, 170],
  [150, 150, 146],
  [116, 128, 134],
  [168, 122, 104],
  [208, 200, 188],
  [94, 98, 102],
  [142, 92, 78],
  [178, 168, 140],
] as const;

/** Pebbles on a slipway in a low sun, some with a vein of quartz. */
export function pebblePhoto(): Painted {
  const [width, height] = [1200, 900];
  const random = seededRandom(41);
  const speck = grain(7, 2.2);
  const cloud = grain(8, 19);
  const sheet = new Sheet(width, height, (x, y) => {
    const dark = 46 + 12 * cloud(x, y) + 9 * speck(x, y);
    return [dark, dark * 0.97, dark * 0.92];
  });
  for (let count = 0; count < 1500; count += 1) {
    // Large ones lie below; the last are the small ones that fill the gaps between them.
    const size = 52 - 34 * Math.sqrt(count / 1500) + random() * 10;
    const [x, y] = [random() * (width + 80) - 40, random() * (height + 80) - 40];
    stone(sheet, { x, y, size, flat: 0.62 + random() * 0.34, turn: random() * Math.PI, random });
  }
  return sheet.done();
}

type Stone = { x: number; y: number; size: number; flat: number; turn: number; random: () => number };

function stone(sheet: Sheet, { x, y, size, flat, turn, random }: Stone): void {
  const base = STONES[Math.floor(random() * STONES.length)]!;
  const tint = 0.86 + random() * 0.26;
  const seed = Math.floor(random() * 1e6);
  const [mottled, rough] = [grain(seed, 9), grain(seed + 1, 2.4)];
  const vein = random() < 0.22 ? { at: random() * 0.9 - 0.45, slope: random() * 1.6 - 0.8 } : null;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const power = 2.2 + random() * 0.7;
  const place = (px: number, py: number): { u: number; v: number; off: number } => {
    const [dx, dy] = [px - x, py - y];
    const u = (dx * cos + dy * sin) / size;
    const v = (-dx * sin + dy * cos) / (size * flat);
    return { u, v, off: Math.abs(u) ** power + Math.abs(v) ** power };
  };
  // Its shadow falls to the lower right.
  sheet.over({ x: x + 5, y: y + 6, reach: size * 1.25 }, (px, py) => {
    const { off } = place(px - 5, py - 6);
    const cover = clamp((1.35 - off) / 0.75, 0, 1) * 0.55;
    return cover > 0 ? { colour: [22, 22, 25], cover } : null;
  });
  sheet.over({ x, y, reach: size * 1.05 }, (px, py) => {
    const { u, v, off } = place(px, py);
    const cover = clamp((1 - off) * size * 0.28, 0, 1);
    if (cover <= 0) return null;
    const up = Math.sqrt(Math.max(0, 1 - Math.min(1, off)));
    // The slope in the picture, from that in the stone's own frame.
    const [nx, ny] = [u * cos - (v / flat) * sin, u * sin + (v / flat) * cos];
    const light = clamp(0.36 + 0.62 * up - 0.34 * nx - 0.4 * ny, 0.14, 1.18);
    const shine = Math.max(0, up - 0.34 * (nx + 0.55) ** 2 - 0.34 * (ny + 0.6) ** 2 - 0.62) * 70;
    const surface = 1 + 0.07 * mottled(px, py) + 0.06 * rough(px, py);
    const inVein = vein ? clamp(1 - Math.abs(v - vein.at - vein.slope * u * 0.5) * 14, 0, 1) * 0.75 : 0;
    const colour = base.map((channel) => {
      const own = channel * tint * surface;
      return (own * (1 - inVein) + 226 * inVein) * light + shine;
    });
    return { colour, cover };
  });
}

/** A harbour wall of brick, lighter towards the sea. */
export function wallPhoto(): Painted {
  const [width, height] = [1100, 820];
  const [long, high, joint] = [118, 41, 6];
  const random = seededRandom(17);
  const tones = Array.from({ length: 600 }, () => 0.78 + random() * 0.42);
  const [fine, rough, stain, wave] = [grain(3, 1.7), grain(4, 6), grain(5, 90), grain(6, 46)];
  const sheet = new Sheet(width, height, (x, y) => {
    // Bricks were laid by hand: their courses are not quite straight.
    const [px, py] = [x + 2.4 * wave(y * 3, x), y + 1.8 * wave(x, y * 2)];
    const course = Math.floor(py / high);
    const along = px + (course % 2) * (long / 2) + 900;
    const brick = Math.floor(along / long);
    const [inX, inY] = [along - brick * long, py - course * high];
    const edge = Math.min(inX, long - inX, inY, high - inY) + 1.3 * rough(px, py);
    const tone = tones[(((course * 31 + brick * 17) % 600) + 600) % 600]!;
    const light = 0.7 + (0.42 * x) / width - (0.1 * y) / height + 0.05 * stain(x, y);
    const relief = inY < joint + 3 || inX < joint + 3 ? 1.1 : inY > high - joint - 2 ? 0.84 : 1;
    const noise = 1 + 0.11 * rough(px, py) + 0.09 * fine(px, py);
    const clay = [172 * tone, 94 * tone + 6 * stain(y, x), 72 * tone];
    const mortar = [168, 160, 148];
    const share = clamp((edge - joint / 2) / 2, 0, 1);
    const shaded = share < 1 ? 0.86 : relief;
    return clay.map(
      (channel, index) => (channel * share + mortar[index]! * (1 - share)) * noise * light * shaded,
    );
  });
  return sheet.done();
}

/** Thrift in flower on short grass: pink heads that part well from the green. */
export function thriftPhoto(): Painted {
  const [width, height] = [1100, 820];
  const random = seededRandom(29);
  const [blade, patch, fine] = [grain(11, 3), grain(12, 60), grain(13, 1.6)];
  const sheet = new Sheet(width, height, (x, y) => {
    const shade = 0.72 + 0.2 * patch(x, y) + 0.14 * blade(x * 0.6, y * 2.4) + 0.08 * fine(x, y);
    return [74 * shade, 104 * shade, 58 * shade];
  });
  for (let count = 0; count < 2600; count += 1) grass(sheet, random, width, height);
  for (let count = 0; count < 58; count += 1)
    flower(sheet, random() * (width + 60) - 30, random() * (height + 60) - 30, 24 + random() * 20, random);
  return sheet.done();
}

function grass(sheet: Sheet, random: () => number, width: number, height: number): void {
  const [x, y] = [random() * width, random() * height];
  const [length, bend] = [14 + random() * 26, random() * 1.6 - 0.8];
  const light = 0.7 + random() * 0.6;
  sheet.over({ x, y: y - length / 2, reach: length }, (px, py) => {
    const t = (y - py) / length;
    if (t < 0 || t > 1) return null;
    const off = Math.abs(px - x - bend * t * t * length * 0.6);
    const cover = clamp(1.9 * (1 - t) + 0.5 - off, 0, 1);
    return cover > 0 ? { colour: [92 * light, 132 * light, 66 * light], cover: cover * 0.8 } : null;
  });
}

function flower(sheet: Sheet, x: number, y: number, size: number, random: () => number): void {
  sheet.over({ x: x + 4, y: y + 6, reach: size * 1.2 }, (px, py) => {
    const cover = clamp(1.15 - Math.hypot(px - x - 4, py - y - 6) / size, 0, 1) * 0.6;
    return cover > 0 ? { colour: [30, 44, 26], cover } : null;
  });
  const hue = random();
  for (let petal = 0; petal < 34; petal += 1) {
    const [angle, away] = [random() * Math.PI * 2, Math.sqrt(random()) * size * 0.78];
    const [cx, cy] = [x + Math.cos(angle) * away, y + Math.sin(angle) * away];
    const own = size * (0.22 + random() * 0.12);
    const light = 0.84 + 0.3 * random() - 0.12 * ((cx - x + cy - y) / size);
    const colour = [226 - 16 * hue, 112 + 30 * hue, 158 + 26 * hue].map((channel) => channel * light);
    const dark = colour.map((channel) => channel * 0.72);
    sheet.over({ x: cx, y: cy, reach: own + 2 }, (px, py) => {
      const off = Math.hypot(px - cx, (py - cy) * 1.12) / own;
      const cover = clamp((1 - off) * own * 0.5, 0, 1);
      const share = clamp(off * 1.1 - 0.35, 0, 1);
      return cover > 0
        ? { colour: colour.map((channel, index) => channel * (1 - share) + dark[index]! * share), cover }
        : null;
    });
  }
}
