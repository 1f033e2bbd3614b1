import { cutLayout, ELLIPSE, type DemoLayout } from './layout-plan';

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
