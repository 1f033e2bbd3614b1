import { renameSync, writeFileSync } from 'node:fs';
import adapter from '@sveltejs/adapter-node';

/**
 * The Node adapter with defaults of our own, which hold however the server is started: it listens on the loopback address
 * alone, it takes bodies of any size (every route has a limit of its own), and it ends within seconds when it is told to.
 */
const ENTRY = `process.env.HOST ??= '127.0.0.1';
process.env.BODY_SIZE_LIMIT ??= 'Infinity';
process.env.SHUTDOWN_TIMEOUT ??= '2';
await import('./serve.js');
`;

export default function isleAdapter() {
  const node = adapter({ precompress: false });
  return {
    ...node,
    name: 'isle-adapter',
    async adapt(builder) {
      await node.adapt(builder);
      renameSync('build/index.js', 'build/serve.js');
      writeFileSync('build/index.js', ENTRY);
    },
  };
}
