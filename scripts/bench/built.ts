import { spawnSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { build } from 'vite';

/**
 * Runs a benchmark beside this file as a process of its own, built as the server is: a module runner goes round by way of getters at every
 * name that is imported, which is felt where a tenth of a millisecond is measured. Answers what it says, as JSON.
 */
export async function runBuilt(name: string, ...words: readonly string[]): Promise<unknown> {
  const outDir = resolve('build-workers', `bench-${name}`);
  try {
    await build({
      configFile: 'vite.workers.config.ts',
      logLevel: 'error',
      build: { outDir, rollupOptions: { input: { [name]: `scripts/bench/${name}.ts` } } },
    });
    const { stdout, stderr, status } = spawnSync(process.execPath, [join(outDir, `${name}.js`), ...words], {
      encoding: 'utf8',
    });
    if (status !== 0) throw new Error(stderr);
    return JSON.parse(stdout);
  } finally {
    rmSync(outDir, { recursive: true, force: true });
  }
}
