import type { Size } from '../../lattice/size';
import { modulo } from '../../num/tolerance';
import { rows, type Greys, type Numbers } from './grains';
import { Fractal, lot } from './noise';

/** Where the warp, which runs upright, lies on top: at crossing (i, j) of the threads; it repeats after `repeat` threads each way. */
type Binding = { repeat: number; warpOnTop: (i: number, j: number) => boolean };

/** Over one, under one. */
const PLAIN: Binding = { repeat: 2, warpOnTop: (i, j) => (i + j) % 2 === 0 };
/** Over two, under two, a thread further in each row: lines at 45°. */
const TWILL: Binding = { repeat: 4, warpOnTop: (i, j) => modulo(i + j, 4) < 2 };

export const linen = (size: Size, seed: number, of: Numbers): Greys => woven(size, seed, of, PLAIN);
export const twill = (size: Size, seed: number, of: Numbers): Greys => woven(size, seed, of, TWILL);

/** Threads across and down, as near to their width as whole repeats of the binding allow. */
export function threadsOf(size: Size, thread: number, repeat: number): { across: number; down: number } {
  const whole = (side: number): number => repeat * Math.max(1, Math.round(side / (thread * repeat)));
  return { across: whole(size.width), down: whole(size.height) };
}

function woven(size: Size, seed: number, of: Numbers, { repeat, warpOnTop }: Binding): Greys {
  const { width, height } = size;
  const { across, down } = threadsOf(size, of('thread'), repeat);
  const [pitchX, pitchY] = [width / across, height / down];
  const [uneven, open, apart] = [of('uneven'), of('open'), of('apart')];
  // Threads are thicker here and there, and do not run quite straight.
  const long = Math.max(pitchX, pitchY);
  const warp = new Fractal(size, seed, { width: pitchX * 1.3, height: long * 9 }, 0.5, 2);
  const weft = new Fractal(size, seed + 1, { width: long * 9, height: pitchY * 1.3 }, 0.5, 2);
  const fibre = new Fractal(size, seed + 2, { width: pitchX / 3, height: pitchY / 3 }, 0.5, 2);
  const shade = (count: number, own: number): Float64Array =>
    Float64Array.from({ length: count }, (_, at) => 1 + uneven * 0.35 * (lot(at, own, seed) - 0.5));
  const warps = shade(across, 11);
  const wefts = shade(down, 12);
  const half = 1 - open;
  const [sways, drifts, fibres] = [0, 1, 2].map(() => new Float64Array(width)) as [
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  return rows(size, (y) => {
    warp.row(y, sways);
    weft.row(y, drifts);
    fibre.row(y, fibres);
    return (x) => {
      const sway = sways[x]!;
      const drift = drifts[x]!;
      const u = (x + 0.5) / pitchX + uneven * 0.16 * sway;
      const v = (y + 0.5) / pitchY + uneven * 0.16 * drift;
      const column = Math.floor(u);
      const row = Math.floor(v);
      const i = modulo(column, across);
      const j = modulo(row, down);
      // From −1 to 1 across each thread.
      const a = 2 * (u - column) - 1;
      const b = 2 * (v - row) - 1;
      const thick = half * (1 + uneven * 0.2 * (sway + drift));
      const upright = round(a, thick) * warps[i]!;
      const flat = round(b, thick) * wefts[j]!;
      const onTop = warpOnTop(i, j);
      const top = onTop ? upright : flat;
      const under = onTop ? flat : upright;
      // A thread on top bends down towards the ends of its float.
      const end = onTop
        ? floatEnd(b, warpOnTop(i, j + repeat - 1), warpOnTop(i, j + 1))
        : floatEnd(a, !warpOnTop(i + repeat - 1, j), !warpOnTop(i + 1, j));
      const grain = 235 * (1 + 0.12 * fibres[x]!);
      const darker = 1 - apart;
      if (top > 0) return (onTop ? darker : 1) * grain * top * (1 - 0.3 * end * end);
      if (under > 0) return (onTop ? 1 : darker) * grain * under * 0.5;
      return 12;
    };
  });
}

/** How light a round thread is at `at` across it (−1 to 1), `half` of its room wide; 0 beside it. */
function round(at: number, half: number): number {
  const far = (at < 0 ? -at : at) / half;
  return far >= 1 ? 0 : 0.45 + 0.55 * Math.sqrt(1 - far * far);
}

/** How near the end of its float a thread is, `at` −1 to 1 within a crossing: 0 in the middle, 1 where it goes under. */
function floatEnd(at: number, before: boolean, after: boolean): number {
  if (before && after) return 0;
  if (before) return at < 0 ? 0 : at;
  if (after) return at > 0 ? 0 : -at;
  return at < 0 ? -at : at;
}
