import { Worker } from 'node:worker_threads';

const ASKER = `
  const { parentPort, workerData } = require('node:worker_threads');
  const { address, pause } = workerData;
  (async () => {
    for (;;) {
      const from = performance.now();
      try {
        await (await fetch(address + '/api/v1/patterns?limit=5&search=lane')).arrayBuffer();
        parentPort.postMessage(performance.now() - from);
      } catch {}
      await new Promise((resolve) => setTimeout(resolve, pause));
    }
  })();
`;

/**
 * Asks for something light again and again, `pause` ms between, in a thread of its own: what is busy in this one must not
 * count as waiting. `waited` is told how long each answer took, in ms.
 */
export function askLightly(address: string, pause: number, waited: (ms: number) => void): Worker {
  const thread = new Worker(ASKER, { eval: true, workerData: { address, pause } });
  thread.on('message', waited);
  return thread;
}
