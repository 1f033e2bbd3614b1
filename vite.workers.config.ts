import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

/** The server's child processes and their threads are built on their own: SvelteKit bundles pages and routes, not their entries. */
export default defineConfig({
  publicDir: false,
  resolve: { alias: { $lib: fileURLToPath(new URL('./src/lib', import.meta.url)) } },
  ssr: {
    external: ['better-sqlite3', '@resvg/resvg-js', '@neplex/vectorizer', 'sharp'],
    noExternal: ['svgpath', 'culori', 'papaparse'],
  },
  build: {
    ssr: true,
    outDir: 'build-workers',
    emptyOutDir: true,
    target: 'node20',
    rollupOptions: {
      input: {
        'render-worker': 'src/lib/server/render/worker.ts',
        child: 'src/lib/server/work/child.ts',
        check: 'src/lib/server/work/check.ts',
      },
      output: { entryFileNames: '[name].js', format: 'es' },
    },
  },
});
