import type { PictureLook } from '../../core/colour/look';
import {
  chain,
  invert,
  meanScale,
  multiply,
  scaling,
  translation,
  type Affine,
} from '../../core/geom/affine';
import { grow, intersectBoxes, moveBox, unionBoxes, type Box } from '../../core/geom/box';
import { maskPicture } from '../../core/formats/mask-picture';
import {
  strokeOf,
  type DisplayList,
  type DrawItem,
  type DrawnMask,
  type DrawnShape,
  type Ink,
  type Layer,
  type PageItem,
  type PathItem,
  type PictureItem,
  type TiledItem,
} from '../../core/draw/list';
import { inkPaint, isOpaqueGradient } from '../../core/svg/fill';
import { inkText } from '../../core/svg/ink';
import { copiesMarkup, layeredMarkup, opacityText, pageMarkup, visibleCopies } from '../../core/svg/layout';
import { throughLook } from '../../core/svg/paint';
import { unitMarkup } from '../../core/svg/pieces';
import { factor } from '../../core/svg/print';
import type { BandRequest, LayerStep, RenderStep, SharedPicture, SoftMask } from '../../contract/render';
import { meanOf, neededPicture, planePictures, type PictureLookup, type Scale } from './pictures-needed';
import { isFine, tileOf, type PixelBox } from './tile';

/**
 * A band of a layout as layers for a render thread. Plain outlines gather in one drawing; a pattern is a layer of its
 * own, drawn without a clip path and limited by a mask, which costs the renderer a fifth of the time.
 */
export function bandSteps(
  scene: DisplayList,
  band: PixelBox,
  scale: Scale,
  pictures: PictureLookup,
): Pick<BandRequest, 'base' | 'steps'> {
  const steps = new StepWriter(band, scale, scene.background, pictures);
  for (const shape of scene.shapes) steps.shape(shape);
  return steps.finish();
}

class StepWriter {
  readonly region: Box;
  private readonly steps: RenderStep[] = [];
  private base: string | null = null;
  private gathered: string[] = [];
  private units = 0;

  constructor(
    private readonly band: PixelBox,
    private readonly scale: Scale,
    background: string | null,
    private readonly pictures: PictureLookup,
  ) {
    this.region = this.onPage(band);
    if (background !== null) this.gathered.push(wash(this.region, `fill="${background}"`));
  }

  shape(shape: DrawnShape): void {
    const stroke = strokeOf(shape);
    const parts = [shape, ...(stroke ? [stroke] : [])].flatMap((part) => {
      const box = this.pixelBox(part.box);
      return box ? part.layers.map((layer) => ({ part, layer, box })) : [];
    });
    if (shape.masks.length === 0) {
      for (const { part, layer, box } of parts) this.layer(part, layer, box);
      return;
    }
    const steps = parts.flatMap(({ part, layer, box }) => this.step(part, layer, box) ?? []);
    const whole = unionBoxes(parts.map(({ box }) => box));
    if (steps.length === 0 || !whole) return;
    this.flush();
    const masks = shape.masks.map((mask) => this.mask(shape, mask, whole));
    this.steps.push({ kind: 'group', ...this.inBand(whole), steps, masks });
  }

  /** One fill: gathered with what is plain, or a step of its own. */
  private layer(shape: DrawnShape, layer: Layer, box: PixelBox): void {
    const plain = layer.blend === 'normal' && layer.mask === null ? this.plain(shape, layer, box) : null;
    if (plain !== null) {
      this.gathered.push(plain);
      return;
    }
    const step = this.step(shape, layer, box);
    if (!step) return;
    this.flush();
    this.steps.push(step);
  }

  /** The drawing of a fill that can stand among plain outlines; `null` for one that needs a step. */
  private plain(shape: DrawnShape, { items }: Layer, box: PixelBox): string | null {
    const covers = coversBox(shape, this.region);
    const parts = items.map((item) => {
      if (item.kind === 'path')
        return covers ? areaMarkup(shape, item, this.region) : pathMarkup(shape, item);
      if (item.kind !== 'tiled' || item.wash || !covers) return null;
      return this.copies(shape, item, this.onPage(box), item.opacity);
    });
    return parts.every((part) => part !== null) ? parts.join('') : null;
  }

  private step(shape: DrawnShape, { items, blend, mask }: Layer, box: PixelBox): LayerStep | null {
    const region = this.onPage(box);
    const content = this.content(shape, items, box, region);
    if (!content) return null;
    const inside = coversBox(shape, region) || items.every(({ kind }) => kind === 'path');
    return {
      kind: 'layer',
      ...this.inBand(box),
      ground: null,
      wash: null,
      ...content,
      outline: inside
        ? null
        : svgOf(region, box, pathMarkup(shape, { kind: 'path', ink: '#000000', opacity: 1 })),
      mask: mask && this.mask(shape, mask, box),
      blend,
    };
  }

  /** What the uppermost of some items draws, and as its ground all paths below it. */
  private content(
    shape: DrawnShape,
    items: readonly DrawItem[],
    box: PixelBox,
    region: Box,
  ): (Pick<LayerStep, 'source' | 'opacity'> & Partial<Pick<LayerStep, 'ground' | 'wash'>>) | null {
    const top = items.at(-1);
    const below = items.slice(0, -1).filter((item) => item.kind === 'path');
    switch (top?.kind) {
      case undefined:
        return null;
      case 'path':
        return drawn(svgOf(region, box, [...below, top].map((item) => pathMarkup(shape, item)).join('')), 1);
      case 'picture':
        return { source: this.picture(shape, top, box), opacity: top.opacity };
      case 'page':
        return drawn(svgOf(region, box, this.page(shape, top, region)), 1);
      case 'tiled': {
        const plane = this.plane(shape, top, box);
        const copies = plane ? null : this.copies(shape, top, region, 1);
        const under = below.map((item) => areaMarkup(shape, item, region)).join('');
        if (copies === '' && under === '') return null;
        const { wash } = top;
        return {
          ground: under === '' ? null : svgOf(region, box, under),
          source:
            plane ??
            (copies === null
              ? tileOf(shape, top, box, this.scale)
              : { kind: 'drawing', svg: svgOf(region, box, copies) }),
          opacity: top.opacity,
          wash: wash && {
            svg: svgOf(region, box, areaMarkup(shape, { ink: wash, opacity: 1 }, region)),
            opaque: isOpaqueGradient(wash),
          },
        };
      }
    }
  }

  /** A page that lies in this one, as a drawing of its own. */
  private page(shape: DrawnShape, item: PageItem, region: Box): string {
    const scale = meanOf(this.scale);
    const markup = pageMarkup(item, {
      ...{ patterns: 'expanded', scale, prefix: `n${this.units++}` },
      region: moveBox(region, { x: -shape.x, y: -shape.y }),
      maskPicture: (mask) => maskPicture(mask, scale * meanScale(item.matrix)),
    });
    return `<g ${placeText(shape)}>${markup}</g>`;
  }

  private picture(shape: DrawnShape, item: PictureItem, box: PixelBox): LayerStep['source'] {
    return { kind: 'picture', ...this.sampled(shape, item, box) };
  }

  /** Pictures that leave nothing open, as one plane; `null` where a pattern is something else. */
  private plane(shape: DrawnShape, item: TiledItem, box: PixelBox): LayerStep['source'] | null {
    const { plane } = item.pattern.scene;
    const inverse = invert(item.matrix);
    if (!plane || !inverse) return null;
    const { a, b, parts } = plane;
    return {
      kind: 'plane',
      plane: { a, b, parts },
      pictures: planePictures(item, this.scale).map((needed) => this.pictures(needed)),
      toPlane: chain(inverse, this.toFrame(shape, box)),
    };
  }

  /** A picture as it was decoded, and layer px → its px. */
  private sampled(
    shape: DrawnShape,
    one: { asset: string; matrix: Affine; width: number; height: number; look?: PictureLook | null },
    box: PixelBox,
  ): { picture: SharedPicture | null; toPicture: Affine } {
    const picture = this.pictures(neededPicture(one, this.scale));
    const inverse = invert(one.matrix);
    if (!picture || !inverse) return { picture: null, toPicture: scaling(1) };
    const decoded = scaling(picture.width / one.width, picture.height / one.height);
    return { picture, toPicture: chain(decoded, inverse, this.toFrame(shape, box)) };
  }

  /** Layer px → the shape's frame px. */
  private toFrame(shape: DrawnShape, box: PixelBox): Affine {
    const { x, y } = this.scale;
    return chain(translation(-shape.x, -shape.y), scaling(1 / x, 1 / y), translation(box.x, box.y));
  }

  private mask(shape: DrawnShape, mask: DrawnMask, box: PixelBox): SoftMask {
    switch (mask.kind) {
      case 'gradient': {
        const region = this.onPage(box);
        const drawing = areaMarkup(shape, { ink: mask.gradient, opacity: 1 }, region);
        return { kind: 'drawing', svg: svgOf(region, box, drawing) };
      }
      case 'painted': {
        const back = invert(mask.matrix) ?? scaling(0);
        const { strokes, starts = 'shown' } = mask;
        return { kind: 'painted', strokes, starts, toMask: chain(back, this.toFrame(shape, box)) };
      }
      case 'picture':
        return { kind: 'picture', ...this.sampled(shape, mask, box), inverted: mask.inverted };
    }
  }

  private inBand(box: PixelBox): PixelBox {
    return { x: box.x - this.band.x, y: box.y - this.band.y, width: box.width, height: box.height };
  }

  /** Every copy of the unit that shows in `region`, on the page; "" where none does, `null` where a tile must stand in. */
  private copies(shape: DrawnShape, item: TiledItem, region: Box, opacity: number): string | null {
    if (item.pattern.scene.plane) return null;
    if (isFine(shape, item, region, meanOf(this.scale))) return null;
    const visible = visibleCopies(shape, item, region);
    if (visible.offsets.length === 0 && item.pattern.scene.endless.length === 0) return '';
    const attributes = `${placeText(shape)}${opacityText('opacity', opacity)}`;
    if (item.pattern.scene.layered) return `<g ${attributes}>${layeredMarkup(item, visible.region)}</g>`;
    const id = `u${this.units++}`;
    const unit = `<defs><g id="${id}">${throughLook(unitMarkup(item.pattern.scene, item.colours), item.look)}</g></defs>`;
    const art = copiesMarkup(item, visible, id, meanOf(this.scale));
    return `${unit}<g ${attributes}>${art}</g>`;
  }

  finish(): { base: string; steps: RenderStep[] } {
    this.flush();
    return { base: this.base ?? '', steps: this.steps };
  }

  /** Closes the drawing of plain outlines: the first one is the band's base, later ones are layers. */
  private flush(): void {
    if (this.base !== null && this.gathered.length === 0) return;
    const svg = svgOf(this.region, this.band, this.gathered.join(''));
    if (this.base === null) this.base = svg;
    else {
      const { width, height } = this.band;
      this.steps.push({
        kind: 'layer',
        ...{ x: 0, y: 0, width, height },
        ...drawn(svg, 1),
        ground: null,
        wash: null,
        outline: null,
        mask: null,
        blend: 'normal',
      });
    }
    this.gathered = [];
  }

  /** The whole pixels that a box of the page touches within the band. */
  private pixelBox(box: Box): PixelBox | null {
    const left = Math.floor(box.x * this.scale.x);
    const top = Math.floor(box.y * this.scale.y);
    const right = Math.ceil((box.x + box.width) * this.scale.x);
    const bottom = Math.ceil((box.y + box.height) * this.scale.y);
    return intersectBoxes({ x: left, y: top, width: right - left, height: bottom - top }, this.band);
  }

  private onPage(box: PixelBox): Box {
    const { x, y } = this.scale;
    return { x: box.x / x, y: box.y / y, width: box.width / x, height: box.height / y };
  }
}

const drawn = (svg: string, opacity: number): Pick<LayerStep, 'source' | 'opacity'> => ({
  source: { kind: 'drawing', svg },
  opacity,
});

const placeText = (shape: DrawnShape): string =>
  `transform="translate(${factor(shape.x)} ${factor(shape.y)})"`;

/** The outline of a shape, inked. */
function pathMarkup(shape: DrawnShape, { ink, opacity }: PathItem): string {
  const { value, defs } = inkPaint(ink);
  return `${defs}<path ${placeText(shape)} d="${shape.d}" ${inkText(shape.pen, value, opacity)}/>`;
}

/** An ink over all of a region: the step's own outline cuts it off, where it does not fill the region anyway. */
function areaMarkup(
  shape: DrawnShape,
  { ink, opacity }: Pick<PathItem, 'ink' | 'opacity'>,
  region: Box,
): string {
  const { value, defs } = inkPaint(onPage(shape, ink));
  return defs + wash(region, `fill="${value}"${opacityText('fill-opacity', opacity)}`);
}

/** An ink in page px. */
const onPage = ({ x, y }: DrawnShape, ink: Ink): Ink =>
  typeof ink === 'string' ? ink : { ...ink, matrix: multiply(translation(x, y), ink.matrix) };

/** A rectangle over all of a region and a little more, so that its own edges never show. */
function wash(region: Box, attributes: string): string {
  const { x, y, width, height } = grow(region, Math.max(region.width, region.height) * 0.01);
  return `<rect x="${factor(x)}" y="${factor(y)}" width="${factor(width)}" height="${factor(height)}" ${attributes}/>`;
}

function svgOf(region: Box, pixels: PixelBox, drawing: string): string {
  const viewBox = [region.x, region.y, region.width, region.height].map(factor).join(' ');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${pixels.width}" height="${pixels.height}" viewBox="${viewBox}" preserveAspectRatio="none">${drawing}</svg>`;
}

/** True for an upright plain rectangle that covers all of `region`: nothing is left for a mask to cut. */
function coversBox(shape: DrawnShape, region: Box): boolean {
  if (!shape.upright) return false;
  const slack = 1e-6;
  const { x, y, width, height } = shape.box;
  return (
    x <= region.x + slack &&
    y <= region.y + slack &&
    x + width >= region.x + region.width - slack &&
    y + height >= region.y + region.height - slack
  );
}
