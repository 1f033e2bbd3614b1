import { fork, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { setPriority } from 'node:os';
import { join } from 'node:path';
import type { WorkCall, WorkName, WorkReply } from '../../contract/work';
import type { Outcome } from '../../contract/failure';
import { appRoot } from '../root';

/** Why an ask came to no answer. */
export type Ended =
  | { why: 'time' }
  | { why: 'memory' }
  | { why: 'stopped' }
  /** The process ended by itself, as when the renderer aborts. */
  | { why: 'died'; how: string }
  /** The work threw what it should not have. */
  | { why: 'fault'; how: string };

export type Ran = { ok: true; outcome: Outcome<unknown> } | { ok: false; ended: Ended };

type Running = {
  id: number;
  settle: (ran: Ran) => void;
  progress: (share: number) => void;
};

/** How often a running process's memory is looked at. */
const LOOK_MS = 100;
/** A process that holds more than this after its work is ended, so that the memory goes back. */
const KEEP_MEGABYTES = 450;
/** A process is replaced after so many asks: what leaks, leaks little. */
const MOST_ASKS = 500;

/** One child process that does one thing at a time. It is ended, with whatever it does, by {@link end}. */
export class Child {
  private readonly process: ChildProcess;
  private running: Running | null = null;
  private asks = 0;
  private ended: Ended | null = null;
  private errors = '';
  /** Set once the process is gone. */
  gone = false;

  /** `megabytes` bounds the JavaScript heap; the memory of the whole process is bounded for each ask. */
  constructor(niceness: number, megabytes: number, onGone: () => void) {
    this.process = fork(join(appRoot(), 'build-workers', 'child.js'), [], {
      serialization: 'advanced',
      execArgv: [`--max-old-space-size=${megabytes}`],
      stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
    });
    try {
      if (this.process.pid) setPriority(this.process.pid, niceness);
    } catch {
      // A system without priorities works all the same.
    }
    this.process.stderr?.on('data', (part: Buffer) => {
      this.errors = (this.errors + part.toString('utf8')).slice(-2000);
    });
    this.process.on('message', (reply) => this.take(reply as WorkReply));
    this.process.on('error', (error) => (this.errors += String(error)));
    this.process.once('close', (code, signal) => {
      this.gone = true;
      const how = `${signal ?? `code ${code}`}${this.errors ? `: ${this.errors.trim()}` : ''}`;
      const outOfHeap = /heap out of memory|heap limit/i.test(this.errors);
      this.settle({ ok: false, ended: this.ended ?? (outOfHeap ? { why: 'memory' } : { why: 'died', how }) });
      onGone();
    });
  }

  get busy(): boolean {
    return this.running !== null;
  }

  /** Does one thing within its limits; the process is ended where it goes beyond them or `signal` says so. */
  async run(
    name: WorkName,
    ask: unknown,
    limits: { seconds: number; megabytes: number },
    { signal, progress = () => undefined }: { signal?: AbortSignal; progress?: (share: number) => void },
  ): Promise<Ran> {
    const id = ++this.asks;
    const stop = (): void => this.end({ why: 'stopped' });
    const late = setTimeout(() => this.end({ why: 'time' }), limits.seconds * 1000);
    const look = setInterval(() => {
      if (this.megabytes() > limits.megabytes) this.end({ why: 'memory' });
    }, LOOK_MS);
    signal?.addEventListener('abort', stop, { once: true });
    try {
      return await new Promise<Ran>((resolve) => {
        this.running = { id, settle: resolve, progress };
        if (this.gone) return this.settle({ ok: false, ended: this.ended ?? { why: 'died', how: 'gone' } });
        const call: WorkCall = { id, name, ask };
        this.process.send(call, (error) => {
          if (error) this.end({ why: 'died', how: String(error) });
        });
      });
    } finally {
      clearTimeout(late);
      clearInterval(look);
      signal?.removeEventListener('abort', stop);
      if (!this.gone && (this.asks >= MOST_ASKS || this.megabytes() > KEEP_MEGABYTES)) this.end(null);
    }
  }

  /** Ends the process at once, whatever it does. */
  end(why: Ended | null): void {
    this.ended ??= why;
    this.process.kill('SIGKILL');
  }

  /** True once the process is to take no more work. */
  get spent(): boolean {
    return this.gone || this.process.killed;
  }

  private take(reply: WorkReply): void {
    if (reply.id !== this.running?.id) return;
    if ('progress' in reply) this.running.progress(reply.progress);
    else if ('outcome' in reply) this.settle({ ok: true, outcome: reply.outcome });
    else this.settle({ ok: false, ended: { why: 'fault', how: reply.fault } });
  }

  private settle(ran: Ran): void {
    const { running } = this;
    this.running = null;
    running?.settle(ran);
  }

  /** The memory that the process holds, in MB; 0 on systems that do not tell. */
  private megabytes(): number {
    try {
      const pages = Number(readFileSync(`/proc/${this.process.pid}/statm`, 'utf8').split(' ')[1]);
      return (pages * 4096) / 1e6;
    } catch {
      return 0;
    }
  }
}
