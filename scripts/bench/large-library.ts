import { hexOf } from '../../src/lib/core/colour/parse';
import { seededRandom } from '../../src/lib/core/num/random';
import { freshFill } from '../../src/lib/core/recipe/fill';
import type { Recipe } from '../../src/lib/core/recipe/recipe';
import type { Db } from '../../src/lib/server/db/open';
import { createCollection } from '../../src/lib/server/repo/collections';
import { fillRows, fillValues, putFillLinks } from '../../src/lib/server/repo/fill-rows';
import { createLayout } from '../../src/lib/server/repo/layouts';
import { createPalette } from '../../src/lib/server/repo/palettes';
import { createPattern, patchPattern } from '../../src/lib/server/repo/patterns';
import { publish } from '../../src/lib/server/repo/publishing';
import { createProject } from '../../src/lib/server/repo/projects';
import { shape } from '../../src/lib/server/db/schema';
import { block, dot, place, recipe } from '../../tests/support/recipes';

type Made<T> = { ok: true; value: T } | { ok: false; failure: { message: string } };
function need<T>(made: Made<T>): T {
  if (!made.ok) throw new Error(made.failure.message);
  return made.value;
}

const WORDS =
  'water stripe wave ring grid night rope leaf star bird tile moon petal brick sail foam paper lamp stone weave'.split(
    ' ',
  );
const TAGS = 'calm bold fine round angular festive neutral summer winter cloth wood metal'.split(' ');

/** Fills a database with `count` made-up patterns with words, tags, collections, colours, some of them linked. */
export function fillLibrary(db: Db, count: number): { ids: string[]; linked: string } {
  const random = seededRandom(77);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const colour = (): string => hexOf([random() * 255, random() * 255, random() * 255]);
  const palette = need(
    createPalette(db, 'Linked', { colours: [{ id: 'linked', name: 'Sea deep', hex: '#10394d' }] }),
  );
  const collections = TAGS.map((tag) => need(createCollection(db, `Set ${tag}`)).id);
  const ids: string[] = [];
  db.$client.exec('BEGIN');
  for (let index = 0; index < count; index += 1) {
    const name = `${pick(WORDS)} ${pick(WORDS)} ${index}`;
    const link = index % 10 === 0 ? { link: 'linked', colour: '#10394d' } : { colour: colour() };
    const art: Recipe = recipe({
      unit: { width: 20 + random() * 200, height: 20 + random() * 200 },
      slots: [
        { id: 'ink', name: 'Ink', ...link },
        { id: 'paper', name: 'Paper', colour: colour() },
      ],
      motifs: [index % 2 === 0 ? dot('m', 12) : block('m', 14, 8)],
      placings: [place('m', 15, 15), place('m', 40, 30)],
      ground: { kind: 'slot', slot: 'paper' },
    });
    const made = need(
      createPattern(db, {
        name,
        description: `A ${pick(WORDS)} of ${pick(WORDS)} and ${pick(WORDS)}`,
        recipe: art,
      }),
    );
    const published = need(publish(db, made.id, made.version));
    need(
      patchPattern(db, made.id, published.version, {
        tags: [pick(TAGS), pick(TAGS)],
        collections: [pick(collections)],
      }),
    );
    ids.push(made.id);
  }
  db.$client.exec('COMMIT');
  return { ids, linked: palette.id };
}

/** Fills `count` shapes in `layouts` layouts with one pattern, each with a ground that follows the linked colour. */
export function fillUses(db: Db, pattern: string, count: number, layouts: number): string[] {
  const project = need(createProject(db, 'Everything')).id;
  const ids: string[] = [];
  db.$client.exec('BEGIN');
  for (let page = 0; page < layouts; page += 1) {
    const { id } = need(
      createLayout(db, project, { name: `Page ${page}`, width: 1000, height: 1000, measure: 'px' }),
    );
    ids.push(id);
    for (let at = 0; at < count / layouts; at += 1) {
      const shapeId = `b${page}-${at}`;
      db.insert(shape)
        .values({
          id: shapeId,
          studioId: db.studio,
          layoutId: id,
          position: at,
          name: `Shape ${at}`,
          form: '{"kind":"rectangle","radius":0}',
          x: (at % 5) * 200,
          y: Math.floor(at / 5) * 200,
          width: 190,
          height: 190,
          rotation: 0,
        })
        .run();
      const ground = { kind: 'colour' as const, colour: '#10394d', link: 'linked' };
      const fill = { ...freshFill(`${shapeId}f`, pattern), scaleX: 0.7, scaleY: 0.7, ground };
      fillRows.put(db, { ...fillValues(db, fill, shapeId), position: 0 }, null);
      putFillLinks(db, fill);
    }
  }
  db.$client.exec('COMMIT');
  return ids;
}
