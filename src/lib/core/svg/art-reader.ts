import { IDENTITY, determinant, multiply, translation, type Affine } from '../geom/affine';
import { intersectBoxes } from '../geom/box';
import { pathBox, transformPath, type Path } from '../geom/path';
import { rectanglePath } from '../geom/shapes';
import { ClipReader, geometryBox, referenceOf, type Clip } from './art-clips';
import { DrawnArt, isRectangle, overlapping, type Drawn } from './art-drawn';
import { PathPainter } from './art-paint';
import { PictureParts, type DrawPicture, type Outer } from './art-pictures';
import { textRuns, type SetText, type TextRun } from './art-text';
import { StyleSheet } from './css';
import { rootViewport, shapePath, viewBoxOf, viewportMatrix } from './import-read';
import { lengthOf, type Measures, type Side } from './lengths';
import { INITIAL_STYLE, propertiesOf, styleOf, type Style } from './style';
import { ownTransform } from './transforms';
import type { XmlNode } from './xml';

/** How a drawing is read: what makes ids, sets text, and draws what cannot be kept as vectors. */
export type ReadOptions = { newId: () => string; setText: SetText | null; drawPicture?: DrawPicture | null };

/** Elements that draw nothing themselves and need no word when left out. */
const SILENT = new Set(
  'title desc metadata defs style symbol clipPath linearGradient radialGradient pattern mask filter marker foreign:namedview animate animateTransform animateMotion animateColor set view stop mpath font font-face'.split(
    ' ',
  ),
);
const CONTAINERS = new Set(['g', 'a']);
const DEEPEST_USE = 12;

type Place = {
  matrix: Affine;
  style: Style;
  clip: Clip | null;
  depth: number;
  viewport: Measures['viewport'];
  outer: Outer | null;
};

/**
 * Reads parts of an SVG tree as drawn elements, rebuilt from an allow-list: paths, basic shapes, gradients, clip paths,
 * embedded pictures and, where `setText` can, text. Colours become slots, equal ones merged. What cannot be kept as
 * vectors (masks, filters, markers, patterns, see-through groups whose parts overlap) is drawn as a picture; notes say
 * what was changed or left out.
 */
export class ArtReader {
  readonly notes = new Set<string>();
  readonly byId = new Map<string, XmlNode>();
  private readonly art: DrawnArt;
  private readonly sheet: StyleSheet;
  private readonly clips: ClipReader;
  private readonly painter: PathPainter;
  private readonly parts: PictureParts;

  constructor(
    private readonly root: XmlNode,
    private readonly options: ReadOptions,
  ) {
    const { byId, note } = this;
    this.art = new DrawnArt(options.newId);
    this.sheet = new StyleSheet(note);
    this.index(root);
    this.clips = new ClipReader(this.clipSource);
    const rootScale = Math.sqrt(Math.abs(determinant(rootViewport(root)?.matrix ?? IDENTITY)));
    this.painter = new PathPainter(this.art, { byId, sheet: this.sheet, note, rootScale });
    this.parts = new PictureParts(root, this.art, byId, options.drawPicture ?? null, note);
  }

  readonly note = (text: string): void => {
    if (this.notes.size < 60) this.notes.add(text);
  };

  /** The colours that were drawn with, by colour. */
  get slots(): DrawnArt['slots'] {
    return this.art.slots;
  }

  /** See {@link DrawnArt.pictures}. */
  get pictures(): string[] {
    return this.art.pictures;
  }

  private get clipSource() {
    return { byId: this.byId, sheet: this.sheet, text: (node: XmlNode) => this.textPath(node) };
  }

  /** All that the file draws, in px; `null` where there is too much of it even for a picture. */
  all(): Drawn[] | null {
    const viewport = rootViewport(this.root);
    const matrix = viewport?.matrix ?? IDENTITY;
    const inside = viewBoxOf(this.root) ?? viewport ?? { width: 300, height: 150 };
    const drawn = this.art.collect(() => this.walk(this.root, this.start(matrix, inside)));
    if (drawn) return drawn;
    let made = false;
    const whole = this.art.collect(() => (made = this.parts.whole()));
    return made ? whole : null;
  }

  /** What the children of `holder` draw, in the style that they inherit; `null` where there is too much of it. */
  inside(holder: XmlNode, matrix: Affine): Drawn[] | null {
    const viewport = viewBoxOf(this.root) ?? rootViewport(this.root) ?? { width: 300, height: 150 };
    const style = this.styleAt(holder, viewport);
    return this.art.collect(() => this.children(holder, { ...this.start(matrix, viewport), style }));
  }

  private start(matrix: Affine, viewport: Measures['viewport']): Place {
    const { width, height } = viewport;
    return { matrix, style: INITIAL_STYLE, clip: null, depth: 0, viewport: { width, height }, outer: null };
  }

  /** The style that the children of a node inherit. */
  private styleAt(node: XmlNode, viewport: Measures['viewport']): Style {
    const way: XmlNode[] = [];
    for (let at: XmlNode | null = node; at; at = at.parent) way.unshift(at);
    return way.reduce(
      (held, one) => styleOf(propertiesOf(one, this.sheet), held, viewport, this.note),
      INITIAL_STYLE,
    );
  }

  private index(node: XmlNode): void {
    const { id } = node.attributes;
    if (id && !this.byId.has(id)) this.byId.set(id, node);
    if (node.name === 'style') this.sheet.add(node.text);
    if (node.name.startsWith('animate') || node.name === 'set') this.note('Movements were left out.');
    for (const child of node.children) this.index(child);
  }

  private walk(node: XmlNode, place: Place): void {
    if (SILENT.has(node.name) || this.parts.covers(place.outer)) return;
    this.art.visit();
    if (Object.keys(node.attributes).some((name) => /^on[a-z]/i.test(name)))
      this.note('Event handlers were left out.');
    const own = propertiesOf(node, this.sheet);
    if (own.display?.trim() === 'none') return;
    const style = styleOf(own, place.style, place.viewport, this.note);
    const measures: Measures = { fontSize: style.fontSize, viewport: place.viewport };
    const matrix = node === this.root ? place.matrix : multiply(place.matrix, ownTransform(own, measures));
    const needs = this.parts.reason(node, own, style);
    if (needs && this.parts.part(node, place.outer, needs)) return;
    const clip = this.clipOf(node, own, place.clip, matrix, measures);
    if (clip === 'too-much') {
      if (this.parts.part(node, place.outer, 'a large clip path')) return;
      return this.note('A clip path of too many parts was left out with what it clips.');
    }
    if (clip && clip.path.length === 0) return;
    const here: Place = { ...place, matrix, style, clip };
    this.faded(node, here, () => this.content(node, here, measures));
  }

  /** Draws what is inside; where it is see-through as a whole, its parts are, unless they overlap: then it is a picture. */
  private faded(node: XmlNode, place: Place, draw: () => void): void {
    const { opacity } = place.style;
    if (opacity === 0) return;
    const start = this.art.length;
    draw();
    if (opacity === 1) return;
    const added = this.art.takeBack(start);
    if (overlapping(added)) {
      if (this.parts.part(node, place.outer, 'a see-through group whose parts overlap')) return;
      this.note('The overlaps in a see-through group show through each other.');
    }
    this.art.put(added, opacity);
  }

  private content(node: XmlNode, here: Place, measures: Measures): void {
    if (node === this.root || CONTAINERS.has(node.name)) return this.children(node, here);
    if (node.name === 'svg') return this.nested(node, here, measures);
    if (node.name === 'switch') return this.switched(node, here);
    if (node.name === 'use') return this.use(node, here, measures);
    if (node.name === 'image') return this.image(node, here, measures);
    if (node.name === 'text') return this.text(node, here, measures);
    const shape = shapePath(node, measures);
    if (!shape) return this.note(leftOut(node.name));
    if (!shape.ok) return this.note(shape.message);
    if (here.style.visible && shape.path.length > 0) this.painter.draw(shape.path, { ...here, measures });
  }

  private children(node: XmlNode, place: Place): void {
    for (const child of node.children) this.walk(child, place);
  }

  /** The first child that can be shown (SVG 2, section 5.7): one that asks for nothing, or for English. */
  private switched(node: XmlNode, place: Place): void {
    const shown = node.children.find(({ name, attributes }) => {
      const { systemLanguage, requiredExtensions } = attributes;
      if (name === 'foreignObject' || name.startsWith('foreign:') || requiredExtensions) return false;
      return systemLanguage === undefined || systemLanguage.split(',').some((one) => /^\s*en\b/i.test(one));
    });
    if (shown) this.walk(shown, place);
  }

  private nested(
    node: XmlNode,
    place: Place,
    measures: Measures,
    size?: { width?: string; height?: string },
  ): void {
    const at = (name: string, side: Side, otherwise: string): number =>
      lengthOf(node.attributes[name] ?? otherwise, measures, side);
    const width = lengthOf(size?.width ?? node.attributes.width ?? '100%', measures, 'x');
    const height = lengthOf(size?.height ?? node.attributes.height ?? '100%', measures, 'y');
    if (!(width > 0) || !(height > 0)) return;
    const corner = node.name === 'svg' ? translation(at('x', 'x', '0'), at('y', 'y', '0')) : IDENTITY;
    const frame = multiply(place.matrix, corner);
    const own = propertiesOf(node, this.sheet);
    const open = own.overflow === 'visible' || own.overflow === 'auto';
    const clip = open ? place.clip : this.windowed(place.clip, frame, width, height);
    const box = viewBoxOf(node);
    this.children(node, {
      ...place,
      clip,
      matrix: multiply(frame, viewportMatrix(node, width, height)),
      viewport: box ? { width: box.width, height: box.height } : { width, height },
    });
  }

  /** A clip with the window of a viewport; a window that is not upright counts as its box. */
  private windowed(clip: Clip | null, frame: Affine, width: number, height: number): Clip {
    const own: Clip = { path: transformPath(frame, rectanglePath(width, height, 0)), rule: 'nonzero' };
    if (!clip) return own;
    const boxes = [pathBox(clip.path), pathBox(own.path)] as const;
    const shared = boxes[0] && boxes[1] && intersectBoxes(boxes[0], boxes[1]);
    return isRectangle(clip.path) && shared
      ? {
          path: transformPath(translation(shared.x, shared.y), rectanglePath(shared.width, shared.height, 0)),
          rule: 'nonzero',
        }
      : clip;
  }

  private use(node: XmlNode, place: Place, measures: Measures): void {
    const href = node.attributes.href ?? '';
    const target = href.startsWith('#') ? this.byId.get(href.slice(1)) : undefined;
    const around = target && holdsNode(target, node);
    if (!target || around || place.depth >= DEEPEST_USE)
      return this.note(
        href.startsWith('#')
          ? 'A <use> without a usable target was left out.'
          : 'A reference to another file was left out.',
      );
    const at = (name: string, side: Side): number => lengthOf(node.attributes[name], measures, side);
    const matrix = multiply(place.matrix, translation(at('x', 'x'), at('y', 'y')));
    const outer = place.outer ?? { node, start: this.art.length };
    const inside: Place = { ...place, matrix, depth: place.depth + 1, outer };
    if (target.name !== 'symbol' && target.name !== 'svg') return this.walk(target, inside);
    this.art.visit();
    const own = propertiesOf(target, this.sheet);
    if (own.display?.trim() === 'none') return;
    const style = styleOf(own, place.style, place.viewport, this.note);
    const { width, height } = node.attributes;
    this.faded(target, { ...inside, style }, () =>
      this.nested(target, { ...inside, style }, measures, { width, height }),
    );
  }

  /** The clip that holds for an element: its own, within the one around it. */
  private clipOf(
    node: XmlNode,
    own: Readonly<Record<string, string>>,
    around: Clip | null,
    matrix: Affine,
    measures: Measures,
  ): Clip | null | 'too-much' {
    const id = referenceOf(own['clip-path']);
    if (id === null || !this.byId.has(id)) {
      if (own['clip-path'] && own['clip-path'] !== 'none' && id === null)
        this.note('A clip path that is no reference was left out.');
      return around;
    }
    return this.clips.within(around, id, matrix, measures, () =>
      geometryBox(node, measures, this.clipSource),
    );
  }

  private image(node: XmlNode, place: Place, measures: Measures): void {
    const { matrix, style, clip } = place;
    const href = node.attributes.href ?? '';
    if (!style.visible) return;
    if (/^data:image\/svg\+xml[;,]/i.test(href) && this.parts.part(node, place.outer, 'a drawing inside it'))
      return;
    if (!/^data:image\/(png|jpe?g|webp)[;,]/i.test(href))
      return this.note(
        'A picture that is not inside the SVG was left out; bring it in as a file of its own.',
      );
    const at = (name: string, side: Side): number => lengthOf(node.attributes[name], measures, side);
    const box = { width: at('width', 'x'), height: at('height', 'y') };
    if (!(box.width > 0) || !(box.height > 0)) return this.note('A picture without a size was left out.');
    const placed = multiply(matrix, translation(at('x', 'x'), at('y', 'y')));
    const stretch = node.attributes.preserveAspectRatio?.trim() === 'none';
    this.art.addPicture(href, placed, box, { stretch, clip });
  }

  private text(node: XmlNode, place: Place, measures: Measures): void {
    for (const { path, style } of this.runs(node, place.style, measures))
      if (path.length > 0) this.painter.draw(path, { ...place, style: { ...style, opacity: 1 }, measures });
  }

  private textPath(node: XmlNode): Path | null {
    const viewport = viewBoxOf(this.root) ?? { width: 300, height: 150 };
    const style = this.styleAt(node, viewport);
    return this.runs(node, style, { fontSize: style.fontSize, viewport }).flatMap(({ path }) => path);
  }

  private runs(node: XmlNode, style: Style, measures: Measures): TextRun[] {
    const { setText } = this.options;
    return textRuns(node, style, { sheet: this.sheet, measures, setText, note: this.note });
  }
}

/** True where a node is another or lies around it. */
function holdsNode(outer: XmlNode, inner: XmlNode): boolean {
  for (let at: XmlNode | null = inner; at; at = at.parent) if (at === outer) return true;
  return false;
}

function leftOut(name: string): string {
  if (name === 'script') return 'A script was left out.';
  if (name === 'foreignObject' || name.startsWith('foreign:')) return 'Content that is not SVG was left out.';
  return `An element <${name.slice(0, 40)}> was left out.`;
}
