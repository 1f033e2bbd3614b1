import { VISIBLE_DELTA } from '../../../core/colour/press';
import { tableColours } from '../../../core/colour/press-table';
import type { Press } from '../../render/press';

/** Steps of a channel that are told apart: between them colours come out alike. */
const STEPS = 33;

const tables = new WeakMap<Press, Uint8Array>();

/** Where a picture has colours that a press shows visibly otherwise: 255 there, and their share of all. */
export function beyondOf(rgb: Uint8Array, press: Press): { mask: Uint8Array; share: number } {
  const table = tables.get(press) ?? tableOf(press);
  tables.set(press, table);
  const mask = new Uint8Array(rgb.length / 3);
  const step = (at: number): number => Math.round((rgb[at]! / 255) * (STEPS - 1));
  let count = 0;
  for (let at = 0; at < mask.length; at += 1) {
    const found = table[(step(3 * at) * STEPS + step(3 * at + 1)) * STEPS + step(3 * at + 2)]!;
    mask[at] = found;
    if (found > 0) count += 1;
  }
  return { mask, share: mask.length === 0 ? 0 : count / mask.length };
}

const tableOf = (press: Press): Uint8Array =>
  Uint8Array.from(press.differences(tableColours(STEPS)), (delta) => (delta > VISIBLE_DELTA ? 255 : 0));
