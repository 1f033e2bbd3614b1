import { IDENTITY, applyVector, multiply, rotation, translation } from '../geom/affine';
import { transformPath, type Path } from '../geom/path';
import type { Point } from '../geom/point';
import { polygonPath, rectanglePath } from '../geom/shapes';
import { cellOf, parallelogram, type Cell } from '../lattice/cell';
import { FRONT, latticeOf, type Lattice, type Repeat, type Size } from '../lattice/repeat';
import type { Measured, MeasuredForm } from '../recipe/measured';
import type { Stroke } from '../recipe/recipe';
import type { Endless } from './endless';
import { plainElement, plainStroke, type Element } from './motif';
import { pieceOf, type Piece } from './piece';

/** A measured pattern's drawables on its lattice. */
export type BuiltPattern = {
  pitch: Size;
  lattice: Lattice;
  cell: Cell;
  pieces: Piece[];
  endless: Endless[];
};

/** Before the pattern's own angle is applied: lines run across, rows go down. */
type Upright = { pitch: Size; lattice: Lattice; cell: Cell; elements: Element[]; endless: Endless[] };

/** Draws a measured pattern from its numbers. Edge-to-edge kinds are strokes without an end, never abutting pieces. */
export function buildMeasured(measured: Measured): BuiltPattern {
  const upright = BUILDERS[measured.form](measured);
  const turn = rotation(measured.numbers.angle ?? 0);
  const { a, b } = upright.lattice;
  const pieces = upright.elements.flatMap(
    (element, index) =>
      pieceOf({ id: `part${index}`, motif: measured.form, elements: [element], matrix: turn }) ?? [],
  );
  return {
    pitch: upright.pitch,
    lattice: { ...upright.lattice, a: applyVector(turn, a), b: applyVector(turn, b) },
    cell: {
      ...upright.cell,
      matrix: turn.b === 0 && turn.a === 1 ? upright.cell.matrix : multiply(turn, upright.cell.matrix),
    },
    pieces,
    endless: upright.endless.map(({ element, along }) => ({ along, element: turned(element, turn) })),
  };
}

function turned(element: Element, turn: typeof IDENTITY): Element {
  return plainElement(transformPath(turn, element.path), element);
}

const BUILDERS: Readonly<Record<MeasuredForm, (measured: Measured) => Upright>> = {
  stripes: ({ numbers: n, inks }) => {
    const pitch = n.pitch ?? 1;
    const line = straight({ x: pitch, y: 0 }, plainStroke(inks.line ?? '', n.width ?? 1));
    return {
      ...laid({ width: pitch, height: pitch }),
      elements: [],
      endless: [{ element: line, along: 'a' }],
    };
  },
  bands: buildBands,
  hatch: buildHatch,
  dots: ({ numbers: n, choices, inks }) => ({
    ...laidAs(choices.layout, n.pitch ?? 1),
    elements: [disc(n.diameter ?? 1, { fill: inks.dot ?? null })],
    endless: [],
  }),
  rings: ({ numbers: n, choices, inks }) => {
    const [diameter, width, count] = [n.diameter ?? 1, n.width ?? 1, Math.round(n.count ?? 1)];
    const elements = Array.from({ length: count }, (_, index) =>
      disc((diameter * (count - index)) / count - width, { stroke: plainStroke(inks.ring ?? '', width) }),
    );
    return { ...laidAs(choices.layout, n.pitch ?? 1), elements, endless: [] };
  },
  checks: ({ numbers: n, inks }) => {
    const [side, down] = [n.side ?? 1, n.down ?? 1];
    return {
      ...laid({ width: 2 * side, height: down }, brick(0.5)),
      elements: [plainElement(rectanglePath(side, down, 0), { fill: inks.check ?? null })],
      endless: [],
    };
  },
  gingham: ({ numbers: n, inks }) => {
    const [band, tint, thread] = [n.band ?? 1, n.tint ?? 0.5, inks.thread ?? ''];
    const pitch = band + (n.gap ?? 1);
    const across = straight({ x: pitch, y: 0 }, plainStroke(thread, band), { x: 0, y: band / 2 }, tint);
    const down = straight({ x: 0, y: pitch }, plainStroke(thread, band), { x: band / 2, y: 0 }, tint);
    return {
      ...laid({ width: pitch, height: pitch }),
      elements: [plainElement(rectanglePath(band, band, 0), { fill: thread })],
      endless: [
        { element: across, along: 'a' },
        { element: down, along: 'b' },
      ],
    };
  },
  grid: ({ numbers: n, inks }) => {
    const [across, down] = [n.across ?? 1, n.down ?? 1];
    const stroke = plainStroke(inks.line ?? '', n.width ?? 1);
    return {
      ...laid({ width: across, height: down }),
      elements: [],
      endless: [
        { element: straight({ x: across, y: 0 }, stroke), along: 'a' },
        { element: straight({ x: 0, y: down }, stroke), along: 'b' },
      ],
    };
  },
  zigzag: ({ numbers: n, inks }) => {
    const [size, height] = [n.length ?? 1, n.height ?? 1];
    const path: Path = [
      // A period begins in the middle of a slope, so that both points of the zigzag are whole corners.
      { op: 'M', to: { x: 0, y: 0 } },
      { op: 'L', to: { x: size / 4, y: -height / 2 } },
      { op: 'L', to: { x: (size * 3) / 4, y: height / 2 } },
      { op: 'L', to: { x: size, y: 0 } },
    ];
    const stroke: Stroke = { ...plainStroke(inks.line ?? '', n.width ?? 1), miterLimit: 20 };
    return {
      ...laid({ width: size, height: n.pitch ?? 1 }),
      elements: [],
      endless: [{ element: plainElement(path, { stroke }), along: 'a' }],
    };
  },
  wave: ({ numbers: n, inks }) => {
    const stroke: Stroke = { ...plainStroke(inks.line ?? '', n.width ?? 1), join: 'round' };
    const path = sinePath(n.length ?? 1, (n.height ?? 1) / 2);
    return {
      ...laid({ width: n.length ?? 1, height: n.pitch ?? 1 }),
      elements: [],
      endless: [{ element: plainElement(path, { stroke }), along: 'a' }],
    };
  },
  scallop: ({ numbers: n, inks }) => {
    const [diameter, width] = [n.diameter ?? 1, n.width ?? 1];
    const rim = Math.min(width, diameter / 2);
    const { lattice, ...rest } = laid({ width: diameter, height: n.down ?? 1 }, brick(0.5));
    return {
      ...rest,
      lattice: { ...lattice, front: { across: 'right', down: 'upper' } },
      elements: [
        disc(diameter - rim, { fill: inks.scale ?? null, stroke: plainStroke(inks.rim ?? '', rim) }),
      ],
      endless: [],
    };
  },
  triangles: ({ numbers: n, inks }) => {
    const [side, height] = [n.side ?? 1, n.height ?? 1];
    const points = [
      { x: side / 2, y: 0 },
      { x: side, y: height },
      { x: 0, y: height },
    ];
    return {
      ...laid({ width: side, height }, brick(0.5)),
      elements: [plainElement(polygonPath(points), { fill: inks.triangle ?? null })],
      endless: [],
    };
  },
  diamond: ({ numbers: n, inks }) => {
    const [across, down, size] = [n.across ?? 1, n.down ?? 1, n.size ?? 1];
    const [x, y] = [(across * size) / 2, (down * size) / 2];
    const points = [
      { x: 0, y: -y },
      { x, y: 0 },
      { x: 0, y },
      { x: -x, y: 0 },
    ].map((point) => ({ x: point.x + across / 2, y: point.y + down / 2 }));
    return {
      ...laid({ width: across, height: down }),
      elements: [plainElement(polygonPath(points), { fill: inks.diamond ?? null })],
      endless: [],
    };
  },
  bricks: ({ numbers, inks }) => buildBricks(numbers, inks.brick ?? null),
  planks: ({ numbers, inks }) => buildBricks(numbers, inks.plank ?? null),
  dashes: ({ numbers: n, choices, inks }) => {
    const [size, width] = [n.length ?? 1, n.width ?? 1];
    const cap = choices.cap === 'round' ? 'round' : 'butt';
    const inset = cap === 'round' ? Math.min(width / 2, size / 2 - 1e-3) : 0;
    const stroke = plainStroke(inks.line ?? '', width, cap);
    return {
      ...laid({ width: size + (n.space ?? 1), height: n.pitch ?? 1 }, brick(n.step ?? 0)),
      elements: [straight({ x: size - 2 * inset, y: 0 }, stroke, { x: inset, y: 0 })],
      endless: [],
    };
  },
};

/**
 * Bands from the top down. A band that another follows at once runs on under half of it, and rows are drawn in order,
 * so that no edge between two bands can let the ground shine through.
 */
function buildBands({ bands }: Measured): Upright {
  const total = bands.reduce((sum, band) => sum + band.width, 0);
  let top = 0;
  const endless = bands.flatMap((band, index): Endless[] => {
    const from = top;
    top += band.width;
    if (band.slot === null) return [];
    const next = bands[(index + 1) % bands.length];
    const under = next && next.slot !== null ? next.width / 2 : 0;
    const width = band.width + under;
    const stroke = plainStroke(band.slot, width);
    const element = straight({ x: total, y: 0 }, stroke, { x: 0, y: from + width / 2 });
    return [{ element, along: 'a' }];
  });
  return { ...laid({ width: total, height: total }), elements: [], endless };
}

/**
 * A hatch, with a second set across it where asked for. Two sets at any angle share the lattice of their crossings.
 * Dashes of a crossed hatch are stretched a little so that a whole number of them fits between crossings.
 */
function buildHatch({ numbers: n, choices, inks }: Measured): Upright {
  const pitch = n.pitch ?? 1;
  const dashes = { on: n.dash ?? 0, off: n.space ?? 0 };
  const dashed = dashes.on > 0 && dashes.off > 0;
  const stroke = plainStroke(inks.line ?? '', n.width ?? 1);
  if (choices.second !== 'yes') {
    const period = dashed ? dashes.on + dashes.off : pitch;
    const base = laid({ width: period, height: pitch });
    if (dashed) return { ...base, elements: [straight({ x: dashes.on, y: 0 }, stroke)], endless: [] };
    return {
      ...base,
      elements: [],
      endless: [{ element: straight({ x: period, y: 0 }, stroke), along: 'a' }],
    };
  }
  const turn = ((n.turn ?? 90) * Math.PI) / 180;
  const second = plainStroke(inks.second ?? inks.line ?? '', n.width2 ?? 1);
  const a: Point = { x: (n.pitch2 ?? 1) / Math.sin(turn), y: 0 };
  const right = Math.abs((n.turn ?? 90) - 90) < 1e-9;
  const b: Point = { x: right ? 0 : pitch / Math.tan(turn), y: pitch };
  const lattice: Lattice = { a, b, copies: [{ x: 0, y: 0 }], oneRow: true, front: FRONT };
  const pitches = { width: a.x, height: pitch };
  const cell: Cell = right ? { ...pitches, matrix: IDENTITY, units: 1 } : parallelogram(lattice);
  const base = { pitch: pitches, lattice, cell };
  if (dashed)
    return {
      ...base,
      elements: [...dashesAlong(a, dashes, stroke), ...dashesAlong(b, dashes, second)],
      endless: [],
    };
  return {
    ...base,
    elements: [],
    endless: [
      { element: straight(a, stroke), along: 'a' },
      { element: straight(b, second), along: 'b' },
    ],
  };
}

function dashesAlong(vector: Point, { on, off }: { on: number; off: number }, stroke: Stroke): Element[] {
  const size = Math.hypot(vector.x, vector.y);
  const count = Math.max(1, Math.round(size / (on + off)));
  const share = on / (on + off) / count;
  return Array.from({ length: count }, (_, index) => {
    const from = { x: (vector.x * index) / count, y: (vector.y * index) / count };
    return straight({ x: vector.x * share, y: vector.y * share }, stroke, from);
  });
}

function buildBricks(n: Record<string, number>, fill: string | null): Upright {
  const [size, height, joint] = [n.length ?? 1, n.height ?? 1, n.joint ?? 1];
  const form = rectanglePath(size, height, n.radius ?? 0);
  return {
    ...laid({ width: size + joint, height: height + joint }, brick(n.step ?? 0.5)),
    elements: [plainElement(transformPath(translation(joint / 2, joint / 2), form), { fill })],
    endless: [],
  };
}

const brick = (step: number): Repeat => ({ kind: 'brick', step, run: 'progressive' });

function laid(
  unit: Size,
  repeat: Repeat = { kind: 'straight' },
): Pick<Upright, 'pitch' | 'lattice' | 'cell'> {
  const gap = { across: 0, down: 0 };
  return { pitch: unit, lattice: latticeOf(unit, gap, repeat), cell: cellOf(unit, gap, repeat) };
}

/** Round pieces `pitch` apart: in squares, in a brick, or each with six neighbours at the same distance. */
function laidAs(layout: string | undefined, pitch: number): Pick<Upright, 'pitch' | 'lattice' | 'cell'> {
  if (layout === 'brick') return laid({ width: pitch, height: pitch }, brick(0.5));
  if (layout === 'hexagonal') return laid({ width: pitch, height: (pitch * Math.sqrt(3)) / 2 }, brick(0.5));
  return laid({ width: pitch, height: pitch });
}

function straight(vector: Point, stroke: Stroke, from: Point = { x: 0, y: 0 }, opacity = 1): Element {
  const path: Path = [
    { op: 'M', to: from },
    { op: 'L', to: { x: from.x + vector.x, y: from.y + vector.y } },
  ];
  return plainElement(path, { stroke, opacity });
}

function disc(diameter: number, paint: Parameters<typeof plainElement>[1]): Element {
  const r = diameter / 2;
  return plainElement(transformPath(translation(-r, -r), rectanglePath(diameter, diameter, Infinity)), paint);
}

/**
 * One period of a sine as cubic curves through twelve of its points with its slopes there (Hermite form): the largest
 * error is (π/6)⁴/384 of the amplitude, about 0.02 %.
 */
function sinePath(size: number, amplitude: number): Path {
  const steps = 12;
  const at = (index: number): Point => ({
    x: (size * index) / steps,
    y: -amplitude * Math.sin((2 * Math.PI * index) / steps),
  });
  const slope = (index: number): number =>
    ((-amplitude * 2 * Math.PI) / size) * Math.cos((2 * Math.PI * index) / steps);
  const reach = size / steps / 3;
  const path: Path = [{ op: 'M', to: at(0) }];
  for (let index = 1; index <= steps; index += 1) {
    const [from, to] = [at(index - 1), at(index)];
    path.push({
      op: 'C',
      c1: { x: from.x + reach, y: from.y + slope(index - 1) * reach },
      c2: { x: to.x - reach, y: to.y - slope(index) * reach },
      to,
    });
  }
  return path;
}
