import { unzipSync } from 'fflate';
import { PNG } from 'pngjs';
import sharp from 'sharp';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LayoutData, MockupData, SheetData } from '../../src/lib/contract/data';
import type { Hex } from '../../src/lib/core/colour/parse';
import { aroundOf, projector, standingAt } from '../../src/lib/core/mockup/camera';
import { freshMockup, freshStanding, type Mockup } from '../../src/lib/core/mockup/mockup';
import { cutSheet } from '../../src/lib/core/mockup/objects';
import { freshSheet } from '../../src/lib/core/sheet/client-sheet';
import { fromPx, toPx } from '../../src/lib/core/num/length';
import { colourFill, freshFill } from '../../src/lib/core/recipe/fill';
import { freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import { api, exportPng, getLayout, must, publishedPattern, unique } from '../support/api';
import {
  drag,
  enter,
  named,
  openBrowser,
  press,
  saved,
  still,
  visit,
  type Session,
} from '../support/browser';
import { othersInside } from '../support/inside';
import { drawnBy, factsOf, faultsOf } from '../support/pdf-readers';
import { across, blue, green, red, shareOf, type IsColour } from '../support/on-object';
import { block, dot, place, recipe } from '../support/recipes';
import { until } from '../support/until';

let session: Session;
let page: Session['page'];
let project: { id: string };
const folder = mkdtempSync(join(tmpdir(), 'isle-mockups-'));
beforeAll(async () => {
  session = await openBrowser(1040, 680);
  ({ page } = session);
  project = await must('POST', '/projects', { name: unique('Mock-ups') });
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await session.close();
});

/** An id that no other shape or fill has. */
const ownId = (stem: string): string => unique(stem).replaceAll(' ', '');
const idHere = (): string => new URL(page.url()).pathname.split('/').at(-1)!;
const mockupHere = (): Promise<MockupData> => must('GET', `/mock-ups/${idHere()}`);
const layoutOf = async (body: Mockup, at: number): Promise<LayoutData> =>
  (await getLayout(body.objects[at]!.layout!)).layout;

/** One colour all over, from a unit of so many mm. */
const plain = (colour: Hex, name: string, mm = 20): Promise<string> =>
  publishedPattern(
    recipe({
      unit: { width: toPx(mm, 'mm'), height: toPx(mm, 'mm') },
      slots: [{ id: 'ink', name: 'Ink', colour }],
      motifs: [block('art', toPx(mm, 'mm') * 1.5, toPx(mm, 'mm') * 1.5)],
      placings: [place('art', toPx(mm, 'mm') / 2, toPx(mm, 'mm') / 2, { id: 'p' })],
    }),
    name,
  );
/** A layout with its shapes, made in one step. */
async function makeLayout(
  of: string,
  page_: { width: number; height: number; shapes: Shape[] },
): Promise<string> {
  const made = await must<{ id: string }>('POST', `/projects/${of}/layouts`, {
    ...{ name: unique('Layout'), measure: 'mm' },
    ...page_,
  });
  return made.id;
}
/** Presses a hanger; the list lays out what comes into sight, so that a place of the window is none. */
const hang = async (name: string): Promise<void> => {
  const hanger = await page.waitForSelector(`button[title="Fill what is selected with ${name}"]`);
  await hanger!.evaluate((one) => (one as HTMLElement).click());
};
/** The canvas as it is seen, once it is drawn with what is on it. */
async function picture(): Promise<PNG> {
  const canvas = await page.waitForSelector('canvas[data-drawn]');
  await still(page);
  return PNG.sync.read(Buffer.from(await canvas!.screenshot()));
}
const untilSeen = (is: IsColour, least: number): Promise<void> =>
  until(async () => expect(shareOf(await picture(), is)).toBeGreaterThan(least));

/** Where a place of an object's sheet (mm) is on the window. */
async function onWindow(
  body: Mockup,
  at: number,
  sheet: { x: number; y: number },
): Promise<[number, number]> {
  const one = body.objects[at]!;
  const cut = cutSheet(one.object);
  const panel = cut.ok ? cut.sheet.panels.find((part) => part.at !== null)! : null;
  const box = (await (await page.$('canvas[data-drawn]'))!.boundingBox())!;
  const seen = projector(body.camera, aroundOf(body.objects), box)(standingAt(panel!.at!(sheet), one));
  return [box.x + seen.x, box.y + seen.y];
}

/** Presses what hands a file out, and answers its bytes. */
async function handedOut(pressing: () => Promise<void>): Promise<Buffer> {
  await page.evaluate(() => {
    const own = URL.createObjectURL.bind(URL);
    delete (window as unknown as { kept?: Blob }).kept;
    URL.createObjectURL = (blob: Blob) => {
      (window as unknown as { kept: Blob }).kept = blob;
      return own(blob);
    };
  });
  await pressing();
  await page.waitForFunction(() => 'kept' in window, { timeout: 60_000 });
  const text = await page.evaluate(async () => {
    const bytes = new Uint8Array(await (window as unknown as { kept: Blob }).kept.arrayBuffer());
    let binary = '';
    for (let at = 0; at < bytes.length; at += 8192)
      binary += String.fromCharCode(...bytes.subarray(at, at + 8192));
    return btoa(binary);
  });
  return Buffer.from(text, 'base64');
}

/** Asks for a new mock-up under a name of its own. */
async function newMockup(): Promise<void> {
  await visit(page, `/projects/${project.id}`);
  await press(page, 'New mock-up');
  const field = await named(page, 'Name', 'dialog input');
  await field.click({ count: 3 });
  await field.type(unique('Set'));
}
async function add(label: string): Promise<void> {
  await press(page, 'Put an object there');
  await press(page, label);
}

describe('a mock-up', () => {
  it('has a cup and a bag with two patterns and a logo, which is moved there and recoloured by hex and off the object', async () => {
    const [warm, cool] = [unique('Warm'), unique('Cool')];
    const warmId = await plain('#c02020', warm, 17);
    await plain('#2038c0', cool);
    await newMockup();
    // In its name Enter does what its main button says.
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => location.pathname.includes('/mock-ups/'));
    await add('Paper cup, art with the cone');
    await hang(warm);
    await untilSeen(red, 0.05);
    // How many whole repeats go round, what that costs, and where the joint lies.
    const side = (): Promise<string> =>
      page.$eval('aside[aria-label="Objects"]', (one) => one.textContent ?? '');
    await page.waitForFunction(() => document.body.textContent?.includes('the joint lies at the back, 180°'));
    expect(await side()).toMatch(/Closes with\s+13 repeats\s+round: scale 100 → 96.66 %/);
    await press(page, 'Take it');
    await page.waitForFunction(() => document.body.textContent?.includes('Closes with 13 repeats round.'));
    await saved(page);
    const cupLayout = await layoutOf((await mockupHere()).body, 0);
    const fill = cupLayout.shapes[0]!.fills[0]!;
    // π · (80 + 56) ∕ 2 mm round, 13 repeats of 17 mm.
    expect(fill.kind === 'pattern' && fill.scaleX).toBeCloseTo((Math.PI * 68) / (13 * 17), 6);

    await add('Paper bag with gussets');
    await hang(cool);
    await untilSeen(blue, 0.05);
    await saved(page);
    let { body } = await mockupHere();
    expect(body.objects.map(({ object }) => object.kind)).toEqual(['cone', 'bag']);

    // A logo on the front of the cup: a shape of its layout, put there elsewhere, is seen here.
    const middle = { x: fromPx(cupLayout.width, 'mm') / 2, y: fromPx(cupLayout.height, 'mm') / 2 };
    const logo: Shape = {
      ...freshShape({
        ...{ id: 'logo', name: 'Logo', form: { kind: 'ellipse' } },
        ...{ x: toPx(middle.x - 16, 'mm'), y: toPx(middle.y - 16, 'mm') },
        ...{ width: toPx(32, 'mm'), height: toPx(32, 'mm') },
      }),
      fills: [colourFill('logofill', { colour: '#f4f0e0' })],
    };
    const { layout: now } = await getLayout(cupLayout.id);
    await must('POST', `/layouts/${now.id}/changes`, {
      base: now.version,
      changes: [{ do: 'put-shape', shape: logo }],
    });
    await press(page, 'Front');
    await press(page, 'Paper cup, art with the cone', 'aside button');
    await page.waitForFunction(() =>
      [...document.querySelectorAll('.parts button')].some((one) => one.textContent === 'Logo'),
    );
    await still(page);
    ({ body } = await mockupHere());
    body = { ...body, camera: { turn: 0, raised: 12, zoom: 1, x: 0, y: 0 } };
    await page.mouse.click(...(await onWindow(body, 0, middle)));
    await page.waitForFunction(() => /Logo\s+is\s+filled with/.test(document.body.textContent ?? ''));
    // By hex …
    await press(page, 'Colour of the shape');
    await enter(page, 'Colour of the shape as hex or CSS colour', '#20a040');
    await untilSeen(green, 0.001);
    // … and off the bag: its own colour, without light and shade.
    const dropper = 'Colour of the shape: take it off the stage';
    if (!(await page.$(`[aria-label="${dropper}"]`))) await press(page, 'Colour of the shape');
    await press(page, dropper);
    const bag = cutSheet(body.objects[1]!.object);
    const front = bag.ok ? bag.sheet.panels.find(({ name }) => name === 'Front')!.box! : null;
    const bagAt = front!;
    const seen = projector(
      body.camera,
      aroundOf(body.objects),
      (await (await page.$('canvas[data-drawn]'))!.boundingBox())!,
    );
    const box = (await (await page.$('canvas[data-drawn]'))!.boundingBox())!;
    const panel = bag.ok ? bag.sheet.panels.find(({ name }) => name === 'Front')! : null;
    const place3 = panel!.at!({ x: bagAt.x + bagAt.width / 2, y: bagAt.y + bagAt.height / 2 });
    const onBag = seen(standingAt(place3, body.objects[1]!));
    await page.mouse.click(box.x + onBag.x, box.y + onBag.y);
    await until(async () => {
      const { shapes } = (await getLayout(cupLayout.id)).layout;
      const { fills } = shapes.find(({ id }) => id === 'logo')!;
      expect(fills[0]).toMatchObject({ kind: 'colour', colour: '#2038c0' });
    });
    // Carried with the pointer over the object; undone as one step.
    const before = (await getLayout(cupLayout.id)).layout.shapes.find(({ id }) => id === 'logo')!;
    const there = await onWindow(body, 0, middle);
    await drag(page, there, [there[0] + 14, there[1] - 10]);
    await until(async () => {
      const after = (await getLayout(cupLayout.id)).layout.shapes.find(({ id }) => id === 'logo')!;
      expect(after.x).toBeGreaterThan(before.x + 5);
      expect(after.y).toBeLessThan(before.y - 3);
    });
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await until(async () => {
      const after = (await getLayout(cupLayout.id)).layout.shapes.find(({ id }) => id === 'logo')!;
      expect([after.x, after.y]).toEqual([before.x, before.y]);
    });

    // The pattern is published anew with another colour: the cup follows.
    const pattern = await must<{ version: number; recipe: { slots: object[] } }>(
      'GET',
      `/patterns/${warmId}`,
    );
    const slots = [{ id: 'ink', name: 'Ink', colour: '#20a040' }];
    const draft = await must<{ version: number }>('PUT', `/patterns/${warmId}/draft`, {
      base: pattern.version,
      recipe: { ...pattern.recipe, slots },
    });
    await must('POST', `/patterns/${warmId}/revisions`, { base: draft.version });
    await untilSeen(green, 0.005);
    await visit(page, new URL(page.url()).pathname);
    await untilSeen(green, 0.005);
    expect(session.faults).toEqual([]);
  });

  it('stands three colourways on three cups beside each other, and is saved as a picture of any size', async () => {
    const name = unique('Ways');
    const id = await plain('#c02020', name);
    const { version } = await must<{ version: number }>('GET', `/patterns/${id}`);
    const way = (title: string, colour: Hex): object => ({
      ...{ id: unique('w').replaceAll(' ', ''), name: title },
      colours: { ink: { colour } },
    });
    await must('PUT', `/patterns/${id}/colourways`, {
      base: version,
      colourways: [way('Deep', '#2038c0'), way('Grass', '#20a040')],
    });
    await newMockup();
    await press(page, 'Objects that stand there');
    await page.waitForFunction(() => location.pathname.includes('/mock-ups/'));
    await add('Paper cup');
    await hang(name);
    await untilSeen(red, 0.05);
    await press(page, 'Side by side in colourways');
    for (const one of ['as in the layout', 'Deep', 'Grass'])
      await page.evaluate((label) => {
        const row = [...document.querySelectorAll('.ways label')].find(
          (it) => it.textContent?.trim() === label,
        );
        row?.querySelector('input')?.click();
      }, one);
    await press(page, 'Stand 3 side by side');
    await untilSeen(green, 0.01);
    const seen = await picture();
    for (const is of [red, blue, green]) expect(shareOf(seen, is)).toBeGreaterThan(0.01);
    await saved(page);
    const { body } = await mockupHere();
    expect(new Set(body.objects.map(({ layout }) => layout)).size).toBe(1);
    expect(body.objects.map(({ colourway }) => colourway !== null)).toEqual([false, true, true]);

    await press(page, 'Picture');
    await enter(page, 'Width of the picture', '640');
    await enter(page, 'Height of the picture', '420');
    await page.evaluate(() => {
      const row = [...document.querySelectorAll('dialog label')].find((one) =>
        one.textContent?.includes('Clear ground'),
      );
      row?.querySelector('input')?.click();
    });
    const bytes = await handedOut(() => press(page, 'Save', 'dialog button'));
    const file = PNG.sync.read(bytes);
    expect([file.width, file.height, file.data[3]]).toEqual([640, 420, 0]);
    for (const is of [red, blue, green]) expect(shareOf(file, is)).toBeGreaterThan(0.01);
  });

  it('shows a poster front-on, unlit, as its layout is exported, and a mid grey as that grey', async () => {
    const dots = await publishedPattern(
      recipe({
        unit: { width: 60, height: 60 },
        slots: [{ id: 'ink', name: 'Ink', colour: '#b01818' }],
        motifs: [dot('art', 40)],
        placings: [place('art', 30, 30)],
      }),
      unique('Dots'),
    );
    const [width, height] = [toPx(200, 'mm'), toPx(150, 'mm')];
    const shapes = [
      freshShape({
        ...{ id: 'all', name: 'All', form: { kind: 'rectangle', radius: 0 }, x: 0, y: 0, width, height },
        fills: [colourFill('grey', { colour: '#808080' }), freshFill('dots', dots)],
      }),
    ];
    const layout = await makeLayout(project.id, { width, height, shapes });
    const poster = { ...freshStanding('p', 'poster'), layout };
    const body: Mockup = {
      ...freshMockup([
        { ...poster, object: { kind: 'poster', numbers: { width: 200, height: 150, frame: 10 } } },
      ]),
      camera: { turn: 0, raised: 0, zoom: 1, x: 0, y: 0 },
      light: 'flat',
    };
    const made = await must<{ id: string }>('POST', `/projects/${project.id}/mock-ups`, {
      ...{ name: unique('Flat'), body },
    });
    await visit(page, `/projects/${project.id}/mock-ups/${made.id}`);
    await page.waitForSelector('canvas[data-drawn]');
    await press(page, 'Picture');
    await enter(page, 'Width of the picture', '1200');
    await enter(page, 'Height of the picture', '900');
    const seen = PNG.sync.read(await handedOut(() => press(page, 'Save', 'dialog button')));
    const at = projector(body.camera, aroundOf(body.objects), { width: 1200, height: 900 });
    const [from, to] = [at({ x: -100, y: 160, z: 0 }), at({ x: 100, y: 10, z: 0 })];
    // True to size: 200 mm and 150 mm by one scale.
    const scale = (to.x - from.x) / 200;
    expect((to.y - from.y) / 150 / scale).toBeCloseTo(1, 3);
    const exported = await sharp(await exportPng(layout, 300))
      .resize(Math.round(to.x - from.x), Math.round(to.y - from.y), { fit: 'fill', kernel: 'lanczos3' })
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    let [edges, count, worst] = [0, 0, 0];
    const { width: wide, height: high } = exported.info;
    for (let y = 4; y < high - 4; y += 1)
      for (let x = 4; x < wide - 4; x += 1) {
        const [own, other] = [
          ((Math.round(from.y) + y) * 1200 + Math.round(from.x) + x) * 4,
          (y * wide + x) * 3,
        ];
        const off = Math.max(
          ...[0, 1, 2].map((one) => Math.abs(seen.data[own + one]! - exported.data[other + one]!)),
        );
        count += 1;
        if (off > 40) edges += 1;
        else worst = Math.max(worst, off);
      }
    // Only where dots and ground meet are they others, by less than a px.
    expect(count).toBeGreaterThan(200_000);
    expect(edges / count).toBeLessThan(0.02);
    // The grey between the dots: #808080, none other.
    const grey = ((Math.round(from.y) + 8) * 1200 + Math.round(from.x) + 8) * 4;
    expect([...seen.data.subarray(grey, grey + 3)].every((one) => Math.abs(one - 128) <= 1)).toBe(true);
  });

  it('has no line where a closed pattern meets itself, at fifty scales', async () => {
    const unit = 17;
    const object = { kind: 'cone' as const, numbers: { top: 80, bottom: 56, height: 94 } };
    const cut = cutSheet(object);
    const size = cut.ok ? cut.sheet : { width: 1, height: 1 };
    const frame = { x: 0, y: 0, width: toPx(size.width, 'mm'), height: toPx(size.height, 'mm') };
    const pattern = await plain('#c02020', unique('Closed'), unit);
    const [wallId, fillId] = [ownId('wall'), ownId('fill')];
    const wall = (scale: number, colour: Hex): Shape => ({
      ...freshShape({ ...{ id: wallId, name: 'Wall', form: { kind: 'rectangle', radius: 0 } }, ...frame }),
      fills: [{ ...freshFill(fillId, pattern), scaleX: scale, scaleY: scale, colours: { ink: { colour } } }],
    });
    const { width: wide, height: high } = frame;
    const layout = await makeLayout(project.id, { width: wide, height: high, shapes: [wall(1, '#c02020')] });
    const made = await must<{ id: string }>('POST', `/projects/${project.id}/mock-ups`, {
      name: unique('Closed'),
      body: {
        ...freshMockup([{ ...freshStanding('a', 'cone'), object, layout }]),
        light: 'flat',
        camera: { turn: 180, raised: 4, zoom: 1, x: 0, y: 0 },
      },
    });
    await visit(page, `/projects/${project.id}/mock-ups/${made.id}`);
    let { version } = (await getLayout(layout)).layout;
    for (let count = 3; count < 53; count += 1) {
      const [colour, is] = count % 2 === 0 ? (['#c02020', red] as const) : (['#2038c0', blue] as const);
      ({ version } = await must<{ version: number }>('POST', `/layouts/${layout}/changes`, {
        base: version,
        changes: [{ do: 'put-shape', shape: wall(size.width / (count * unit), colour) }],
      }));
      let lines = -1;
      await until(async () => {
        const canvas = await page.$('canvas[data-drawn]');
        const seen = PNG.sync.read(Buffer.from(await canvas!.screenshot()));
        lines = 0;
        for (const share of [0.45, 0.55, 0.65]) {
          const isOne = across(seen, share).map((one) => is(...one));
          const [from, to] = [isOne.indexOf(true), isOne.lastIndexOf(true)];
          expect(isOne.filter(Boolean).length).toBeGreaterThan(100);
          lines += isOne.slice(from + 3, to - 3).filter((one) => !one).length;
        }
      });
      expect([count, lines]).toEqual([count, 0]);
    }
  });

  it('says so where nothing can be drawn in space, shows what was seen last, and comes back where graphics were taken away', async () => {
    const pattern = await plain('#c02020', unique('Kept red'));
    const cut = cutSheet({ kind: 'label', numbers: {} });
    const { width, height } = cut.ok ? cut.sheet : { width: 1, height: 1 };
    const layout = await makeLayout(project.id, {
      ...{ width: toPx(width, 'mm'), height: toPx(height, 'mm') },
      shapes: [
        freshShape({
          ...{ id: ownId('s'), name: 'S', form: { kind: 'rectangle', radius: 0 }, x: 0, y: 0 },
          ...{
            width: toPx(width, 'mm'),
            height: toPx(height, 'mm'),
            fills: [freshFill(ownId('f'), pattern)],
          },
        }),
      ],
    });
    const made = await must<{ id: string }>('POST', `/projects/${project.id}/mock-ups`, {
      name: unique('Kept'),
      body: freshMockup([{ ...freshStanding('a', 'label'), layout }]),
    });
    const path = `/projects/${project.id}/mock-ups/${made.id}`;
    await visit(page, path);
    await untilSeen(red, 0.02);
    // Its picture is kept by itself, once it is drawn finely.
    await until(
      async () => expect((await must<MockupData>('GET', `/mock-ups/${made.id}`)).stillAt).not.toBeNull(),
      90_000,
    );
    // A driver that is started again takes the graphics of all pages.
    const lose = (back: boolean): Promise<void> =>
      page.evaluate((restore) => {
        const canvas = document.querySelector<HTMLCanvasElement>('canvas[data-drawn]')!;
        const held = window as unknown as { taken?: { loseContext(): void; restoreContext(): void } };
        held.taken ??= canvas.getContext('webgl2')!.getExtension('WEBGL_lose_context')!;
        if (restore) held.taken.restoreContext();
        else held.taken.loseContext();
      }, back);
    await lose(false);
    await page.waitForFunction(() => document.body.textContent?.includes('taken away for a moment'));
    await lose(true);
    await page.waitForFunction(() => !document.body.textContent?.includes('taken away for a moment'));
    await untilSeen(red, 0.02);

    const bare = await openBrowser();
    try {
      await bare.page.evaluateOnNewDocument(() => {
        const own = HTMLCanvasElement.prototype.getContext as (...all: unknown[]) => unknown;
        HTMLCanvasElement.prototype.getContext = function (
          this: HTMLCanvasElement,
          kind: string,
          ...rest: unknown[]
        ) {
          return kind.startsWith('webgl') ? null : own.call(this, kind, ...rest);
        } as typeof HTMLCanvasElement.prototype.getContext;
      });
      await visit(bare.page, path);
      await bare.page.waitForFunction(() => document.body.textContent?.includes('WebGL 2 is missing'));
      const image = await bare.page.waitForSelector('.space img');
      await bare.page.waitForFunction(
        () => document.querySelector<HTMLImageElement>('.space img')!.naturalWidth > 0,
      );
      const seen = PNG.sync.read(Buffer.from(await image!.screenshot()));
      expect(shareOf(seen, red)).toBeGreaterThan(0.02);
      // All else works: the layout that it shows, what it stands on.
      expect(await bare.page.$eval('aside[aria-label="Objects"]', (one) => one.textContent)).toContain(
        'Open the layout',
      );
    } finally {
      await bare.close();
    }
  });

  // Fails where whatever changes in a mock-up has its scene drawn anew: the view that was kept became coarse for a second.
  it('keeps where one looks from under a name, draws nothing anew for it, and goes back there', async () => {
    const made = await must<{ id: string }>('POST', `/projects/${project.id}/mock-ups`, {
      ...{ name: unique('Views'), body: freshMockup([freshStanding('a', 'mug')]) },
    });
    await visit(page, `/projects/${project.id}/mock-ups/${made.id}`);
    await page.waitForSelector('canvas[data-drawn]');
    await enter(page, 'Turned by', '120');
    await saved(page);
    await page.evaluate(() => {
      const held = window as unknown as { draws: number };
      held.draws = 0;
      const own = WebGL2RenderingContext.prototype.drawElements;
      WebGL2RenderingContext.prototype.drawElements = function (...args) {
        held.draws += 1;
        return own.apply(this, args);
      };
    });
    const draws = (): Promise<number> => page.evaluate(() => (window as unknown as { draws: number }).draws);
    const atRest = (): Promise<void> =>
      until(async () => {
        const before = await draws();
        await new Promise((resolve) => setTimeout(resolve, 1500));
        expect(await draws()).toBe(before);
      });
    await atRest();
    const before = await draws();
    await press(page, 'Kept views');
    await press(page, 'Keep this view');
    await enter(page, 'The name of the view', 'From behind');
    await saved(page);
    await atRest();
    expect(await draws()).toBe(before);
    const { body } = await mockupHere();
    expect(body.views).toMatchObject([{ name: 'From behind', camera: { turn: 120 } }]);

    await page.keyboard.press('Escape');
    await press(page, 'Front');
    await page.waitForSelector('canvas[data-drawn="0 12"]');
    expect(await draws()).toBeGreaterThan(before);
    await press(page, 'Kept views');
    await press(page, 'Look');
    await page.waitForSelector(`canvas[data-drawn="120 ${body.camera.raised}"]`);
    await page.reload();
    await page.waitForSelector(`canvas[data-drawn="120 ${body.camera.raised}"]`);
    await press(page, 'Kept views');
    await press(page, 'Forget From behind');
    await saved(page);
    expect((await mockupHere()).body.views).toEqual([]);
  });

  it('is refused where it cannot be, and says so', async () => {
    const refusal = async (body: unknown): Promise<string> => {
      const { status, body: answer } = await api('POST', `/projects/${project.id}/mock-ups`, {
        ...{ name: unique('No'), body },
      });
      expect(status).toBe(400);
      return (answer as { message: string }).message;
    };
    const many = freshMockup(Array.from({ length: 13 }, (_, at) => freshStanding(`o${at}`, 'cup')));
    expect(await refusal(many)).toMatch(/12/);
    expect(
      await refusal({ ...freshMockup(), camera: { turn: 0, raised: 0, zoom: 900, x: 0, y: 0 } }),
    ).toMatch(/40/);
    expect(await refusal({ ...freshMockup(), kind: 'photo' })).toContain('has a photograph');
    const other = await must<{ id: string }>('POST', '/projects', { name: unique('Other') });
    const layout = await makeLayout(other.id, { width: 10, height: 10, shapes: [] });
    expect(await refusal(freshMockup([{ ...freshStanding('a', 'cup'), layout }]))).toContain(
      'not in this project',
    );
  });
});

describe('a mock-up on a photograph', () => {
  it('has a plane by four corners and a curved grid, light of the photograph, and is kept for other projects', async () => {
    const name = unique('Photo red');
    await plain('#c02020', name);
    // A blank sheet in the light: white at the left, half as light at the right.
    const [width, height] = [800, 600];
    const data = Buffer.alloc(width * height * 3);
    for (let y = 0; y < height; y += 1)
      for (let x = 0; x < width; x += 1)
        data.fill(230 - Math.round((110 * x) / width), (y * width + x) * 3, (y * width + x) * 3 + 3);
    const file = join(folder, 'blank.png');
    writeFileSync(
      file,
      await sharp(data, { raw: { width, height, channels: 3 } })
        .png()
        .toBuffer(),
    );
    await newMockup();
    const chooser = await page.waitForSelector('dialog input[type="file"]');
    await (chooser as ElementHandle<HTMLInputElement>).uploadFile(file);
    await page.waitForFunction(() => location.pathname.includes('/mock-ups/'));
    await hang(name);
    await untilSeen(red, 0.1);
    const seen = await picture();
    const at = (x: number, y: number): number =>
      seen.data[(Math.round(y * seen.height) * seen.width + Math.round(x * seen.width)) * 4]!;
    // The print is lit as the sheet is: darker to the right, by as much.
    expect(at(0.35, 0.5)).toBeGreaterThan(at(0.65, 0.5) * 1.2);

    // A corner is dragged; one that would cross the others is refused with a sentence.
    const handle = async (which: string): Promise<[number, number]> => {
      const box = (await (await named(page, which)).boundingBox())!;
      return [box.x + box.width / 2, box.y + box.height / 2];
    };
    const [x, y] = await handle('Handle 1, 1');
    await drag(page, [x, y], [x - 40, y - 30]);
    await saved(page);
    const moved = (await mockupHere()).body.objects[0]!.grid!;
    expect(moved.points[0]!.x).toBeLessThan(240);
    expect(moved.points[0]!.y).toBeLessThan(180);
    const corner = await handle('Handle 2, 1');
    await drag(page, corner, [corner[0] - 500, corner[1] + 300]);
    await page.waitForFunction(() => document.body.textContent?.includes('cross or dent inwards'));
    expect((await mockupHere()).body.objects[0]!.grid!.points[2]).toEqual(moved.points[2]);
    // By keys: one px, with Shift ten.
    await (await named(page, 'Handle 1, 1')).evaluate((one) => one.focus());
    await page.keyboard.press('ArrowRight');
    await saved(page);
    expect((await mockupHere()).body.objects[0]!.grid!.points[0]!.x).toBeCloseTo(moved.points[0]!.x + 1, 2);

    // Bent: more handles, one of them pulled down.
    await enter(page, 'Handles across', '4');
    await enter(page, 'Handles down', '3');
    await saved(page);
    const before = (await mockupHere()).body.objects[0]!.grid!;
    expect([before.columns, before.points.length]).toEqual([4, 12]);
    const middle = await handle('Handle 2, 3');
    await drag(page, middle, [middle[0], middle[1] + 40]);
    await saved(page);
    const bent = (await mockupHere()).body.objects[0]!.grid!;
    expect(bent.points[9]!.y).toBeGreaterThan(before.points[9]!.y + 30);
    await untilSeen(red, 0.1);

    // Something that lies in front is painted, and is taken back.
    const shareBefore = shareOf(await picture(), red);
    await press(page, 'in front');
    const box = (await (await page.$('canvas[data-drawn]'))!.boundingBox())!;
    const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
    await drag(page, [cx - 60, cy], [cx + 60, cy]);
    await until(async () => expect(shareOf(await picture(), red)).toBeLessThan(shareBefore * 0.98));
    await press(page, 'Take all back');
    await until(async () => expect(shareOf(await picture(), red)).toBeGreaterThan(shareBefore * 0.99));

    await press(page, 'Picture');
    await enter(page, 'Width of the picture', '400');
    const still400 = PNG.sync.read(await handedOut(() => press(page, 'Save', 'dialog button')));
    expect([still400.width, still400.height]).toEqual([400, 300]);
    expect(shareOf(still400, red)).toBeGreaterThan(0.1);

    // Fails where a client sheet draws it without its photograph: the surface alone, flat.
    await saved(page);
    const here = page.url();
    const sheet = await must<{ id: string }>('POST', `/projects/${project.id}/client-sheets`, {
      name: unique('With a photograph'),
      body: {
        ...freshSheet('For you'),
        items: [{ id: 'one', kind: 'mock-up', of: idHere(), width: 'whole', caption: '' }],
      },
    });
    await visit(page, `/projects/${project.id}/client-sheets/${sheet.id}`);
    const onSheet = await handedOut(async () => {
      await press(page, 'Save pages');
      await press(page, 'PNG pictures');
      await enter(page, 'Resolution', '60');
      await press(page, 'Save', 'dialog button');
    });
    const laid = PNG.sync.read(onSheet);
    const grey: IsColour = (r, g, b) => Math.max(r, g, b) - Math.min(r, g, b) < 12 && r > 100 && r < 235;
    expect(shareOf(laid, red)).toBeGreaterThan(0.03);
    expect(shareOf(laid, grey)).toBeGreaterThan(0.15);
    await page.goto(here);

    await press(page, 'Keep it for all projects …');
    const keptAs = unique('Blank sheet');
    await enter(page, 'Keep it for all projects as', keptAs);
    await press(page, 'Keep');
    await page.waitForFunction(() => document.body.textContent?.includes('is kept for all projects'));
    await newMockup();
    await press(page, keptAs);
    await page.waitForFunction(() => location.pathname.includes('/mock-ups/'));
    const again = (await mockupHere()).body;
    expect([again.objects[0]!.grid!.points, again.objects[0]!.layout]).toEqual([bent.points, null]);
    expect(session.faults).toEqual([]);
  });
});

describe('a client sheet', () => {
  it('is put together, shown by a link without the studio, and the client’s choice and words come back', async () => {
    const name = unique('Sheet red');
    const pattern = await plain('#c02020', name);
    const layout = await makeLayout(project.id, {
      ...{ width: 200, height: 100 },
      shapes: [
        freshShape({
          ...{
            id: ownId('s'),
            name: 'S',
            form: { kind: 'rectangle', radius: 0 },
            x: 0,
            y: 0,
            width: 200,
            height: 100,
          },
          fills: [freshFill(ownId('f'), pattern)],
        }),
      ],
    });
    const { layout: drawn } = await getLayout(layout);
    const mockup = await must<{ id: string }>('POST', `/projects/${project.id}/mock-ups`, {
      name: unique('Shown cup'),
      body: freshMockup([{ ...freshStanding('a', 'cup'), layout }]),
    });
    const { name: cupName } = await must<MockupData>('GET', `/mock-ups/${mockup.id}`);
    await visit(page, `/projects/${project.id}`);
    await press(page, 'New client sheet');
    await page.waitForFunction(() => location.pathname.includes('/client-sheets/'));
    for (const one of [cupName, drawn.name, name, 'A note']) await press(page, one, '.offer');
    await enter(page, 'Words', 'Which of them?').catch(() => undefined);
    await press(page, cupName, '.name');
    await page.keyboard.down('Alt');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.up('Alt');
    await saved(page);
    const kept = await must<SheetData>('GET', `/client-sheets/${idHere()}`);
    expect(kept.body.items.map(({ kind }) => kind)).toEqual(['layout', 'mock-up', 'pattern', 'note']);
    expect(await page.$$eval('svg[aria-label^="Page"]', (all) => all.length)).toBeGreaterThan(0);

    const pages = await handedOut(async () => {
      await press(page, 'Save pages');
      await press(page, 'PNG pictures');
      await enter(page, 'Resolution', '60');
      await press(page, 'Save', 'dialog button');
    });
    const files = Object.entries(unzipSync(pages)).sort(([one], [other]) => one.localeCompare(other));
    const first = PNG.sync.read(Buffer.from(files[0]![1]));
    // A4 across at 60 ppi: 297 mm ∕ 25.4 · 60.
    expect([first.width, first.height]).toEqual([702, 496]);
    expect(shareOf(first, red)).toBeGreaterThan(0.02);

    // As one PDF: its layouts are drawings in it, and it looks the same.
    const pdf = await handedOut(async () => {
      await press(page, 'Save pages');
      await enter(page, 'Resolution', '60');
      await press(page, 'Save', 'dialog button');
    });
    expect(await faultsOf(pdf)).toBe('');
    const facts = await factsOf(pdf);
    expect([facts['Pages'], facts['Page size']]).toEqual([
      String(files.length),
      expect.stringMatching(/^841.89 x 595.276 pts \(A4\)/),
    ]);
    const { data } = await drawnBy('poppler', pdf, 60);
    const { width, height } = first;
    // Poppler takes a row more where a page ends within it.
    const onPaper = { width, height, data: data.subarray(0, width * height * 4) };
    const same = { width, height, data: new Uint8Array(first.data) };
    expect(othersInside(onPaper, same, 60).share).toBeLessThan(0.03);

    await press(page, 'Show to a client');
    await (await named(page, 'For whom, in your own words', 'dialog input')).type('The board');
    await press(page, 'Make a link');
    const address = await (await page.waitForSelector('dialog li code', { timeout: 60_000 }))!.evaluate(
      (one) => one.textContent!,
    );

    // Another browser, which knows nothing of the studio.
    const client = await openBrowser();
    try {
      await client.page.goto(address);
      await client.page.waitForSelector('html[data-alive]');
      const told = await client.page.evaluate(() => document.body.innerText);
      for (const text of [cupName, drawn.name, name]) expect(told).toContain(text);
      expect(told).not.toContain('Library');
      expect(await client.page.$$eval('a', (all) => all.length)).toBe(0);
      await client.page.waitForFunction(() =>
        [...document.images].every((one) => one.complete && one.naturalWidth > 0),
      );
      await press(client.page, 'This one');
      await client.page.waitForSelector('button[aria-pressed="true"]');
      const field = (await client.page.$('textarea'))!;
      await field.type('Warmer, please: <b>more red</b>');
      await press(client.page, 'Leave it');
      await client.page.waitForSelector('blockquote');
      expect(await client.page.$$eval('blockquote b', (all) => all.length)).toBe(0);
      await press(page, 'Close', 'dialog button');
      await page.waitForFunction(() =>
        document.body.textContent?.includes('Warmer, please: <b>more red</b>'),
      );
      expect(await page.$eval('aside[aria-label="The sheet"]', (one) => one.textContent)).toContain(
        'This one',
      );

      // Ended, it shows nothing, and no more than one that never was.
      await press(page, 'Show to a client');
      await press(page, 'End it');
      await page.waitForFunction(() => document.body.textContent?.includes('ended'));
      const nothing = async (at: string): Promise<string> => {
        const answer = await client.page.goto(at);
        expect(answer!.status()).toBe(404);
        return client.page.evaluate(() => document.body.innerText);
      };
      const ended = await nothing(address);
      expect(ended).toContain('the link has ended, or it was not copied whole');
      expect(await nothing(address.slice(0, -4) + 'abcd')).toBe(ended);
      const token = address.split('/').at(-1)!;
      expect((await api('GET', `/shared/${token}`)).status).toBe(404);
      expect(
        (await api('POST', `/shared/${token}/answers`, { item: 'x', who: '', words: 'late' })).status,
      ).toBe(404);
    } finally {
      await client.close();
    }
  });
});
