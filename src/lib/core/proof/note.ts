import type { Layout, Shape } from '../recipe/layout';

export const PROOF_KINDS = [
  'missing',
  'held',
  'draft',
  'archived',
  'picture',
  'line',
  'gap',
  'bleed',
  'margin',
  'joint',
  'contrast',
  'text',
  'credit',
  'licence',
  'inks',
  'ink',
  'gamut',
  'unseen',
  'copies',
] as const;
export type ProofKind = (typeof PROOF_KINDS)[number];

/** Where a note is: a shape, and of its fills the one it is about. */
export type ProofPlace = { shape: string; fill: string | null };

/** The part of a layout that a mend changes. */
export type Mendable = Pick<Layout, 'shapes' | 'bleed'>;

/** What a mend makes of one shape, at one place in it; `null` takes it away. */
export type ShapeMend = (shape: Shape, place: ProofPlace) => Shape | null;

/** What puts a finding right in one step, at all its places; `each` where it changes every shape by itself. */
export type Mend = {
  label: string;
  change: (layout: Mendable, places: readonly ProofPlace[]) => Mendable;
  each?: ShapeMend;
};

/** A layout with shapes changed at some places, in one pass over them. */
export function mendedShapes(
  layout: Mendable,
  all: readonly { place: ProofPlace; each: ShapeMend }[],
): Mendable {
  const byShape = new Map<string, { place: ProofPlace; each: ShapeMend }[]>();
  for (const one of all) {
    const held = byShape.get(one.place.shape);
    if (held) held.push(one);
    else byShape.set(one.place.shape, [one]);
  }
  const shapes = layout.shapes.flatMap((shape) => {
    let mended: Shape | null = shape;
    for (const { place, each } of byShape.get(shape.id) ?? []) mended = mended && each(mended, place);
    return mended ?? [];
  });
  return { ...layout, shapes };
}

/** One finding: `wrong` comes out otherwise than it looks, `look` may be meant. */
export type ProofNote = {
  /** The same for the same finding. */
  key: string;
  kind: ProofKind;
  weight: 'wrong' | 'look';
  says: string;
  figure: string;
  /** None where it is about the page. */
  places: readonly ProofPlace[];
  mend: Mend | null;
  /** Words that are missing on the page. */
  writes?: string;
};

/**
 * A finding at one place. Those that say the same and are mended the same way become one note with all their places; `measure` tells
 * which of them is the worst, the least one.
 */
export type Found = Omit<ProofNote, 'key' | 'places'> & { place: ProofPlace | null; measure?: number };

/** Findings as notes: the same ones together, what comes out wrong first, then in the order of their kinds, of the page before shapes. */
export function gathered(found: readonly Found[]): ProofNote[] {
  const groups = new Map<string, Found[]>();
  for (const one of found) {
    const key = [one.kind, one.weight, one.says, one.mend?.label ?? ''].join('|');
    const held = groups.get(key);
    if (held) held.push(one);
    else groups.set(key, [one]);
  }
  const rank = ({ weight, kind, places }: ProofNote): number =>
    2 * ((weight === 'wrong' ? 0 : PROOF_KINDS.length) + PROOF_KINDS.indexOf(kind)) +
    (places.length > 0 ? 1 : 0);
  return [...groups].map(([key, all]) => together(key, all)).sort((one, other) => rank(one) - rank(other));
}

function together(key: string, all: readonly Found[]): ProofNote {
  const worst = all.reduce((least, one) => ((one.measure ?? 0) < (least.measure ?? 0) ? one : least));
  const { kind, weight, says, figure, mend, writes } = worst;
  const several = all.some((one) => one.figure !== figure);
  return {
    ...{ key, kind, weight, says, ...(writes === undefined ? {} : { writes }) },
    figure: several ? `from ${figure}` : figure,
    places: all.flatMap(({ place }) => place ?? []),
    mend: mend && {
      label: mend.label,
      change: (layout) => mendedTogether(all, layout),
    },
  };
}

/** All findings of a note mended: in one pass where each of them is about one shape. */
function mendedTogether(all: readonly Found[], layout: Mendable): Mendable {
  const each = all.flatMap(({ place, mend }) => (place && mend?.each ? [{ place, each: mend.each }] : []));
  if (each.length === all.length) return mendedShapes(layout, each);
  return all.reduce((held, one) => one.mend?.change(held, one.place ? [one.place] : []) ?? held, layout);
}
