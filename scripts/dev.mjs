import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensurePackages, must, root } from './lib/ensure.mjs';

/** Starts the development server; code changes show at once. */
ensurePackages();
const vite = join(root, 'node_modules', 'vite', 'bin', 'vite.js');
must(process.execPath, [vite, 'build', '--logLevel', 'warn', '--config', 'vite.workers.config.ts']);
const server = spawn(process.execPath, [vite, 'dev', ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
  env: { ISLE_DEMO: '1', ...process.env },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
