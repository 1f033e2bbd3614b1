import { asDocumented } from './as-documented';
import { type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, BrowserContext, Page } from 'puppeteer-core';
import { expect } from 'vitest';
import { freePort, startServer } from '../../scripts/lib/serve.mjs';
import type { Role } from '../../src/lib/contract/people';
import { freshShape } from '../../src/lib/core/recipe/layout';
import { alive } from './browser';

export const PASSWORD = 'two striped towels';

export type Answer = { status: number; body: Record<string, unknown>; cookie: string };

/** An Isle of its own with an opened studio, for tests about people. Everyone is known by a name of their own. */
export class OwnStudio {
  /** The cookies of those who are signed in; “nobody” has none. */
  readonly cookies = new Map<string, string>([['nobody', '']]);

  private readonly contexts: BrowserContext[] = [];

  private constructor(
    readonly folder: string,
    readonly address: string,
    private child: ChildProcess,
  ) {}

  /** Starts it; whoever opens it is “owner”. */
  static async open(demo = false): Promise<OwnStudio> {
    const folder = mkdtempSync(join(tmpdir(), 'isle-studio-'));
    const port = await freePort(5600);
    const { child, address } = await startServer({ port, dataFolder: folder, demo, stdio: 'ignore' });
    const studio = new OwnStudio(folder, address, child);
    const opened = await studio.must('nobody', 'POST', '/studio/opened', {
      ...{ studio: 'Pier', name: 'Mara Quill', email: 'owner@studio.example', password: PASSWORD },
    });
    studio.cookies.set('owner', opened.cookie);
    return studio;
  }

  async close(): Promise<void> {
    await this.stop('SIGTERM');
    rmSync(this.folder, { recursive: true, force: true });
  }

  private async stop(signal: NodeJS.Signals): Promise<void> {
    if (this.child.exitCode !== null || this.child.signalCode !== null) return;
    const gone = new Promise((resolve) => this.child.once('exit', resolve));
    this.child.kill(signal);
    await gone;
  }

  async ask(as: string, method: string, path: string, body?: unknown): Promise<Answer> {
    const response = await fetch(`${this.address}/api/v1${path}`, {
      method,
      headers: {
        cookie: this.cookies.get(as) ?? '',
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      signal: AbortSignal.timeout(20_000),
    });
    const cookie = (response.headers.get('set-cookie') ?? '').split(';')[0] ?? '';
    const type = response.headers.get('content-type') ?? '';
    // A stream of events never ends: its head is all there is to see.
    if (type.startsWith('text/event-stream')) {
      await response.body?.cancel();
      return { status: response.status, body: {}, cookie };
    }
    const text = await response.text();
    const json = type.startsWith('application/json') && text !== '';
    const answer: unknown = json ? JSON.parse(text) : {};
    if (json && response.ok) asDocumented(method, path, answer);
    return {
      status: response.status,
      body: (answer ?? {}) as Answer['body'],
      cookie,
    };
  }

  async must(as: string, method: string, path: string, body?: unknown): Promise<Answer> {
    const answer = await this.ask(as, method, path, body);
    expect(answer, `${method} ${path}`).toMatchObject({ status: 200 });
    return answer;
  }

  /** Invites somebody, who comes in under their role as a name; answers their id. */
  async comeIn(role: Role, projects: string[] = [], as: string = role): Promise<string> {
    const made = await this.must('owner', 'POST', '/invitations', {
      ...{ name: `A ${role}`, role, projects, days: 7, leavesAt: null },
    });
    const came = await this.must('nobody', 'POST', `/invitations/links/${String(made.body.token)}`, {
      ...{ name: `A ${as}`, email: `${as}@studio.example`, password: PASSWORD },
    });
    this.cookies.set(as, came.cookie);
    return String(came.body.id);
  }

  /** A window of somebody in a browser of their own, at an address; gone with `closeWindows`. */
  async windowOf(browser: Browser, who: string, path: string): Promise<Page> {
    const context = await browser.createBrowserContext();
    this.contexts.push(context);
    const page = await context.newPage();
    await page.setViewport({ width: 1280, height: 800 });
    const [name, value] = (this.cookies.get(who) ?? '').split('=');
    await context.setCookie({ name: name!, value: value!, domain: '127.0.0.1', path: '/', httpOnly: true });
    await this.visit(page, path);
    return page;
  }

  async visit(page: Page, path: string): Promise<void> {
    await page.goto(this.address + path, { waitUntil: 'load' });
    await alive(page);
  }

  async closeWindows(): Promise<void> {
    for (const context of this.contexts.splice(0)) await context.close();
  }

  /** A project with one page that has two shapes side by side, their ids ending in `mark`; answers the page's id and address. */
  async twoShapes(project: string, name: string, mark: string): Promise<{ id: string; path: string }> {
    const page = { name, width: 400, height: 300, measure: 'px' };
    const made = await this.must('owner', 'POST', `/projects/${project}/layouts`, page);
    const id = String(made.body.id);
    const box = (called: string, x: number) =>
      freshShape({
        ...{ id: `${called}${mark}`, name: called, form: { kind: 'rectangle', radius: 0 } },
        ...{ x, y: 40, width: 100, height: 80, fills: [] },
      });
    await this.must('owner', 'POST', `/layouts/${id}/changes`, {
      base: 1,
      changes: [
        { do: 'put-shape', shape: box('Left', 40) },
        { do: 'put-shape', shape: box('Right', 240) },
      ],
    });
    return { id, path: `/projects/${project}/layouts/${id}` };
  }

  /** Everyone who is in the studio. */
  async people(): Promise<{ id: string; role: Role; email: string }[]> {
    return (await this.must('owner', 'GET', '/people')).body as unknown as {
      id: string;
      role: Role;
      email: string;
    }[];
  }
}
