/** The kinds of pattern that numbers alone make. */
export const MEASURED_FORMS = [
  'stripes',
  'bands',
  'hatch',
  'dots',
  'rings',
  'checks',
  'gingham',
  'grid',
  'zigzag',
  'wave',
  'scallop',
  'triangles',
  'diamond',
  'bricks',
  'planks',
  'dashes',
] as const;

export type MeasuredForm = (typeof MEASURED_FORMS)[number];

/** A band of a striped pattern: its width in px and its slot; `null` leaves the ground open. */
export type Band = { width: number; slot: string | null };

/**
 * A measured pattern: its kind and its numbers by name, as {@link MEASURED} describes them. Lengths in px, angles in
 * degrees clockwise, shares 0 to 1. `inks` names the slot of each role; a role without one is left open.
 */
export type Measured = {
  form: MeasuredForm;
  numbers: Record<string, number>;
  choices: Record<string, string>;
  inks: Record<string, string>;
  bands: Band[];
};

export type NumberSpec = {
  key: string;
  label: string;
  kind: 'length' | 'angle' | 'share' | 'count' | 'fraction';
  least: number;
  most: number;
  start: number;
  /** Shown only where this choice has this value. */
  when?: { key: string; is: string };
};

export type ChoiceSpec = { key: string; label: string; options: readonly (readonly [string, string])[] };

export type FormSpec = {
  label: string;
  numbers: readonly NumberSpec[];
  choices: readonly ChoiceSpec[];
  /** Roles that a slot's colour paints. */
  inks: readonly { key: string; label: string }[];
  hasBands: boolean;
};

const MM = 96 / 25.4;
const PT = 96 / 72;

/** Lengths of measured patterns, px: about a hundredth of a point to five metres. */
const LENGTH = { least: 0.01, most: 20_000 } as const;

const length = (key: string, label: string, start: number, least: number = LENGTH.least): NumberSpec => ({
  key,
  label,
  kind: 'length',
  least,
  most: LENGTH.most,
  start,
});
const angle = (start = 0): NumberSpec => ({
  key: 'angle',
  label: 'Angle',
  kind: 'angle',
  least: -360,
  most: 360,
  start,
});
const share = (key: string, label: string, start: number, least = 0, most = 1): NumberSpec => ({
  key,
  label,
  kind: 'share',
  least,
  most,
  start,
});
const LAYOUT: ChoiceSpec = {
  key: 'layout',
  label: 'Laid',
  options: [
    ['straight', 'straight'],
    ['brick', 'brick'],
    ['hexagonal', 'hexagonal'],
  ],
};
const one = (key: string, label: string) => [{ key, label }] as const;
const crossed = (spec: NumberSpec): NumberSpec => ({ ...spec, when: { key: 'second', is: 'yes' } });

/** Every kind with its numbers, choices and colours: the bench, the checks and the drawing all read this table. */
export const MEASURED: Readonly<Record<MeasuredForm, FormSpec>> = {
  stripes: {
    label: 'Stripes',
    numbers: [length('width', 'Width', PT), length('pitch', 'Every', 4 * PT), angle()],
    choices: [],
    inks: one('line', 'Stripe'),
    hasBands: false,
  },
  bands: { label: 'Bands', numbers: [angle()], choices: [], inks: [], hasBands: true },
  hatch: {
    label: 'Hatch',
    numbers: [
      length('width', 'Line width', PT),
      length('pitch', 'Every', 3 * PT),
      angle(45),
      length('dash', 'Dash', 0, 0),
      length('space', 'Space', 0, 0),
      crossed(length('width2', 'Second width', PT)),
      crossed(length('pitch2', 'Second every', 3 * PT)),
      crossed({ key: 'turn', label: 'Turned by', kind: 'angle', least: 1, most: 179, start: 90 }),
    ],
    choices: [
      {
        key: 'second',
        label: 'Second set',
        options: [
          ['no', 'none'],
          ['yes', 'crossing'],
        ],
      },
    ],
    inks: [
      { key: 'line', label: 'Line' },
      { key: 'second', label: 'Second line' },
    ],
    hasBands: false,
  },
  dots: {
    label: 'Dots',
    numbers: [length('diameter', 'Diameter', 4 * MM), length('pitch', 'Pitch', 10 * MM), angle()],
    choices: [LAYOUT],
    inks: one('dot', 'Dot'),
    hasBands: false,
  },
  rings: {
    label: 'Rings',
    numbers: [
      length('diameter', 'Diameter', 16 * MM),
      length('width', 'Line width', 1 * MM),
      { key: 'count', label: 'Rings in each', kind: 'count', least: 1, most: 20, start: 2 },
      length('pitch', 'Pitch', 20 * MM),
      angle(),
    ],
    choices: [LAYOUT],
    inks: one('ring', 'Ring'),
    hasBands: false,
  },
  checks: {
    label: 'Checks',
    numbers: [length('side', 'Width', 10 * MM), length('down', 'Height', 10 * MM), angle()],
    choices: [],
    inks: one('check', 'Check'),
    hasBands: false,
  },
  gingham: {
    label: 'Gingham',
    numbers: [
      length('band', 'Band', 8 * MM),
      length('gap', 'Space', 8 * MM),
      share('tint', 'Tint', 0.5, 0.02, 0.98),
      angle(),
    ],
    choices: [],
    inks: one('thread', 'Thread'),
    hasBands: false,
  },
  grid: {
    label: 'Grid',
    numbers: [
      length('across', 'Every, across', 5 * MM),
      length('down', 'Every, down', 5 * MM),
      length('width', 'Line width', 0.5 * PT),
      angle(),
    ],
    choices: [],
    inks: one('line', 'Line'),
    hasBands: false,
  },
  zigzag: {
    label: 'Zigzag',
    numbers: [
      length('length', 'Length of one zig', 12 * MM),
      length('height', 'Height', 6 * MM),
      length('width', 'Line width', 2 * MM),
      length('pitch', 'Every', 8 * MM),
      angle(),
    ],
    choices: [],
    inks: one('line', 'Line'),
    hasBands: false,
  },
  wave: {
    label: 'Wave',
    numbers: [
      length('length', 'Wavelength', 20 * MM),
      length('height', 'Height', 5 * MM),
      length('width', 'Line width', 1.5 * MM),
      length('pitch', 'Every', 7 * MM),
      angle(),
    ],
    choices: [],
    inks: one('line', 'Line'),
    hasBands: false,
  },
  scallop: {
    label: 'Scallop',
    numbers: [
      length('diameter', 'Diameter', 16 * MM),
      length('down', 'Row every', 5 * MM),
      length('width', 'Rim width', 1.2 * MM),
      angle(),
    ],
    choices: [],
    inks: [
      { key: 'scale', label: 'Scale' },
      { key: 'rim', label: 'Rim' },
    ],
    hasBands: false,
  },
  triangles: {
    label: 'Triangles',
    numbers: [length('side', 'Base', 12 * MM), length('height', 'Height', 10.392 * MM), angle()],
    choices: [],
    inks: one('triangle', 'Triangle'),
    hasBands: false,
  },
  diamond: {
    label: 'Diamond',
    numbers: [
      length('across', 'Width', 12 * MM),
      length('down', 'Height', 18 * MM),
      share('size', 'Size in its place', 1, 0.05, 1),
      angle(),
    ],
    choices: [],
    inks: one('diamond', 'Diamond'),
    hasBands: false,
  },
  bricks: {
    label: 'Bricks',
    numbers: [
      length('length', 'Length', 21 * MM),
      length('height', 'Height', 6.5 * MM),
      length('joint', 'Joint', 1 * MM),
      { key: 'step', label: 'Step', kind: 'fraction', least: 0, most: 1, start: 0.5 },
      length('radius', 'Corner radius', 0, 0),
      angle(),
    ],
    choices: [],
    inks: one('brick', 'Brick'),
    hasBands: false,
  },
  planks: {
    label: 'Planks',
    numbers: [
      length('length', 'Length', 60 * MM),
      length('height', 'Width', 8 * MM),
      length('joint', 'Joint', 0.6 * MM),
      { key: 'step', label: 'Step', kind: 'fraction', least: 0, most: 1, start: 1 / 3 },
      angle(90),
    ],
    choices: [],
    inks: one('plank', 'Plank'),
    hasBands: false,
  },
  dashes: {
    label: 'Dashes',
    numbers: [
      length('length', 'Length', 6 * MM),
      length('space', 'Space', 4 * MM),
      length('width', 'Line width', 1 * MM),
      length('pitch', 'Every', 4 * MM),
      { key: 'step', label: 'Step', kind: 'fraction', least: 0, most: 1, start: 0.5 },
      angle(),
    ],
    choices: [
      {
        key: 'cap',
        label: 'Ends',
        options: [
          ['butt', 'flat'],
          ['round', 'round'],
        ],
      },
    ],
    inks: one('line', 'Dash'),
    hasBands: false,
  },
};

/** A kind with its starting numbers and the given slots for its roles, in order; bands take the slots in turn. */
export function startMeasured(form: MeasuredForm, slots: readonly string[]): Measured {
  const spec = MEASURED[form];
  const slot = (index: number): string => slots[index % Math.max(1, slots.length)] ?? '';
  return {
    form,
    numbers: Object.fromEntries(spec.numbers.map(({ key, start }) => [key, start])),
    choices: Object.fromEntries(spec.choices.map(({ key, options }) => [key, options[0]?.[0] ?? ''])),
    inks: Object.fromEntries(spec.inks.map(({ key }, index) => [key, slot(index)])),
    bands: spec.hasBands
      ? [
          { width: 10 * MM, slot: slot(0) },
          { width: 5 * MM, slot: null },
          { width: 3 * MM, slot: slot(1) },
          { width: 5 * MM, slot: null },
        ]
      : [],
  };
}

/** The slots that a measured pattern paints with. */
export const measuredSlots = (measured: Measured): string[] => [
  ...Object.values(measured.inks),
  ...measured.bands.flatMap((band) => band.slot ?? []),
];

/** A name that says what a measured pattern is: "Stripes 1 pt every 4 pt". `say` writes a length. */
export function measuredName(measured: Measured, say: (px: number) => string): string {
  const { label } = MEASURED[measured.form];
  const n = measured.numbers;
  const turned = n.angle ? `, ${n.angle}°` : '';
  const size = n.width ?? n.diameter ?? n.side ?? n.band ?? n.length ?? n.across;
  const every = n.pitch ?? n.gap ?? n.down ?? n.height;
  if (size === undefined) return label + turned;
  return `${label} ${say(size)}${every === undefined ? '' : ` every ${say(every)}`}${turned}`;
}
