import { readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import adapter from '@sveltejs/adapter-node';

/**
 * The Node adapter with defaults of our own, which hold however the server is started: it listens on the loopback address
 * alone, it takes bodies of any size (every route has a limit of its own), and it ends within seconds when it is told to.
 * A connection is kept for a minute: after the few seconds that are usual, a busy server closes one while a request is on its
 * way to it. A file of the interface that cannot be read breaks off its answer, not the process.
 */
const ENTRY = `process.env.HOST ??= '127.0.0.1';
process.env.BODY_SIZE_LIMIT ??= 'Infinity';
process.env.SHUTDOWN_TIMEOUT ??= '2';
process.env.KEEP_ALIVE_TIMEOUT ??= '65';
await import('./serve.js');
`;

const CHUNKS = 'build/server/chunks';
const SENT = 'fs.createReadStream(file, opts).pipe(res);';
const TOLD = '? (res, pathname) => {';
const TOLD_SAFELY = `${TOLD}
							for (const [name, value] of [['x-content-type-options', 'nosniff'], ['referrer-policy', 'same-origin'], ['cross-origin-resource-policy', 'same-origin']]) res.setHeader(name, value);`;
const SENT_SAFELY = "fs.createReadStream(file, opts).on('error', () => res.destroy()).pipe(res);";

/**
 * The adapter's own handler sends files without a listener for their errors, which would end the process, and without the headers of
 * all other answers (app/headers.ts).
 */
function sendSafely() {
  const files = readdirSync(CHUNKS)
    .filter((name) => /^handler-.*\.js$/.test(name))
    .map((name) => join(CHUNKS, name));
  const [file, ...more] = files.filter((path) => readFileSync(path, 'utf8').includes(SENT));
  if (file === undefined || more.length > 0)
    throw new Error('The adapter sends its files in another way now; see to it that their errors are heard.');
  const handler = readFileSync(file, 'utf8');
  if (!handler.includes(TOLD)) throw new Error('The adapter gives its files headers in another way now.');
  writeFileSync(file, handler.replace(SENT, SENT_SAFELY).replace(TOLD, TOLD_SAFELY));
}

export default function isleAdapter() {
  const node = adapter({ precompress: false });
  return {
    ...node,
    name: 'isle-adapter',
    async adapt(builder) {
      await node.adapt(builder);
      renameSync('build/index.js', 'build/serve.js');
      writeFileSync('build/index.js', ENTRY);
      sendSafely();
    },
  };
}
