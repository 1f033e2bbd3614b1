import { IDENTITY, multiply, type Affine } from '../geom/affine';
import { formatPath, type Path } from '../geom/path';
import { isHex, type Hex } from '../colour/parse';
import { escapeXml } from '../num/text';
import { matrixText, num } from '../svg/print';

/** A page of a PDF as a reader lists what it draws: operators by number, and what each takes. */
export type PdfOperators = { fnArray: readonly number[]; argsArray: readonly unknown[] };

/** A page as an SVG, and what of it no drawing of paths can hold: where there is any of that, it is better a picture. */
export type PdfDrawing = { svg: string; lacks: string[] };

type State = {
  matrix: Affine;
  clip: string | null;
  fill: Hex | null;
  stroke: Hex | null;
  fillOpacity: number;
  strokeOpacity: number;
  width: number;
  cap: number;
  join: number;
  miter: number;
  dashes: readonly number[];
  phase: number;
};

const CAPS = ['butt', 'round', 'square'];
const JOINS = ['miter', 'round', 'bevel'];
/** A line without a width is the thinnest that a device draws (ISO 32000-1, 8.4.3.2); here a hairline of print, pt. */
const HAIRLINE = 0.25;
/** Elements of one page: beyond them it is no drawing that anybody edits. */
const MOST_ELEMENTS = 20_000;

/** How a path is painted, by the reader's names of the operators (ISO 32000-1, table 60). */
const PAINTS: Record<string, { fill?: 'nonzero' | 'evenodd'; stroke?: boolean; close?: boolean }> = {
  stroke: { stroke: true },
  closeStroke: { stroke: true, close: true },
  fill: { fill: 'nonzero' },
  eoFill: { fill: 'evenodd' },
  fillStroke: { fill: 'nonzero', stroke: true },
  eoFillStroke: { fill: 'evenodd', stroke: true },
  closeFillStroke: { fill: 'nonzero', stroke: true, close: true },
  closeEOFillStroke: { fill: 'evenodd', stroke: true, close: true },
  endPath: {},
};

/** What is no path, by the beginning of the reader's name of it. */
const OTHERS: readonly [RegExp, string][] = [
  [/^(show|nextLineShow|nextLineSet)/, 'text'],
  [/^paint(Image|Inline|Solid|Jpeg)/, 'pictures'],
  [/^(shadingFill|set(Fill|Stroke)ColorN)/, 'gradients and patterns'],
];

/**
 * A page of a PDF as an SVG of paths, for pages that are nothing else. `names` are the reader's names of its operators, `view` takes the
 * page's space to px.
 */
export function pdfDrawing(
  { fnArray, argsArray }: PdfOperators,
  names: ReadonlyMap<number, string>,
  { view, width, height, title }: { view: Affine; width: number; height: number; title: string },
): PdfDrawing {
  const page = new PageWriter(view, names);
  for (const [at, code] of fnArray.entries()) page.take(names.get(code) ?? '', argsArray[at]);
  const size = `width="${num(width)}" height="${num(height)}" viewBox="0 0 ${num(width)} ${num(height)}"`;
  return {
    svg: `<svg xmlns="http://www.w3.org/2000/svg" ${size}><title>${escapeXml(title)}</title>${page.text}</svg>`,
    lacks: [...page.lacks].sort(),
  };
}

class PageWriter {
  readonly lacks = new Set<string>();
  private readonly parts: string[] = [];
  private readonly saved: State[] = [];
  /** What closes each group that is open. */
  private readonly groups: string[] = [];
  private pending: 'nonzero' | 'evenodd' | null = null;
  private clips = 0;
  private elements = 0;
  private state: State;

  constructor(
    view: Affine,
    private readonly names: ReadonlyMap<number, string>,
  ) {
    this.state = {
      ...{ matrix: view, clip: null, fill: '#000000', stroke: '#000000', fillOpacity: 1, strokeOpacity: 1 },
      ...{ width: 1, cap: 0, join: 0, miter: 10, dashes: [], phase: 0 },
    };
  }

  get text(): string {
    return this.parts.join('') + [...this.groups].reverse().join('');
  }

  take(name: string, given: unknown): void {
    const args = (Array.isArray(given) ? given : []) as unknown[];
    const numbers = args as number[];
    const { state } = this;
    switch (name) {
      case 'save':
        return void this.saved.push({ ...state });
      case 'restore':
        return void (this.state = this.saved.pop() ?? state);
      case 'transform':
        return void (state.matrix = multiply(state.matrix, affineOf(numbers)));
      case 'setLineWidth':
        return void (state.width = numbers[0]!);
      case 'setLineCap':
        return void (state.cap = numbers[0]!);
      case 'setLineJoin':
        return void (state.join = numbers[0]!);
      case 'setMiterLimit':
        return void (state.miter = numbers[0]!);
      case 'setDash':
        return this.dash(args);
      case 'setFillRGBColor':
        return void (state.fill = colourOf(args[0]));
      case 'setStrokeRGBColor':
        return void (state.stroke = colourOf(args[0]));
      case 'setFillTransparent':
        return void (state.fill = null);
      case 'setStrokeTransparent':
        return void (state.stroke = null);
      case 'setGState':
        return this.graphics(args[0] as [string, unknown][]);
      case 'clip':
        return void (this.pending = 'nonzero');
      case 'eoClip':
        return void (this.pending = 'evenodd');
      case 'constructPath':
        return this.path(this.names.get(numbers[0]!) ?? '', args);
      case 'paintFormXObjectBegin':
        return this.form(args);
      case 'paintFormXObjectEnd':
        return void (this.state = this.saved.pop() ?? state);
      case 'beginGroup':
        return this.group(args[0] as { smask?: unknown } | undefined);
      case 'endGroup':
        this.parts.push(this.groups.pop() ?? '');
        return void (this.state = this.saved.pop() ?? state);
      default:
        for (const [begins, what] of OTHERS) if (begins.test(name)) this.lacks.add(what);
    }
  }

  private graphics(entries: readonly [string, unknown][]): void {
    const { state } = this;
    for (const [key, value] of entries)
      switch (key) {
        case 'ca':
          state.fillOpacity = Number(value);
          break;
        case 'CA':
          state.strokeOpacity = Number(value);
          break;
        case 'LW':
          state.width = Number(value);
          break;
        case 'LC':
          state.cap = Number(value);
          break;
        case 'LJ':
          state.join = Number(value);
          break;
        case 'ML':
          state.miter = Number(value);
          break;
        case 'D':
          this.dash(value as unknown[]);
          break;
        case 'BM':
          if (value !== 'source-over' && value !== 'Normal') this.lacks.add('blend modes');
          break;
        case 'SMask':
          if (value) this.lacks.add('masks');
      }
  }

  private dash([dashes, phase]: readonly unknown[]): void {
    this.state.dashes = Array.isArray(dashes) ? dashes.map(Number) : [];
    this.state.phase = Number(phase ?? 0);
  }

  /** A drawing of its own within the page, cut at its box where it has one. */
  private form([matrix, box]: readonly unknown[]): void {
    this.saved.push({ ...this.state });
    if (matrix) this.state.matrix = multiply(this.state.matrix, affineOf(matrix as number[]));
    if (!box) return;
    const [left, low, right, high] = Array.from(box as ArrayLike<number>);
    this.clipTo(`M${num(left!)} ${num(low!)}H${num(right!)}V${num(high!)}H${num(left!)}Z`, 'nonzero');
  }

  /** What is see-through as a whole. */
  private group(of: { smask?: unknown } | undefined): void {
    if (of?.smask) this.lacks.add('masks');
    const { fillOpacity } = this.state;
    this.saved.push({ ...this.state });
    this.parts.push(fillOpacity < 1 ? `<g opacity="${num(fillOpacity)}">` : '<g>');
    this.groups.push('</g>');
    Object.assign(this.state, { fillOpacity: 1, strokeOpacity: 1 });
  }

  private path(paint: string, [, data]: readonly unknown[]): void {
    const how = PAINTS[paint];
    const rule = this.pending;
    this.pending = null;
    const [numbers] = (data ?? []) as (ArrayLike<number> | null)[];
    if (!how || !numbers) return;
    const d = formatPath(pathOf(numbers)) + (how.close ? 'Z' : '');
    if (d === '') return;
    this.painted(d, how);
    if (rule) this.clipTo(d, rule);
  }

  private painted(d: string, { fill, stroke }: (typeof PAINTS)[string]): void {
    const { state } = this;
    const attributes = [
      fill && state.fill
        ? `fill="${state.fill}"${fill === 'evenodd' ? ' fill-rule="evenodd"' : ''}${opacity('fill-opacity', state.fillOpacity)}`
        : 'fill="none"',
      ...(stroke && state.stroke ? [this.line(state.stroke)] : []),
    ];
    if (!(fill && state.fill) && !(stroke && state.stroke)) return;
    this.elements += 1;
    if (this.elements > MOST_ELEMENTS) return void this.lacks.add(`more than ${MOST_ELEMENTS} paths`);
    const cut = state.clip ? ` clip-path="url(#${state.clip})"` : '';
    const drawn = `<path d="${d}" transform="${matrixText(state.matrix)}" ${attributes.join(' ')}/>`;
    // A clip lies in px of the page, as what it cuts does once it is placed.
    this.parts.push(cut ? `<g${cut}>${drawn}</g>` : drawn);
  }

  private line(colour: Hex): string {
    const { width, cap, join, miter, dashes, phase, strokeOpacity } = this.state;
    const dashed =
      dashes.length > 0
        ? ` stroke-dasharray="${dashes.map(num).join(' ')}" stroke-dashoffset="${num(phase)}"`
        : '';
    return `stroke="${colour}" stroke-width="${num(width || HAIRLINE)}" stroke-linecap="${CAPS[cap] ?? 'butt'}" stroke-linejoin="${JOINS[join] ?? 'miter'}" stroke-miterlimit="${num(miter)}"${dashed}${opacity('stroke-opacity', strokeOpacity)}`;
  }

  /** Cuts what follows to a path as well. */
  private clipTo(d: string, rule: 'nonzero' | 'evenodd'): void {
    const { state } = this;
    const id = `c${(this.clips += 1)}`;
    const within = state.clip ? ` clip-path="url(#${state.clip})"` : '';
    this.parts.push(
      `<clipPath id="${id}"${within}><path d="${d}" transform="${matrixText(state.matrix)}"${rule === 'evenodd' ? ' clip-rule="evenodd"' : ''}/></clipPath>`,
    );
    state.clip = id;
  }
}

const opacity = (name: string, value: number): string => (value < 1 ? ` ${name}="${num(value)}"` : '');

const affineOf = (numbers: ArrayLike<number>): Affine => {
  const [a = 1, b = 0, c = 0, d = 1, e = 0, f = 0] = Array.from(numbers);
  return numbers.length < 6 ? IDENTITY : { a, b, c, d, e, f };
};

const colourOf = (value: unknown): Hex =>
  typeof value === 'string' && isHex(value.toLowerCase()) ? value.toLowerCase() : '#000000';

/** A path as the reader packs it: 0 and a point begins a part, 1 a line, 2 a curve, 3 a quadratic one, 4 closes. */
function pathOf(numbers: ArrayLike<number>): Path {
  const path: Path = [];
  let at = 0;
  const next = (): { x: number; y: number } => ({ x: numbers[at++]!, y: numbers[at++]! });
  let last = { x: 0, y: 0 };
  while (at < numbers.length) {
    const code = numbers[at++];
    if (code === 0) path.push({ op: 'M', to: (last = next()) });
    else if (code === 1) path.push({ op: 'L', to: (last = next()) });
    else if (code === 2) path.push({ op: 'C', c1: next(), c2: next(), to: (last = next()) });
    else if (code === 3) {
      const [from, middle, to] = [last, next(), next()];
      const toward = (end: { x: number; y: number }): { x: number; y: number } => ({
        x: end.x + (2 / 3) * (middle.x - end.x),
        y: end.y + (2 / 3) * (middle.y - end.y),
      });
      path.push({ op: 'C', c1: toward(from), c2: toward(to), to });
      last = to;
    } else if (code === 4) path.push({ op: 'Z' });
    else break;
  }
  return path;
}
