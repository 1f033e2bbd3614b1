import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import Piscina from 'piscina';
import type {
  BandReply,
  BandRequest,
  DrawingRequest,
  PixelsRequest,
  RecolourRequest,
  SharedPicture,
} from '../../contract/render';
import type { ReadReply, ReadRequest } from '../../contract/taking';
import { appRoot } from '../root';

/** The render threads. They start with the first picture and end when idle. */
export type RenderPool = {
  /** Draws one band. A band that was begun is always finished: ending a thread inside the renderer ends the process. */
  band(request: BandRequest): Promise<BandReply>;
  /** A picture through a look, as PNG bytes. */
  recolour(request: RecolourRequest): Promise<Uint8Array>;
  /** A picture decoded into memory that all threads share. */
  pixels(request: PixelsRequest): Promise<SharedPicture>;
  /** What a file holds that a library can take in. */
  read(request: ReadRequest): Promise<ReadReply>;
  /** A layout as the text of an SVG file, its pictures named by hash. */
  drawing(request: DrawingRequest): Promise<string>;
  /** An SVG as a PNG of its own size. */
  png(svg: string): Promise<Uint8Array>;
  readonly threads: number;
  close(): Promise<void>;
};

/** Opens a pool of at most `threads` render threads. */
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
  const readers = new Piscina<ReadRequest, ReadReply>({
    filename: join(appRoot(), 'build-workers', 'read-worker.js'),
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: 30_000,
  });
  // Not among the render threads: a thumbnail would wait for the bands of a large export.
  const drawers = new Piscina<DrawingRequest, string>({
    filename: join(appRoot(), 'build-workers', 'drawing-worker.js'),
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: 300_000, // it remembers outlines of text and strokes
  });
  return {
    threads,
    band: (request) => pool.run(request) as Promise<BandReply>,
    recolour: (request) => pool.run(request, { name: 'recolour' }) as Promise<Uint8Array>,
    pixels: (request) => pool.run(request, { name: 'pixels' }) as Promise<SharedPicture>,
    read: (request) => readers.run(request),
    drawing: (request) => drawers.run(request),
    png: (svg) => pool.run({ svg }, { name: 'png' }) as Promise<Uint8Array>,
    close: async () => {
      await Promise.all([pool.destroy(), readers.destroy(), drawers.destroy()]);
    },
  };
}
