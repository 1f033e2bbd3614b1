import { strToU8 } from 'fflate';
import type { PDFRef } from 'pdf-lib';
import { tintsOf, type SpotInk } from '../colour/inks';
import type { PdfFile, Value } from './file';

const shares = (rgb: readonly number[]): number[] => rgb.map((value) => value / 255);

/**
 * The colour space of one ink or of several (ISO 32000-1, 8.6.6.4 and 8.6.6.5): plates get tints as they are, and whoever has no such
 * inks shows how they look. One tint is shown as its palette colour, those between two in line; several inks take light away together.
 */
export function inkSpace(file: PdfFile, inks: readonly SpotInk[]): PDFRef {
  const key = inks.map(({ name }) => name).join('\n');
  return file.once(`ink space ${key}`, () => {
    const [only] = inks;
    if (only && inks.length === 1)
      return file.object(['/Separation', inkName(only), file.rgb, looksOf(only)]);
    const each = Object.fromEntries(inks.map((ink) => [inkName(ink).slice(1), inkSpace(file, [ink])]));
    const names = inks.map(inkName);
    return file.object(['/DeviceN', names, file.rgb, together(file, inks), { Colorants: each }]);
  });
}

/** The name of an ink as a PDF has it: UTF-8, its number signs escaped. */
function inkName({ name }: SpotInk): string {
  const bytes = String.fromCharCode(...strToU8(name));
  return `/${bytes.replaceAll('#', '#23')}`;
}

/** An ink's looks over its tints: straight from one that is known to the next. */
function looksOf(ink: SpotInk): Value {
  const tints = tintsOf(ink);
  const parts = tints.slice(1).map(({ rgb }, at): Value => ({
    FunctionType: 2,
    Domain: [0, 1],
    N: 1,
    C0: shares(tints[at]!.rgb),
    C1: shares(rgb),
  }));
  if (parts.length === 1) return parts[0]!;
  return {
    FunctionType: 3,
    Domain: [0, 1],
    Functions: parts,
    Bounds: tints.slice(1, -1).map(({ tint }) => tint),
    Encode: parts.flatMap(() => [0, 1]),
  };
}

/** How several inks look together: each takes its own light away from the paper's (a PostScript calculator function, 7.10.5). */
function together(file: PdfFile, inks: readonly SpotInk[]): PDFRef {
  const fulls = inks.map((ink) => shares(tintsOf(ink).at(-1)!.rgb));
  const channel = (at: number): string => {
    const taken = fulls.map(
      (rgb, index) => `${at + inks.length - index} index ${(1 - rgb[at]!).toFixed(6)} mul sub`,
    );
    return `1 ${taken.join(' ')} dup 0 lt { pop 0 } if`;
  };
  const drop = `${inks.length + 3} 3 roll ${inks.map(() => 'pop').join(' ')}`;
  return file.stream(`{ ${[0, 1, 2].map(channel).join(' ')} ${drop} }`, {
    FunctionType: 4,
    Domain: inks.flatMap(() => [0, 1]),
    Range: [0, 1, 0, 1, 0, 1],
  });
}
