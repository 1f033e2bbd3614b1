import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from 'puppeteer-core';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** What axe finds serious or critical on the page as it stands. */
export async function seriousFaults(page: Page): Promise<string[]> {
  await page.evaluate(axe);
  return page.evaluate(async () => {
    const { axe: run } = window as unknown as {
      axe: {
        run(): Promise<{ violations: { id: string; impact: string; nodes: { target: unknown }[] }[] }>;
      };
    };
    const result = await run.run();
    return result.violations
      .filter((violation) => violation.impact === 'serious' || violation.impact === 'critical')
      .map(
        (violation) =>
          `${violation.id}: ${violation.nodes
            .slice(0, 3)
            .map((node) => String(node.target))
            .join(' | ')}`,
      );
  });
}
