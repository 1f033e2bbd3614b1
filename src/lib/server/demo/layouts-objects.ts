import { cutLayout, ELLIPSE, RECTANGLE, type DemoLayout } from './layout-plan';

/** The lido's kiosk: a paper cup with the lanes round it, and its mark on the front. */
export const KIOSK_CUP: DemoLayout = cutLayout(
  'Kiosk cup',
  { kind: 'cup', numbers: { top: 80, bottom: 56, height: 94 } },
  { Wall: ['Lane Line', { scale: 0.486 }] },
  [
    { name: 'Badge', form: ELLIPSE, box: [105.4, 38, 34, 34], fill: 'Chalk' },
    {
      name: 'Lido',
      form: { text: 'Lido', font: 'Limelight', centred: true },
      box: [109.4, 49.5, 26, 11],
      fill: 'Night',
    },
  ],
);

/** The ferry's shop: a gift box in the harbour's scales, its lid in the wake. */
export const SHOP_BOX: DemoLayout = cutLayout(
  'Shop box',
  { kind: 'box', numbers: { width: 160, depth: 110, height: 80, flap: 18 } },
  {
    Front: ['Harbour Scales', { scale: 0.5 }],
    'Right side': ['Harbour Scales', { scale: 0.5 }],
    Back: ['Harbour Scales', { scale: 0.5 }],
    'Left side': ['Harbour Scales', { scale: 0.5 }],
    Top: ['Night Wake', { scale: 0.7 }],
    Base: 'Night',
  },
);

/** The lido's paper bag: gulls all round it, its mark on the front. */
export const KIOSK_BAG: DemoLayout = cutLayout(
  'Kiosk bag',
  { kind: 'bag', numbers: { width: 200, depth: 90, height: 230, flap: 20, turn: 40 } },
  everywhere(
    ['Glued edge', 'Front', 'Right side', 'Back', 'Left side', 'Turned in', 'Folded under'],
    ['Gull Drift', { scale: 0.8, onPage: true }],
  ),
  [
    { name: 'Badge', form: ELLIPSE, box: [84, 110, 72, 72], fill: 'Night' },
    {
      name: 'Lido',
      form: { text: 'Lido', font: 'Limelight', centred: true },
      box: [92, 133, 56, 24],
      fill: 'Chalk',
    },
  ],
);

/** A parcel of the kiosk in the awning's stripes. */
export const KIOSK_PARCEL: DemoLayout = cutLayout(
  'Kiosk parcel',
  { kind: 'wrap', numbers: { width: 150, depth: 105, height: 70, overlap: 25 } },
  everywhere(
    [
      ...['Top', 'Front', 'Base', 'Back', 'Overlap'],
      ...['left', 'right'].flatMap((side) =>
        ['Upper fold', 'Lower fold', 'Under the front', 'Under the back'].map((part) => `${part}, ${side}`),
      ),
    ],
    ['Awning', { scale: 0.42, onPage: true }],
  ),
);

/** What is printed on the lido's mug, as it faces the camera of its photograph. */
export const MUG_WALL: DemoLayout = cutLayout(
  'Mug wall',
  { kind: 'board', numbers: { width: 100.3, height: 82 } },
  { Front: ['Ring Toss', { scale: 0.45 }] },
);

/** The label of the ferry's lemonade. */
export const BOTTLE_LABEL: DemoLayout = cutLayout(
  'Lemonade label',
  { kind: 'label', numbers: { top: 74, height: 90, overlap: 8 } },
  everywhere(['Label', 'Overlap'], ['Night Wake', { scale: 0.55, onPage: true }]),
  [
    { name: 'Field', form: RECTANGLE, box: [78, 24, 76, 42], fill: 'Chalk' },
    {
      name: 'Fennick',
      form: { text: 'Fennick', font: 'Limelight', centred: true },
      box: [91, 32, 50, 12],
      fill: 'Night',
    },
    {
      name: 'Lemonade',
      form: { text: 'lemonade', font: 'Bitter', centred: true },
      box: [98, 49, 36, 8],
      fill: 'Night',
    },
  ],
);

/** The same fill on parts of a sheet, by their names. */
function everywhere<T>(names: readonly string[], fill: T): Record<string, T> {
  return Object.fromEntries(names.map((name) => [name, fill]));
}
