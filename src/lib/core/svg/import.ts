import { chain, multiply, scaling, translation } from '../geom/affine';
import { boxCentre, unionBoxes, type Box } from '../geom/box';
import { transformPath } from '../geom/path';
import type { Point } from '../geom/point';
import { formPath } from '../geom/shapes';
import type { ColourSlot } from '../colour/slots';
import { elementSlots } from '../recipe/edit';
import { LIMITS } from '../recipe/limits';
import type { DrawingElement, MotifContent } from '../recipe/recipe';
import { pathText, transformElement } from '../scene/drawing';
import { moved } from './art-drawn';
import type { DrawPicture } from './art-pictures';
import { ArtReader } from './art-reader';
import type { SetText } from './art-text';
import { mergeColours } from './merge-colours';
import { readSvgTree, type XmlNode } from './xml';

export type { DrawPicture, SetText };

export type DrawingContent = Extract<MotifContent, { kind: 'drawing' }>;

export type SvgImport =
  | {
      ok: true;
      title: string;
      content: DrawingContent;
      slots: ColourSlot[];
      /** Pictures inside the file as data URLs; their elements name them `pending:0`, `pending:1` … in place of an asset. */
      pictures: string[];
      /** Where the motif's origin lies in the file's px. */
      origin: Point;
      notes: string[];
    }
  | { ok: false; message: string };

/**
 * Reads an SVG file as a motif: paths, basic shapes, gradients, clip paths, embedded pictures and, where `setText` can,
 * text; rebuilt from an allow-list, with all transforms applied and the middle of the art at (0, 0). Its colours become
 * slots, equal ones merged, and alike ones where there are more than a pattern holds. What cannot be kept as vectors is
 * drawn by `drawPicture`. `notes` says what was left out or changed. `newId` makes slot ids.
 */
export function importSvg(
  text: string,
  newId: () => string,
  { setText = null, drawPicture = null }: { setText?: SetText | null; drawPicture?: DrawPicture | null } = {},
): SvgImport {
  const tree = readSvgTree(text);
  if (!tree.ok) return tree;
  const reader = new ArtReader(tree.root, { newId, setText, drawPicture });
  return motifOf(tree.root, reader);
}

function motifOf(root: XmlNode, reader: ArtReader): SvgImport {
  const drawn = reader.all();
  if (!drawn)
    return { ok: false, message: `The SVG draws more than ${LIMITS.elements} paths; simplify it first.` };
  const box = unionBoxes(drawn.map((item) => item.box));
  if (!box || (box.width === 0 && box.height === 0))
    return {
      ok: false,
      message: 'The SVG draws nothing that Isle can use: no visible path or shape was found.',
    };
  const origin = boxCentre(box);
  const elements = drawn.map((item) => moved(item, translation(-origin.x, -origin.y)));
  const merged = mergeColours(elements, slotsUsed(elements, reader));
  if (merged.note) reader.note(merged.note);
  const scale = fittingScale(box);
  if (scale < 1) reader.note(smallerNote(box, scale));
  const title = root.children.find((child) => child.name === 'title')?.text.trim() ?? '';
  return {
    ok: true,
    title: title.slice(0, LIMITS.nameLength),
    content: {
      kind: 'drawing',
      asset: null,
      width: Math.max(box.width * scale, 0.01),
      height: Math.max(box.height * scale, 0.01),
      elements: merged.elements.map((element) => transformElement(element, scaling(scale))),
    },
    slots: merged.slots,
    pictures: reader.pictures,
    origin,
    notes: [...reader.notes],
  };
}

/** The colours that elements are painted with: what was drawn as a picture after all left its own behind. */
function slotsUsed(elements: readonly DrawingElement[], reader: ArtReader): ColourSlot[] {
  const used = new Set(elements.flatMap(elementSlots));
  return [...reader.slots.values()]
    .filter(({ id }) => used.has(id))
    .map((slot, index) => ({ ...slot, name: `Colour ${index + 1}` }));
}

/** Drawings too large for a motif come in this large, px. */
const MADE_SMALLER = 2000;

function fittingScale({ width, height }: Box): number {
  const largest = Math.max(width, height);
  return largest > LIMITS.shapeSide.most ? MADE_SMALLER / largest : 1;
}

function smallerNote({ width, height }: Box, scale: number): string {
  const size = (factor: number): string =>
    `${Number((width * factor).toPrecision(3))} × ${Number((height * factor).toPrecision(3))} px`;
  return `It was ${size(1)}, too large for a motif (${LIMITS.shapeSide.most} px wide or high at most); it came in as ${size(scale)}.`;
}

/** A decoded picture's own size put into its element: the picture fitted into its box as SVG does, or stretched. */
export function sizedPicture(
  element: DrawingElement,
  asset: string,
  natural: { width: number; height: number },
): DrawingElement {
  const { picture } = element;
  if (!picture) return element;
  const stretch = picture.width < 0;
  const [width, height] = [Math.abs(picture.width), picture.height];
  const across = width / natural.width;
  const down = height / natural.height;
  const scale = Math.min(across, down);
  const fit = stretch
    ? scaling(across, down)
    : chain(
        translation((width - natural.width * scale) / 2, (height - natural.height * scale) / 2),
        scaling(scale),
      );
  const matrix = multiply(picture.matrix, fit);
  const frame = formPath({ kind: 'rectangle', radius: 0 }, natural.width, natural.height);
  const d = pathText(transformPath(matrix, frame));
  return { ...element, d, picture: { asset, ...natural, matrix } };
}
