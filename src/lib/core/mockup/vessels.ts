import { floorBlank, lathe, ROUND, rolled, roundBlank, tube, type Blank } from './blanks';
import { number, type NumberOf, type ObjectEntry } from './object-entry';
import { strips } from './profile';
import { bent, rectangle, roundWall } from './sheet';
import type { Space } from './space';

const BACK = 'at the back, 180°';

/** What is round. Sizes that they start with are common practice, no source. */
export const CUP: ObjectEntry = {
  label: 'Paper cup',
  noun: 'cup',
  material: 'paper',
  numbers: [number('top', 'Top ⌀', 80), number('bottom', 'Bottom ⌀', 56), number('height', 'Height', 94)],
  panels: (of) => [roundWall('Wall', of('top'), of('bottom'), of('height'))],
  blanks: (of) => rimAndFloor(of),
  round: (of) => ({
    girth: Math.PI * Math.max(of('top'), of('bottom')),
    panels: ['Wall'],
    joint: BACK,
    // The angle of the developed cone: 2πR over the length of its side up to the tip.
    angle: (360 * Math.abs(of('top') - of('bottom'))) / 2 / slantOf(of),
  }),
};

/** The same cup with its art drawn as a rectangle that goes round with the cone: every row closes, wider above than below. */
export const CONE_CUP: ObjectEntry = {
  ...CUP,
  label: 'Paper cup, art with the cone',
  panels: (of) => {
    const [top, bottom, height] = [of('top'), of('bottom'), of('height')];
    const slant = slantOf(of);
    const box = { x: 0, y: 0, width: (Math.PI * (top + bottom)) / 2, height: slant };
    const whole = rectangle('Wall', box, ({ x, y }) => {
      const turn = 2 * Math.PI * (x / box.width - 0.5);
      const up = 1 - y / slant;
      const radius = (bottom + (top - bottom) * up) / 2;
      return { x: radius * Math.sin(turn), y: height * up, z: radius * Math.cos(turn) };
    });
    return [{ ...whole, cells: strips(box, ROUND, 1) }];
  },
  stretches: {
    share: (of) => (2 * Math.max(of('top'), of('bottom'))) / (of('top') + of('bottom')) - 1,
    why: 'Its art is drawn round with the cone',
  },
  round: (of) => ({
    ...{ girth: (Math.PI * (of('top') + of('bottom'))) / 2, panels: ['Wall'], joint: BACK, angle: 0 },
  }),
};

const slantOf = (of: NumberOf): number => Math.hypot(of('height'), (of('top') - of('bottom')) / 2);

/** The floor lies a little above the foot; the rim is rolled outwards. */
const rimAndFloor = (of: NumberOf): Blank[] => [
  floorBlank('paper', of('bottom') / 2, of('height') * 0.06),
  ...rolled('paper', of('top') / 2 + of('top') * 0.008, of('height'), of('top') * 0.022),
];

export const MUG: ObjectEntry = {
  label: 'Mug',
  noun: 'mug',
  material: 'glaze',
  numbers: [
    number('top', 'Diameter', 82),
    number('height', 'Height', 95),
    number('gap', 'Left free at the handle', 36, 0, 500),
  ],
  fault: (of) =>
    of('gap') < Math.PI * of('top') - 5
      ? null
      : `The handle leaves nothing free: round the mug it is ${(Math.PI * of('top')).toFixed(0)} mm; leave less free at the handle.`,
  panels: (of) => [bent('Wall', of('top'), { width: Math.PI * of('top') - of('gap'), height: of('height') })],
  blanks: (of) => {
    const [radius, height] = [of('top') / 2, of('height')];
    const half = 0.5 - of('gap') / (2 * Math.PI * of('top'));
    const bare = roundBlank('ceramic', { radius, y: 0 }, { radius, y: height }, half, 1 - half);
    const thick = radius * 0.09;
    const inner = radius - thick;
    // The lip is round, the inside a wall of its own.
    const inside = [
      { radius: inner, y: height },
      { radius: inner, y: height * 0.1 },
      { radius: inner * 0.8, y: height * 0.05 },
      { radius: 0.1, y: height * 0.05 },
    ];
    return [
      ...lathe('ceramic', inside),
      ...rolled('ceramic', radius - thick / 2, height, thick / 2),
      floorBlank('ceramic', radius * 0.97, 1),
      ...(of('gap') > 0 ? bare : []),
      ...handle(radius, height),
    ];
  },
};

/** A mug's handle at the back: a half ring of a round section. */
function handle(radius: number, height: number): Blank[] {
  const [reach, bows] = [height * 0.3, 24];
  const along = Array.from({ length: bows + 1 }, (_, bow): Space => {
    const about = Math.PI * (bow / bows - 0.5);
    return {
      x: 0,
      y: height / 2 + reach * Math.sin(about),
      z: -(radius * 0.98 + reach * Math.cos(about) * 0.85),
    };
  });
  return tube('ceramic', along, Math.max(4, height * 0.12), 18);
}

/** A bottle goes on below its label by this share of the label's height. */
const BELOW = 0.18;

export const LABEL: ObjectEntry = {
  label: 'Label round a bottle',
  noun: 'bottle',
  material: 'paper',
  numbers: [
    number('top', 'Diameter', 74),
    number('height', 'Height', 90),
    number('overlap', 'Overlap', 8, 0, 100),
  ],
  panels: (of) => {
    const [girth, height] = [Math.PI * of('top'), of('height')];
    const over = { x: girth, y: 0, width: of('overlap'), height };
    const label = bent('Label', of('top'), { width: girth, height });
    const up = height * BELOW;
    const at = ({ x, y, z }: Space): Space => ({ x, y: y + up, z });
    return [
      { ...label, at: label.at && ((point) => at(label.at!(point))) },
      ...(over.width > 0 ? [rectangle('Overlap', over, null)] : []),
    ];
  },
  round: (of) => ({ girth: Math.PI * of('top'), panels: ['Label'], joint: BACK, angle: 0 }),
  // The bottle that it goes round, a hair narrower; it reaches lower than the label.
  blanks: (of) => {
    const [radius, height] = [of('top') / 2 - 0.3, of('height')];
    const [foot, shoulder, neck] = [0, height * (1.16 + BELOW), radius * 0.36];
    const mouth = shoulder + radius * 1.1;
    const bow = Array.from({ length: 13 }, (_, at) => {
      const share = at / 12;
      const ease = share * share * (3 - 2 * share);
      return { radius: radius + (neck - radius) * ease, y: shoulder + (mouth - shoulder) * share };
    });
    const lip = mouth + height * 0.35;
    return [
      ...lathe('glass', [
        { radius: radius * 0.93, y: foot },
        { radius, y: foot + radius * 0.07 },
        { radius, y: shoulder },
      ]),
      ...lathe('glass', bow),
      ...lathe('glass', [
        { radius: neck, y: mouth },
        { radius: neck, y: lip },
      ]),
      ...lathe('metal', [
        { radius: neck * 1.06, y: lip - height * 0.12 },
        { radius: neck * 1.06, y: lip + 2 },
        { radius: 0.1, y: lip + 2 },
      ]),
    ];
  },
};
