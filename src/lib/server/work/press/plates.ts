import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import type { PlatePicture, Plates } from '../../../contract/data';
import { done, fail, type Outcome } from '../../../contract/failure';
import { fullLook, layInk, lightLeft, type Inks, type SpotInk } from '../../../core/colour/inks';
import { PROCESS_INKS, type PressSettings } from '../../../core/colour/press';
import { hexOf } from '../../../core/colour/parse';
import type { DisplayList } from '../../../core/draw/list';
import { plateOf, type Plate } from '../../../core/draw/plates';
import { greyFile, withResolution } from '../../../core/formats/png';
import type { Db } from '../../db/open';
import { profileBytes } from '../../repo/press-profiles';
import { renderPng } from '../../render/png';
import { Press } from '../../render/press';
import type { Tools } from '../tools';
import { beyondOf } from './beyond';

export type Size = { width: number; height: number };

/** Pixels that are drawn and turned at once: a page in all its plates lies in memory. */
export const MOST_PLATE_PIXELS = 80_000_000;

/** A plate as coverage: 255 is full ink. */
export type DrawnPlate = Omit<PlatePicture, 'picture' | 'coverage'> & { ink: Uint8Array };

/** The press of a project; `null` where it has none. */
export async function pressOf(
  db: Db,
  settings: Omit<PressSettings, 'inkLimit'>,
): Promise<Outcome<Press | null>> {
  if (settings.profile === null) return done(null);
  const bytes = profileBytes(db, settings.profile);
  const press = bytes && (await Press.open(bytes, settings));
  return press ? done(press) : fail('not_found', 'The press profile of the project is gone; choose another.');
}

/** Takes what is drawn of a page, one after the other: its process colours, three bytes to a pixel, and as inks where there is a press; then each plate. */
export type PlateTaker = {
  process: (rgb: Uint8Array, inks: Uint8Array | null) => Promise<void> | void;
  plate: (plate: DrawnPlate) => Promise<void> | void;
};

/** Draws the plates of a page: those of the process inks where there is a press, then those of spot inks; nothing is kept. */
export async function drawPlates(
  tools: Tools,
  list: DisplayList,
  { inks, press, size }: { inks: Inks; press: Press | null; size: Size },
  take: PlateTaker,
  progress: (share: number) => void = () => undefined,
): Promise<void> {
  const steps = inks.all.length + 1;
  const drawn = (plate: Plate, done: number): Promise<Uint8Array> =>
    rasterOf(tools, plateOf(list, inks, plate), size, (share) => progress((done + share) / steps));
  await partedProcess(await drawn('process', 0), press, take);
  for (const [at, ink] of inks.all.entries())
    await take.plate({ ...spotPlate(ink), ink: everyThird(await drawn(ink, at + 1)) });
}

async function partedProcess(rgb: Uint8Array, press: Press | null, take: PlateTaker): Promise<void> {
  const inks = press && press.toInks(rgb);
  await take.process(rgb, inks);
  if (!inks) return;
  const looks = press.toScreen(Uint8Array.from(PROCESS_INKS.flatMap((_name, at) => one(at))));
  for (const [channel, name] of PROCESS_INKS.entries()) {
    const ink = new Uint8Array(inks.length / 4);
    for (let at = 0; at < ink.length; at += 1) ink[at] = inks[at * 4 + channel]!;
    const look = hexOf([looks[channel * 3]!, looks[channel * 3 + 1]!, looks[channel * 3 + 2]!]);
    await take.plate({ name, kind: 'process', look, tints: [{ tint: 1, look }], overprint: false, ink });
  }
}

const spotPlate = (ink: SpotInk): Omit<DrawnPlate, 'ink'> => ({
  ...{ name: ink.name, kind: 'spot', look: fullLook(ink), tints: ink.tints, overprint: ink.overprint },
});

/** Full ink of one of four. */
const one = (at: number): number[] => [0, 1, 2, 3].map((channel) => (channel === at ? 255 : 0));

/** A drawing in memory, three bytes to a pixel. */
async function rasterOf(
  { pool, pictures }: Tools,
  list: DisplayList,
  size: Size,
  progress: (share: number) => void,
): Promise<Uint8Array> {
  const parts: Uint8Array[] = [];
  await renderPng(list, pool, {
    size: { ...size, ppi: 96 },
    picture: await pictures.forScene(list),
    pixels: pictures.pixels,
    progress,
    write: async (part) => void parts.push(part),
  });
  return sharp(Buffer.concat(parts), { limitInputPixels: false })
    .removeAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer();
}

/** A grey drawing as coverage. */
function everyThird(grey: Uint8Array): Uint8Array {
  const ink = new Uint8Array(grey.length / 3);
  for (let at = 0; at < ink.length; at += 1) ink[at] = 255 - grey[at * 3]!;
  return ink;
}

/** A coverage as a grey PNG that is black where there is ink, as a film is; each row says what is another in it than above (filter Up). */
export function platePng(ink: Uint8Array, { width, height }: Size, ppi?: number): Uint8Array {
  const rows = new Uint8Array((width + 1) * height);
  for (let y = 0; y < height; y += 1) {
    const [from, to] = [y * width, y * (width + 1)];
    rows[to] = 2;
    for (let x = 0; x < width; x += 1)
      rows[to + 1 + x] = y === 0 ? 255 - ink[from + x]! : ink[from + x - width]! - ink[from + x]!;
  }
  const file = greyFile(width, height, deflateSync(rows, { level: 6 }));
  return ppi === undefined ? file : withResolution(file, ppi);
}

const base64 = (bytes: Uint8Array): string => Buffer.from(bytes).toString('base64');

/** Plates as they are looked at: each as a picture with how much of the page it covers, and all of them together. */
export async function shownPlates(
  tools: Tools,
  list: DisplayList,
  of: { inks: Inks; press: Press | null; size: Size },
): Promise<Plates> {
  const { press, size } = of;
  const plates: DrawnPlate[] = [];
  let together: Uint8Array = new Uint8Array();
  let beyond: ReturnType<typeof beyondOf> | null = null;
  await drawPlates(tools, list, of, {
    process: (rgb, inks) => {
      together = press && inks ? press.toScreen(inks) : rgb;
      beyond = press && beyondOf(rgb, press);
    },
    plate: (plate) => {
      plates.push(plate);
      if (plate.kind === 'spot') layInk(together, 3, plate.ink, lightLeft(plate));
    },
  });
  return picturesOf(plates, together, beyond, size);
}

async function picturesOf(
  plates: readonly DrawnPlate[],
  together: Uint8Array,
  beyond: ReturnType<typeof beyondOf> | null,
  size: Size,
): Promise<Plates> {
  const { width, height } = size;
  const look = await sharp(together, { raw: { width, height, channels: 3 } })
    .png()
    .toBuffer();
  const shown: PlatePicture[] = [];
  for (const { ink, ...plate } of plates) {
    const coverage = ink.reduce((sum, value) => sum + value, 0) / (255 * ink.length);
    shown.push({ ...plate, coverage, picture: base64(platePng(ink, size)) });
  }
  return {
    ...size,
    plates: shown,
    look: look.toString('base64'),
    beyond: beyond && {
      share: beyond.share,
      picture: base64(platePng(beyond.mask, size)),
    },
  };
}
