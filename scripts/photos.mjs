import { fileURLToPath } from 'node:url';
import { runnerImport } from 'vite';

/**
 * Paints the demo's photographs anew: `npm run photos`. With `-- blanks` photographs our own blank objects, for which Isle must be
 * built. They are kept in `photos/`, since making them takes a while.
 */
const root = fileURLToPath(new URL('..', import.meta.url));
process.chdir(root);
const file = process.argv[2] === 'blanks' ? './photos/blanks.ts' : './photos/main.ts';
const { module } = await runnerImport(fileURLToPath(new URL(file, import.meta.url)), {
  configFile: false,
  root,
});
await (module.photographBlanks ?? module.main)();
