import sharp from 'sharp';
import { makeUnit } from '../../src/lib/core/picture/make';
import { seamsOf } from '../../src/lib/core/picture/seam';
import { freshPictured, JOIN_KINDS, type JoinKind, type Pictured } from '../../src/lib/core/recipe/pictured';
import { openRenderPool } from '../../src/lib/server/render/pool';
import { renderPng } from '../../src/lib/server/render/png';
import { picturePattern } from '../../tests/support/picture-patterns';
import { filledPage } from '../../tests/support/scenes';
import { median, print, sized, type Row } from './measure';
import { benchTextures } from './textures';

const SIDE = sized(7500, 500);
const UNIT = { width: sized(900, 90), height: sized(700, 70) };

/** A made-up photo: soft noise at three sizes, as grass or a wall has it. */
export async function photo(width: number, height: number): Promise<Buffer> {
  const noise = (side: number, seed: number): Promise<Buffer> => {
    const pixels = Buffer.from(
      Array.from({ length: side * side * 3 }, (_, at) => ((at + seed) * 7919) % 251),
    );
    return sharp(pixels, { raw: { width: side, height: side, channels: 3 } })
      .resize(width, height, { fit: 'fill' })
      .png()
      .toBuffer();
  };
  return sharp(await noise(20, 1))
    .composite([
      { input: await noise(90, 5), blend: 'overlay' },
      { input: await noise(400, 9), blend: 'soft-light' },
    ])
    .png()
    .toBuffer();
}

/** Draws a page filled with a picture, for whoever measures its time or its memory. */
export async function drawPicturePage(
  side: number,
  fill: { scale: number; rotation: number },
  bytes?: Buffer,
): Promise<void> {
  const picture = bytes ?? (await photo(UNIT.width, UNIT.height));
  const pool = openRenderPool();
  const { scale, rotation } = fill;
  const scene = filledPage(picturePattern({ kind: 'straight' }, UNIT), side, {
    scaleX: scale,
    scaleY: scale,
    rotation,
  });
  await renderPng({ ...scene, background: '#ffffff' }, pool, {
    size: { width: side, height: side, ppi: 300 },
    pixels: ({ share, edges }) => pool.pixels({ bytes: picture, share, edges }),
    write: () => Promise.resolve(),
  });
  await pool.close();
}

/** The same page by libvips: the picture sized, laid side by side, turned with bicubic interpolation where it is, and encoded. */
async function byLibvips(
  bytes: Buffer,
  { scale, rotation }: { scale: number; rotation: number },
): Promise<void> {
  const options = { limitInputPixels: false } as const;
  const tile = await sharp(bytes)
    .resize(Math.round(UNIT.width * scale), Math.round(UNIT.height * scale), { fit: 'fill' })
    .raw()
    .toBuffer({ resolveWithObject: true });
  const input = tile.data;
  const raw = { width: tile.info.width, height: tile.info.height, channels: 3 as const };
  const whole = rotation === 0 ? SIDE : Math.ceil(SIDE * Math.SQRT2);
  const laid = sharp({
    create: { width: whole, height: whole, channels: 3, background: '#ffffff' },
    ...options,
  }).composite([{ input, raw, tile: true, gravity: 'northwest' }]);
  if (rotation === 0) {
    await laid.removeAlpha().png().toBuffer();
    return;
  }
  const { data, info } = await laid.removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const radians = (rotation * Math.PI) / 180;
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)];
  const turned = await sharp(data, { raw: { ...info, channels: 3 }, ...options })
    .affine([cos, -sin, sin, cos], { interpolator: 'bicubic', background: '#ffffff' })
    .raw()
    .toBuffer({ resolveWithObject: true });
  const left = Math.floor((turned.info.width - SIDE) / 2);
  const top = Math.floor((turned.info.height - SIDE) / 2);
  await sharp(turned.data, { raw: { ...turned.info, channels: 3 }, ...options })
    .extract({ left, top, width: SIDE, height: SIDE })
    .png()
    .toBuffer();
}

/** Filling a large page with a picture, beside libvips. */
export async function benchPictures(): Promise<void> {
  const bytes = await photo(UNIT.width, UNIT.height);
  const rows: Row[] = [];
  for (const [what, fill] of [
    ['1 : 1, upright', { scale: 1, rotation: 0 }],
    ['1 : 1, turned by 31°', { scale: 1, rotation: 31 }],
    ['shrunk to 43 %, upright', { scale: 0.43, rotation: 0 }],
    ['enlarged to 237 %, turned by 31°', { scale: 2.37, rotation: 31 }],
  ] as const) {
    const isle = await median(() => drawPicturePage(SIDE, fill, bytes), 3);
    const libvips = await median(() => byLibvips(bytes, fill), 3);
    rows.push({ what: `Isle, ${what}`, ms: isle });
    rows.push({ what: 'libvips', ms: libvips, ratio: isle / libvips, reference: 'of it (goal ≤ 1.2)' });
  }
  print(`A page of ${SIDE} × ${SIDE} px filled with a picture of 900 × 700 px`, rows);
  await benchJoins();
  await benchTextures();
}

/** The side of a unit whose joins are timed, px. */
const JOINED = sized(2000, 240);

/** Every way to join, and what measures joins, beside one blur of the same picture. */
async function benchJoins(): Promise<void> {
  const whole = Math.round(JOINED * 1.2);
  const { data } = await sharp(await photo(whole, whole))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const picture = { width: whole, height: whole, data: new Uint8Array(data) };
  const fresh = freshPictured({ asset: '', width: whole, height: whole, name: '' });
  const region = { x: whole / 2, y: whole / 2, width: JOINED, height: JOINED, turn: 0 };
  const steps = (how: JoinKind): Pictured => ({
    ...fresh,
    region,
    join: { ...fresh.join, how, band: 2 * Math.round(JOINED / 20) },
  });
  const lay = { kind: 'straight' } as const;
  const raw = { width: whole, height: whole, channels: 4 as const };
  const blur = await median(() =>
    sharp(data, { raw })
      .extract({ left: 0, top: 0, width: JOINED, height: JOINED })
      .blur(10)
      .raw()
      .toBuffer(),
  );
  const rows: Row[] = [{ what: 'libvips, a Gaussian blur (σ 10) of the same size', ms: blur }];
  for (const how of JOIN_KINDS) {
    const ms = await median(() => makeUnit({ picture, scale: 1 }, steps(how), lay), 3);
    const goal = how === 'grown' ? 40 : 8;
    rows.push({ what: `joined: ${how}`, ms, ratio: ms / blur, reference: `of it (goal ≤ ${goal})` });
  }
  const unit = makeUnit({ picture, scale: 1 }, steps('cut'), lay);
  const seams = await median(() => seamsOf(unit, lay), 3);
  rows.push({ what: 'both joins measured', ms: seams, ratio: seams / blur, reference: 'of it (goal ≤ 1)' });
  print(`Joins of a unit of ${JOINED} × ${JOINED} px`, rows);
}
