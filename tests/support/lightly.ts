import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { Worker } from 'node:worker_threads';

/**
 * How long an answer took, ms. `machine` is how much of that the machine is to blame for: what a bare server needed at
 * the same moment, or the time that one of its processors was taken away from it, whichever is more.
 */
export type Waited = { ms: number; machine: number };

/** Something that asks on until it is stopped. */
export type Asker = { stop: () => Promise<void> };

/**
 * A server that does nothing but put a page on the disk ten times a second, as a save does, in a process of its own: what
 * machine, network and disk take. It says its port.
 */
const BARE = `
  const fs = require('node:fs');
  const folder = fs.mkdtempSync(require('node:path').join(require('node:os').tmpdir(), 'isle-bare-'));
  const file = fs.openSync(folder + '/page', 'w');
  const page = Buffer.alloc(4096, 1);
  setInterval(() => {
    fs.writeSync(file, page, 0, page.length, 0);
    fs.fsyncSync(file);
  }, 100);
  process.on('exit', () => fs.rmSync(folder, { recursive: true, force: true }));
  process.on('SIGTERM', () => process.exit());
  const server = require('node:http').createServer((_, answer) => answer.end('{}'));
  server.keepAliveTimeout = 65_000;
  server.listen(0, '127.0.0.1', () => process.stdout.write(String(server.address().port)));
  process.on('disconnect', () => process.exit());
`;

const ASKER = `
  const { parentPort, workerData } = require('node:worker_threads');
  const { readFileSync } = require('node:fs');
  const { address, bare, pause } = workerData;
  /** Time taken away from each processor since the start, ms; nothing where the system does not tell. */
  const stolen = () => {
    try {
      const lines = readFileSync('/proc/stat', 'utf8').split('\\n').filter((line) => /^cpu\\d/.test(line));
      return lines.map((line) => Number(line.split(/ +/)[8]) * 10);
    } catch {
      return [];
    }
  };
  const took = async (url) => {
    const from = performance.now();
    await (await fetch(url)).arrayBuffer();
    return performance.now() - from;
  };
  (async () => {
    for (;;) {
      const before = stolen();
      try {
        const [ms, plain] = await Promise.all([took(address + '/api/v1/patterns?limit=5&search=lane'), took(bare)]);
        parentPort.postMessage({ ms, machine: Math.max(plain, ...stolen().map((now, index) => now - before[index])) });
      } catch {}
      await new Promise((resolve) => setTimeout(resolve, pause));
    }
  })();
`;

/** Asks a server for something light again and again, `pause` ms between, and tells how long each answer took. */
export async function askLightly(
  address: string,
  pause: number,
  waited: (waited: Waited) => void,
): Promise<Asker> {
  const server = spawn(process.execPath, ['-e', BARE], { stdio: ['ignore', 'pipe', 'inherit', 'ipc'] });
  const [port] = (await once(server.stdout!, 'data')) as [Buffer];
  // A thread of its own: what is busy in this one must not count as waiting.
  const workerData = { address, bare: `http://127.0.0.1:${port.toString()}/`, pause };
  const thread = new Worker(ASKER, { eval: true, workerData });
  thread.on('message', waited);
  return {
    stop: async () => {
      await thread.terminate();
      server.kill();
    },
  };
}
