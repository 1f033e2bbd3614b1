import { fileURLToPath } from 'node:url';
import { runnerImport } from 'vite';

/** Paints the demo's photographs anew: `npm run photos`. They are kept in `photos/`, since painting them takes a while. */
const root = fileURLToPath(new URL('..', import.meta.url));
process.chdir(root);
const { module } = await runnerImport(fileURLToPath(new URL('./photos/main.ts', import.meta.url)), {
  configFile: false,
  root,
});
await module.main();
