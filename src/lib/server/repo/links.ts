import { eq } from 'drizzle-orm';
import type { Hex } from '../../core/colour/parse';
import type { Links } from '../../core/colour/tint';
import { STUDIO, type Db } from '../db/open';
import { paletteColour } from '../db/schema';

/** The present colour of every palette colour, those taken out of their palettes included: documents may follow them still. */
export function paletteLinks(db: Db): Links {
  const rows = db
    .select({ id: paletteColour.id, hex: paletteColour.hex })
    .from(paletteColour)
    .where(eq(paletteColour.studioId, STUDIO))
    .all();
  return new Map<string, Hex>(rows.map((row) => [row.id, row.hex]));
}
