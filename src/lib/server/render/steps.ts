import { chain, invert, multiply, scaling, translation, type Affine } from '../../core/geom/affine';
import { grow, intersectBoxes, unionBoxes, type Box } from '../../core/geom/box';
import {
  strokeOf,
  type GradientScene,
  type LayoutScene,
  type MaskScene,
  type PatternPaint,
  type PicturePaint,
  type ShapePaint,
  type ShapeScene,
} from '../../core/scene/layout';
import { gradientPaint, isOpaqueGradient } from '../../core/svg/fill';
import { inkText } from '../../core/svg/ink';
import { copiesMarkup, layeredMarkup, opacityText, visibleCopies } from '../../core/svg/layout';
import { groundPaint, throughLook } from '../../core/svg/paint';
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
  scene: LayoutScene,
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

  shape(shape: ShapeScene): void {
    const stroke = strokeOf(shape);
    const parts = [shape, ...(stroke ? [stroke] : [])].flatMap((part) => {
      const box = this.pixelBox(part.box);
      return box ? part.paints.map((paint) => ({ part, paint, box })) : [];
    });
    if (shape.masks.length === 0) {
      for (const { part, paint, box } of parts) this.paint(part, paint, box);
      return;
    }
    const steps = parts.flatMap(({ part, paint, box }) => this.layer(part, paint, box) ?? []);
    const whole = unionBoxes(parts.map(({ box }) => box));
    if (steps.length === 0 || !whole) return;
    this.flush();
    const masks = shape.masks.map((mask) => this.mask(shape, mask, whole));
    this.steps.push({ kind: 'group', ...this.inBand(whole), steps, masks });
  }

  /** One fill: gathered with what is plain, or a layer of its own. */
  private paint(shape: ShapeScene, paint: ShapePaint, box: PixelBox): void {
    const plain = paint.blend === 'normal' && paint.mask === null ? this.plain(shape, paint, box) : null;
    if (plain !== null) {
      this.gathered.push(plain);
      return;
    }
    const layer = this.layer(shape, paint, box);
    if (!layer) return;
    this.flush();
    this.steps.push(layer);
  }

  /** The drawing of a fill that can stand among plain outlines; `null` for one that needs a layer. */
  private plain(shape: ShapeScene, paint: ShapePaint, box: PixelBox): string | null {
    if (paint.kind === 'colour') return flatMarkup(shape, paint.colour, paint.opacity);
    if (paint.kind === 'gradient') return gradientMarkup(shape, paint.gradient, paint.opacity);
    if (paint.kind === 'picture' || paint.wash || !coversBox(shape, this.region)) return null;
    const drawing = this.copies(shape, paint, this.onPage(box), paint.opacity);
    return drawing === null ? null : groundMarkup(shape, paint, this.region) + drawing;
  }

  private layer(shape: ShapeScene, paint: ShapePaint, box: PixelBox): LayerStep | null {
    const region = this.onPage(box);
    const content = this.content(shape, paint, box, region);
    if (!content) return null;
    const inside = coversBox(shape, region) || paint.kind === 'colour' || paint.kind === 'gradient';
    return {
      kind: 'layer',
      ...this.inBand(box),
      ground: null,
      wash: null,
      ...content,
      outline: inside ? null : svgOf(region, box, flatMarkup(shape, '#000000', 1)),
      mask: paint.mask && this.mask(shape, paint.mask, box),
      blend: paint.blend,
    };
  }

  private content(
    shape: ShapeScene,
    paint: ShapePaint,
    box: PixelBox,
    region: Box,
  ): (Pick<LayerStep, 'source' | 'opacity'> & Partial<Pick<LayerStep, 'ground' | 'wash'>>) | null {
    switch (paint.kind) {
      case 'colour':
        return drawn(svgOf(region, box, flatMarkup(shape, paint.colour, paint.opacity)), 1);
      case 'gradient':
        return drawn(svgOf(region, box, gradientMarkup(shape, paint.gradient, paint.opacity)), 1);
      case 'picture':
        return { source: this.picture(shape, paint, box), opacity: paint.opacity };
      case 'pattern': {
        const plane = this.plane(shape, paint, box);
        const copies = plane ? null : this.copies(shape, paint, region, 1);
        const under = groundMarkup(shape, paint, region);
        if (copies === '' && under === '') return null;
        const gradient = paint.wash;
        return {
          ground: under === '' ? null : svgOf(region, box, under),
          source:
            plane ??
            (copies === null
              ? tileOf(shape, paint, box, this.scale)
              : { kind: 'drawing', svg: svgOf(region, box, copies) }),
          opacity: paint.opacity,
          wash: gradient && {
            svg: svgOf(region, box, gradientMarkup(shape, gradient, 1, region)),
            opaque: isOpaqueGradient(gradient),
          },
        };
      }
    }
  }

  private picture(shape: ShapeScene, paint: PicturePaint, box: PixelBox): LayerStep['source'] {
    return { kind: 'picture', ...this.sampled(shape, paint, box) };
  }

  /** Pictures that leave nothing open, as one plane; `null` where a pattern is something else. */
  private plane(shape: ShapeScene, paint: PatternPaint, box: PixelBox): LayerStep['source'] | null {
    const { plane } = paint.pattern.scene;
    const inverse = invert(paint.matrix);
    if (!plane || !inverse) return null;
    const { a, b, parts } = plane;
    return {
      kind: 'plane',
      plane: { a, b, parts },
      pictures: planePictures(paint, this.scale).map((needed) => this.pictures(needed)),
      toPlane: chain(inverse, this.toFrame(shape, box)),
    };
  }

  /** A picture as it was decoded, and layer px → its px. */
  private sampled(
    shape: ShapeScene,
    one: { asset: string; matrix: Affine; width: number; height: number },
    box: PixelBox,
  ): { picture: SharedPicture | null; toPicture: Affine } {
    const picture = this.pictures(neededPicture(one, this.scale));
    const inverse = invert(one.matrix);
    if (!picture || !inverse) return { picture: null, toPicture: scaling(1) };
    const decoded = scaling(picture.width / one.width, picture.height / one.height);
    return { picture, toPicture: chain(decoded, inverse, this.toFrame(shape, box)) };
  }

  /** Layer px → the shape's frame px. */
  private toFrame(shape: ShapeScene, box: PixelBox): Affine {
    const { x, y } = this.scale;
    return chain(translation(-shape.x, -shape.y), scaling(1 / x, 1 / y), translation(box.x, box.y));
  }

  private mask(shape: ShapeScene, mask: MaskScene, box: PixelBox): SoftMask {
    switch (mask.kind) {
      case 'gradient': {
        const region = this.onPage(box);
        return { kind: 'drawing', svg: svgOf(region, box, gradientMarkup(shape, mask.gradient, 1, region)) };
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
  private copies(shape: ShapeScene, paint: PatternPaint, region: Box, opacity: number): string | null {
    if (paint.pattern.scene.plane) return null;
    if (isFine(shape, paint, region, meanOf(this.scale))) return null;
    const visible = visibleCopies(shape, paint, region);
    if (visible.offsets.length === 0 && paint.pattern.scene.endless.length === 0) return '';
    const attributes = `${placeText(shape)}${opacityText('opacity', opacity)}`;
    if (paint.pattern.scene.layered) return `<g ${attributes}>${layeredMarkup(paint, visible.region)}</g>`;
    const id = `u${this.units++}`;
    const unit = `<defs><g id="${id}">${throughLook(unitMarkup(paint.pattern.scene, paint.colours), paint.look)}</g></defs>`;
    const art = copiesMarkup(paint, visible, id, meanOf(this.scale));
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

const placeText = (shape: ShapeScene): string =>
  `transform="translate(${factor(shape.x)} ${factor(shape.y)})"`;

const flatMarkup = (shape: ShapeScene, colour: string, opacity: number): string =>
  `<path ${placeText(shape)} d="${shape.d}" ${inkText(shape.pen, colour, opacity)}/>`;

/** A gradient within a shape's outline, or over all of `region`. */
function gradientMarkup(shape: ShapeScene, gradient: GradientScene, opacity: number, region?: Box): string {
  const matrix = multiply(translation(shape.x, shape.y), gradient.matrix);
  if (region) {
    const { value, defs } = gradientPaint({ ...gradient, matrix });
    return defs + wash(region, `fill="${value}"`);
  }
  const { value, defs } = gradientPaint(gradient);
  return defs + flatMarkup(shape, value, opacity);
}

/** A rectangle over all of a region and a little more, so that its own edges never show. */
function wash(region: Box, attributes: string): string {
  const { x, y, width, height } = grow(region, Math.max(region.width, region.height) * 0.01);
  return `<rect x="${factor(x)}" y="${factor(y)}" width="${factor(width)}" height="${factor(height)}" ${attributes}/>`;
}

/** The ground of a fill over a region, or "" where it has none. The layer's mask gives it the shape's outline. */
function groundMarkup(shape: ShapeScene, paint: PatternPaint, region: Box): string {
  if (!paint.ground) return '';
  const onPage = multiply(translation(shape.x, shape.y), paint.matrix);
  const { value, defs } = groundPaint(paint.ground, onPage);
  return defs + wash(region, `fill="${value}"${opacityText('fill-opacity', paint.ground.opacity)}`);
}

function svgOf(region: Box, pixels: PixelBox, drawing: string): string {
  const viewBox = [region.x, region.y, region.width, region.height].map(factor).join(' ');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${pixels.width}" height="${pixels.height}" viewBox="${viewBox}" preserveAspectRatio="none">${drawing}</svg>`;
}

/** True for an upright plain rectangle that covers all of `region`: nothing is left for a mask to cut. */
function coversBox(shape: ShapeScene, region: Box): boolean {
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
