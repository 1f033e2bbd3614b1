import { done, type Outcome } from '../../../contract/failure';
import { channelsOf, type Hex } from '../../../core/colour/parse';
import type { PressSettings } from '../../../core/colour/press';
import { DELTA_UNIT, INK_UNIT, tableColours, type PressView } from '../../../core/colour/press-table';
import type { Db } from '../../db/open';
import type { Press } from '../../render/press';
import { pressOf } from './plates';

/** What a press makes of colours all over the screen's, as two tables in Base64. */
export async function pressTable(
  db: Db,
  settings: Pick<PressSettings, 'intent' | 'blackPoint'> & { profile: string },
): Promise<Outcome<{ inks: string; deltas: string }>> {
  const opened = await pressOf(db, settings);
  if (!opened.ok) return opened;
  const press = opened.value!;
  try {
    const rgb = tableColours();
    const found = madeOf(press, rgb);
    const packed = (unit: number, values: readonly number[]): string =>
      Buffer.from(values.map((value) => Math.min(255, Math.round(value / unit)))).toString('base64');
    return done({
      inks: packed(
        INK_UNIT,
        found.map(({ ink }) => ink),
      ),
      deltas: packed(
        DELTA_UNIT,
        found.map(({ delta }) => delta),
      ),
    });
  } finally {
    press.close();
  }
}

/** What a press makes of a row of colours, three bytes to each. */
function madeOf(press: Press, rgb: Uint8Array): { ink: number; delta: number }[] {
  const inks = press.toInks(rgb);
  return Array.from(press.differences(rgb), (delta, at) => ({
    ink: (inks[4 * at]! + inks[4 * at + 1]! + inks[4 * at + 2]! + inks[4 * at + 3]!) / 255,
    delta,
  }));
}

/** What a press makes of colours as they are asked for. */
export function pressView(press: Press): PressView {
  const known = new Map<Hex, ReturnType<PressView['of']>>();
  return {
    of: (colour) => {
      const held = known.get(colour) ?? madeOf(press, Uint8Array.from(channelsOf(colour)))[0]!;
      known.set(colour, held);
      return held;
    },
  };
}
