import { nanoid } from 'nanoid';
import { chain, scaling, translation } from '$lib/core/geom/affine';
import { boxesMeet, type Box } from '$lib/core/geom/box';
import { formatPath, parsePath, transformPath, type Path } from '$lib/core/geom/path';
import type { Point } from '$lib/core/geom/point';
import type { ShapeForm } from '$lib/core/geom/shapes';
import { colourFill, coveringPicture, gradientFill, type Fill } from '$lib/core/recipe/fill';
import { brushForm, formOfPath, freehandPath, type LayoutForm } from '$lib/core/recipe/form';
import type { GradientPaint } from '$lib/core/recipe/recipe';
import type { Gradient } from '$lib/core/recipe/gradient';
import { freshShape, type Shape, type ShapeStroke } from '$lib/core/recipe/layout';
import { apply } from '$lib/core/geom/affine';
import { call } from '../state/api';
import { toasts } from '../state/toasts.svelte';
import type { LayoutEditor } from './editor.svelte';
import { noteHow, takePicture } from './pictures';

/** Making new shapes of a layout: what they are called, and what they start with. */

export const SHAPE_NAMES: Record<LayoutForm['kind'] | 'line' | 'picture', string> = {
  rectangle: 'Rectangle',
  ellipse: 'Ellipse',
  polygon: 'Polygon',
  star: 'Star',
  path: 'Path',
  line: 'Line',
  text: 'Text',
  brush: 'Brush stroke',
  picture: 'Picture',
};

export const FRESH_FORMS: Record<ShapeForm['kind'], ShapeForm> = {
  rectangle: { kind: 'rectangle', radius: 0 },
  ellipse: { kind: 'ellipse' },
  polygon: { kind: 'polygon', sides: 6 },
  star: { kind: 'star', points: 5, inner: 0.5 },
};

export const INK = '#14211f';
const print = (path: Path): string => formatPath(path);

/** Whether something drawn lies on the page or its bleed, at least in part; where not, it is said. */
export function meetsPage({ doc }: LayoutEditor, box: Box): boolean {
  const { bleed, width, height } = doc;
  const page = { x: -bleed, y: -bleed, width: width + 2 * bleed, height: height + 2 * bleed };
  const meets = boxesMeet(page, box);
  if (!meets) toasts.show('That lies beside the page, so nothing was laid down; begin on the page.');
  return meets;
}

/** Adds a shape of a plain form in a box of the page. */
export function addForm(editor: LayoutEditor, kind: ShapeForm['kind'], box: Box): void {
  editor.addShapes([
    freshShape({
      id: nanoid(12),
      name: editor.freshName(SHAPE_NAMES[kind]),
      form: FRESH_FORMS[kind],
      ...box,
    }),
  ]);
}

const strokeOf = (width: number, colour = INK): ShapeStroke => ({
  width,
  cap: 'round',
  join: 'round',
  dashes: [],
  fills: [colourFill(nanoid(12), { colour })],
});

/** Adds an outline that was drawn on the page; an open one has a stroke, so that it shows. */
export function addPath(editor: LayoutEditor, path: Path, kind: 'path' | 'line' = 'path'): void {
  const made = formOfPath(path, print);
  if (!made) return;
  const open = !path.some((segment) => segment.op === 'Z');
  const stroke = open ? strokeOf(Math.max(editor.doc.width, editor.doc.height) / 300) : null;
  const name = editor.freshName(SHAPE_NAMES[kind]);
  editor.addShapes([freshShape({ id: nanoid(12), name, form: made.form, ...made.frame, stroke })]);
}

export const addLine = (editor: LayoutEditor, from: Point, to: Point): void =>
  addPath(
    editor,
    [
      { op: 'M', to: from },
      { op: 'L', to },
    ],
    'line',
  );

/** Adds a hand-drawn outline, closed. */
export function addFreehand(editor: LayoutEditor, points: readonly Point[], tolerance: number): void {
  if (points.length > 2) addPath(editor, freehandPath(points, tolerance));
}

/** How the brush draws: its width in px of the page, and its softness. It stays from stroke to stroke. */
export type BrushNumbers = { size: number; softness: number };

/** Adds a brush stroke, filled as what was last worked on. */
export function addStroke(editor: LayoutEditor, points: readonly Point[], brush: BrushNumbers): void {
  const made = brushForm(points, brush.size, brush.softness);
  if (!made) return;
  const name = editor.freshName(SHAPE_NAMES.brush);
  const fill = editor.brushFill();
  editor.addShapes([freshShape({ id: nanoid(12), name, form: made.form, ...made.frame, fills: [fill] })]);
}

/** Brings picture and SVG files in as shapes, about a place of the page. */
export async function addFiles(editor: LayoutEditor, files: readonly File[], at: Point): Promise<void> {
  for (const file of files)
    if (/\.svg$/i.test(file.name) || file.type === 'image/svg+xml') await addDrawing(editor, file, at);
    else await addPicture(editor, file, at);
}

async function addPicture(editor: LayoutEditor, file: File, at: Point): Promise<void> {
  const picture = await takePicture(editor, file);
  if (!picture) return;
  const { width, height } = editor.doc;
  const fit = Math.min(1, (0.8 * width) / picture.width, (0.8 * height) / picture.height);
  const size = { width: picture.width * fit, height: picture.height * fit };
  const place = { x: at.x - size.width / 2, y: at.y - size.height / 2 };
  const { name, ...rest } = picture;
  const fill = coveringPicture(nanoid(12), rest, size);
  editor.addShapes([
    freshShape({
      id: nanoid(12),
      name: editor.freshName(name || SHAPE_NAMES.picture),
      form: FRESH_FORMS.rectangle,
      ...place,
      ...size,
      fills: [fill],
    }),
  ]);
}

/** An SVG file as one shape for each of its outlines, in a group. */
async function addDrawing(editor: LayoutEditor, file: File, at: Point): Promise<void> {
  const taken = await call('POST /motifs', { body: { fileName: file.name, svg: await file.text() } });
  if (!taken.ok) {
    toasts.problem(taken.failure.message);
    return;
  }
  const { content, slots, name, notes } = taken.value;
  const colours = new Map(slots.map((slot) => [slot.id, slot.colour]));
  const fit = Math.min(
    1,
    (0.8 * editor.doc.width) / content.width,
    (0.8 * editor.doc.height) / content.height,
  );
  const toPage = chain(translation(at.x, at.y), scaling(fit));
  const group = { id: nanoid(12), name: editor.freshName(name), parent: null, locked: false, hidden: false };
  const shapes = content.elements.flatMap((element, index): Shape[] => {
    const read = parsePath(element.d);
    const made = read.ok ? formOfPath(transformPath(toPage, read.path), print) : null;
    if (!made) return [];
    const { frame } = made;
    const opacity = element.opacity;
    const fills: Fill[] = [];
    if (element.picture) {
      const { asset, width, height } = element.picture;
      fills.push({ ...coveringPicture(nanoid(12), { asset, width, height }, frame), opacity });
    } else if (typeof element.fill === 'string')
      fills.push({ ...colourFill(nanoid(12), { colour: colours.get(element.fill) ?? INK }), opacity });
    else if (element.fill)
      fills.push({ ...gradientFill(nanoid(12), gradientOf(element.fill, toPage, frame, colours)), opacity });
    const line = element.stroke;
    const stroke = line && {
      ...strokeOf(line.width * fit, colours.get(line.slot)),
      cap: line.cap,
      join: line.join,
      dashes: line.dashes.map((dash) => dash * fit),
    };
    const shape = { id: nanoid(12), name: `${name} ${index + 1}`, form: made.form, ...frame, fills, stroke };
    return [freshShape({ ...shape, group: group.id })];
  });
  if (shapes.length === 0) toasts.problem(`“${file.name}” has no outlines that can be shapes.`);
  else {
    editor.addShapes(shapes, shapes.length > 1 ? group : null);
    noteHow(
      editor,
      file,
      shapes.map(({ id }) => id),
      notes,
    );
  }
}

/** A gradient of a drawing over the frame of its shape. */
function gradientOf(
  paint: GradientPaint,
  toPage: Parameters<typeof apply>[0],
  frame: Box,
  colours: ReadonlyMap<string, string>,
): Gradient {
  const place = (x: number, y: number): Point => {
    const onPage = apply(chain(toPage, paint.matrix), { x, y });
    return { x: (onPage.x - frame.x) / frame.width, y: (onPage.y - frame.y) / frame.height };
  };
  const stops = paint.stops.map(({ at, slot, opacity }) => ({
    at,
    opacity,
    colour: colours.get(slot) ?? INK,
  }));
  const [first] = stops;
  return {
    kind: paint.kind,
    from: place(0, 0),
    to: place(1, 0),
    stops: stops.length > 1 || !first ? stops : [first, { ...first, at: 1 }],
  };
}
