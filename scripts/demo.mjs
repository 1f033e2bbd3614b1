import { existsSync, renameSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { build, ensurePackages, root } from './lib/ensure.mjs';
import { freePort, startServer } from './lib/serve.mjs';

/** Sets up everything and starts Isle with the demo data. `--fresh` sets the old database aside and begins anew. */
ensurePackages();
console.log('Building …');
build();
const dataFolder = resolve(root, process.env.ISLE_DATA || 'data');
if (process.argv.includes('--fresh')) setAside(dataFolder);
const port = await freePort(Number(process.env.PORT) || 4173, process.env.HOST || '127.0.0.1');
const { child, address } = await startServer({
  port,
  host: process.env.HOST || '127.0.0.1',
  dataFolder,
  demo: true,
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
child.on('exit', (code) => process.exit(code ?? 0));
console.log(`Isle is ready at ${address}`);
console.log(`Data are kept in ${dataFolder}`);

function setAside(folder) {
  const stamp = new Date().toISOString().replace(/[:.]/g, '-');
  for (const name of ['isle.db', 'isle.db-wal', 'isle.db-shm']) {
    const file = join(folder, name);
    if (existsSync(file)) renameSync(file, join(folder, `${name.replace('isle', `isle-${stamp}`)}`));
  }
}
