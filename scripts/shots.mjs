import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer from 'puppeteer-core';
import { build, ensureChromium, ensurePackages, root } from './lib/ensure.mjs';
import { freePort, startServer } from './lib/serve.mjs';

/** Takes the pictures in docs/screenshots anew, from the demo data: `npm run shots`, or some of them: `npm run shots -- library`. */
const only = process.argv.slice(2);
ensurePackages();
const executablePath = ensureChromium();
build('ignore');
const dataFolder = mkdtempSync(join(tmpdir(), 'isle-shots-'));
const { child, address } = await startServer({
  port: await freePort(4800),
  dataFolder,
  demo: true,
  stdio: 'ignore',
});
const browser = await puppeteer.launch({
  executablePath,
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
  defaultViewport: { width: 1280, height: 800 },
});
const page = await browser.newPage();
const get = async (path) => (await fetch(`${address}/api/v1${path}`)).json();
const {
  patterns: [ring],
} = await get('/patterns?search=ring');
const projects = await get('/projects');
const project = async (name) => get(`/projects/${projects.find((one) => one.name === name).id}`);
const lido = await project('Marrowby Lido');
const layout = (of, name) =>
  `/projects/${of.id}/layouts/${of.layoutList.find((one) => one.name === name).id}`;

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
await shot('library', '/library?stock=own', async () => {
  await pause(600);
  for (let step = 0; step < 6; step += 1) await page.keyboard.press('ArrowRight');
  await pause(1200);
});
await shot('pattern', `/library/${ring.id}?tab=colours`, () => pause(2000));
await shot('bench', `/library/${ring.id}/bench`, async () => {
  await page.click('.pick');
  await page.select(
    '.list select',
    await page.$eval('.list select option:last-child', (option) => option.value),
  );
});
const pattern = async (name) =>
  (await get(`/patterns?search=${encodeURIComponent(name)}`)).patterns.find((one) => one.name === name);
const pressText = (text, selector = 'button') =>
  page.evaluate(
    (wanted, tags) =>
      [...document.querySelectorAll(tags)].find((one) => one.textContent.trim().startsWith(wanted))?.click(),
    text,
    selector,
  );
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
await shot('board', `/library/${(await pattern('Lantern String')).id}/bench`, async () => {
  await page.click('[aria-label="Draw on Lantern"]');
  await wait(400);
  await page.evaluate(() =>
    [...document.querySelectorAll('label')]
      .find((one) => one.textContent.trim() === 'Grid')
      ?.querySelector('input')
      .click(),
  );
  await wait(200);
  await page.evaluate(() => document.querySelectorAll('aside li button')[3]?.click());
  await page.click('[aria-label="Points of a path"]');
  await wait(900);
});
await shot('group', `/library/${(await pattern('Tide Rosette')).id}/bench`, async () => {
  await page.click('.pick');
  await pressText('Show its symmetry', 'label');
  await wait(900);
});
await shot('from-a-picture', `/library/${(await pattern('Pebble Rosette')).id}/bench`, async () => {
  await page.waitForSelector('[data-seam]');
  await wait(2500);
});
await shot('publish', `/library/${ring.id}/bench`, async () => {
  await pressText('Brick');
  await wait(700);
  await pressText('Publish revision 2');
  await wait(1500);
});
/** Selects a shape by its row of the ledger, which may not be built yet. */
const choose = async (name) => {
  await page.waitForSelector('tbody tr');
  await page.evaluate(async (wanted) => {
    const ledger = document.querySelector('.ledger');
    for (let top = 0; top < ledger.scrollHeight; top += 150) {
      ledger.scrollTop = top;
      await new Promise((resolve) => setTimeout(resolve, 60));
      const row = [...document.querySelectorAll('tbody tr')].find((one) =>
        one.querySelector('.shape')?.textContent?.includes(wanted),
      );
      if (row) return row.querySelector('.filled')?.click();
    }
  }, name);
  await wait(600);
};
await shot('layout', layout(lido, 'Kiosk front'), () => choose('Sign panel'));
await shot('poster', layout(lido, 'Morning lengths'), async () => {
  await choose('Water');
  await page.evaluate(() => document.querySelectorAll('.stack .chip')[1]?.click());
  await wait(500);
});
const fair = await project('Lantern Row Book Fair');
await shot('talk', layout(fair, 'Poster'), async () => {
  await page.evaluate(() =>
    [...document.querySelectorAll('button')].find((one) => one.ariaLabel?.startsWith('Comments'))?.click(),
  );
  await wait(1200);
});
await shot('strike-off', layout(lido, 'Kiosk front'), async () => {
  await choose('Sign panel');
  await pressText('try out');
  await wait(1500);
});
await shot('on-a-cup', layout(lido, 'Kiosk cup'), async () => {
  await pressText('On the cup');
  await wait(2500);
});
const mockups = await get(`/projects/${lido.id}/mock-ups`);
const mockup = (name) => `/projects/${lido.id}/mock-ups/${mockups.find((one) => one.name === name).id}`;
/** Once they are drawn as finely as they get. */
const REST_MS = 16_000;
await shot('mock-up', mockup('Kiosk set'), () => wait(REST_MS));
await shot('on-a-photograph', mockup('Mug on a table'), () => wait(4000));
const [sheet] = await get(`/projects/${lido.id}/client-sheets`);
await shot('client-sheet', `/projects/${lido.id}/client-sheets/${sheet.id}`, () => wait(2500));
await shot('proof', `${layout(lido, 'Beach towel')}?proof`, () => wait(1500));
await shot('plates', layout(fair, 'Poster'), async () => {
  await pressText('Plates');
  await page.waitForSelector('canvas.plates');
  await wait(800);
});
await shot('project', `/projects/${lido.id}`);
await shot('palettes', '/palettes', async () => {
  await page.evaluate(() => document.querySelectorAll('.entry')[1]?.click());
  await wait(1800);
});

await browser.close();
child.kill();
rmSync(dataFolder, { recursive: true, force: true });

async function shot(name, path, act) {
  if (only.length > 0 && !only.includes(name)) return;
  await page.goto(address + path, { waitUntil: 'networkidle2' });
  await act?.();
  await new Promise((resolve) => setTimeout(resolve, 500));
  await page.screenshot({ path: join(root, 'docs', 'screenshots', `${name}.png`) });
  console.log(`docs/screenshots/${name}.png`);
}
