import { done, fail, type Outcome } from '../../contract/failure';
import type { SwatchAsk } from '../../contract/work';
import { resolveSlots } from '../../core/colour/slots';
import { plainColours } from '../../core/colour/tint';
import { compileUnit } from '../../core/scene/unit';
import { swatchSvg } from '../../core/svg/swatch';
import { shownForSwatch } from '../repo/patterns';
import { swatchPicture } from './swatch-picture';
import type { Tools } from './tools';

/** A sample strip of a pattern. `fixed` says that it looks the same for ever. */
export async function drawSwatch(
  tools: Tools,
  { pattern, revision, colourway, named, as, ...size }: SwatchAsk,
): Promise<Outcome<{ bytes: Uint8Array; fixed: boolean }>> {
  const found = shownForSwatch(tools.db, pattern, revision, colourway);
  if (!found.ok) return found;
  const { name, recipe, way } = found.value;
  const over = way ? plainColours(way.colours) : {};
  // What follows a palette may look different tomorrow: only an address that names its look is kept for ever.
  const fixed = revision !== 'draft' && !way && (named || recipe.slots.every((slot) => !slot.link));
  if (as === 'png') return done({ bytes: await swatchPicture(tools, recipe, over, size), fixed });
  const svg = swatchSvg(compileUnit(recipe), resolveSlots(recipe.slots, over), { ...size, title: name });
  const whole = await tools.pictures.embed(svg);
  if (whole.length > MOST_CHARACTERS)
    return fail('too_heavy', `A sample of “${name}” as SVG would be too large; ask for a PNG.`);
  return done({ bytes: Buffer.from(whole), fixed });
}

const MOST_CHARACTERS = 60_000_000;
