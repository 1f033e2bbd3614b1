import { fileURLToPath } from 'node:url';
import { runnerImport } from 'vite';

/**
 * Paints the demo's photographs anew: `npm run photos`. With `-- blanks` it photographs our own blank objects, with `-- stills`
 * the demo's mock-ups; Isle must be built for these. They are kept in `photos/`, since making them takes a while.
 */
const root = fileURLToPath(new URL('..', import.meta.url));
process.chdir(root);
const what = process.argv[2] ?? 'painted';
const file = what === 'painted' ? './photos/main.ts' : './photos/blanks.ts';
const { module } = await runnerImport(fileURLToPath(new URL(file, import.meta.url)), {
  configFile: false,
  root,
});
await { painted: module.main, blanks: module.photographBlanks, stills: module.keepStills }[what]();
