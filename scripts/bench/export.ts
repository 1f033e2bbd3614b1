import { Resvg } from '@resvg/resvg-js';
import sharp from 'sharp';
import { deflateSync } from 'node:zlib';
import { filterRows } from '../../src/lib/core/formats/png';
import { seededRandom } from '../../src/lib/core/num/random';
import type { Motif, Placing } from '../../src/lib/core/recipe/recipe';
import type { DisplayList } from '../../src/lib/core/draw/list';
import { layoutSvg } from '../../src/lib/core/svg/layout';
import { openRenderPool } from '../../src/lib/server/render/pool';
import { renderPng } from '../../src/lib/server/render/png';
import { recipe } from '../../tests/support/recipes';
import { filledPage } from '../../tests/support/scenes';
import { median, print, sized, type Row } from './measure';

const SIDE = sized(7500, 700);

/** checks.md: 7500 × 7500 px, a unit of 40 motifs, turned 31°, at 237 %. */
export function exportScene(): DisplayList {
  const random = seededRandom(11);
  const kinds = [
    { kind: 'ellipse' },
    { kind: 'star', points: 5, inner: 0.45 },
    { kind: 'polygon', sides: 6 },
    { kind: 'rectangle', radius: 3 },
  ] as const;
  const motifs: Motif[] = kinds.map((form, index) => ({
    id: `m${index}`,
    name: form.kind,
    content: { kind: 'form', form, width: 18, height: 18, slot: index % 2 ? 'ink' : 'paper' },
  }));
  const placings: Placing[] = Array.from({ length: 40 }, (_, index) => ({
    id: `p${index}`,
    motif: `m${index % 4}`,
    x: random() * 200,
    y: random() * 160,
    rotation: random() * 360,
    scaleX: 0.6 + random(),
    scaleY: 0.6 + random(),
    opacity: 1,
  }));
  const unit = { width: 200, height: 160 };
  const art = recipe({
    unit,
    motifs,
    placings,
    repeat: { kind: 'brick', step: 0.5, run: 'progressive' },
    ground: { kind: 'slot', slot: 'ground' },
    slots: [
      { id: 'ink', name: 'Ink', colour: '#0d3b4f' },
      { id: 'paper', name: 'Paper', colour: '#e4572e' },
      { id: 'ground', name: 'Ground', colour: '#f2c14e' },
    ],
  });
  return filledPage(art, SIDE, { scaleX: 2.37, scaleY: 2.37, rotation: 31 }, '#ffffff');
}

/** Isle's export beside the other ways to the same picture. */
export async function benchExport(): Promise<void> {
  const scene = exportScene();
  const svg = (patterns: 'live' | 'expanded'): string =>
    layoutSvg(scene, { patterns, width: String(SIDE), height: String(SIDE), scale: 1 });
  const live = svg('live');
  const expanded = svg('expanded');
  const resvg = (text: string) => new Resvg(text, { font: { loadSystemFonts: false } }).render();
  const pool = openRenderPool();
  let bytes = 0;
  const isle = await median(async () => {
    bytes = 0;
    await renderPng(scene, pool, {
      size: { width: SIDE, height: SIDE, ppi: 300 },
      write: async (part) => {
        bytes += part.length;
      },
    });
  });
  await pool.close();
  const pixels = resvg(expanded).pixels;
  const raw = { width: SIDE, height: SIDE, channels: 4 } as const;
  const rows = filterRows(pixels, SIDE, false);

  const liveMs = await median(() => resvg(live).asPng());
  const rendered = resvg(expanded);
  const floorResvg = await median(() => rendered.asPng());
  const floorSharp = await median(() => sharp(pixels, { raw }).removeAlpha().png().toBuffer());
  const floorOwn = await median(() => deflateSync(rows, { level: 3 }));
  const librsvg = await median(() =>
    sharp(Buffer.from(live), { limitInputPixels: false, unlimited: true }).png().toBuffer(),
  );
  const table: Row[] = [
    { what: `Isle, ${pool.threads} threads, ${(bytes / 1e6).toFixed(1)} MB file`, ms: isle },
    {
      what: 'resvg, live pattern, with PNG encoding',
      ms: liveMs,
      ratio: isle / liveMs,
      reference: 'of it (goal ≤ 0.5)',
    },
    {
      what: 'PNG encoding alone, resvg',
      ms: floorResvg,
      ratio: isle / floorResvg,
      reference: 'of it (goal ≤ 1.5)',
    },
    {
      what: 'PNG encoding alone, sharp (libvips)',
      ms: floorSharp,
      ratio: isle / floorSharp,
      reference: 'of it',
    },
    { what: 'deflate alone, level 3, one thread', ms: floorOwn, ratio: isle / floorOwn, reference: 'of it' },
    { what: 'librsvg through sharp, live pattern', ms: librsvg, ratio: isle / librsvg, reference: 'of it' },
  ];
  print(`Export, ${SIDE} × ${SIDE} px, 40 motifs a unit, 31°, 237 %`, table);
}
