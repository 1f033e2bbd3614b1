import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { root } from './ensure.mjs';

/** The first free port from `port` on, on the loopback address. */
export async function freePort(port, host = '127.0.0.1') {
  for (let candidate = port; candidate < port + 100; candidate += 1) {
    const free = await new Promise((resolve) => {
      const probe = createServer();
      probe.once('error', () => resolve(false));
      probe.listen(candidate, host, () => probe.close(() => resolve(true)));
    });
    if (free) return candidate;
  }
  throw new Error(`No free port from ${port} to ${port + 99}.`);
}

/** Starts the built server as a child process and waits until it answers. */
export async function startServer({ port, host = '127.0.0.1', dataFolder, demo, stdio = 'inherit' }) {
  const child = spawn(process.execPath, [join(root, 'build', 'index.js')], {
    cwd: root,
    stdio,
    env: {
      ...process.env,
      NODE_ENV: 'production',
      PORT: String(port),
      HOST: host,
      ORIGIN: process.env.ORIGIN ?? `http://${host}:${port}`,
      BODY_SIZE_LIMIT: 'Infinity',
      ISLE_DATA: dataFolder,
      ISLE_DEMO: demo ? '1' : '0',
    },
  });
  const address = `http://${host}:${port}`;
  for (let tries = 0; tries < 300; tries += 1) {
    if (child.exitCode !== null) throw new Error(`The server ended with code ${child.exitCode}.`);
    const answered = await fetch(`${address}/ready`).then(
      (answer) => answer.ok,
      (error) => {
        if (error.cause?.message !== 'bad port') return false;
        child.kill();
        throw new Error(`Browsers refuse to open port ${port}; choose another with PORT.`);
      },
    );
    if (answered) return { child, address };
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  child.kill();
  throw new Error('The server did not answer within 30 seconds.');
}
