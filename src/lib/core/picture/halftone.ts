import { LINEAR } from '../colour/contrast';
import { channelsOf, type Hex } from '../colour/parse';
import { clamp } from '../num/tolerance';
import type { Numbered } from '../raster/numbered';
import type { StraightPicture } from '../raster/recolour';
import type { PictureLay, Screen } from '../recipe/pictured';

/** Plane px → cells of a screen: whole numbers lie in the middles of its dots. */
export type Cells = { px: number; py: number; qx: number; qy: number };

/**
 * The cells of a screen over a unit, as near to its number and its turn as they can be so that every unit, as it lies,
 * has whole ones: (0, 0) of the unit and of all its neighbours lie at the same place of a cell.
 */
export function cellsOf(
  { width, height }: { width: number; height: number },
  lay: PictureLay,
  screen: Screen,
): Cells {
  const side = width / screen.across;
  const turn = (screen.turn * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const along = lay.kind === 'brick' ? Math.round(lay.step * width) : 0;
  const down = lay.kind === 'half-drop' ? Math.round(lay.step * height) : 0;
  /** Whole cells from a unit to the one that lies (x, y) px further. */
  const whole = (x: number, y: number): [number, number] => [
    Math.round((x * cos + y * sin) / side),
    Math.round((y * cos - x * sin) / side),
  ];
  const [p1, q1] = whole(width, down);
  const [p2, q2] = whole(along, height);
  const area = width * height - along * down;
  return {
    px: (p1 * height - p2 * down) / area,
    py: (p2 * width - p1 * along) / area,
    qx: (q1 * height - q2 * down) / area,
    qy: (q2 * width - q1 * along) / area,
  };
}

const FINE = 1024;
/** One wave in even steps, as 32-bit numbers: what differs in a last bit from engine to engine is gone. */
const WAVE = Float32Array.from({ length: FINE }, (_, at) => Math.cos((2 * Math.PI * at) / FINE));
const wave = (cells: number): number => WAVE[Math.floor((cells - Math.floor(cells)) * FINE)]!;

/** How much ink there may be, in even steps. */
const STEPS = 255;

/**
 * From which value of its spot function on a form is ink so that it covers each share of a cell: cos 2πp + cos 2πq for
 * round dots, which become squares that touch at a half and round holes beyond it; cos 2πq for lines.
 */
const LIMITS: Record<Screen['form'], Float32Array> = { round: limitsOf('round'), line: limitsOf('line') };

function limitsOf(form: Screen['form']): Float32Array {
  const SIDE = 256;
  const values = Float32Array.from({ length: SIDE * SIDE }, (_, at) =>
    spot(form, ((at % SIDE) + 0.5) / SIDE, (Math.floor(at / SIDE) + 0.5) / SIDE),
  ).sort();
  return Float32Array.from({ length: STEPS + 1 }, (_, step) => {
    const left = values.length * (1 - step / STEPS);
    return step === 0 ? Infinity : step === STEPS ? -Infinity : values[Math.round(left)]!;
  });
}

function spot(form: Screen['form'], p: number, q: number): number {
  return form === 'round' ? wave(p) + wave(q) : wave(q);
}

/** Samples of a pixel each way. */
const SAMPLES = 4;

/**
 * A unit (straight alpha) as a halftone of two colours, the ink first: dots whose area is what mixes to the pixel's own
 * light, so that it is as light from afar as it was (the area law of Murray and Davies 1936).
 */
export function halftone(
  unit: StraightPicture,
  colours: readonly Hex[],
  screen: Screen,
  lay: PictureLay,
): Numbered {
  const { width, height, data } = unit;
  const light = (r: number, g: number, b: number): number =>
    0.2126 * LINEAR[r]! + 0.7152 * LINEAR[g]! + 0.0722 * LINEAR[b]!;
  const [ink = 0, paper = 1] = colours.map((colour) => light(...channelsOf(colour)));
  const { px, py, qx, qy } = cellsOf(unit, lay, screen);
  const limits = LIMITS[screen.form];
  const out = new Uint8Array(data.length);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const at = (y * width + x) * 4;
      const own = light(data[at]!, data[at + 1]!, data[at + 2]!);
      const cover = paper === ink ? 0 : clamp((paper - own) / (paper - ink), 0, 1);
      const limit = limits[Math.round(cover * STEPS)]!;
      let inked = 0;
      for (let sample = 0; sample < SAMPLES * SAMPLES; sample += 1) {
        const u = x + ((sample % SAMPLES) + 0.5) / SAMPLES;
        const v = y + (Math.floor(sample / SAMPLES) + 0.5) / SAMPLES;
        if (spot(screen.form, u * px + v * py, u * qx + v * qy) >= limit) inked += 1;
      }
      out[at + 1] = 1;
      out[at + 2] = Math.round(255 * (1 - inked / (SAMPLES * SAMPLES)));
      out[at + 3] = data[at + 3]!;
    }
  return { width, height, data: out };
}
