import { NO_INKS } from '../../src/lib/core/colour/inks';
import { maskGrey } from '../../src/lib/core/formats/mask-picture';
import { seededRandom } from '../../src/lib/core/num/random';
import type { DisplayList } from '../../src/lib/core/draw/list';
import { lowerLayout, lowerShape } from '../../src/lib/core/draw/lower';
import { PdfFile } from '../../src/lib/core/pdf/file';
import { drawPage, onPaper } from '../../src/lib/core/pdf/page';
import type { PdfSources } from '../../src/lib/core/pdf/picture';
import { freshFill } from '../../src/lib/core/recipe/fill';
import { freshPage, freshShape, type Layout, type Shape } from '../../src/lib/core/recipe/layout';
import type { ProofContext } from '../../src/lib/core/proof/context';
import { freshProof } from '../../src/lib/core/proof/limits';
import { Proof } from '../../src/lib/core/proof/proof';
import { compiledPattern, type CompiledPattern } from '../../src/lib/core/scene/pattern';
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
  text: () => null,
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
function manyFills(count: number): { layout: Layout; pattern: CompiledPattern } {
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
  return { layout: { ...freshPage(SIDE, SIDE), background: '#ffffff', shapes }, pattern };
}

/** What a proof takes of a layout of so many shapes: the first time, and after one of them was moved. */
async function proofTimes(count: number): Promise<{ first: number; after: number; notes: number }> {
  const { layout, pattern } = manyFills(count);
  const context: ProofContext = {
    ...{ limits: freshProof().print, lookup: () => pattern, inks: NO_INKS, press: null, object: null },
    patterns: new Map([
      [
        'p',
        {
          ...{ id: 'p', name: 'P', newest: 1, hasDraft: false, archivedAt: null },
          credit: { author: '', source: '', licence: '', attribution: false },
        },
      ],
    ]),
  };
  const drawn = new Map(layout.shapes.map((shape) => [shape.id, lowerShape(shape, context.lookup)]));
  const proof = new Proof();
  let notes = 0;
  const look = (shapes: Shape[]): void => {
    notes = proof.notes({ ...layout, shapes }, context, (shape) => drawn.get(shape.id)!).length;
  };
  const [first, ...others] = layout.shapes;
  const start = performance.now();
  look(layout.shapes);
  const once = performance.now() - start;
  let moved = 0;
  const after = await median(() => look([{ ...first!, x: (moved += 1) }, ...others]));
  return { first: once, after, notes };
}

/** What is handed over: a page as PDF beside its SVG text. */
export async function benchHandover(): Promise<void> {
  const layered = layeredScene(SIDE);
  const many = manyFills(sized(200, 6));
  const fills = lowerLayout(many.layout, () => many.pattern);
  const svg = await median(() => layoutSvg(fills, { patterns: 'live', width: '2000', height: '2000' }));
  const [pdf, page] = [await median(() => pdfOf(fills)), await median(() => pdfOf(layered))];
  const [small, large] = [(await pdfOf(fills)).length / 1e6, (await pdfOf(layered)).length / 1e6];
  const shapes = sized(1000, 30);
  const proof = await proofTimes(shapes);
  print(`A proof of ${shapes} shapes`, [
    { what: 'the first time', ms: proof.first, note: `${proof.notes} notes` },
    {
      ...{ what: 'after one was moved', ms: proof.after, ratio: proof.after / 100 },
      reference: 'of 100 ms (goal ≤ 1)',
    },
  ]);
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
