import { fileURLToPath } from 'node:url';
import { runnerImport } from 'vite';
import { build, ensurePackages } from './lib/ensure.mjs';

/** Does harm to a server of its own and tells what it did not bear: `npm run harm [-- number of random cases [seed]]`. */
ensurePackages();
build('ignore');
const root = fileURLToPath(new URL('..', import.meta.url));
process.chdir(root);
const { module } = await runnerImport(fileURLToPath(new URL('../tests/harm/run.ts', import.meta.url)), {
  configFile: false,
  root,
  resolve: { alias: { $lib: fileURLToPath(new URL('../src/lib', import.meta.url)) } },
});
const [chance = '10000', seed = '1', only = ''] = process.argv.slice(2);
const { cases, requests, faults, light, memory } = await module.harm(Number(chance), {
  seed: Number(seed),
  only,
  say: (line) => console.log(line),
});
for (const fault of faults) console.log(`FAULT ${fault}`);
console.log(
  `${cases} cases, ${requests} requests; light requests waited at most ${light.worst.toFixed(0)} ms (${light.count} asked); ` +
    `the server held ${memory.before.toFixed(0)} MB before and ${memory.after.toFixed(0)} MB after; ${faults.length} faults.`,
);
process.exit(faults.length === 0 ? 0 : 1);
