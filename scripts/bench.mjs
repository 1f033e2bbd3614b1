import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { runnerImport } from 'vite';
import { build } from './lib/ensure.mjs';

/** Runs the benchmarks (TypeScript, through Vite's module runner): `npm run bench [-- name] [-- --short]`. */
const root = fileURLToPath(new URL('..', import.meta.url));
process.chdir(root);
const words = process.argv.slice(2);
// A part that measures in a process of its own has all built already; so has the short form in the tests.
const built = existsSync('build/index.js') && existsSync('build-workers/child.js');
if (!built || (!words.includes('--short') && words.length < 3)) build('ignore');
const { module } = await runnerImport(fileURLToPath(new URL('./bench/main.ts', import.meta.url)), {
  configFile: false,
  root,
  resolve: { alias: { $lib: fileURLToPath(new URL('../src/lib', import.meta.url)) } },
});
await module.main(words);
