import { contrastRatio } from '../colour/contrast';
import type { Hex } from '../colour/parse';
import type { DrawnShape } from '../draw/list';
import { mapFills, type Shape } from '../recipe/layout';
import { coloursBelow, inkColours, isFull } from './below';
import type { ProofContext } from './context';
import { factsOf } from './facts';
import { mendShapes } from './mends';
import type { Found } from './note';
import { sayList, sayRatio } from './say';

/** The least contrast of a colour with several (WCAG 2.2, "contrast ratio"). */
const worst = (colour: Hex, others: readonly Hex[]): number =>
  Math.min(...others.map((other) => contrastRatio(colour, other)));

/** What is hard to tell apart: motifs from what lies below them, text from what it stands on. */
export function foundOfColours(
  shapes: readonly { shape: Shape; drawn: DrawnShape }[],
  background: Hex | null,
  context: ProofContext,
): Found[] {
  const drawn = shapes.map((one) => one.drawn);
  return shapes.flatMap((one, at) => [
    ...foundOfMotifs(one, at, drawn, background, context),
    ...(one.shape.form.kind === 'text' ? foundOfText(one, at, drawn, background, context) : []),
  ]);
}

function foundOfMotifs(
  { shape, drawn }: { shape: Shape; drawn: DrawnShape },
  at: number,
  all: readonly DrawnShape[],
  background: Hex | null,
  { limits }: ProofContext,
): Found[] {
  if (limits.motif === 0) return [];
  return drawn.layers.flatMap(({ fill, blend, items }, layer): Found[] => {
    const item = items.find((one) => one.kind === 'tiled');
    if (!item || blend !== 'normal' || item.wash || !isFull(item.opacity) || item.pattern.scene.sampled)
      return [];
    const ground = items.find((one) => one.kind === 'path');
    const own = ground && isFull(ground.opacity) ? inkColours(ground.ink) : null;
    const below = ground ? own : coloursBelow(all, at, layer, background);
    if (!below || below.length === 0) return [];
    const faint = factsOf(item.pattern.scene).slots.flatMap((slot) => {
      const colour = item.colours[slot];
      const ratio = colour === undefined ? Infinity : worst(colour, below);
      // A motif in the colour of its ground is meant to be a hole in another one.
      return ratio < limits.motif && ratio > 1 + 1e-9 ? [{ slot, ratio }] : [];
    });
    if (faint.length === 0) return [];
    const names = faint.map(({ slot }) => item.pattern.slots.find(({ id }) => id === slot)?.name ?? slot);
    const least = Math.min(...faint.map(({ ratio }) => ratio));
    const what = names.length > 3 ? `${names.length} colours` : sayList(names);
    return [
      {
        kind: 'contrast',
        weight: 'look',
        says: `${what} of “${item.pattern.name}” ${names.length === 1 ? 'hardly stands' : 'hardly stand'} off ${ground ? 'its ground' : 'what lies below'}.`,
        figure: sayRatio(least),
        measure: least,
        place: { shape: shape.id, fill },
        mend: null,
      },
    ];
  });
}

function foundOfText(
  { shape, drawn }: { shape: Shape; drawn: DrawnShape },
  at: number,
  all: readonly DrawnShape[],
  background: Hex | null,
  { limits }: ProofContext,
): Found[] {
  const top = drawn.layers.length - 1;
  const layer = drawn.layers[top];
  const [item] = layer?.items ?? [];
  if (limits.text === 0 || !layer || layer.items.length !== 1 || layer.blend !== 'normal') return [];
  if (item?.kind !== 'path' || typeof item.ink !== 'string' || !isFull(item.opacity)) return [];
  // The text's own lower layers lie exactly behind its letters: what it stands on is below the shape.
  const below = coloursBelow(all, at, 0, background);
  const ratio = below && below.length > 0 ? worst(item.ink, below) : Infinity;
  if (!below || ratio >= limits.text) return [];
  const [better] = (['#000000', '#ffffff'] as const)
    .map((colour) => ({ colour, ratio: worst(colour, below) }))
    .sort((one, other) => other.ratio - one.ratio);
  const mend =
    better && better.ratio >= limits.text
      ? mendShapes(better.colour === '#000000' ? 'Make it black' : 'Make it white', (held) =>
          mapFills(held, (fill) => {
            if (fill.id !== layer.fill || fill.kind !== 'colour') return fill;
            const { link: _link, ...rest } = fill;
            return { ...rest, colour: better.colour };
          }),
        )
      : null;
  return [
    {
      kind: 'text',
      weight: 'wrong',
      says: 'Text is hard to read on what lies below.',
      figure: sayRatio(ratio),
      measure: ratio,
      place: { shape: shape.id, fill: layer.fill },
      mend,
    },
  ];
}
