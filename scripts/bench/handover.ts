import { maskGrey } from '../../src/lib/core/formats/mask-picture';
import { seededRandom } from '../../src/lib/core/num/random';
import type { DisplayList } from '../../src/lib/core/draw/list';
import { lowerLayout } from '../../src/lib/core/draw/lower';
import { PdfFile } from '../../src/lib/core/pdf/file';
import { drawPage, onPaper } from '../../src/lib/core/pdf/page';
import type { PdfSources } from '../../src/lib/core/pdf/picture';
import { freshFill } from '../../src/lib/core/recipe/fill';
import { freshPage, freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import { compiledPattern } from '../../src/lib/core/scene/pattern';
import { compileUnit } from '../../src/lib/core/scene/unit';
import { layoutSvg } from '../../src/lib/core/svg/layout';
import { dot, place, recipe } from '../../tests/support/recipes';
import { layeredScene } from './layers';
import { median, print, sized } from './measure';

const SIDE = 2000;
const PHOTO = { width: 240, height: 160 };

/** A small picture stands for the photos: what they weigh is their own. */
const sources: PdfSources = {
  picture: () => ({ ...PHOTO, rgb: new Uint8Array(PHOTO.width * PHOTO.height * 3).fill(90), alpha: null }),
  mask: (mask) => maskGrey(mask, 1),
  effects: () => null,
};

async function pdfOf(list: DisplayList): Promise<Uint8Array> {
  const { matrix, media, bleedBox, trim } = onPaper(list, { bleed: 0, room: 0 });
  const file = await PdfFile.begin({ title: 'Bench' });
  const content = drawPage(file, list, { onPaper: matrix, paper: media, sources });
  file.page(content, { media, bleed: bleedBox, trim });
  return file.bytes();
}

/** A page of `count` shapes, each with a pattern of its own place, turn and colours. */
function manyFills(count: number): DisplayList {
  const random = seededRandom(5);
  const art = recipe({
    ...{ unit: { width: 60, height: 60 }, ground: { kind: 'slot', slot: 'paper' } },
    motifs: [dot('d', 22)],
    placings: [place('d', 20, 20), place('d', 44, 44, { scaleX: 0.6, scaleY: 0.6 })],
  });
  const pattern = compiledPattern('p@1', 'P', compileUnit(art), art.slots);
  const shapes = Array.from({ length: count }, (_one, at): Shape =>
    freshShape({
      ...{ id: `s${at}`, name: 'S', form: { kind: 'ellipse' }, width: 120, height: 90 },
      ...{ x: (at % 16) * 122, y: Math.floor(at / 16) * 95 },
      fills: [
        {
          ...freshFill(`f${at}`, 'p'),
          ...{ scaleX: 0.5 + random(), scaleY: 0.5 + random(), rotation: 360 * random() },
          colours: { ink: { colour: `#${(at * 977 + 4096).toString(16).padStart(6, '0')}` as '#000000' } },
        },
      ],
    }),
  );
  return lowerLayout({ ...freshPage(SIDE, SIDE), background: '#ffffff', shapes }, () => pattern);
}

/** What is handed over: a page as PDF beside its SVG text. */
export async function benchHandover(): Promise<void> {
  const layered = layeredScene(SIDE);
  const fills = manyFills(sized(200, 6));
  const svg = await median(() => layoutSvg(fills, { patterns: 'live', width: '2000', height: '2000' }));
  const [pdf, page] = [await median(() => pdfOf(fills)), await median(() => pdfOf(layered))];
  const [small, large] = [(await pdfOf(fills)).length / 1e6, (await pdfOf(layered)).length / 1e6];
  print('Handing over', [
    {
      ...{ what: '60 shapes, two photos, blends and a mask as PDF', ms: page, ratio: page / 1500 },
      ...{ reference: 'of 1500 ms (goal ≤ 1)', note: `${large.toFixed(2)} MB beside its photos (goal ≤ 3)` },
    },
    { what: '200 fills as SVG text, live', ms: svg },
    {
      ...{ what: '200 fills as PDF', ms: pdf, ratio: pdf / svg },
      ...{ reference: 'of it (goal ≤ 1.5)', note: `${small.toFixed(2)} MB` },
    },
  ]);
}
