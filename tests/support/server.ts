import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { freePort, startServer } from '../../scripts/lib/serve.mjs';

declare module 'vitest' {
  interface ProvidedContext {
    address: string;
  }
}

/** Starts the built application with demo data in a folder of its own for all browser tests. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const dataFolder = mkdtempSync(join(tmpdir(), 'isle-data-'));
  const port: number = await freePort(4300);
  const { child, address } = await startServer({
    port,
    dataFolder,
    demo: true,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  project.provide('address', address);
  return async () => {
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill();
    await ended;
    rmSync(dataFolder, { recursive: true, force: true });
  };
}
