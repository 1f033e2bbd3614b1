import { sveltekit } from '@sveltejs/kit/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [sveltekit()],
  build: { target: 'es2022' },
  worker: { format: 'es' },
  server: { host: '127.0.0.1' },
  ssr: { external: ['better-sqlite3', '@resvg/resvg-js', '@neplex/vectorizer', 'sharp'] },
  test: {
    projects: [
      {
        extends: true,
        test: {
          name: 'unit',
          environment: 'node',
          include: ['src/**/*.test.ts', 'tests/rules/**/*.test.ts', 'tests/integration/**/*.test.ts'],
          globalSetup: ['tests/support/build-workers.ts'],
          testTimeout: 60_000,
        },
      },
      {
        extends: true,
        test: {
          name: 'browser',
          environment: 'node',
          include: ['tests/browser/**/*.test.ts'],
          globalSetup: ['tests/support/server.ts'],
          testTimeout: 240_000,
          hookTimeout: 120_000,
          fileParallelism: false,
        },
      },
    ],
  },
});
