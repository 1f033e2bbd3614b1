import type { BenchWork } from '../contract/bench-work';
import type { PictureWork } from '../contract/picture-work';

/** Said of work that was stopped or overtaken by newer work of its kind. */
export class Stopped extends Error {}

/** What can be asked of a worker: an ask and its reply for each kind of work. */
type Kinds = Record<string, { ask: unknown; reply: unknown }>;
type Waiting = { kind: unknown; resolve: (reply: unknown) => void; reject: (error: Error) => void };

/**
 * One worker. A newer ask of a kind makes an older one of that kind unwanted: its late reply is dropped. `stop` ends the
 * thread in the middle of its work; the next ask starts another.
 */
abstract class WorkerClient<W extends Kinds> {
  private thread: Worker | null = null;
  private readonly waiting = new Map<number, Waiting>();
  private next = 1;

  protected abstract start(): Worker;

  ask<K extends keyof W>(kind: K, ask: W[K]['ask'], transfer: Transferable[] = []): Promise<W[K]['reply']> {
    for (const [id, held] of this.waiting) {
      if (held.kind !== kind) continue;
      this.waiting.delete(id);
      held.reject(new Stopped('Newer work took its place.'));
    }
    const id = this.next++;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { kind, resolve: resolve as (reply: unknown) => void, reject });
      this.running().postMessage({ id, kind, ask }, transfer);
    });
  }

  stop(): void {
    this.thread?.terminate();
    this.thread = null;
    for (const { reject } of this.waiting.values()) reject(new Stopped('The work was stopped.'));
    this.waiting.clear();
  }

  private running(): Worker {
    if (this.thread) return this.thread;
    const thread = this.start();
    thread.addEventListener('message', ({ data }: MessageEvent<WorkerReply>) => {
      const held = this.waiting.get(data.id);
      if (!held) return;
      this.waiting.delete(data.id);
      if ('fault' in data) held.reject(new Error(data.fault));
      else held.resolve(data.reply);
    });
    this.thread = thread;
    return thread;
  }
}

type WorkerReply = { id: number; reply: unknown } | { id: number; fault: string };

/** The bench's worker. */
export class BenchWorker extends WorkerClient<BenchWork> {
  protected start(): Worker {
    return new Worker(new URL('./bench-worker.ts', import.meta.url), { type: 'module' });
  }
}

/** The worker that makes repeats of pictures. */
export class PictureWorker extends WorkerClient<PictureWork> {
  protected start(): Worker {
    return new Worker(new URL('./picture-worker.ts', import.meta.url), { type: 'module' });
  }
}
