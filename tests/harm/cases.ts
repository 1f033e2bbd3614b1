import sharp from 'sharp';
import { seededRandom } from '../../src/lib/core/num/random';
import { extremeRecipe, extremeShape, pick, type Random } from './extreme';
import { HOSTILE_FILES, HOSTILE_JSON, HOSTILE_PICTURES, HOSTILE_SVG } from './hostile';
import { mutated } from './mutate';
import type { Answer, Victim } from './victim';

/** One attempt at harm. */
export type Case = { name: string; run: (victim: Victim) => Promise<void> };

const ok = (answer: Answer): boolean => answer.status >= 200 && answer.status < 300;
let count = 0;
const unique = (): string => `${Date.now().toString(36)}${(count += 1).toString(36)}`;

/** Draws a motif as a pattern in every way: what was taken in must be drawable too. */
async function drawMotif(victim: Victim, motif: unknown): Promise<void> {
  const { content, slots } = motif as { content: { width: number; height: number }; slots: { id: string }[] };
  const recipe = {
    ...{
      kind: 'composed',
      version: 2,
      measure: 'px',
      gap: { across: 0, down: 0 },
      repeat: { kind: 'straight' },
    },
    unit: {
      width: Math.min(20_000, Math.max(1, content.width)),
      height: Math.min(20_000, Math.max(1, content.height)),
    },
    ...{ front: { across: 'right', down: 'lower' }, ground: { kind: 'clear' }, slots },
    motifs: [{ id: 'm', name: 'M', content }],
    placings: [{ id: 'p', motif: 'm', x: 0, y: 0, rotation: 10, scaleX: 1, scaleY: 1, opacity: 1 }],
    aids: { grid: 20, showGrid: false, snap: false, guides: [] },
  };
  await drawRecipe(victim, recipe, seededRandom(1));
}

/** Keeps a recipe and draws it in every way. */
export async function drawRecipe(
  victim: Victim,
  recipe: unknown,
  random: Random,
  thorough = false,
): Promise<void> {
  const made = await victim.send('POST', '/patterns', { name: `Harm ${unique()}`, recipe });
  if (!ok(made)) return;
  const { id, version } = made.body as { id: string; version: number };
  const published = await victim.send('POST', `/patterns/${id}/revisions`, { base: version });
  if (!ok(published)) return;
  const swatch = `/patterns/${id}/revisions/1/swatch`;
  if (victim.quick) {
    await Promise.all([victim.send('GET', `${swatch}?as=png`), victim.send('GET', swatch)]);
    return void (await victim.send('PUT', `/patterns/${id}/archived`, { archived: true }));
  }
  await Promise.all([
    victim.send('GET', `${swatch}?as=png`),
    victim.send(
      'GET',
      `${swatch}?width=400&height=400&scale=${pick(random, ['0.01', '0.3', '3', '100'])}&as=png&pixels=2`,
    ),
    victim.send('GET', swatch),
    victim.send('GET', `/patterns?search=harm`),
  ]);
  for (const as of ['tile-svg', 'tile-png', 'css', 'tokens', 'svg', 'zip'])
    if (thorough || random() < 0.15)
      await victim.send('POST', '/handouts', { ids: [id], as, scale: pick(random, [0.05, 1, 20]) });
  await useIn(victim, id, random, thorough);
  await victim.send('PUT', `/patterns/${id}/archived`, { archived: true });
}

let project: string | null = null;

/** Fills shapes of a layout with a pattern and draws the layout in every way. */
async function useIn(victim: Victim, pattern: string, random: Random, thorough: boolean): Promise<void> {
  if (project === null) {
    const made = await victim.send('POST', '/projects', { name: `Harm ${unique()}` });
    if (!ok(made)) return;
    project = (made.body as { id: string }).id;
  }
  const layout = await victim.send('POST', `/projects/${project}/layouts`, {
    ...{
      name: `L${unique()}`,
      measure: 'px',
      width: pick(random, [1, 300, 3000, 75_600]),
      height: pick(random, [1, 300, 3000]),
    },
  });
  if (!ok(layout)) return;
  const { id, version } = layout.body as { id: string; version: number };
  const shapes = Array.from({ length: pick(random, [1, 1, 3]) }, (_, index) =>
    extremeShape(random, `s${unique()}${index}`, pattern),
  );
  const changed = await victim.send('POST', `/layouts/${id}/changes`, {
    base: version,
    changes: shapes.map((shape) => ({ do: 'put-shape', shape })),
  });
  if (!ok(changed)) return;
  await victim.send('GET', `/layouts/${id}`);
  await Promise.all([
    victim.send('GET', `/layouts/${id}/svg?patterns=live`),
    victim.send('GET', `/layouts/${id}/svg?patterns=expanded`),
  ]);
  if (!thorough && random() < 0.7) return;
  await exported(victim, `/layouts/${id}/exports`, pick(random, [1, 24, 72]));
}

/** Exports a layout and waits for the end, or stops it after a while: both are real. */
async function exported(victim: Victim, path: string, ppi: number): Promise<void> {
  const job = await victim.send('POST', path, { ppi });
  if (!ok(job)) return;
  const { id } = job.body as { id: string };
  for (let look = 0; look < 40; look += 1) {
    const state = await victim.send('GET', `/exports/${id}`);
    if (!ok(state) || !['waiting', 'running'].includes((state.body as { state: string }).state)) break;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  await victim.send('GET', `/exports/${id}/file`);
  const stopped = await victim.send('DELETE', `/exports/${id}`);
  if (stopped.ms <= 2000) return;
  const machine = await victim.blameOfMachine(stopped.ms);
  if (stopped.ms - machine > 2000)
    victim.fault(
      `stopping an export took ${stopped.ms.toFixed(0)} ms, ${machine.toFixed(0)} of them for the machine`,
    );
}

async function takeIn(victim: Victim, name: string, bytes: Uint8Array | string): Promise<void> {
  const read = await victim.file('/intake/files', name, bytes);
  if (!ok(read)) return;
  const { token, items } = read.body as { token: string; items: { key: string }[] };
  const choices = Object.fromEntries(items.slice(0, 20).map(({ key }) => [key, 'both']));
  const taken = await victim.send('POST', '/intake', { files: [{ token, choices }] });
  if (!ok(taken)) return;
  for (const { id, kind } of (taken.body as { added: { id: string; kind: string }[] }).added.slice(0, 3)) {
    if (kind === 'pattern') await victim.send('GET', `/patterns/${id}/revisions/1/swatch?as=png`);
    else
      for (const as of ['tokens', 'css', 'csv', 'svg'])
        await victim.send('GET', `/palettes/${id}/file?as=${as}`);
  }
}

async function asMotif(victim: Victim, name: string, svg: string): Promise<void> {
  const read = await victim.send('POST', '/motifs', { fileName: `${name}.svg`, svg });
  if (ok(read)) await drawMotif(victim, read.body);
}

async function asPicture(victim: Victim, name: string, bytes: Uint8Array): Promise<void> {
  const read = await victim.file('/motifs/pictures', name, bytes);
  if (ok(read)) await drawMotif(victim, read.body);
}

/** Every file that was made to do harm, once: as a motif, and as a file that is opened. */
export const hostileCases = (): Case[] => [
  ...Object.entries(HOSTILE_SVG).flatMap(([name, make]): Case[] => [
    { name: `motif: ${name}`, run: (victim) => asMotif(victim, name, make()) },
    { name: `opened SVG: ${name}`, run: (victim) => takeIn(victim, `${name}.svg`, make()) },
  ]),
  ...Object.entries(HOSTILE_PICTURES).map(([name, make]): Case => ({
    name: `picture: ${name}`,
    run: (victim) => asPicture(victim, `${name}.png`, make()),
  })),
  ...Object.entries(HOSTILE_FILES).map(([name, make]): Case => ({
    name: `file: ${name}`,
    run: async (victim) => {
      const file = make();
      await takeIn(victim, file.name, file.bytes);
    },
  })),
  ...Object.entries(HOSTILE_JSON).map(([name, make]): Case => ({
    name: `body: ${name}`,
    run: async (victim) => {
      for (const [method, path] of BODIES)
        await victim.send(method, path, make(), { 'content-type': 'application/json' });
    },
  })),
];

const BODIES = [
  ['POST', '/patterns'],
  ['POST', '/projects'],
  ['POST', '/palettes'],
  ['POST', '/layouts/x/changes'],
  ['PUT', '/patterns/x/draft'],
  ['POST', '/motifs'],
  ['POST', '/handouts'],
] as const;

/** Good files to make bad ones of: taken from a running server with its demo data, and drawn here. */
export async function goodFiles(victim: Victim): Promise<{ name: string; bytes: Uint8Array }[]> {
  const fetched = async (name: string, method: string, path: string, body?: unknown) => {
    const answer = await fetch(`${victim.address}/api/v1${path}`, {
      method,
      ...(body ? { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) } : {}),
    });
    return { name, bytes: new Uint8Array(await answer.arrayBuffer()) };
  };
  const { patterns } = (await victim.send('GET', '/patterns?limit=8&stock=own')).body as {
    patterns: { id: string }[];
  };
  const [palette] = (await victim.send('GET', '/palettes')).body as { id: string }[];
  const ids = patterns.map(({ id }) => id);
  const noise = sharp({
    create: {
      width: 60,
      height: 40,
      channels: 3,
      background: '#3a7',
      noise: { type: 'gaussian', mean: 120, sigma: 40 },
    },
  });
  const picture = async (type: 'png' | 'jpeg' | 'webp') => ({
    name: `a.${type}`,
    bytes: new Uint8Array(await noise.clone()[type]().toBuffer()),
  });
  return [
    await fetched('library.svg', 'POST', '/handouts', { ids, as: 'svg' }),
    await fetched('one.svg', 'POST', '/handouts', { ids: ids.slice(0, 1), as: 'svg' }),
    await fetched('package.zip', 'POST', '/handouts', { ids, as: 'zip' }),
    ...(await Promise.all(
      ['tokens', 'css', 'csv', 'svg'].map((as) =>
        fetched(
          `palette.${as === 'tokens' ? 'tokens.json' : as}`,
          'GET',
          `/palettes/${palette?.id}/file?as=${as}`,
        ),
      ),
    )),
    ...(await Promise.all((['png', 'jpeg', 'webp'] as const).map(picture))),
  ];
}

/** Of the cases by chance, the share that are recipes; the others are files. */
const RECIPES = 0.12;

/** One more case out of nothing but chance. */
export function randomCase(random: Random, good: readonly { name: string; bytes: Uint8Array }[]): Case {
  const kind = random();
  if (kind < RECIPES)
    return { name: 'extreme recipe', run: (victim) => drawRecipe(victim, extremeRecipe(random), random) };
  const file = pick(random, good);
  const bytes = mutated(random, file.bytes);
  const isPicture = /\.(png|jpe?g|webp)$/.test(file.name);
  if (isPicture)
    return { name: `mutated ${file.name}`, run: (victim) => asPicture(victim, file.name, bytes) };
  if (file.name.endsWith('.svg') && random() < 0.4)
    return {
      name: `mutated motif ${file.name}`,
      run: (victim) => asMotif(victim, file.name, Buffer.from(bytes).toString('utf8')),
    };
  return { name: `mutated ${file.name}`, run: (victim) => takeIn(victim, file.name, bytes) };
}
