import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFDocument, rgb } from 'pdf-lib';
import type { ElementHandle } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { lowerLayout } from '../../src/lib/core/draw/lower';
import { colourFill, gradientFill } from '../../src/lib/core/recipe/fill';
import { freshGradient } from '../../src/lib/core/recipe/gradient';
import { freshPage, freshShape } from '../../src/lib/core/recipe/layout';
import { enter, openBrowser, press, shown, visit, type Session } from '../support/browser';
import { pdfOf } from '../support/pdf-pages';
import { until } from '../support/until';

let session: Session;
let page: Session['page'];
let folder: string;
beforeAll(async () => {
  session = await openBrowser();
  ({ page } = session);
  folder = mkdtempSync(join(tmpdir(), 'isle-pdf-in-'));
});
afterAll(() => session.close());

async function bringIn(name: string, bytes: Uint8Array): Promise<void> {
  const file = join(folder, name);
  writeFileSync(file, bytes);
  const input = await page.waitForSelector('input[aria-label="SVG file or picture for a motif"]');
  await (input as ElementHandle<HTMLInputElement>).uploadFile(file);
}
const said = (): Promise<string> => page.$eval('dialog[open]', (dialog) => dialog.textContent ?? '');

/** Three pages of another program: a red square of 72 pt on the second. */
async function pages(): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  document.addPage([144, 144]);
  const second = document.addPage([144, 144]);
  second.drawRectangle({ x: 36, y: 36, width: 72, height: 72, color: rgb(0.8, 0.1, 0.1) });
  document.addPage([144, 72]);
  return document.save();
}

describe('a PDF on the bench', () => {
  it('a page of paths becomes a drawing of its size', async () => {
    await visit(page, '/library/new');
    await bringIn('three.pdf', await pages());
    await until(async () => expect(await said()).toMatch(/of 3/));
    await enter(page, 'Page', '2');
    await until(async () => expect(await said()).toMatch(/50\.8 × 50\.8 mm/));
    await until(async () => expect(await said()).toMatch(/nothing but paths/));
    await press(page, 'Bring it in', 'button');
    // 72 pt are 96 px.
    await until(async () => expect(await page.$$eval('.pick', (motifs) => motifs.length)).toBe(1));
    await page.click('.pick');
    await until(async () =>
      expect(Number.parseFloat(await shown(page, 'Width of the motif'))).toBeCloseTo(25.4, 1),
    );
  });

  it('one with a gradient comes in as a picture, so fine as one asks for', async () => {
    await visit(page, '/library/new');
    const shape = freshShape({
      ...{ id: 's', name: 'S', form: { kind: 'ellipse' }, x: 0, y: 0, width: 192, height: 96 },
      fills: [
        gradientFill('g', freshGradient({ colour: '#d04020' }, { colour: '#20a0c0' })),
        colourFill('c', { colour: '#d04020' }),
      ],
    });
    const list = lowerLayout({ ...freshPage(192, 96), background: null, shapes: [shape] }, () => null);
    await bringIn('glow.pdf', await pdfOf(list));
    await until(async () => expect(await said()).toMatch(/has gradients and patterns/));
    await enter(page, 'Resolution of the picture', '150');
    await until(async () => expect(await said()).toMatch(/300 × 150 px/));
    await enter(page, 'Resolution of the picture', '9600');
    await until(async () => expect(await said()).toMatch(/more than 40 million px; take fewer ppi/));
    await enter(page, 'Resolution of the picture', '150');
    await press(page, 'Bring it in', 'button');
    await until(async () => expect(await page.$$eval('.pick', (motifs) => motifs.length)).toBe(1));
    // It knows its resolution: 300 px at 150 ppi are 2 in.
    await page.click('.pick');
    await until(async () => expect(await shown(page, 'Width of the motif')).toMatch(/^(2|50\.8)/));
    expect(session.faults).toEqual([]);
  });

  it('one that is locked or none at all is refused with a sentence', async () => {
    await visit(page, '/library/new');
    await bringIn('torn.pdf', new TextEncoder().encode('%PDF-1.7 and nothing else'));
    await until(async () => expect(await said()).toMatch(/“torn.pdf” is no PDF that can be read/));
    await press(page, 'Close', 'button');
    // A file that is encrypted by the standard way and says so in its trailer.
    const locked = Buffer.from(await pages()).toString('latin1');
    const entry = `/Encrypt << /Filter /Standard /V 1 /R 2 /O <${'28'.repeat(32)}> /U <${'5a'.repeat(32)}> /P -60 >>`;
    const document = await PDFDocument.load(Buffer.from(locked, 'latin1'));
    const plain = Buffer.from(await document.save({ useObjectStreams: false })).toString('latin1');
    const marked = plain.replace(/trailer\s*<</, (head) => `${head} ${entry} /ID [<00> <00>]`);
    await bringIn('locked.pdf', Buffer.from(marked, 'latin1'));
    await until(async () => expect(await said()).toMatch(/“locked.pdf” is locked with a password/));
    expect(session.faults).toEqual([]);
  });
});
