import { asc, inArray } from 'drizzle-orm';
import type { Colourway } from '../../core/colour/colourway';
import type { Links, Tint } from '../../core/colour/tint';
import { followColourway } from '../../core/recipe/links';
import type { Db } from '../db/open';
import { colourway } from '../db/schema';

/** The colourways of patterns in order, by pattern, with the present colours of their links. */
export function colourwaysOf(db: Db, patternIds: readonly string[], links: Links): Map<string, Colourway[]> {
  const found = new Map<string, Colourway[]>();
  if (patternIds.length === 0) return found;
  const rows = db
    .select()
    .from(colourway)
    .where(inArray(colourway.patternId, [...patternIds]))
    .orderBy(asc(colourway.patternId), asc(colourway.position))
    .all();
  for (const row of rows) {
    const way = { id: row.id, name: row.name, colours: JSON.parse(row.colours) as Record<string, Tint> };
    const held = found.get(row.patternId) ?? [];
    held.push(followColourway(way, links));
    found.set(row.patternId, held);
  }
  return found;
}
