import { fileURLToPath } from 'node:url';
import { build, runnerImport } from 'vite';

/** Runs the benchmarks (TypeScript, through Vite's module runner): `npm run bench [-- name …]`. */
const root = fileURLToPath(new URL('..', import.meta.url));
process.chdir(root);
await build({ configFile: 'vite.workers.config.ts', logLevel: 'warn' });
const { module } = await runnerImport(fileURLToPath(new URL('./bench/main.ts', import.meta.url)), {
  configFile: false,
  root,
  resolve: { alias: { $lib: fileURLToPath(new URL('../src/lib', import.meta.url)) } },
});
await module.main(process.argv.slice(2));
