import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

/** The server's worker threads are built on their own: SvelteKit bundles pages and routes, not thread entries. */
export default defineConfig({
  publicDir: false,
  resolve: { alias: { $lib: fileURLToPath(new URL('./src/lib', import.meta.url)) } },
  ssr: { external: ['@resvg/resvg-js', 'sharp'], noExternal: ['svgpath', 'culori', 'papaparse'] },
  build: {
    ssr: true,
    outDir: 'build-workers',
    emptyOutDir: true,
    target: 'node20',
    rollupOptions: {
      input: {
        'render-worker': 'src/lib/server/render/worker.ts',
        'drawing-worker': 'src/lib/server/render/drawing-worker.ts',
        'read-worker': 'src/lib/server/render/read-worker.ts',
      },
      output: { entryFileNames: '[name].js', format: 'es' },
    },
  },
});
