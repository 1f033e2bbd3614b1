import { fileURLToPath } from 'node:url';
import { runnerImport } from 'vite';
import { build, ensurePackages } from './lib/ensure.mjs';

/**
 * Does harm to servers of its own and tells what they did not bear. `npm run harm [-- number of random cases [seed]]` throws
 * hostile and random files, recipes and bodies at one; `npm run harm -- kills [number [seed]]` kills one again and again.
 */
ensurePackages();
build('ignore');
const root = fileURLToPath(new URL('..', import.meta.url));
process.chdir(root);
const load = async (file) => {
  const { module } = await runnerImport(fileURLToPath(new URL(`../tests/harm/${file}`, import.meta.url)), {
    configFile: false,
    root,
    resolve: { alias: { $lib: fileURLToPath(new URL('../src/lib', import.meta.url)) } },
  });
  return module;
};
const say = (line) => console.log(line);
const words = process.argv.slice(2);
const faults = words[0] === 'kills' ? await kill(...words.slice(1)) : await throwAt(...words);
for (const fault of faults) console.log(`FAULT ${fault}`);
console.log(`${faults.length} faults`);
process.exit(faults.length === 0 ? 0 : 1);

async function throwAt(chance = '10000', seed = '1', only = '') {
  const { harm } = await load('run.ts');
  const done = await harm(Number(chance), { seed: Number(seed), only, say });
  const { cases, requests, light, memory } = done;
  console.log(
    `${cases} cases, ${requests} requests; light requests waited at most ${light.own.toFixed(0)} ms, ` +
      `${light.worst.toFixed(0)} ms with what the machine is to blame for (${light.count} asked); ` +
      `the server held ${memory.before.toFixed(0)} MB before and ${memory.after.toFixed(0)} MB after.`,
  );
  return done.faults;
}

async function kill(rounds = '500', seed = '1') {
  const { kills } = await load('kills.ts');
  const done = await kills(Number(rounds), { seed: Number(seed), say });
  const kinds = Object.entries(done.byKind).map(([kind, count]) => `${count} × ${kind}`);
  console.log(`${done.kills} kills: ${kinds.join(', ')}`);
  return done.faults;
}
