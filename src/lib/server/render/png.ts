import { joinAdler, pngChunk, pngHead, zlibTrailer, ZLIB_HEADER } from '../../core/formats/png';
import { embedPictures, type ShownPicture } from '../../core/svg/paint';
import type { DisplayList } from '../../core/draw/list';
import type { BandReply, LayerStep, SharedPicture } from '../../contract/render';
import type { RenderPool } from './pool';
import { pictureLookup, picturesNeeded, type NeededPicture } from './pictures-needed';
import { bandSteps } from './steps';

export type PngSize = { width: number; height: number; ppi: number };

/** Gives pictures as data URLs; `null` for one that is gone. */
export type PictureSource = (picture: ShownPicture) => string | null;

export type PngOptions = {
  size: PngSize;
  /** Takes the file's bytes in order. */
  write: (bytes: Uint8Array) => Promise<void>;
  /** Told the share done, 0 to 1. */
  progress?: (share: number) => void;
  signal?: AbortSignal;
  /** A picture of the drawing as a data URL; `null` where it is gone. */
  picture?: PictureSource;
  /** A picture that a fill or a mask samples, decoded; `null` where it is gone. */
  pixels?: PixelSource;
};

export type PixelSource = (needed: NeededPicture) => Promise<SharedPicture | null>;

/** Pixels in one band: small enough for little memory, large enough that parsing its SVG costs nothing beside drawing. */
const BAND_PIXELS = 4_000_000;
/** A lower band is not worth a drawing of its own. */
const FEW_ROWS = 200;

/** Draws a layout as a PNG of exactly `size` pixels, band by band on the pool's threads, and writes it in order. */
export async function renderPng(scene: DisplayList, pool: RenderPool, options: PngOptions): Promise<void> {
  const { size, write, signal } = options;
  const bands = bandsOf(size, pool.threads);
  const alpha = scene.background === null;
  const scale = { x: size.width / scene.width, y: size.height / scene.height };
  const decoded: { needed: NeededPicture; picture: SharedPicture | null }[] = [];
  for (const needed of picturesNeeded(scene, scale)) {
    signal?.throwIfAborted();
    decoded.push({ needed, picture: (await options.pixels?.(needed)) ?? null });
  }
  const lookup = pictureLookup(decoded);
  await write(pngHead({ ...size, alpha }));
  const waiting: Promise<BandReply>[] = [];
  let next = 0;
  const start = (): void => {
    const band = bands[next];
    if (!band) return;
    next += 1;
    const { width } = size;
    const box = { x: 0, y: band.top, width, height: band.rows };
    const last = next === bands.length;
    const layers = withPictures(bandSteps(scene, box, scale, lookup), options.picture ?? (() => null));
    const reply = pool.band({ width, height: band.rows, alpha, ...layers, last });
    reply.catch(() => undefined);
    waiting.push(reply);
  };
  for (let ahead = 0; ahead <= pool.threads; ahead += 1) start();
  let adler = 1;
  for (let done = 0; done < bands.length; done += 1) {
    signal?.throwIfAborted();
    const reply = await (waiting.shift() as Promise<BandReply>);
    start();
    adler = joinAdler(adler, reply.adler, reply.length);
    const head = done === 0 ? [ZLIB_HEADER] : [];
    const tail = done === bands.length - 1 ? [zlibTrailer(adler)] : [];
    await write(pngChunk('IDAT', Buffer.concat([...head, reply.deflated, ...tail])));
    options.progress?.((done + 1) / bands.length);
  }
  await write(pngChunk('IEND', new Uint8Array(0)));
}

type Band = { top: number; rows: number };

/** Bands of at most {@link BAND_PIXELS}, and two to a thread where the page is high enough: so none waits for another. */
function bandsOf({ width, height }: PngSize, threads: number): Band[] {
  const share = Math.max(FEW_ROWS, Math.ceil(height / (2 * threads)));
  const rows = Math.max(1, Math.min(height, share, Math.floor(BAND_PIXELS / width)));
  const bands: Band[] = [];
  for (let top = 0; top < height; top += rows) bands.push({ top, rows: Math.min(rows, height - top) });
  return bands;
}

/** The drawings of a band with every picture inside them: a render thread reads nothing from elsewhere. */
function withPictures(
  { base, steps }: ReturnType<typeof bandSteps>,
  picture: PictureSource,
): ReturnType<typeof bandSteps> {
  const layer = (step: LayerStep): LayerStep =>
    step.source.kind === 'picture' || step.source.kind === 'plane'
      ? step
      : { ...step, source: { ...step.source, svg: embedPictures(step.source.svg, picture) } };
  return {
    base: embedPictures(base, picture),
    steps: steps.map((step) =>
      step.kind === 'layer' ? layer(step) : { ...step, steps: step.steps.map(layer) },
    ),
  };
}
