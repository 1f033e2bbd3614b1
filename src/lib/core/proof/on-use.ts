import { closedRound, fillsRound, wholeRound } from '../mockup/whole-round';
import { OBJECTS, roundOf } from '../mockup/objects';
import { creditLine } from '../recipe/library';
import type { PatternFill } from '../recipe/fill';
import { allFills, patternFills, type Layout, type Shape } from '../recipe/layout';
import { pagesWithin } from '../draw/nested';
import { drawnPictures } from '../scene/pictures';
import type { ProofContext } from './context';
import type { Found } from './note';
import { sayPercent } from './say';

/** Whether the pattern that goes round an object closes where it meets itself. */
export function foundAtJoint(shapes: readonly Shape[], { object, lookup, patterns }: ProofContext): Found[] {
  const round = object && roundOf(object);
  if (!object || !round) return [];
  const fills = fillsRound(shapes, round);
  const first = fills[0]?.fill;
  const lattice = first && lookup(first)?.scene.lattice;
  if (!first || !lattice) return [];
  const name = patterns.get(first.pattern)?.name ?? '';
  const fit = wholeRound(round, first, lattice);
  if (fit?.cost === 0) return [];
  const { noun } = OBJECTS[object.kind];
  const says = `“${name}” does not close round the ${noun}: a joint shows ${round.joint}.`;
  const by = fit ? `${fit.cost > 0 ? '+' : '−'}${sayPercent(Math.abs(fit.cost))}` : '';
  return fills.map(({ shape, fill }): Found => ({
    ...{ kind: 'joint', weight: 'wrong', says },
    figure: fit ? by : 'closes at no scale',
    place: { shape: shape.id, fill: fill.id },
    mend: fit && {
      label: fit.count === null ? 'Close it' : `Close it with ${fit.count} repeats`,
      change: (layout, places) => {
        const ids = new Set(places.flatMap((place) => place.fill ?? []));
        const holders = new Set(places.map((place) => place.shape));
        return {
          ...layout,
          shapes: layout.shapes.map((held) =>
            holders.has(held.id) ? closedRound(held, ids, first, fit, fills.length > 1) : held,
          ),
        };
      },
    },
  }));
}

/** Credits that are due and that no text of the page gives; pictures of which no licence is noted. */
export function foundOfRights(
  shapes: readonly Shape[],
  { patterns, lookup }: Pick<ProofContext, 'patterns' | 'lookup'>,
): Found[] {
  const pages = lookup.pages ?? new Map<string, Layout>();
  const all = [...shapes, ...pagesWithin(shapes, pages).flatMap((page) => page.shapes)];
  const texts = all.flatMap(({ form, hidden }) =>
    form.kind === 'text' && !hidden ? [form.text.toLowerCase()] : [],
  );
  const said = (name: string): boolean =>
    name.trim() !== '' && texts.some((text) => text.includes(name.trim().toLowerCase()));
  /** The patterns that a shape shows, and those of layouts on it, each with the fill that shows it there. */
  const usesOn = (shape: Shape): { use: PatternFill; fill: string }[] => [
    ...patternFills(shape).map((use) => ({ use, fill: use.id })),
    ...allFills(shape).flatMap((fill) =>
      fill.kind === 'layout'
        ? pagesWithin([{ fills: [fill], stroke: null }], pages)
            .flatMap((page) => page.shapes.flatMap(patternFills))
            .map((use) => ({ use, fill: fill.id }))
        : [],
    ),
  ];
  return shapes.flatMap((shape) =>
    usesOn(shape).flatMap(({ use, fill }): Found[] => {
      const pattern = patterns.get(use.pattern);
      if (!pattern) return [];
      const { credit, name } = pattern;
      const place = { shape: shape.id, fill };
      const look = (kind: Found['kind'], says: string, figure: string): Found => ({
        ...{ kind, weight: 'look' as const, says, figure, place, mend: null },
      });
      const found: Found[] = [];
      if (credit.attribution && !said(credit.author === '' ? name : credit.author))
        found.push({
          ...look('credit', `A credit is due and not on the page: ${creditLine(name, credit)}.`, ''),
          writes: creditLine(name, credit),
        });
      const scene = lookup(use)?.scene;
      if (credit.licence === '' && scene && drawnPictures(scene).length > 0)
        found.push(look('licence', `“${name}” shows a picture of which no licence is noted.`, ''));
      return found;
    }),
  );
}
