import type { Hex } from '../../core/colour/parse';
import type { Links } from '../../core/colour/tint';
import type { Db } from '../db/open';
import { statement } from './rows';

/**
 * The present colours of palette colours, those taken out of their palettes included: documents may follow them still.
 * Each is looked up when it is first asked for, so that a large library costs nobody who follows few.
 */
export function paletteLinks(db: Db): Links {
  const look = statement(db, 'SELECT hex FROM palette_colour WHERE id = ? AND studio_id = ?').pluck();
  const known = new Map<string, Hex | undefined>();
  return {
    get: (id) => {
      if (!known.has(id)) known.set(id, look.get(id, db.studio) as Hex | undefined);
      return known.get(id);
    },
  };
}
