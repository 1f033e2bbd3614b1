import type { BenchAsk, BenchKind, BenchReply, BenchWork } from '../contract/bench-work';

/** Said of work that was stopped or overtaken by newer work of its kind. */
export class Stopped extends Error {}

type Waiting = { kind: BenchKind; resolve: (reply: unknown) => void; reject: (error: Error) => void };

/**
 * One worker for the bench. A newer ask of a kind makes an older one of that kind unwanted: its late reply is dropped.
 * `stop` ends the thread in the middle of its work; the next ask starts another.
 */
export class BenchWorker {
  private thread: Worker | null = null;
  private readonly waiting = new Map<number, Waiting>();
  private next = 1;

  ask<K extends BenchKind>(kind: K, ask: BenchWork[K]['ask']): Promise<BenchWork[K]['reply']> {
    for (const [id, held] of this.waiting) {
      if (held.kind !== kind) continue;
      this.waiting.delete(id);
      held.reject(new Stopped('Newer work took its place.'));
    }
    const id = this.next++;
    const message: BenchAsk<K> = { id, kind, ask };
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { kind, resolve: resolve as (reply: unknown) => void, reject });
      this.running().postMessage(message);
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
    const thread = new Worker(new URL('./bench-worker.ts', import.meta.url), { type: 'module' });
    thread.addEventListener('message', ({ data }: MessageEvent<BenchReply>) => {
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
