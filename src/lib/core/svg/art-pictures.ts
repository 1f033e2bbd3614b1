import { translation } from '../geom/affine';
import type { Box } from '../geom/box';
import { referenceOf } from './art-clips';
import { TooMuch, type DrawnArt } from './art-drawn';
import { fragmentSvg } from './fragment';
import { rootViewport, shapePath } from './import-read';
import type { Style } from './style';
import type { XmlNode } from './xml';

/** Draws a file as a picture: cropped to what it shows, with the box of that in the file's px; `null` for nothing. */
export type DrawPicture = (
  svg: string,
  size: { width: number; height: number },
) => { href: string; box: Box } | null;

/** Pixels to an inch of what is drawn as a picture. */
export const PICTURE_PPI = 300;
/** More parts than this that need a picture make the whole drawing one. */
const MOST_PICTURES = 12;
const MARKERS = ['marker', 'marker-start', 'marker-mid', 'marker-end'];

/** The outermost <use> that something stands in, and how much was drawn before it. */
export type Outer = { node: XmlNode; start: number };

/** Draws the parts of a file as pictures that cannot be kept as vectors. */
export class PictureParts {
  private readonly pictured = new Set<XmlNode>();

  constructor(
    private readonly root: XmlNode,
    private readonly art: DrawnArt,
    private readonly byId: ReadonlyMap<string, XmlNode>,
    private readonly drawPicture: DrawPicture | null,
    private readonly note: (text: string) => void,
  ) {}

  /** True for what stands in a <use> that is a picture already. */
  covers(outer: Outer | null): boolean {
    return outer !== null && this.pictured.has(outer.node);
  }

  /** Why an element can only be drawn by a renderer, or `null`. */
  reason(node: XmlNode, own: Readonly<Record<string, string>>, style: Style): string | null {
    const refers = (name: string, kind: string): boolean => {
      const id = referenceOf(own[name]);
      return id !== null && this.byId.get(id)?.name === kind;
    };
    if (refers('mask', 'mask')) return 'a mask';
    if (referenceOf(own.filter) !== null || /^(?!url\()[a-z-]+\(/.test(own.filter ?? '')) return 'a filter';
    const blend = own['mix-blend-mode'];
    if (blend && blend !== 'normal') this.note(`A blend (${blend.slice(0, 30)}) was left out.`);
    const draws = shapePath(node, { fontSize: 16, viewport: { width: 1, height: 1 } }) !== null;
    if (!draws && node.name !== 'text') return null;
    if (MARKERS.some((name) => refers(name, 'marker'))) return 'markers';
    const pattern = [style.fill, style.stroke].some(
      (paint) => paint?.reference && this.byId.get(paint.reference)?.name === 'pattern',
    );
    return pattern ? 'a pattern' : null;
  }

  /** Draws an element, or the outermost <use> that it stands in, as a picture; false where that cannot be. */
  part(node: XmlNode, outer: Outer | null, why: string): boolean {
    const target = outer?.node ?? node;
    if (this.pictured.has(target)) return true;
    if (this.pictured.size >= MOST_PICTURES && this.drawPicture) throw new TooMuch();
    const made = this.draw(target, `A part with ${why}`, outer?.start);
    if (!made && this.drawPicture) this.note(`A part with ${why} was drawn without it.`);
    else if (!made) this.note(`${why[0]?.toUpperCase()}${why.slice(1)} was left out.`);
    return made;
  }

  /** Draws the whole file as one picture; false where that cannot be. */
  whole(): boolean {
    return this.draw(this.root, 'The drawing has too many parts to be kept as vectors, so it', 0);
  }

  private draw(target: XmlNode, what: string, start = this.art.length): boolean {
    if (!this.drawPicture) return false;
    const size = rootViewport(this.root) ?? { width: 512, height: 512 };
    const made = this.drawPicture(fragmentSvg(this.root, target, size), size);
    if (made === null) return false;
    this.pictured.add(target);
    this.art.takeBack(start);
    this.note(`${what} was drawn as a picture at ${PICTURE_PPI} ppi; its colours stay as they are.`);
    const { box, href } = made;
    if (box.width > 0 && box.height > 0)
      this.art.addPicture(href, translation(box.x, box.y), box, { stretch: true, clip: null });
    return true;
  }
}
