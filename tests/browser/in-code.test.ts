import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { PNG } from 'pngjs';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import type { Repeat } from '../../src/lib/core/lattice/repeat';
import { rotation } from '../../src/lib/core/geom/affine';
import { freshFill } from '../../src/lib/core/recipe/fill';
import { freshShape } from '../../src/lib/core/recipe/layout';
import type { ComposedRecipe } from '../../src/lib/core/recipe/recipe';
import { slug } from '../../src/lib/core/recipe/library';
import { exportPng, layoutWith, must, publishedPattern, unique } from '../support/api';
import { openBrowser, press, visit, type Session } from '../support/browser';
import { othersInside } from '../support/inside';
import { block, dot, place, recipe } from '../support/recipes';
import { until } from '../support/until';

const SIZE = { width: 400, height: 240 };
let session: Session;
let page: Session['page'];
/** Pages of somebody else's, at an address of their own. */
let site: Server;
let body = '';
beforeAll(async () => {
  session = await openBrowser();
  ({ page } = session);
  site = createServer((_request, response) => {
    response.setHeader('content-type', 'text/html; charset=utf-8');
    response.end(`<!doctype html><body style="margin: 0">${body}</body>`);
  }).listen(0, '127.0.0.1');
});
afterAll(async () => {
  site.close();
  await session.close();
});

const files = (id: string, number: number | 'newest' = 'newest'): string =>
  `${inject('address')}/api/v1/patterns/${id}/revisions/${number}`;
const ask = (address: string, headers: Record<string, string> = {}): Promise<Response> =>
  fetch(address, { headers });

/** A page of another site with these words in it, as it is seen. */
async function seenWith(html: string, pixels = 1): Promise<PNG> {
  body = html;
  await page.setViewport({ ...SIZE, deviceScaleFactor: pixels });
  await page.goto(`http://127.0.0.1:${(site.address() as AddressInfo).port}/`, { waitUntil: 'networkidle0' });
  return PNG.sync.read(Buffer.from(await page.screenshot()));
}
const slots = [
  { id: 'ink', name: 'Ink', colour: '#b02030' as const },
  { id: 'paper', name: 'Paper', colour: '#f4ecd8' as const },
];
const art = (over: Partial<ComposedRecipe>): ComposedRecipe =>
  recipe({
    ...{ unit: { width: 50, height: 40 }, slots, ground: { kind: 'slot', slot: 'paper' } },
    motifs: [block('b', 22, 10), dot('d', 14)],
    placings: [place('b', 18, 12), place('d', 38, 28)],
    ...over,
  });
const styled = (id: string, name: string, query = ''): string =>
  `<link rel="stylesheet" href="${files(id)}/pattern.css${query}"><div class="pattern-${slug(name)}" style="width: 400px; height: 240px"></div>`;

const REPEATS: Record<string, Repeat> = {
  straight: { kind: 'straight' } as Repeat,
  'a brick': { kind: 'brick', step: 0.5, run: 'alternating' },
  'a half-drop of thirds': { kind: 'half-drop', step: 1 / 3, run: 'progressive' },
  'a plane group': { kind: 'group', group: 'p4', slant: 0 } as Repeat,
};

describe('a pattern in a page of somebody else’s', () => {
  it.each<[string, Partial<ComposedRecipe>, { scale?: number; rotation?: number }]>([
    ...Object.entries(REPEATS).map(([name, repeat]): [string, Partial<ComposedRecipe>, object] => [
      name,
      { repeat, ...(name === 'a plane group' ? { unit: { width: 50, height: 50 } } : {}) },
      {},
    ]),
    ['a unit of no whole px', { unit: { width: 47.3, height: 39.6 } }, {}],
    ['at another scale', { repeat: REPEATS['a brick']! }, { scale: 0.63 }],
    ['turned', { repeat: REPEATS['a brick']! }, { rotation: 31, scale: 1.2 }],
    ['a plane that lies turned', { lie: rotation(17) }, {}],
  ])(
    'repeats in a style sheet as it does on a layout, at one and two pixels to a px: %s',
    async (_what, over, lies) => {
      const name = unique('In code');
      const id = await publishedPattern(art(over), name);
      const { scale = 1, rotation: turn = 0 } = lies;
      const fill = { ...freshFill('f', id), scaleX: scale, scaleY: scale, rotation: turn };
      const layout = await layoutWith(
        [
          freshShape({
            ...{ id: 's', name: 'S', form: { kind: 'rectangle', radius: 0 }, x: 0, y: 0 },
            ...SIZE,
            fills: [fill],
          }),
        ],
        SIZE,
      );
      const query = new URLSearchParams(
        Object.entries(lies).map(([key, value]) => [key, String(value)]),
      ).toString();
      for (const pixels of [1, 2]) {
        const seen = await seenWith(styled(id, name, query === '' ? '' : `?${query}`), pixels);
        const right = PNG.sync.read(await exportPng(layout.id, 96 * pixels));
        const { share, inside } = othersInside(seen, right);
        expect(inside).toBeGreaterThan(20_000);
        expect(share, `${pixels} pixels to a px`).toBeLessThan(0.002);
      }
    },
  );

  it('follows a new revision at the newest address, and stays as it was at that of its revision', async () => {
    const name = unique('Followed');
    const id = await publishedPattern(art({}), name);
    const both = `${styled(id, name)}<img src="${files(id, 1)}/tile.svg" style="position: absolute; left: 0; top: 0">`;
    const before = await seenWith(both);
    const at = ({ width, data }: PNG, x: number, y: number): number[] => [
      ...data.subarray((y * width + x) * 4, (y * width + x) * 4 + 3),
    ];
    expect([at(before, 18, 12), at(before, 118, 12)]).toEqual([
      [176, 32, 48],
      [176, 32, 48],
    ]);
    const { version } = await must<{ version: number }>('GET', `/patterns/${id}`);
    const green = [{ ...slots[0]!, colour: '#208040' as const }, slots[1]!];
    await must('PUT', `/patterns/${id}/draft`, { base: version, recipe: art({ slots: green }) });
    // A draft is not seen by anybody.
    expect(at(await seenWith(both), 118, 12)).toEqual([176, 32, 48]);
    await must('POST', `/patterns/${id}/revisions`, { base: version + 1 });
    const after = await seenWith(both);
    expect([at(after, 18, 12), at(after, 118, 12)]).toEqual([
      [176, 32, 48],
      [32, 128, 64],
    ]);
    const [json, old] = await Promise.all(
      (['newest', 1] as const).map(
        async (number) =>
          (await (await ask(`${files(id, number)}/pattern.json`)).json()) as {
            revision: number;
            colours: unknown;
          },
      ),
    );
    expect([json!.revision, old!.revision]).toEqual([2, 1]);
    expect(json!.colours).toEqual([
      { name: 'Ink', id: 'ink', hex: '#208040' },
      { name: 'Paper', id: 'paper', hex: '#f4ecd8' },
    ]);
  });

  it('is sent once: what is known is confirmed, a revision is kept for a year, other colours are another file', async () => {
    const id = await publishedPattern(art({}), unique('Kept'));
    for (const file of ['tile.svg', 'tile.png', 'fill.svg', 'pattern.css', 'pattern.json', 'tokens.json']) {
      const first = await ask(`${files(id)}/${file}`);
      expect([first.status, first.headers.get('access-control-allow-origin')]).toEqual([200, '*']);
      const tag = first.headers.get('etag')!;
      const second = await ask(`${files(id)}/${file}`, { 'if-none-match': tag });
      expect([second.status, (await second.arrayBuffer()).byteLength]).toEqual([304, 0]);
      const weak = await ask(`${files(id)}/${file}`, { 'if-none-match': `"other", W/${tag}` });
      expect(weak.status).toBe(304);
      const other = await ask(`${files(id)}/${file}?colours=Ink:102030`, { 'if-none-match': tag });
      expect([other.status, other.headers.get('etag') === tag]).toEqual([200, false]);
    }
    const revision = await ask(`${files(id, 1)}/tile.svg`);
    expect(revision.headers.get('cache-control')).toContain('immutable');
    expect((await ask(`${files(id)}/tile.svg`)).headers.get('cache-control')).toBe('public, no-cache');
    const png = PNG.sync.read(
      Buffer.from(await (await ask(`${files(id)}/tile.png?scale=2&colours=Ink:102030`)).arrayBuffer()),
    );
    expect([
      png.width,
      png.height,
      ...png.data.subarray((24 * 100 + 36) * 4, (24 * 100 + 36) * 4 + 3),
    ]).toEqual([100, 80, 16, 32, 48]);
  });

  it('says what is wrong with an address, and what there is', async () => {
    const name = unique('Asked');
    const id = await publishedPattern(art({}), name);
    const draft = await must<{ id: string }>('POST', '/patterns', { name: unique('Draft'), recipe: art({}) });
    const said = async (address: string): Promise<[number, string]> => {
      const answer = await ask(address);
      return [answer.status, ((await answer.json()) as { message: string }).message];
    };
    expect(await said(`${files(id)}/tile.gif`)).toEqual([
      404,
      expect.stringContaining('there are tile.svg') as string,
    ]);
    expect(await said(`${files(id, 7)}/tile.svg`)).toEqual([404, expect.any(String) as string]);
    expect(await said(`${files(draft.id)}/tile.svg`)).toEqual([
      404,
      expect.stringContaining('not published yet') as string,
    ]);
    expect(await said(`${files(id)}/tile.svg?colours=Rust:ff0000`)).toEqual([
      404,
      `“${name}” has no colour named “Rust”; it has “Ink”, “Paper”.`,
    ]);
    expect(await said(`${files(id)}/tile.svg?colours=red`)).toEqual([
      400,
      expect.stringContaining('write it like “Ink:b02030”') as string,
    ]);
    expect((await said(`${files(id)}/tile.png?scale=5000`))[0]).toBe(400);
  });

  it('is written for one to copy, and looks there as it will', async () => {
    const id = await publishedPattern(art({}), unique('Copied'));
    await page.setViewport({ width: 1280, height: 800 });
    await visit(page, `/library/${id}?tab=code`);
    const code = (): Promise<string> => page.$eval('pre', (one) => one.textContent ?? '');
    expect(await code()).toContain(`${files(id)}/pattern.css`);
    const frame = await (await page.$('iframe'))!.contentFrame();
    await until(async () =>
      expect(
        await frame.evaluate(() => getComputedStyle(document.querySelector('div')!).backgroundImage),
      ).toContain('/tile.svg'),
    );
    await page.select('select[aria-label="Revision"]', '1');
    await until(async () => expect(await code()).toContain(`${files(id, 1)}/pattern.css`));
    // A headless browser has no clipboard: what comes to it is kept.
    await page.evaluate(() => {
      navigator.clipboard.writeText = (text) => {
        (window as unknown as { copied: string }).copied = text;
        return Promise.resolve();
      };
    });
    await press(page, 'Copy the code');
    expect(await page.evaluate(() => (window as unknown as { copied: string }).copied)).toBe(await code());
  });
});
