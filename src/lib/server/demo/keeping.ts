import type { PatternCredit } from '../../contract/data';
import type { ColourName } from './draw';

/** How the demo's patterns are kept: tags, collections, credit, and colourways by the colours that they exchange. */
export type Keeping = {
  tags: string[];
  collections?: string[];
  credit?: Partial<PatternCredit>;
  colourways?: Record<string, Partial<Record<ColourName, ColourName>>>;
};

const LIDO = 'Marrowby Lido, season set';
const FERRY = 'Night ferry';
const FAIR = 'Book fair';
const WATER = 'Water and weather';

export const KEEPING: Record<string, Keeping> = {
  'Lane Line': {
    tags: ['stripe', 'pool', 'sport'],
    collections: [LIDO, WATER],
    colourways: {
      'Evening swim': { Buoy: 'Lotion', 'Deep water': 'Foam', Pool: 'Shallow', Foam: 'Deep water' },
      'Sun cream': { Buoy: 'Buoy', 'Deep water': 'Plum', Pool: 'Rope', Foam: 'Chalk' },
    },
  },
  'Ripple Row': { tags: ['wave', 'water', 'calm'], collections: [LIDO, WATER] },
  'Ring Toss': {
    tags: ['ring', 'game', 'bold'],
    collections: [LIDO],
    colourways: { 'Night shift': { Buoy: 'Lotion', Chalk: 'Deep water', 'Deep water': 'Shallow' } },
  },
  Duckboard: { tags: ['wood', 'floor', 'neutral'], collections: [LIDO] },
  Awning: { tags: ['stripe', 'shade', 'bold'], collections: [LIDO] },
  'Cold Steps': { tags: ['zigzag', 'stair'], collections: [LIDO] },
  'Towel Check': { tags: ['check', 'cloth'], collections: [LIDO] },
  'Gull Drift': { tags: ['bird', 'sky', 'scatter'], collections: [LIDO, WATER] },
  'Locker Grid': { tags: ['grid', 'metal', 'raised'], collections: [LIDO] },
  'Shallow End': {
    tags: ['mosaic', 'tile', 'pool'],
    collections: [LIDO, WATER],
    credit: {
      author: 'Oona Pell',
      source: 'Tile survey of the old bath house',
      licence: 'CC-BY-4.0',
      attribution: true,
    },
  },
  'Tide Rosette': { tags: ['rosette', 'ornament'], collections: [WATER] },
  'Diving Board': { tags: ['figure', 'mirror'], collections: [LIDO] },
  'Parasol Row': { tags: ['summer', 'round', 'bold'], collections: [LIDO] },
  'Night Wake': {
    tags: ['wave', 'night', 'water'],
    collections: [FERRY, WATER],
    colourways: { 'Early boat': { Night: 'Shallow', Foam: 'Deep water', Shallow: 'Foam', Pool: 'Chalk' } },
  },
  'Rope Twist': { tags: ['rope', 'border'], collections: [FERRY] },
  Porthole: { tags: ['ring', 'ship'], collections: [FERRY] },
  'Deck Stripe': { tags: ['stripe', 'wood'], collections: [FERRY] },
  'Lantern String': {
    tags: ['lantern', 'night', 'festive'],
    collections: [FAIR],
    credit: { author: 'Bram Okell', source: 'Drawn for the street fair', licence: 'LicenseRef-Studio' },
  },
  'Paper Star': { tags: ['star', 'paper', 'festive'], collections: [FAIR] },
  'Open Pages': { tags: ['book', 'figure'], collections: [FAIR] },
  'Fair Confetti': { tags: ['scatter', 'festive', 'bold'], collections: [FAIR] },
  'Ticket Hatch': { tags: ['hatch', 'fine'], collections: [FAIR] },
  'Cabin Wave': { tags: ['wave', 'calm'], collections: [FERRY, WATER] },
  'Slipway Pebbles': { tags: ['stone', 'photo', 'neutral'], collections: [LIDO, WATER] },
  'Pebble Rosette': { tags: ['stone', 'photo', 'rosette', 'ornament'], collections: [LIDO] },
  'Pebble Star': { tags: ['stone', 'photo', 'star', 'ornament'], collections: [LIDO] },
  'Harbour Wall': { tags: ['masonry', 'photo', 'built'], collections: [FERRY] },
  'Wet Slate': { tags: ['stone', 'photo', 'dark'], collections: [WATER] },
  'Thrift Meadow': {
    tags: ['flower', 'photo'],
    collections: [WATER],
    credit: { author: 'Isle', source: 'Photograph rendered for the demo', licence: 'CC0-1.0' },
  },
  'Harbour Scales': { tags: ['scale', 'roof', 'water'], collections: [FERRY, WATER] },
};

/** Tags of the stock, by words in its names. */
const STOCK_WORDS: [RegExp, string][] = [
  [/stripe|band|rail|ladder/i, 'stripe'],
  [/hatch/i, 'hatch'],
  [/dot|ring|moon/i, 'round'],
  [/check|chess|gingham|graph/i, 'check'],
  [/wave|scales/i, 'wave'],
  [/star|diamond|triangle|tooth|kite/i, 'angular'],
  [/plank|board|bond|basket/i, 'built'],
  [/petal|sprig|lace/i, 'ornament'],
];

export const stockTags = (name: string): string[] => [
  'stock',
  ...STOCK_WORDS.flatMap(([words, tag]) => (words.test(name) ? [tag] : [])),
];
