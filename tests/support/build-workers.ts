import { build } from 'vite';

/** Render tests run the real worker threads, so they are built first, as the application's build does. */
export default async function setup(): Promise<void> {
  await build({ configFile: 'vite.workers.config.ts', logLevel: 'warn' });
}
