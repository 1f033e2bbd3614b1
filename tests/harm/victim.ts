import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import type { ChildProcess } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, startServer } from '../../scripts/lib/serve.mjs';
import { askLightly, type Asker } from '../support/lightly';

/** What one request came to. */
export type Answer = { status: number; ms: number; bytes: number; body: unknown };

/** What was seen that must not be, one sentence each. */
export type Fault = string;

/** Statuses of the 500s that are meant: too busy, being stopped, no room on the disk. */
const MEANT = new Set([503, 507]);
/** The longest that any request may take, ms: the largest limit of work that is not an export, and a little. */
const LONGEST = 130_000;
/** What a light request may wait while anything else goes on, ms; the machine's own share of a wait does not count. */
const LIGHT = 250;
/** Requests that take longer are told, though they may. */
const SLOW = 10_000;

/** A running server that is done harm to, with what is watched while it is. */
export class Victim {
  readonly faults: Fault[] = [];
  requests = 0;
  readonly slow: string[] = [];
  /** In the short form what was taken in is drawn once, not in every way. */
  quick = false;
  /** Told what is seen, as it is seen. */
  say: (line: string) => void = () => undefined;
  /** The light requests beside: how many, the longest wait of all, and the longest that the machine is not to blame for. */
  readonly light = { count: 0, worst: 0, own: 0 };
  /** The latest waits that the machine is to blame for. */
  private readonly machine: { at: number; ms: number }[] = [];
  /** Requests that are not answered yet, and the last one that was. */
  private readonly underway = new Set<string>();
  private latest = '';
  private watching = true;
  private asker: Asker | null = null;
  private label = '';

  private constructor(
    readonly address: string,
    readonly child: ChildProcess,
    private readonly folder: string,
  ) {}

  /** Starts the built server on a folder of its own, with the demo data. */
  static async start(): Promise<Victim> {
    const folder = mkdtempSync(join(tmpdir(), 'isle-harm-'));
    const port: number = await freePort(4900 + Math.floor(Math.random() * 90));
    const { child, address } = await startServer({ port, dataFolder: folder, demo: true, stdio: 'ignore' });
    const victim = new Victim(address, child as ChildProcess, folder);
    child.once('exit', (code: number | null, signal: string | null) => {
      if (victim.watching) victim.fault(`the server ended (${signal ?? code})`);
    });
    await victim.askLight();
    return victim;
  }

  /** Notes something that must not be, with the case that it happened in. */
  fault(text: string): void {
    const fault = `${this.label}: ${text}`;
    this.say(`  FAULT ${fault}`);
    if (this.faults.length < 100) this.faults.push(fault);
  }

  /** Names the case that goes on. */
  begin(label: string): void {
    this.label = label;
  }

  get alive(): boolean {
    return this.child.exitCode === null && this.child.signalCode === null;
  }

  /** Memory that the server process holds, MB. */
  megabytes(): number {
    try {
      return (Number(readFileSync(`/proc/${this.child.pid}/statm`, 'utf8').split(' ')[1]) * 4096) / 1e6;
    } catch {
      return 0;
    }
  }

  /** One request; whatever answer breaks the rules is noted. */
  async send(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer> {
    const raw = body instanceof Uint8Array || typeof body === 'string';
    const started = performance.now();
    const what = `${method} ${path.slice(0, 60)}`;
    this.requests += 1;
    this.underway.add(what);
    try {
      const response = await fetch(`${this.address}/api/v1${path}`, {
        method,
        headers: { ...(body === undefined || raw ? {} : { 'content-type': 'application/json' }), ...headers },
        ...(body === undefined ? {} : { body: raw ? (body as BodyInit) : JSON.stringify(body) }),
        signal: AbortSignal.timeout(LONGEST),
      });
      const bytes = new Uint8Array(await response.arrayBuffer());
      const ms = performance.now() - started;
      const answer = { status: response.status, ms, bytes: bytes.length, body: parsed(bytes) };
      if (ms > SLOW)
        this.slow.push(`${(ms / 1000).toFixed(0)} s: ${what} answered ${response.status} (${this.label})`);
      this.judge(`${method} ${path.slice(0, 80)}`, answer);
      return answer;
    } catch (error) {
      const ms = performance.now() - started;
      this.fault(
        ms >= LONGEST - 100
          ? `${method} ${path.slice(0, 80)} was not answered in ${LONGEST / 1000} s`
          : `${method} ${path.slice(0, 80)}: ${String((error as Error).cause ?? error)}`,
      );
      return { status: 0, ms, bytes: 0, body: null };
    } finally {
      this.underway.delete(what);
      this.latest = what;
    }
  }

  /** How much of the last `ms` the machine is to blame for, told a moment later: what it took then is known by then. */
  async blameOfMachine(ms: number): Promise<number> {
    const since = performance.now() - ms;
    await pause(300);
    return this.machine.reduce((sum, one) => sum + (one.at > since ? one.ms : 0), 0);
  }

  /** Sends a file. */
  file(path: string, name: string, bytes: Uint8Array | string): Promise<Answer> {
    return this.send('POST', path, typeof bytes === 'string' ? new TextEncoder().encode(bytes) : bytes, {
      'content-type': 'application/octet-stream',
      'x-file-name': encodeURIComponent(name),
    });
  }

  private judge(what: string, { status, body }: Answer): void {
    if (status >= 500 && !MEANT.has(status)) this.fault(`${what} answered ${status}: ${said(body)}`);
    if (status < 400) return;
    const failure = body as { code?: unknown; message?: unknown } | null;
    if (typeof failure?.code !== 'string' || typeof failure.message !== 'string' || failure.message === '')
      this.fault(`${what} answered ${status} without a sentence: ${said(body)}`);
  }

  /** Has something light asked for all the time, and notes when it has to wait. */
  private async askLight(): Promise<void> {
    this.asker = await askLightly(this.address, 20, ({ ms, machine }) => {
      const own = Math.max(0, ms - machine);
      this.machine.push({ at: performance.now(), ms: machine });
      if (this.machine.length > 1000) this.machine.shift();
      this.light.count += 1;
      this.light.worst = Math.max(this.light.worst, ms);
      this.light.own = Math.max(this.light.own, own);
      if (own > LIGHT && this.watching)
        this.fault(
          `a light request waited ${ms.toFixed(0)} ms, ${machine.toFixed(0)} of them for the machine, ` +
            `beside ${[...this.underway, this.latest].join(', ')}`,
        );
    });
  }

  /** Ends the server and takes its folder away. */
  async stop(): Promise<void> {
    this.watching = false;
    await this.asker?.stop();
    const ended = new Promise((resolve) => this.child.once('exit', resolve));
    if (this.alive) {
      this.child.kill();
      await ended;
    }
    rmSync(this.folder, { recursive: true, force: true });
  }
}

export const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

function parsed(bytes: Uint8Array): unknown {
  if (bytes[0] !== 0x7b && bytes[0] !== 0x5b) return null;
  try {
    return JSON.parse(new TextDecoder().decode(bytes)) as unknown;
  } catch {
    return null;
  }
}

const said = (body: unknown): string => (JSON.stringify(body) ?? '').slice(0, 200);
