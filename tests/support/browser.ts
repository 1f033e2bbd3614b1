import { mkdtempSync, readdirSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import puppeteer, { type Browser, type ElementHandle, type HTTPRequest, type Page } from 'puppeteer-core';
import { expect, inject, vi } from 'vitest';
import { until } from './until';

const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--force-color-profile=srgb',
];

export type Session = { browser: Browser; page: Page; faults: string[]; close(): Promise<void> };

/** A headless Chromium with one page; `faults` gathers errors of the page and of its console. */
export async function openBrowser(width = 1280, height = 800): Promise<Session> {
  const profile = mkdtempSync(join(tmpdir(), 'isle-chromium-'));
  const browser = await puppeteer.launch({
    executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
    args: FLAGS,
    userDataDir: profile,
    defaultViewport: { width, height },
  });
  // A page left with unsaved changes asks; an unanswered question would hang every later visit.
  browser.on('targetcreated', async (target) => {
    const opened = await target.page();
    if (!opened) return;
    asked(opened);
    opened.on(
      'dialog',
      (dialog) => void (dialog.type() === 'beforeunload' ? dialog.accept() : dialog.dismiss()),
    );
  });
  const page = await browser.newPage();
  asked(page);
  const faults: string[] = [];
  page.on('pageerror', (error) => faults.push(String(error)));
  page.on('console', (message) => {
    if (message.type() === 'error' && !message.text().includes('status of 4')) faults.push(message.text());
  });
  return {
    browser,
    page,
    faults,
    close: async () => {
      await browser.close();
      rmSync(profile, { recursive: true, force: true });
    },
  };
}

/** The address of a path of the application under test. */
export const at = (path: string): string => inject('address') + path;

/** Opens a path and waits until the page is alive. */
export async function visit(page: Page, path: string): Promise<void> {
  await page.goto(at(path), { waitUntil: 'load' });
  await alive(page);
}

/** Loads the page again and waits until it is alive. */
export async function again(page: Page): Promise<void> {
  await page.reload({ waitUntil: 'load' });
  await alive(page);
}

/** Waits until a page that has come answers to the hand and asks nothing more of the server. */
export async function alive(page: Page): Promise<void> {
  await page.waitForSelector('html[data-alive]');
  await quiet(page);
}

const onTheirWay = new WeakMap<Page, Set<HTTPRequest>>();
/** What a page has asked of the server and not got yet; its stream of events, which never ends, does not count. */
function asked(page: Page): Set<HTTPRequest> {
  const known = onTheirWay.get(page);
  if (known) return known;
  const requests = new Set<HTTPRequest>();
  onTheirWay.set(page, requests);
  page.on('request', (request) => {
    if (request.isNavigationRequest() && request.frame() === page.mainFrame()) requests.clear();
    if (request.resourceType() !== 'eventsource') requests.add(request);
  });
  page.on('requestfinished', (request) => requests.delete(request));
  page.on('requestfailed', (request) => requests.delete(request));
  return requests;
}

/** Waits until nothing has been on its way from the server for a while; gives up on what hangs. */
async function quiet(page: Page): Promise<void> {
  const requests = asked(page);
  const end = Date.now() + 5000;
  for (let since = Date.now(); Date.now() - since < 100 && Date.now() < end;) {
    if (requests.size > 0) {
      since = Date.now();
      await forgetGone(page, requests);
    }
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
}

/** Nothing is heard any more of a picture whose element went while it was on its way: it is not waited for. */
async function forgetGone(page: Page, requests: Set<HTTPRequest>): Promise<void> {
  const pictures = [...requests].filter((request) => request.resourceType() === 'image');
  if (pictures.length === 0) return;
  const coming = await page.evaluate(() =>
    [...document.images].flatMap(({ complete, src }) => (complete ? [] : [src])),
  );
  for (const one of pictures) if (!coming.includes(one.url())) requests.delete(one);
}

/** Frames without a change after which a view counts as still. */
const STILL_FRAMES = 8;

/**
 * Waits until a view rests: nothing asked of the server is on its way (but for the stream of events), no animation
 * runs, every picture has come, and its document has not changed for some frames.
 */
export async function still(page: Page): Promise<void> {
  await quiet(page);
  await page.evaluate(
    (enough) =>
      new Promise<void>((resolve) => {
        let quiet = 0;
        const watch = new MutationObserver(() => (quiet = 0));
        const what = { subtree: true, childList: true, attributes: true, characterData: true };
        watch.observe(document, what);
        const frame = (): void => {
          const moving = document
            .getAnimations()
            .some(
              ({ playState, effect }) =>
                playState === 'running' && effect?.getTiming().iterations !== Infinity,
            );
          const loading = [...document.images].some(
            ({ complete, loading }) => !complete && loading !== 'lazy',
          );
          quiet = moving || loading ? 0 : quiet + 1;
          if (quiet < enough) requestAnimationFrame(frame);
          else {
            watch.disconnect();
            resolve();
          }
        };
        requestAnimationFrame(frame);
      }),
    STILL_FRAMES,
  );
}

/** The first visible element with an accessible name or text, of a role's usual tags. */
export async function named(
  page: Page,
  name: string,
  tags = 'button,a,input,select,textarea,[role]',
): Promise<ElementHandle<HTMLElement>> {
  const handle = await page.waitForFunction(
    (wanted, selector) => {
      const label = (element: Element): string =>
        element.getAttribute('aria-label') ||
        (element.id ? document.querySelector(`label[for="${element.id}"] span`)?.textContent : '') ||
        element.textContent ||
        '';
      return [...document.querySelectorAll<HTMLElement>(selector)].find((element) => {
        const box = element.getBoundingClientRect();
        return (
          [wanted, wanted + ':'].some((text, index) => {
            const held = label(element).replace(/\s+/g, ' ').trim();
            return index === 0 ? held === text : held.startsWith(text);
          }) &&
          box.width > 0 &&
          box.height > 0
        );
      });
    },
    { timeout: 25_000 },
    name,
    tags,
  );
  return handle as unknown as ElementHandle<HTMLElement>;
}

/** Presses what is named so. */
export async function press(page: Page, name: string, tags?: string): Promise<void> {
  await (await named(page, name, tags)).click();
}

/** Types into the field named so, over what is there, and confirms with Enter; a number of a dialog by going on, since Enter there does what the dialog is for. */
export async function enter(page: Page, name: string, text: string): Promise<void> {
  const field = await named(page, name, 'input,textarea');
  await field.focus();
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await page.keyboard.type(text);
  const goesOn = await field.evaluate((one) => one.inputMode === 'decimal' && one.closest('dialog') !== null);
  await page.keyboard.press(goesOn ? 'Tab' : 'Enter');
}

/** What the field named so shows. */
export async function shown(page: Page, name: string): Promise<string> {
  return (await named(page, name, 'input')).evaluate((field) => (field as HTMLInputElement).value);
}

/** Drags from one point of the window to another in a few moves. */
export async function drag(page: Page, from: [number, number], to: [number, number]): Promise<void> {
  await page.mouse.move(...from);
  await page.mouse.down();
  await page.mouse.move((from[0] + to[0]) / 2, (from[1] + to[1]) / 2, { steps: 3 });
  await page.mouse.move(...to, { steps: 3 });
  await page.evaluate(
    () => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))),
  );
  await page.mouse.up();
}

/** The middle of an element on the window. */
export async function middle(page: Page, selector: string): Promise<[number, number]> {
  const element = await page.waitForSelector(selector);
  const box = await element?.boundingBox();
  if (!box) throw new Error(`${selector} is not to be seen`);
  return [box.x + box.width / 2, box.y + box.height / 2];
}

/** The path of the first whole file in a folder of downloads whose name fits. */
export const downloaded = (folder: string, fits: (name: string) => boolean): Promise<string> =>
  vi.waitFor(
    () => {
      const names = readdirSync(folder);
      const path = join(folder, names.find(fits) ?? '');
      // The browser holds the name with an empty file while the bytes come into another one.
      if (path === folder || statSync(path).size === 0 || names.some((name) => name.endsWith('.crdownload')))
        throw new Error('The file has not come down.');
      return path;
    },
    { timeout: 20_000, interval: 50 },
  );

/** Waits until the view says that all is saved; where it does not, tells what it says. */
export async function saved(page: Page): Promise<void> {
  // What was just done shows with the next frame, where frames come.
  await page.evaluate(
    () =>
      new Promise<void>((shown) => {
        requestAnimationFrame(() => shown());
        setTimeout(shown, 500);
      }),
  );
  await until(async () => {
    const said = await page.$$eval('[role="status"]', (notes) => notes.map((note) => note.textContent ?? ''));
    expect(said.join(' | ')).toMatch(/(^|\| )(Saved|Draft saved)($| \|)/);
  });
}

/** A screenshot as pixels. */
export async function pixelsOf(
  page: Page,
  clip?: { x: number; y: number; width: number; height: number },
): Promise<PNG> {
  const bytes = await page.screenshot({ ...(clip ? { clip } : {}) });
  return PNG.sync.read(Buffer.from(bytes));
}

/** The colour of one pixel as [r, g, b]. */
export function pixelAt(picture: { width: number; data: Uint8Array }, x: number, y: number): number[] {
  const from = (Math.floor(y) * picture.width + Math.floor(x)) * 4;
  return [...picture.data.subarray(from, from + 3)];
}
