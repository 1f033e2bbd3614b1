import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import Piscina from 'piscina';
import type {
  BandReply,
  BandRequest,
  PixelsRequest,
  RecolourRequest,
  SharedPicture,
} from '../../contract/render';
import { appRoot } from '../root';
import { bandOf, pixels, png, recolour } from './worker';

/** What draws: on threads of its own, or here. All of it happens in child processes of the server, never in itself. */
export type RenderPool = {
  /** Draws one band. */
  band(request: BandRequest): Promise<BandReply>;
  /** A picture through a look, as PNG bytes. */
  recolour(request: RecolourRequest): Promise<Uint8Array>;
  /** A picture decoded into memory that all threads share. */
  pixels(request: PixelsRequest): Promise<SharedPicture>;
  /** An SVG as a PNG of its own size. */
  png(svg: string): Promise<Uint8Array>;
  readonly threads: number;
  close(): Promise<void>;
};

/** Draws in this very thread: for pictures so small that handing them to another costs more than drawing them. */
export const inlinePool = (): RenderPool => ({
  threads: 1,
  band: (request) => bandOf(request),
  recolour: (request) => recolour(request),
  pixels: (request) => pixels(request),
  png: (svg) => Promise.resolve(png({ svg })),
  close: () => Promise.resolve(),
});

/** Opens a pool of at most `threads` render threads, which start with the first picture and end when idle. */
export function openRenderPool(threads = Math.max(1, Math.min(4, availableParallelism()))): RenderPool {
  const pool = new Piscina<
    BandRequest | RecolourRequest | PixelsRequest | { svg: string },
    BandReply | Uint8Array | SharedPicture
  >({
    filename: join(appRoot(), 'build-workers', 'render-worker.js'),
    minThreads: 0,
    maxThreads: threads,
    idleTimeout: 30_000,
    // Waiting for the next band must let the thread's event loop turn, or memory is never given back.
    atomics: 'disabled',
  });
  return {
    threads,
    band: (request) => pool.run(request) as Promise<BandReply>,
    recolour: (request) => pool.run(request, { name: 'recolour' }) as Promise<Uint8Array>,
    pixels: (request) => pool.run(request, { name: 'pixels' }) as Promise<SharedPicture>,
    png: (svg) => pool.run({ svg }, { name: 'png' }) as Promise<Uint8Array>,
    close: () => pool.destroy(),
  };
}
