import { mapFills } from '../../core/recipe/layout';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { count, eq } from 'drizzle-orm';
import type { PaletteEntry } from '../../contract/data';
import type { Hex } from '../../core/colour/parse';
import { freshPress } from '../../core/colour/press';
import { tintOf, type Tint } from '../../core/colour/tint';
import { recolourFill } from '../../core/recipe/links';
import type { Recipe } from '../../core/recipe/recipe';
import { askedBy, type Db } from '../db/open';
import { palette, pattern, project, setting } from '../db/schema';
import { newId } from '../repo/context';
import { collectionNamed } from '../repo/collections';
import { saveColourways } from '../repo/colourways';
import { applyChanges } from '../repo/layout-changes';
import { createLayout } from '../repo/layouts';
import { storeAsset } from '../repo/assets';
import { createPalette } from '../repo/palettes';
import { nameKey } from '../repo/names';
import { createPattern, patchPattern } from '../repo/patterns';
import { publish } from '../repo/publishing';
import { addProfile } from '../repo/press-profiles';
import { changeProject, createProject, getProject } from '../repo/projects';
import { appRoot } from '../root';
import { COLOURS, type ColourName } from './draw';
import { KEEPING, stockTags } from './keeping';
import type { DemoWorld } from './layout-plan';
import { beachBall, duskPhoto, poolPhoto } from './paint';
import { seedMockups } from './mockups';
import { need } from './need';
import { seedPeople, seedTalk } from './people';
import { DEMO_PROJECTS } from './projects';
import { demoPatterns } from './patterns';
import { photoBytes, PHOTOS, picturedPatterns, type PhotoName } from './patterns-pictured';

/** The mark of a database whose demo data are whole, or that needs none. */
const DEMO_MARK = 'demo';

/**
 * Fills an empty database with the demo world, through the same functions that the API uses: all of it or, where
 * the process ends on the way, nothing. Once it is marked it never happens again, whatever is deleted since.
 */
export function seedDemo(db: Db): void {
  if (db.select().from(setting).where(eq(setting.key, DEMO_MARK)).get()) return;
  db.transaction(() => {
    const empty = [pattern, palette, project].every(
      (table) => (db.select({ count: count() }).from(table).get()?.count ?? 0) === 0,
    );
    if (empty) makeDemo(db);
    db.insert(setting)
      .values({ key: DEMO_MARK, value: empty ? 'made' : 'not needed' })
      .run();
  });
}

function makeDemo(asked: Db): void {
  const people = seedPeople(asked);
  const db = askedBy(asked, people.get('Mara')?.id ?? null);
  const links = seedPalette(db);
  seedNightPalette(db);
  const patternIds = new Map<string, string>();
  for (const plan of [...demoPatterns(), ...picturedPatterns(seedPhotos(db))]) {
    const recipe = plan.stock ? plan.recipe : linkedRecipe(plan.recipe, links);
    patternIds.set(plan.name, hang(db, { ...plan, recipe }, links));
  }
  const pictures = seedPictures(db);
  for (const { name, layouts } of DEMO_PROJECTS) {
    const { id } = need(createProject(db, name, layouts[0]?.page.measure));
    if (name.startsWith('Lantern')) {
      seedFairPalette(db, id);
      seedPress(db, id);
    }
    for (const { page, content } of layouts) {
      const layout = need(createLayout(db, id, page));
      const { shapes, groups } = content({ patterns: patternIds, pictures });
      const { bleed = 0, margin = 0 } = page;
      const link = page.background ? links.get(page.background) : undefined;
      need(
        applyChanges(db, layout.id, layout.version, [
          { do: 'page', bleed, margin, ...(link === undefined ? {} : { backgroundLink: link }) },
          ...groups.map((group) => ({ do: 'put-group' as const, group })),
          ...shapes.map((shape) => ({
            do: 'put-shape' as const,
            shape: mapFills(shape, (fill) => recolourFill(fill, (tint) => linked(tint, links))),
          })),
        ]),
      );
    }
  }
  seedMockups(db, patternIds);
  seedTalk(db, people);
}

/** Publishes a pattern with all that is kept of it; answers its id. */
function hang(
  db: Db,
  plan: { name: string; description: string; recipe: Recipe; stock: boolean },
  links: ReadonlyMap<Hex, string>,
): string {
  const made = need(createPattern(db, plan));
  need(publish(db, made.id, made.version));
  keep(db, made.id, plan, links);
  if (plan.stock) db.update(pattern).set({ stock: true }).where(eq(pattern.id, made.id)).run();
  return made.id;
}

/**
 * Hangs the stock patterns that are not in the library, each in a transaction of its own, with `pause` after each, so that
 * nothing else waits for all of them. One whose name is taken is left out. Answers how many were hung.
 */
export async function hangStock(db: Db, pause: () => Promise<unknown>): Promise<number> {
  let count = 0;
  for (const plan of demoPatterns().filter(({ stock }) => stock)) {
    const taken = db
      .select({ id: pattern.id })
      .from(pattern)
      .where(eq(pattern.nameKey, nameKey(plan.name)))
      .get();
    if (taken) continue;
    db.transaction(() => hang(db, plan, new Map()));
    count += 1;
    await pause();
  }
  return count;
}

/** The photographs that patterns of the demo are made from, as assets. */
function seedPhotos(db: Db): ReadonlyMap<PhotoName, string> {
  return new Map(
    (Object.keys(PHOTOS) as PhotoName[]).map((name) => [
      name,
      storeAsset(db, { bytes: photoBytes(name), mediaType: 'image/jpeg', fileName: PHOTOS[name].file }),
    ]),
  );
}

/** The pictures of the demo by name, kept as files that were brought in are. */
function seedPictures(db: Db): DemoWorld['pictures'] {
  const painted = { pool: poolPhoto(), dusk: duskPhoto(), ball: beachBall() };
  return new Map(
    Object.entries(painted).map(([name, { bytes, width, height }]) => {
      const asset = storeAsset(db, { bytes, mediaType: 'image/png', fileName: `${name}.png` });
      return [name, { asset, width, height }];
    }),
  );
}

/** The shared palette; answers the id of each of its colours by hex. */
function seedPalette(db: Db): ReadonlyMap<Hex, string> {
  const colours = Object.entries(COLOURS).map(([name, hex]) => ({ id: newId(), name, hex }));
  need(createPalette(db, 'Marrowby and neighbours', { colours }));
  return new Map(colours.map(({ hex, id }) => [hex, id]));
}

/** A second shared palette, to exchange for the first. */
function seedNightPalette(db: Db): void {
  const colours = [
    ['Engine', '#1c1b2e'],
    ['Harbour', '#27496d'],
    ['Gangway', '#4f8a8b'],
    ['Mist', '#b9cdd3'],
    ['Cabin lamp', '#f1d18a'],
    ['Port light', '#c2413b'],
    ['Linen', '#f4efe6'],
  ].map(([name = '', hex = '']) => ({ id: newId(), name, hex }));
  need(createPalette(db, 'Night ferry', { colours }));
}

/** A palette of one project, with a gradient in it. */
function seedFairPalette(db: Db, projectId: string): void {
  const plain = [
    ['Paper', '#fbf3e4'],
    ['Lamp', '#f6b83c'],
    ['Brick', '#b5462f'],
    ['Ink', '#2a2440'],
    ['Leaf', '#4f7f5f'],
  ] as const;
  const colours: PaletteEntry[] = plain.map(([name, hex]) => ({ id: newId(), name, hex }));
  const stops = [colours[3], colours[2], colours[1]].flatMap((entry, index) =>
    entry ? [{ at: index / 2, hex: entry.hex, link: entry.id }] : [],
  );
  // Two of the colours that the poster has are printed in inks of their own.
  const printed = (['Plum', 'Buoy'] as const).map((name): PaletteEntry => ({
    ...{ id: newId(), name: `${name}, printed`, hex: COLOURS[name] },
    ink: { name: `Lantern ${name.toLowerCase()}`, tint: 1, overprint: false },
  }));
  const dusk = { id: newId(), name: 'Dusk', hex: '#2a2440', gradient: stops };
  need(createPalette(db, 'Lantern Row', { colours: [...colours, ...printed, dusk], projectId }));
}

/** The press by which a project is printed. */
function seedPress(db: Db, projectId: string): void {
  const bytes = readFileSync(join(appRoot(), 'assets', 'press', 'coated-offset.icc'));
  const { id } = need(addProfile(db, { name: 'Coated offset', bytes }));
  const { version } = need(getProject(db, projectId));
  need(changeProject(db, projectId, version, { press: { ...freshPress(), profile: id } }));
}

const linked = (tint: Tint, links: ReadonlyMap<Hex, string>): Tint =>
  tintOf(tint.colour, links.get(tint.colour));

function linkedRecipe(recipe: Recipe, links: ReadonlyMap<Hex, string>): Recipe {
  return { ...recipe, slots: recipe.slots.map((slot) => ({ ...slot, ...linked(slot, links) })) };
}

/** Tags, collections, credit and colourways. */
function keep(
  db: Db,
  id: string,
  { name, recipe, stock }: { name: string; recipe: Recipe; stock: boolean },
  links: ReadonlyMap<Hex, string>,
): void {
  const { tags, collections = [], credit, colourways = {} } = KEEPING[name] ?? { tags: stockTags(name) };
  const version =
    db.select({ version: pattern.version }).from(pattern).where(eq(pattern.id, id)).get()?.version ?? 0;
  const patched = need(
    patchPattern(db, id, version, {
      tags,
      collections: (stock ? ['Plain and useful'] : collections).map((one) => collectionNamed(db, one)),
      credit: {
        author: stock ? 'Isle' : 'Studio',
        source: stock ? 'Ships with Isle' : '',
        licence: stock ? 'CC0-1.0' : '',
        attribution: false,
        ...credit,
      },
    }),
  );
  const ways = Object.entries(colourways).map(([title, exchange]) => ({
    id: newId(),
    name: title,
    colours: Object.fromEntries(
      recipe.slots.flatMap(({ id: slot, name: from }) => {
        const to = exchange[from as ColourName];
        return to === undefined ? [] : [[slot, linked({ colour: COLOURS[to] }, links)]];
      }),
    ),
  }));
  if (ways.length > 0) need(saveColourways(db, id, patched.version, ways));
}
