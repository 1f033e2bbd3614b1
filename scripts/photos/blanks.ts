import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { BLANK_PHOTOS } from '../../src/lib/server/demo/blank-photos';
import { stillFile } from '../../src/lib/server/demo/mockups';
import { caller, onPage } from '../bench/page';

/** Photographs our own blank objects, through the interface, into `photos/`: `npm run photos -- blanks`. */
export async function photographBlanks(): Promise<void> {
  await onPage(async (page, address) => {
    const call = caller(address);
    const project = await call<{ id: string }>('POST', '/projects', { name: 'Blanks' });
    const folder = mkdtempSync(join(tmpdir(), 'isle-blanks-'));
    const client = await page.createCDPSession();
    await client.send('Page.setDownloadBehavior', { behavior: 'allow', downloadPath: folder });
    for (const { file, name, width, height, scene } of BLANK_PHOTOS) {
      const made = await call<{ id: string }>('POST', `/projects/${project.id}/mock-ups`, {
        name,
        body: scene,
      });
      await page.goto(`${address}/projects/${project.id}/mock-ups/${made.id}`);
      await page.waitForSelector('html[data-alive]');
      await page.waitForSelector('canvas[data-drawn]');
      await press(page, 'Picture');
      await type(page, 'Width of the picture', width);
      await type(page, 'Height of the picture', height);
      await press(page, 'Save');
      const saved = await arrived(folder);
      const picture = sharp(readFileSync(join(folder, saved))).flatten();
      writeFileSync(`photos/${file}`, await picture.jpeg({ quality: 86, mozjpeg: true }).toBuffer());
      rmSync(join(folder, saved));
    }
    rmSync(folder, { recursive: true });
  });
}

/** Keeps the pictures of the demo's mock-ups as they are seen, in `photos/`: `npm run photos -- stills`. */
export async function keepStills(): Promise<void> {
  await onPage(
    async (page, address) => {
      const get = async <T>(path: string): Promise<T> =>
        (await (await fetch(`${address}/api/v1${path}`)).json()) as T;
      await page.setViewport({ width: 1676, height: 880 });
      for (const { id } of await get<{ id: string }[]>('/projects'))
        for (const mockup of await get<{ id: string; name: string; stillAt: number | null }[]>(
          `/projects/${id}/mock-ups`,
        )) {
          await page.goto(`${address}/projects/${id}/mock-ups/${mockup.id}`);
          await page.waitForSelector('canvas[data-drawn]');
          let fresh = mockup.stillAt;
          while (fresh === mockup.stillAt) {
            await new Promise((resolve) => setTimeout(resolve, 500));
            fresh = (await get<{ stillAt: number | null }>(`/mock-ups/${mockup.id}`)).stillAt;
          }
          const bytes = Buffer.from(
            await (await fetch(`${address}/api/v1/mock-ups/${mockup.id}/still`)).arrayBuffer(),
          );
          const picture = sharp(bytes).resize(1200, 800, { fit: 'cover' });
          writeFileSync(`photos/${stillFile(mockup.name)}`, await picture.webp({ quality: 82 }).toBuffer());
        }
    },
    { demo: true },
  );
}

type Page = Parameters<Parameters<typeof onPage>[0]>[0];

const press = (page: Page, label: string): Promise<void> =>
  page.evaluate((text) => {
    const all = [...document.querySelectorAll('button')];
    all.findLast((one) => one.textContent?.trim() === text)?.click();
  }, label);

async function type(page: Page, label: string, value: number): Promise<void> {
  const field = (await page.$(`input[aria-label="${label}"]`))!;
  await field.click({ count: 3 });
  await field.type(String(value));
  await page.keyboard.press('Tab');
}

/** The name of the file that is downloaded into a folder, once it is whole. */
async function arrived(folder: string): Promise<string> {
  for (;;) {
    const [name] = readdirSync(folder).filter((one) => !one.endsWith('.crdownload'));
    if (name) return name;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}
