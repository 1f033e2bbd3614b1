import { openRenderPool } from '../../src/lib/server/render/pool';
import { renderPng } from '../../src/lib/server/render/png';
import { exportScene } from './export';

/** The most memory that a process has held after exports of growing size; run alone, since it only ever grows. */
export async function benchMemory(): Promise<void> {
  const pool = openRenderPool();
  console.log('\nMemory of a process that exports and does nothing else (goal: under 1500 MB)');
  for (const side of [7500, 7500, 15_000]) {
    await renderPng(exportScene(), pool, {
      size: { width: side, height: side, ppi: 300 },
      write: () => Promise.resolve(),
    });
    console.log(
      `  after ${side} × ${side} px: at most ${(process.resourceUsage().maxRSS / 1024).toFixed(0)} MB`,
    );
  }
  await pool.close();
}
