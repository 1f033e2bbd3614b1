import { grow, unionBoxes, type Box } from '../geom/box';
import { chain, rotation, scaling, translation } from '../geom/affine';
import { offsetsMeeting, regionOfBox } from '../lattice/meet';
import { latticeOf, pitchOf } from '../lattice/repeat';
import { seededRandom } from '../num/random';
import { freshPlacing, type ComposedRecipe, type Placing } from '../recipe/recipe';
import { boxesNear, inkDistance, inkOf, moveInk, type Ink } from './ink';
import { compileMotif, elementBox, type CompiledMotif } from './motif';
import { compileUnit } from './unit';

/** What to scatter: `count` placings of the motifs in turn; sizes as factors, angles in degrees, spacing in px. */
export type ScatterPlan = {
  motifs: readonly string[];
  count: number;
  seed: number;
  spacing: number;
  size: { from: number; to: number };
  angle: { from: number; to: number };
};

export type Scattered = { placings: Placing[]; missed: number };

/** Places tried for one piece before it is given up. */
const TRIES = 120;

type Laid = { inks: Ink[]; box: Box };

/**
 * Puts placings at random places of the unit so that none comes nearer than `spacing` to another or to what is there
 * already, anywhere on the repeating plane. Larger pieces go first, since they are harder to fit; `missed` says how
 * many found no room. The same seed gives the same placings. `newId` makes their ids.
 */
export function scatter(recipe: ComposedRecipe, plan: ScatterPlan, newId: () => string): Scattered {
  const random = seededRandom(plan.seed);
  const lattice = latticeOf(recipe.unit, recipe.gap, recipe.repeat);
  const pitch = pitchOf(recipe.unit, recipe.gap, recipe.repeat);
  const motifs = plan.motifs.flatMap((id) => {
    const motif = recipe.motifs.find((held) => held.id === id);
    return motif ? [{ id, compiled: compileMotif(motif) }] : [];
  });
  if (motifs.length === 0) return { placings: [], missed: plan.count };
  const laid: Laid[] = compileUnit(recipe, { upright: true, skipAbutments: true })
    .pieces.filter((piece) => piece.id !== 'ground')
    .map((piece) => ({ inks: inkOf(piece, 4), box: piece.box }));
  const between = ({ from, to }: { from: number; to: number }): number => from + (to - from) * random();
  const wanted = Array.from({ length: plan.count }, (_, index) => ({
    motif: motifs[index % motifs.length]!,
    scale: between(plan.size),
    rotation: between(plan.angle),
  })).sort((one, other) => reach(other.motif.compiled) * other.scale - reach(one.motif.compiled) * one.scale);
  const placings: Placing[] = [];
  for (const { motif, scale, rotation: turn } of wanted) {
    for (let attempt = 0; attempt < TRIES; attempt += 1) {
      const [x, y] = [random() * pitch.width, random() * pitch.height];
      const piece = laidAt(motif.compiled, x, y, turn, scale);
      if (!piece || !hasRoom(piece, laid, lattice, plan.spacing)) continue;
      laid.push(piece);
      placings.push({ ...freshPlacing(newId(), motif.id, { x, y }, scale), rotation: turn });
      break;
    }
  }
  return { placings, missed: plan.count - placings.length };
}

const reach = ({ box }: CompiledMotif): number => Math.max(box.width, box.height);

function laidAt({ elements }: CompiledMotif, x: number, y: number, turn: number, scale: number): Laid | null {
  const matrix = chain(translation(x, y), rotation(turn), scaling(scale));
  const box = unionBoxes(elements.flatMap((element) => elementBox(element, matrix) ?? []));
  return box && { box, inks: inkOf({ elements, matrix }, 4) };
}

function hasRoom(
  piece: Laid,
  laid: readonly Laid[],
  lattice: ReturnType<typeof latticeOf>,
  spacing: number,
): boolean {
  const region = regionOfBox(grow(piece.box, spacing));
  const tooNear = (other: Laid, own: boolean): boolean =>
    offsetsMeeting(lattice, other.box, region).some((offset) => {
      if (own && Math.abs(offset.x) < 1e-9 && Math.abs(offset.y) < 1e-9) return false;
      if (!boxesNear(piece.box, other.box, offset, spacing)) return false;
      const moved = other.inks.map((ink) => moveInk(ink, offset));
      const distance = inkDistance(piece.inks, moved, spacing);
      return spacing > 0 ? distance < spacing : distance <= 0;
    });
  return !tooNear(piece, true) && !laid.some((other) => tooNear(other, false));
}
