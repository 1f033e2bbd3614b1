import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import type { ElementHandle } from 'puppeteer-core';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import type { PaletteData, Plates, ProjectDetail } from '../../src/lib/contract/data';
import { colourFill, freshFill, type Fill } from '../../src/lib/core/recipe/fill';
import { freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import { exported, layoutWith, must, publishedPattern, unique } from '../support/api';
import { enter, openBrowser, press, saved, shown, visit, type Session } from '../support/browser';
import { faultsOf, platesOf } from '../support/pdf-readers';
import { dot, place, recipe } from '../support/recipes';
import { until } from '../support/until';

let session: Session;
let page: Session['page'];
let folder: string;
beforeAll(async () => {
  session = await openBrowser();
  ({ page } = session);
  folder = mkdtempSync(join(tmpdir(), 'isle-plates-'));
});
afterAll(() => session.close());

const KELP = '#0d5a50';
const project = (path: string): string => path.split('/')[2]!;
const box = (id: string, at: [number, number, number, number], fills: Fill[], over = {}): Shape =>
  freshShape({
    ...{ id, name: id, form: { kind: 'rectangle', radius: 0 }, fills },
    ...{ x: at[0], y: at[1], width: at[2], height: at[3] },
    ...over,
  });
const colour = (hex: string): Fill => colourFill('c', { colour: hex });

/** A palette of a project with one colour. */
const paletteFor = (projectId: string, hex: string): Promise<PaletteData> =>
  must<PaletteData>('POST', '/palettes', {
    name: unique('Inks'),
    projectId,
    colours: [{ id: unique('c').replace(' ', ''), name: 'Kelp', hex }],
  });

/** What stands in the row of a plate. */
const rowOf = (name: string): Promise<string> =>
  page.$$eval(
    '.panel tr',
    (rows, wanted) =>
      (rows.find((row) => row.textContent?.includes(wanted))?.textContent ?? '').replace(/\s+/g, ' ').trim(),
    name,
  );

async function choose(name: string, file: string): Promise<void> {
  const input = await page.waitForSelector(`input[type="file"][aria-label="${name}"]`);
  await (input as ElementHandle<HTMLInputElement>).uploadFile(file);
}

describe('spot inks and plates', () => {
  it('an ink is named in the palette; what is printed in it shows on its plate, in a PDF and in pictures', async () => {
    // A quarter of the page in the ink, a quarter in process colours.
    const layout = await layoutWith(
      [
        box('Quarter', [0, 0, 200, 150], [colour(KELP)]),
        box('Other', [200, 150, 200, 150], [colour('#e0b040')]),
      ],
      { width: 400, height: 300 },
    );
    const { id } = await paletteFor(project(layout.path), KELP);
    await visit(page, `/palettes?palette=${id}`);
    await (await page.waitForSelector('li button .swatch'))!.click();
    await press(page, 'Printed in a spot ink', 'label');
    await enter(page, 'The name of the ink', 'Black');
    await until(async () =>
      expect(await page.$eval('body', (body) => body.innerText)).toMatch(
        /“Black” is the name of a process ink/,
      ),
    );
    await page.keyboard.press('Escape');
    await enter(page, 'The name of the ink', 'Kelp 40');
    await enter(page, 'How much of the ink', '60');
    await saved(page);
    await until(async () => {
      const [kelp] = (await must<PaletteData[]>('GET', '/palettes')).find((one) => one.id === id)!.colours;
      expect(kelp?.ink).toEqual({ name: 'Kelp 40', tint: 0.6, overprint: false });
    });

    await visit(page, layout.path);
    await press(page, 'Plates', 'button');
    // A quarter of the page at 60 %.
    await until(async () => expect(await rowOf('Kelp 40')).toMatch(/15 %/));
    await page.waitForSelector('canvas.plates');
    const [x, y] = await page.$eval('canvas.plates', (canvas) => {
      const { left, top, width, height } = canvas.getBoundingClientRect();
      return [left + width / 4, top + height / 4] as const;
    });
    await page.mouse.move(x, y);
    await until(async () => expect(await rowOf('Kelp 40')).toMatch(/60$/));

    // All together the tint looks as its palette colour, not as a share of it.
    const seen = await page.$eval('canvas.plates', (canvas) => [
      ...(canvas as HTMLCanvasElement).getContext('2d')!.getImageData(300, 200, 1, 1).data.slice(0, 3),
    ]);
    for (const [channel, value] of [0x0d, 0x5a, 0x50].entries())
      expect(Math.abs(seen[channel]! - value)).toBeLessThanOrEqual(1);
    // Where most ink lies is gone to, and said as if the pointer were there.
    await page.mouse.move(10, 10);
    await until(async () => expect(await rowOf('Kelp 40')).toMatch(/%$/));
    await press(page, '60 %', 'tfoot button');
    await until(async () => expect(await rowOf('Kelp 40')).toMatch(/60$/));

    const answer = await fetch(`${inject('address')}/api/v1/layouts/${layout.id}/pdf`);
    const pdf = new Uint8Array(await answer.arrayBuffer());
    expect(await faultsOf(pdf)).toBe('');
    const plate = (await platesOf(pdf, 96))['Kelp 40']!;
    const at = (px: number, py: number): number => plate.data[4 * (py * plate.width + px)]!;
    // 255 is bare paper: 40 % of 255 are left.
    expect([at(100, 75), at(300, 75), at(300, 225)]).toEqual([102, 255, 255]);

    const files = unzipSync(new Uint8Array(await exported(layout.id, { ppi: 48, as: 'plates' })));
    expect(Object.keys(files).sort()).toEqual(['00 process colours.png', '01 Kelp 40.png']);
    const film = sharp(Buffer.from(files['01 Kelp 40.png']!));
    expect(await film.metadata()).toMatchObject({ width: 200, height: 150, channels: 1, density: 48 });
    const pixels = await film.raw().toBuffer();
    expect([pixels[40 * 200 + 50], pixels[40 * 200 + 150]]).toEqual([102, 255]);
  });

  it('an ink that prints over others leaves what is below it; one that does not takes it out', async () => {
    const dots = await publishedPattern(
      recipe({
        slots: [
          { id: 'ink', name: 'Ink', colour: KELP },
          { id: 'paper', name: 'Paper', colour: '#ffffff' },
        ],
        ground: { kind: 'slot', slot: 'paper' },
        motifs: [dot('d', 60)],
        placings: [place('d', 50, 50)],
      }),
    );
    const layout = await layoutWith(
      [
        box('All', [0, 0, 400, 400], [freshFill('f', dots)]),
        box('Over', [0, 0, 200, 400], [colour('#dcd8f0')]),
      ],
      { width: 400, height: 400 },
    );
    const coverage = async (overprint: boolean): Promise<Record<string, number>> => {
      const inked = (hex: string, name: string, over: boolean): object => ({
        ...{ id: unique('c').replace(' ', ''), name, hex, ink: { name, tint: 1, overprint: over } },
      });
      const [palette] = (await must<PaletteData[]>('GET', '/palettes')).filter(
        (one) => one.projectId === project(layout.path),
      );
      const colours = [inked(KELP, 'Deep kelp', false), inked('#dcd8f0', 'Gloss', overprint)];
      await (palette
        ? must('PUT', `/palettes/${palette.id}`, { base: palette.version, name: palette.name, colours })
        : must('POST', '/palettes', { name: unique('Inks'), projectId: project(layout.path), colours }));
      const { plates } = await must<Plates>('GET', `/layouts/${layout.id}/plates?side=400`);
      return Object.fromEntries(plates.map((plate) => [plate.name, plate.coverage]));
    };
    // A dot of 60 px in each 100 px.
    const all = (Math.PI * 30 * 30) / 10_000;
    const over = await coverage(true);
    expect(over['Deep kelp']).toBeCloseTo(all, 2);
    expect(over.Gloss).toBeCloseTo(0.5, 2);
    const out = await coverage(false);
    expect(out['Deep kelp']).toBeCloseTo(all / 2, 2);
  });

  it('a press parts process colours; a file that is none is refused, and a project’s press stays', async () => {
    const layout = await layoutWith([box('Blue', [0, 0, 200, 300], [colour('#0000ff')])], {
      ...{ width: 400, height: 300, background: '#ffffff' },
    });
    await visit(page, layout.path);
    await press(page, 'Plates', 'button');
    await until(async () =>
      expect(await page.$eval('.panel', (panel) => panel.textContent)).toMatch(/No press yet/),
    );
    await press(page, 'The press', 'button');
    const wrong = join(folder, 'poster.icc');
    writeFileSync(wrong, 'no profile at all '.repeat(20));
    await choose('ICC profile of a press', wrong);
    await until(async () =>
      expect(await page.$eval('[role="alert"]', (alert) => alert.textContent)).toMatch(
        /“poster.icc” is no ICC profile/,
      ),
    );
    await choose('ICC profile of a press', 'assets/press/coated-offset.icc');
    await until(async () =>
      expect(await page.$eval('.panel', (panel) => panel.textContent)).toMatch(/by “Coated offset”/),
    );
    await page.keyboard.press('Escape');
    // Half the page in a blue of the screen: much cyan and magenta, no yellow, and out of gamut.
    await until(async () => expect(await rowOf('Cyan')).toMatch(/4\d %/));
    expect(await page.$eval('.panel', (panel) => panel.textContent)).toMatch(
      /50 % of the page is out of gamut/,
    );
    await press(page, 'Out of gamut', '[role="radio"]');
    await until(async () => {
      const [r, g, b] = await page.$eval('canvas.plates', (canvas) => [
        ...(canvas as HTMLCanvasElement).getContext('2d')!.getImageData(300, 450, 1, 1).data.slice(0, 3),
      ]);
      expect(r! > 60 && g! < 80 && b! > 100).toBe(true);
    });
    // The proof says so too.
    // The proof stands in the place of the plates.
    await page.$$eval('header button', (buttons) =>
      buttons.find((button) => button.textContent?.trim().startsWith('Proof'))?.click(),
    );
    await page.waitForSelector('aside[aria-label="Proof"]');
    expect(await page.$('aside[aria-label="Plates"], canvas.plates')).toBeNull();
    await until(async () =>
      expect(await page.$eval('aside[aria-label="Proof"]', (aside) => aside.textContent)).toMatch(
        /out of gamut: the press/,
      ),
    );
    const held = await must<ProjectDetail>('GET', `/projects/${project(layout.path)}`);
    expect(held.press.profile).toMatch(/^[0-9a-f]{64}$/);
    const refused = await fetch(`${inject('address')}/api/v1/press-profiles/${held.press.profile}`, {
      method: 'DELETE',
    });
    expect(refused.status).toBe(409);
    expect(((await refused.json()) as { message: string }).message).toMatch(
      /“Coated offset” is the press of/,
    );

    const answer = await fetch(`${inject('address')}/api/v1/layouts/${layout.id}/pdf?exchange=true`);
    const pdf = new Uint8Array(await answer.arrayBuffer());
    expect(await faultsOf(pdf)).toBe('');
    expect(Buffer.from(pdf.subarray(0, 8)).toString()).toBe('%PDF-1.6');
    const files = unzipSync(new Uint8Array(await exported(layout.id, { ppi: 24, as: 'plates' })));
    expect(Object.keys(files)).toEqual(['01 Cyan.png', '02 Magenta.png', '03 Yellow.png', '04 Black.png']);
    expect(session.faults).toEqual([]);
  });

  it('without a press there is no file for print exchange', async () => {
    const layout = await layoutWith([box('A', [0, 0, 90, 90], [colour('#204060')])], {
      width: 100,
      height: 100,
    });
    const answer = await fetch(`${inject('address')}/api/v1/layouts/${layout.id}/pdf?exchange=true`);
    expect(answer.status).toBe(400);
    expect(((await answer.json()) as { message: string }).message).toMatch(/this project has none yet/);
  });

  it('a colour that would look as another ink stays as it was, with a sentence', async () => {
    const layout = await layoutWith([], { width: 100, height: 100 });
    const inked = (name: string, hex: string): object => ({
      ...{ id: unique('c').replace(' ', ''), name, hex },
      ink: { name: `${name} ink`, tint: 1, overprint: false },
    });
    const { id } = await must<PaletteData>('POST', '/palettes', {
      ...{ name: unique('Inks'), projectId: project(layout.path) },
      colours: [inked('Kelp', KELP), inked('Rust', '#c4502e')],
    });
    await visit(page, `/palettes?palette=${id}`);
    await (await page.waitForSelector('li button .swatch'))!.click();
    await enter(page, 'The colour as hex or CSS', '#c4502e');
    await until(async () =>
      expect(await page.$eval('body', (body) => body.innerText)).toMatch(/“Rust” and “Kelp” look the same/),
    );
    expect(await shown(page, 'The colour as hex or CSS')).toBe(KELP);
    await saved(page);
    const held = (await must<PaletteData[]>('GET', '/palettes')).find((one) => one.id === id)!;
    expect(held.colours.map(({ hex }) => hex)).toEqual([KELP, '#c4502e']);
  });

  it('a palette of contradicting inks is refused where it says so', async () => {
    const layout = await layoutWith([], { width: 100, height: 100 });
    const { id, version, name } = await paletteFor(project(layout.path), KELP);
    const inked = (ink: string): object => ({
      id: ink,
      name: ink,
      hex: KELP,
      ink: { name: ink, tint: 1, overprint: false },
    });
    const answer = await fetch(`${inject('address')}/api/v1/palettes/${id}`, {
      ...{ method: 'PUT', headers: { 'content-type': 'application/json' } },
      body: JSON.stringify({ base: version, name, colours: [inked('one'), inked('two')] }),
    });
    expect(answer.status).toBe(400);
    expect(await answer.json()).toMatchObject({
      path: 'colours.1.ink',
      message: expect.stringContaining('look the same') as string,
    });
  });
});
