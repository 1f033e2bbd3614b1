import { statSync, writeFileSync } from 'node:fs';
import sharp from 'sharp';
import type { LayoutData, Plates } from '../../../contract/data';
import { done, fail, type Outcome } from '../../../contract/failure';
import type { Inks } from '../../../core/colour/inks';
import type { DisplayList } from '../../../core/draw/list';
import { withBleed } from '../../../core/draw/reframe';
import { pixelSize } from '../../../core/num/length';
import { LIMITS } from '../../../core/recipe/limits';
import type { Db } from '../../db/open';
import { inksInUse } from '../../repo/layout-inks';
import { getLayout, layoutInUse } from '../../repo/layouts';
import { projectPress } from '../../repo/projects';
import type { Press } from '../../render/press';
import { sceneInUse } from '../layout-scene';
import { ZipFile } from '../parcel/zip-file';
import type { Tools } from '../tools';
import {
  drawPlates,
  MOST_PLATE_PIXELS,
  platePng,
  pressOf,
  shownPlates,
  type PlateTaker,
  type Size,
} from './plates';

type Printed = { layout: LayoutData; list: DisplayList; inks: Inks; press: Press | null };

/** A layout as it is printed; `work` gets it, and its press is let go of after. */
async function printed<T>(
  db: Db,
  id: string,
  bleed: boolean,
  work: (of: Printed) => Promise<Outcome<T>>,
): Promise<Outcome<T>> {
  const layout = getLayout(db, id);
  if (!layout.ok) return layout;
  const press = await pressOf(db, projectPress(db, layout.value.projectId));
  if (!press.ok) return press;
  const used = layoutInUse(db, layout.value);
  const inks = inksInUse(db, [used]);
  if (inks.all.length > LIMITS.spotInks)
    return fail(
      'too_large',
      `This layout has ${inks.all.length} spot inks; at most ${LIMITS.spotInks} are parted.`,
    );
  const list = withBleed(sceneInUse(used), bleed ? layout.value.bleed : 0);
  try {
    return await work({ layout: layout.value, list, inks, press: press.value });
  } finally {
    press.value?.close();
  }
}

/** The plates of a layout as pictures with so many px along their longer side. */
export const platesView = (
  tools: Tools,
  { layout: id, side }: { layout: string; side: number },
): Promise<Outcome<Plates & { version: number }>> =>
  printed(tools.db, id, false, async ({ layout, list, inks, press }) => {
    const fit = side / Math.max(list.width, list.height);
    const size: Size = {
      width: Math.max(1, Math.round(list.width * fit)),
      height: Math.max(1, Math.round(list.height * fit)),
    };
    return done({ version: layout.version, ...(await shownPlates(tools, list, { inks, press, size })) });
  });

/** The plates of a layout as a zip of grey pictures; process colours without a press as the picture that they are. */
export const platesFile = (
  tools: Tools,
  { layout: id, ppi, bleed, path }: { layout: string; ppi: number; bleed: boolean; path: string },
  progress: (share: number) => void,
): Promise<Outcome<{ bytes: number }>> =>
  printed(tools.db, id, bleed, async ({ list, inks, press }) => {
    const size = pixelSize(list, ppi);
    if (size.width * size.height > MOST_PLATE_PIXELS)
      return fail(
        'too_large',
        `At ${ppi} ppi each plate would be ${size.width} × ${size.height} px; at most ${MOST_PLATE_PIXELS / 1e6} million are drawn. Up to ${Math.floor(ppi * Math.sqrt(MOST_PLATE_PIXELS / (size.width * size.height)))} ppi works for this layout.`,
        'ppi',
      );
    const zip = new ZipFile(path);
    const scratch = `${path}.part`;
    const add = (name: string, bytes: Uint8Array): void => {
      writeFileSync(scratch, bytes);
      zip.take(name, scratch);
    };
    let count = 0;
    let whole = false;
    const take: PlateTaker = {
      process: async (rgb) => {
        if (press) return;
        const picture = sharp(rgb, { raw: { ...size, channels: 3 }, limitInputPixels: false });
        add('00 process colours.png', await picture.withMetadata({ density: ppi }).png().toBuffer());
      },
      plate: ({ name, ink }) => {
        count += 1;
        add(`${String(count).padStart(2, '0')} ${fileName(name)}.png`, platePng(ink, size, ppi));
      },
    };
    try {
      await drawPlates(tools, list, { inks, press, size }, take, progress);
      whole = true;
    } finally {
      zip.close(whole);
    }
    return done({ bytes: statSync(path).size });
  });

const fileName = (name: string): string => name.replace(/[^\p{L}\p{N} _-]+/gu, ' ').trim() || 'ink';
