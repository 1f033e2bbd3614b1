import type { PDFRef } from 'pdf-lib';
import { IDENTITY, invert, multiply, type Affine } from '../geom/affine';
import type { Box } from '../geom/box';
import type { InkedStroke } from '../geom/outline';
import type { FillRule, Path } from '../geom/path';
import type { BlendMode } from '../colour/blend';
import type { Inks } from '../colour/inks';
import type { Hex } from '../colour/parse';
import { say, sayMatrix, type PdfFile, type Value } from './file';
import { runText, type GlyphRun } from './text';
import { inkSpace } from './spot';
import { boxThrough, channels, isSolid, matrixList, shading, shadingPattern, type Shade } from './ink';

/** What a path is inked with: a colour, a gradient, a pattern by its name among the resources, or all of a colour space's one ink. */
export type PdfInk = Hex | PlainInk | Shade | { pattern: string } | { space: string };

/** A colour, the inks that it may be printed in, and whether it may print over others where its ink does. */
export type PlainInk = { colour: Hex; inks: Inks; alone: boolean };

/** What is inked or cut to: a path, or set text. */
export type Area = Path | GlyphRun;
const isRun = (area: Area): area is GlyphRun => 'font' in area;

/** A soft mask: a form whose light, or whose opacity, says how much is seen. */
export type SoftMask = { form: PDFRef; of: 'light' | 'opacity' };

const CAPS = { butt: 0, round: 1, square: 2 } as const;
const JOINS = { miter: 0, round: 1, bevel: 2 } as const;

/** The names of ISO 32000-1, 11.3.5, for the W3C's. */
const BLENDS: Record<BlendMode, string> = {
  normal: '/Normal',
  multiply: '/Multiply',
  screen: '/Screen',
  overlay: '/Overlay',
  darken: '/Darken',
  lighten: '/Lighten',
  'color-dodge': '/ColorDodge',
  'color-burn': '/ColorBurn',
  'hard-light': '/HardLight',
  'soft-light': '/SoftLight',
  difference: '/Difference',
  exclusion: '/Exclusion',
  hue: '/Hue',
  saturation: '/Saturation',
  color: '/Color',
  luminosity: '/Luminosity',
};

/** A content stream as it is written, in a space of its own; `seen` is the part of that space that can be seen. */
export class Drawing {
  private readonly ops: string[] = [];
  private ctm: Affine = IDENTITY;

  constructor(
    readonly file: PdfFile,
    readonly seen: Box,
  ) {}

  get content(): string {
    return this.ops.join('\n');
  }
  get empty(): boolean {
    return this.ops.length === 0;
  }

  /** The present space → that of the stream. */
  get matrix(): Affine {
    return this.ctm;
  }

  /** What is seen, in the present space. */
  get around(): Box {
    const back = invert(this.ctm);
    return back ? boxThrough(back, this.seen) : this.seen;
  }

  /** Draws what belongs to a layer, if any, by its name among the resources (8.11.3.2). */
  onLayer(layer: string | null, draw: () => void): void {
    if (layer === null) return draw();
    const at = this.ops.length;
    this.ops.push(`/OC /${layer} BDC`);
    draw();
    if (this.ops.length === at + 1) this.ops.length = at;
    else this.ops.push('EMC');
  }

  /** Draws within a state of its own, through a matrix where one is given. */
  within(matrix: Affine | null, draw: () => void): void {
    const before = this.ctm;
    const at = this.ops.length;
    this.ops.push('q');
    if (matrix && matrix !== IDENTITY) {
      this.ctm = multiply(this.ctm, matrix);
      this.ops.push(`${sayMatrix(matrix)} cm`);
    }
    const start = this.ops.length;
    draw();
    this.ctm = before;
    if (this.ops.length === start) this.ops.length = at;
    else this.ops.push('Q');
  }

  clip(area: Area, rule: FillRule = 'nonzero'): void {
    if (isRun(area)) this.ops.push(runText(this.file, area, 'clip'));
    else this.ops.push(pathText(area), rule === 'evenodd' ? 'W* n' : 'W n');
  }

  /** Sets opacity, blend and soft mask until the end of the state. */
  state({ opacity = 1, blend, mask }: { opacity?: number; blend?: BlendMode; mask?: SoftMask }): void {
    const mode = blend === undefined || blend === 'normal' ? undefined : BLENDS[blend];
    if (opacity >= 1 && mode === undefined && !mask) return;
    const dict: { [key: string]: Value | undefined } = {
      Type: '/ExtGState',
      ...(opacity < 1 ? { ca: opacity, CA: opacity } : {}),
      BM: mode,
      SMask: mask && { Type: '/Mask', S: mask.of === 'light' ? '/Luminosity' : '/Alpha', G: mask.form },
    };
    const key = `${say(opacity)} ${mode ?? ''} ${mask ? `${mask.of} ${mask.form.tag}` : ''}`;
    this.ops.push(`/${this.file.resource('ExtGState', key, () => this.file.object(dict))} gs`);
  }

  /** Fills a path, and where it is see-through as a gradient, through a mask of its opacities. */
  fill(area: Area, ink: PdfInk, opacity = 1, rule: FillRule = 'nonzero'): void {
    this.inked(ink, opacity, 'fill', () => {
      if (isRun(area)) this.ops.push(runText(this.file, area, 'fill'));
      else this.ops.push(pathText(area), rule === 'evenodd' ? 'f*' : 'f');
    });
  }

  stroke(path: Path, ink: PdfInk, line: InkedStroke, opacity = 1): void {
    this.inked(ink, opacity, 'stroke', () => {
      const { width, cap, join, miterLimit, dashes, dashOffset = 0 } = line;
      this.ops.push(
        `${say(width)} w ${CAPS[cap]} J ${JOINS[join]} j ${say(Math.max(1, miterLimit))} M`,
        ...(dashes.length > 0 ? [`[${dashes.map(say).join(' ')}] ${say(dashOffset)} d`] : []),
        pathText(path),
        'S',
      );
    });
  }

  /** Draws with an ink as the one that paths are filled or drawn along with. */
  private inked(ink: PdfInk, opacity: number, as: 'fill' | 'stroke', draw: () => unknown): void {
    const inSpace = (space: string, tint: number): unknown =>
      this.ops.push(
        ...(as === 'fill' ? [`/${space} cs`, `${say(tint)} scn`] : [`/${space} CS`, `${say(tint)} SCN`]),
      );
    const colour = ({ colour: hex, inks, alone }: PlainInk): unknown => {
      const inked = inks.of(hex);
      if (!inked) return this.ops.push(`${channels(hex).map(say).join(' ')} ${as === 'fill' ? 'rg' : 'RG'}`);
      const { ink, tint } = inked;
      if (ink.overprint && alone) this.overprint();
      const space = this.file.resource('ColorSpace', `ink ${ink.name}`, () => inkSpace(this.file, [ink]));
      return inSpace(space, tint);
    };
    const pattern = (name: string): unknown =>
      this.ops.push(...(as === 'fill' ? ['/Pattern cs', `/${name} scn`] : ['/Pattern CS', `/${name} SCN`]));
    this.within(null, () => {
      if (typeof ink === 'string' || !('stops' in ink)) {
        this.state({ opacity });
        if (typeof ink === 'string') colour({ colour: ink, inks: this.file.inks, alone: true });
        else if ('colour' in ink) colour(ink);
        else if ('space' in ink) inSpace(ink.space, 1);
        else pattern(ink.pattern);
        draw();
        return;
      }
      // One without any width is its last colour everywhere.
      const last = ink.stops[ink.stops.length - 1];
      if (last && !invert(ink.matrix)) {
        this.state({ opacity: opacity * last.opacity });
        colour({ colour: last.colour, inks: ink.inks ?? this.file.inks, alone: false });
        draw();
        return;
      }
      this.state({ opacity, ...(isSolid(ink) ? {} : { mask: this.opacities(ink) }) });
      const { inks, ...shape } = ink;
      const key = JSON.stringify([shape, inks?.all.length ?? '', this.ctm, this.seen]);
      const name = this.file.resource('Pattern', key, () =>
        shadingPattern(this.file, ink, this.ctm, this.around),
      );
      pattern(name);
      draw();
    });
  }

  /** What is drawn from here on leaves what other inks have printed below it (8.6.7); a tint of 0 says nothing then. */
  private overprint(): void {
    const dict = { Type: '/ExtGState', OP: true, op: true, OPM: 1 };
    this.ops.push(`/${this.file.resource('ExtGState', 'overprint', () => this.file.object(dict))} gs`);
  }

  /** What a gradient lets through, as a mask over all that is seen. */
  opacities(shade: Shade): SoftMask {
    const around = this.around;
    const form = this.form(around, (on) => on.paintOpacities(shade), { group: '/DeviceGray' });
    return { form, of: 'light' };
  }

  /** Paints all that is seen with a gradient's opacities as grey. */
  private paintOpacities(shade: Shade): void {
    this.within(shade.matrix, () => {
      const key = JSON.stringify([shade, this.around]);
      // A shading is no resource of the shared kinds: a pattern over everything does the same.
      const name = this.file.resource('Pattern', `all ${key} ${JSON.stringify(this.ctm)}`, () =>
        this.file.object({
          Type: '/Pattern',
          PatternType: 2,
          Matrix: matrixList(this.ctm),
          Shading: shading(this.file, { ...shade, matrix: IDENTITY }, this.around, 'opacities'),
        }),
      );
      this.ops.push('/Pattern cs', `/${name} scn`, `${rectText(this.around)} f`);
    });
  }

  /** Paints a box with a colour. */
  rectangle(box: Box, colour: Hex): void {
    this.inked(colour, 1, 'fill', () => this.ops.push(`${rectText(box)} f`));
  }

  /** Draws a form or a picture that stands among the resources under a key. */
  show(key: string, make: () => PDFRef): void {
    this.ops.push(`/${this.file.resource('XObject', key, make)} Do`);
  }

  /**
   * A drawing of its own that can be shown again and again (ISO 32000-1, 8.10); as a group it is blended as a whole, in the
   * colour space `group`.
   */
  form(box: Box, draw: (on: Drawing) => void, { group }: { group?: Value } = {}): PDFRef {
    const on = new Drawing(this.file, box);
    draw(on);
    return this.file.stream(on.content, {
      Type: '/XObject',
      Subtype: '/Form',
      BBox: [box.x, box.y, box.x + box.width, box.y + box.height],
      Resources: this.file.shared,
      Group: group === undefined ? undefined : { Type: '/Group', S: '/Transparency', CS: group, I: true },
    });
  }

  /** Draws something as a whole, with an opacity, a blend and a mask of its own; the group is as large as what is seen. */
  group(
    { opacity = 1, blend = 'normal', mask }: { opacity?: number; blend?: BlendMode; mask?: SoftMask },
    draw: (on: Drawing) => void,
  ): void {
    const form = this.form(this.around, draw, { group: this.file.rgb });
    this.within(null, () => {
      this.state({ opacity, blend, ...(mask ? { mask } : {}) });
      this.show(`group ${form.tag}`, () => form);
    });
  }
}

const point = ({ x, y }: { x: number; y: number }): string => `${say(x)} ${say(y)}`;

/** A path as the operators of ISO 32000-1, 8.5.2. */
export const pathText = (path: Path): string =>
  path
    .map((segment) => {
      switch (segment.op) {
        case 'M':
          return `${point(segment.to)} m`;
        case 'L':
          return `${point(segment.to)} l`;
        case 'C':
          return `${point(segment.c1)} ${point(segment.c2)} ${point(segment.to)} c`;
        case 'Z':
          return 'h';
      }
    })
    .join('\n');

const rectText = ({ x, y, width, height }: Box): string =>
  `${say(x)} ${say(y)} ${say(width)} ${say(height)} re`;
