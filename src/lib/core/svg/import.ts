import { chain, multiply, scaling, translation } from '../geom/affine';
import { boxCentre, unionBoxes } from '../geom/box';
import { transformPath } from '../geom/path';
import type { Point } from '../geom/point';
import { formPath } from '../geom/shapes';
import type { ColourSlot } from '../colour/slots';
import { LIMITS } from '../recipe/limits';
import type { DrawingElement, MotifContent } from '../recipe/recipe';
import { pathText } from '../scene/drawing';
import { ArtReader, moved, type DrawPicture, type SetText } from './art-reader';
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
  const merged = mergeColours(
    drawn.map((item) => moved(item, translation(-origin.x, -origin.y))),
    [...reader.slots.values()],
  );
  if (merged.note) reader.note(merged.note);
  const title = root.children.find((child) => child.name === 'title')?.text.trim() ?? '';
  return {
    ok: true,
    title: title.slice(0, LIMITS.nameLength),
    content: {
      kind: 'drawing',
      asset: null,
      width: Math.max(box.width, 0.01),
      height: Math.max(box.height, 0.01),
      elements: merged.elements,
    },
    slots: merged.slots,
    pictures: reader.pictures,
    origin,
    notes: [...reader.notes],
  };
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
