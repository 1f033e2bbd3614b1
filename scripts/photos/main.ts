import { writeFileSync } from 'node:fs';
import sharp from 'sharp';
import { pebblePhoto, thriftPhoto, wallPhoto } from './paint';

/** Writes the demo's photographs into `photos/`, as they are kept there. */
export async function main(): Promise<void> {
  const painted = { 'slipway-pebbles': pebblePhoto, 'harbour-wall': wallPhoto, thrift: thriftPhoto };
  for (const [name, paint] of Object.entries(painted))
    writeFileSync(
      `photos/${name}.jpg`,
      await sharp(paint().bytes).jpeg({ quality: 88, mozjpeg: true }).toBuffer(),
    );
}
