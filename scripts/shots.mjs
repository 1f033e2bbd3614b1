import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer from 'puppeteer-core';
import { build, ensureChromium, ensurePackages, root } from './lib/ensure.mjs';
import { freePort, startServer } from './lib/serve.mjs';

/** Takes the pictures in docs/screenshots anew, from the demo data: `npm run shots`. */
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
const [ring] = await get('/patterns?search=ring');
const projects = await get('/projects');
const project = async (name) => get(`/projects/${projects.find((one) => one.name === name).id}`);
const lido = await project('Marrowby Lido');
const fair = await project('Lantern Row Book Fair');
const layout = (of, name) =>
  `/projects/${of.id}/layouts/${of.layoutList.find((one) => one.name === name).id}`;

await shot('library', '/library', () => new Promise((resolve) => setTimeout(resolve, 1200)));
await shot('pattern', `/library/${ring.id}`);
await shot('bench', `/library/${ring.id}/bench`, async () => {
  await page.click('.pick');
  await page.select(
    '.list select',
    await page.$eval('.list select option:last-child', (option) => option.value),
  );
});
const pattern = async (name) =>
  (await get(`/patterns?search=${encodeURIComponent(name)}`)).find((one) => one.name === name);
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
await shot('measured', '/library/new?start=measured', async () => {
  await page.click('[aria-label="Hatch"]');
  await page.evaluate(() => {
    const field = document.querySelector('select[aria-label="Second set"]');
    field.value = 'yes';
    field.dispatchEvent(new Event('change', { bubbles: true }));
  });
  await wait(900);
});
await shot('publish', `/library/${ring.id}/bench`, async () => {
  await pressText('Brick');
  await wait(700);
  await pressText('Publish revision 2');
  await wait(1500);
});
await shot('layout', layout(lido, 'Kiosk front'), async () => {
  await page.evaluate(() => {
    const row = [...document.querySelectorAll('tbody tr')].find(
      (one) => one.querySelector('input')?.value === 'Sign panel',
    );
    row?.querySelector('.filled')?.click();
  });
});
await shot('poster', layout(fair, 'Poster'));
await shot('export', layout(lido, 'Beach towel'), () =>
  page.evaluate(() =>
    [...document.querySelectorAll('button')]
      .find((button) => button.textContent.trim() === 'Export')
      ?.click(),
  ),
);
await shot('projects', '/projects');
await shot('project', `/projects/${lido.id}`);
await shot('palettes', '/palettes');

await browser.close();
child.kill();
rmSync(dataFolder, { recursive: true, force: true });

async function shot(name, path, act) {
  await page.goto(address + path, { waitUntil: 'networkidle2' });
  await act?.();
  await new Promise((resolve) => setTimeout(resolve, 500));
  await page.screenshot({ path: join(root, 'docs', 'screenshots', `${name}.png`) });
  console.log(`docs/screenshots/${name}.png`);
}
