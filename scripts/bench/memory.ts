import { spawnSync } from 'node:child_process';
import { openRenderPool } from '../../src/lib/server/render/pool';
import { renderPng } from '../../src/lib/server/render/png';
import { exportScene } from './export';
import { drawLayers } from './layers';
import { SHORT, sized } from './measure';
import { drawPicturePage } from './pictures';

/** Exports whose memory is measured, each in a process of its own, as Isle draws them. */
const DRAWN: Record<string, (side: number) => Promise<void>> = {
  patterns: async (side) => {
    const pool = openRenderPool();
    await renderPng(exportScene(), pool, {
      size: { width: side, height: side, ppi: 300 },
      write: () => Promise.resolve(),
    });
    await pool.close();
  },
  'photos, blends and a mask': drawLayers,
  'a picture, turned': (side) => drawPicturePage(side, { scale: 1, rotation: 31 }),
};

const SIDES = [7500, 15_000];
/** What a process that exports may hold, MB. */
const GOAL = 1000;

/** The most memory that a process has held which does one export and nothing else, three times each. */
export async function benchMemory(words: readonly string[]): Promise<void> {
  const [kind, side] = words;
  if (kind !== undefined && side !== undefined) {
    await DRAWN[kind]?.(Number(side));
    console.log(`held ${(process.resourceUsage().maxRSS / 1024).toFixed(0)} MB`);
    return;
  }
  console.log(`\nMemory of a process that does one export (goal: under ${GOAL} MB)`);
  for (const what of Object.keys(DRAWN))
    for (const full of SHORT ? SIDES.slice(0, 1) : SIDES) {
      const held = Array.from({ length: sized(3, 1) }, () => memoryOf(what, sized(full, 600)));
      console.log(`  ${what}, ${full} × ${full} px: ${held.map((mb) => `${mb} MB`).join(', ')}`);
    }
}

function memoryOf(what: string, side: number): number {
  const words = ['scripts/bench.mjs', 'memory', what, String(side)];
  const { stdout } = spawnSync(process.execPath, words, { encoding: 'utf8' });
  const held = /held (\d+) MB/.exec(stdout)?.[1];
  if (held === undefined) throw new Error(`The export of ${what} did not end: ${stdout}`);
  return Number(held);
}
