import { multiply, translation } from '../../core/geom/affine';
import { boxesMeet, grow, intersectBoxes, type Box } from '../../core/geom/box';
import type { LayoutScene, PatternPaint, ShapeScene } from '../../core/scene/layout';
import { copiesMarkup, layeredMarkup, opacityText, visibleCopies } from '../../core/svg/layout';
import { groundPaint, throughLook } from '../../core/svg/paint';
import { unitMarkup } from '../../core/svg/pieces';
import { factor } from '../../core/svg/print';
import type { BandRequest, RenderStep } from '../../contract/render';
import { isFine, tileOf, type PixelBox } from './tile';

/**
 * A band of a layout as layers for a render thread. Plain outlines gather in one drawing; a pattern is a layer of its
 * own, drawn without a clip path and limited by a mask, which costs the renderer a fifth of the time.
 */
export function bandSteps(
  scene: LayoutScene,
  band: PixelBox,
  scale: { x: number; y: number },
): Pick<BandRequest, 'base' | 'steps'> {
  const steps = new StepWriter(band, scale, scene.background);
  for (const shape of scene.shapes) {
    const { paint } = shape;
    if (!paint || !boxesMeet(shape.box, steps.region)) continue;
    if (paint.kind === 'colour') {
      steps.outline(shape, paint.colour, paint.opacity);
      continue;
    }
    steps.pattern(shape, paint);
  }
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
    private readonly scale: { x: number; y: number },
    background: string | null,
  ) {
    this.region = this.onPage(band);
    if (background !== null) this.gathered.push(wash(this.region, `fill="${background}"`));
  }

  outline(shape: ShapeScene, colour: string, opacity: number): void {
    this.gathered.push(outlineMarkup(shape, `fill="${colour}"${opacityText('fill-opacity', opacity)}`));
  }

  pattern(shape: ShapeScene, paint: PatternPaint): void {
    const box = this.pixelBox(shape.box);
    if (!box) return;
    const drawing = isFine(shape, paint, this.onPage(box), Math.sqrt(this.scale.x * this.scale.y))
      ? null
      : this.copies(shape, paint, this.onPage(box));
    if (drawing !== null && coversBox(shape, this.region)) {
      this.gathered.push(groundMarkup(shape, paint, this.region) + drawing);
      return;
    }
    if (drawing === '' && !paint.ground) return;
    this.flush();
    const region = this.onPage(box);
    const ground = groundMarkup(shape, paint, region);
    this.steps.push({
      x: box.x - this.band.x,
      y: box.y - this.band.y,
      width: box.width,
      height: box.height,
      source:
        drawing === null
          ? {
              ...tileOf(shape, paint, box, this.scale),
              ground: ground === '' ? null : svgOf(region, box, ground),
            }
          : { kind: 'drawing', svg: svgOf(region, box, ground + drawing) },
      mask: coversBox(shape, region) ? null : svgOf(region, box, outlineMarkup(shape, 'fill="#000000"')),
    });
  }

  /** Every copy of the unit that shows in `region`, on the page; "" where none does. */
  private copies(shape: ShapeScene, paint: PatternPaint, region: Box): string {
    const visible = visibleCopies(shape, paint, region);
    if (visible.offsets.length === 0 && paint.pattern.scene.endless.length === 0) return '';
    const place = `transform="translate(${factor(shape.x)} ${factor(shape.y)})"`;
    const attributes = `${place}${opacityText('opacity', paint.opacity)}`;
    if (paint.pattern.scene.layered) return `<g ${attributes}>${layeredMarkup(paint, visible.region)}</g>`;
    const id = `u${this.units++}`;
    const unit = `<defs><g id="${id}">${throughLook(unitMarkup(paint.pattern.scene, paint.colours), paint.look)}</g></defs>`;
    const art = copiesMarkup(paint, visible, id, Math.sqrt(this.scale.x * this.scale.y));
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
      this.steps.push({ x: 0, y: 0, width, height, source: { kind: 'drawing', svg }, mask: null });
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

const outlineMarkup = (shape: ShapeScene, attributes: string): string =>
  `<path transform="translate(${factor(shape.x)} ${factor(shape.y)})" d="${shape.d}" ${attributes}/>`;

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
