import { eq } from 'drizzle-orm';
import type { ClashChoice, TakingReport } from '../../contract/taking';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Colourway } from '../../core/colour/colourway';
import type { Tint } from '../../core/colour/tint';
import { freeName } from '../../core/recipe/edit';
import type { KeptPalette, KeptPattern } from '../../core/recipe/library';
import type { Recipe } from '../../core/recipe/recipe';
import type { Db } from '../db/open';
import { colourway, motifAsset, palette, pattern } from '../db/schema';
import { addTags, addToCollections, collectionNamed } from './collections';
import { saveColourways } from './colourways';
import { newId, note, writing } from './context';
import { paletteFor, sameData } from './kept';
import { nameKey } from './names';
import { createPalette, getPalette, savePalette } from './palettes';
import { addRevision, findRow, insertPublished, rowNamed } from './pattern-rows';
import { getPattern } from './patterns';
import { statement } from './rows';
import { indexWords } from './search-index';
import { problemsOf } from './stored';

export type Taking<T> = { kept: T; choice: ClashChoice };

export type TakeIn = {
  patterns: readonly Taking<KeptPattern>[];
  palettes: readonly Taking<KeptPalette>[];
  /** Read one by one, so that they are never in memory together. */
  assets: Iterable<{ hash: string; mediaType: string; fileName: string; bytes: Uint8Array }>;
};

/**
 * Takes patterns and palettes in, in one transaction: all or nothing. Where a name is taken the choice says whether both
 * are kept, ours gets a new revision, or the newcomer is left out. No use in any layout is touched but through a revision.
 */
export function takeIn(db: Db, { patterns, palettes, assets }: TakeIn): Outcome<TakingReport> {
  const report: TakingReport = { added: [], replaced: [], skipped: 0 };
  return writing(db, { what: 'pattern', name: '' }, (tx): Outcome<TakingReport> => {
    for (const { hash, mediaType, fileName, bytes } of assets)
      tx.insert(motifAsset)
        .values({
          hash,
          studioId: tx.studio,
          mediaType,
          fileName,
          bytes: Buffer.from(bytes),
          createdAt: Date.now(),
        })
        .onConflictDoNothing()
        .run();
    const arrival: Arrival = { report, links: new Map(), names: namesIn(tx, pattern) };
    for (const taking of palettes) {
      const taken = takePalette(tx, taking, arrival);
      if (!taken.ok) return taken;
    }
    for (const taking of patterns) {
      const taken = takePattern(tx, taking, arrival);
      if (!taken.ok) return taken;
    }
    note(tx, 'pattern.taken_in', '', { added: report.added.length, replaced: report.replaced.length });
    return done(report);
  });
}

/** What taking in goes by: what it did so far, which palette colour of ours stands for one of the file, taken names. */
type Arrival = { report: TakingReport; links: Map<string, string | null>; names: string[] };

const namesIn = (tx: Db, table: typeof pattern | typeof palette): string[] =>
  tx
    .select({ name: table.name })
    .from(table)
    .all()
    .map((row) => row.name);

/** Takes a palette in and notes which of its colours stand for which of ours. */
function takePalette(
  tx: Db,
  { kept, choice }: Taking<KeptPalette>,
  { links, report }: Arrival,
): Outcome<null> {
  const here = paletteFor(tx, kept);
  if (here === null && choice === 'skip') {
    report.skipped += 1;
    return done(null);
  }
  if (here === null || choice === 'both') {
    const free = idsAreFree(tx, kept) && here === null;
    const colours = kept.colours.map((entry) => ({ ...entry, id: free ? entry.id : newId() }));
    const made = createPalette(tx, freeName(kept.name, namesIn(tx, palette)), {
      colours,
      ...(free ? { id: kept.id } : {}),
    });
    if (!made.ok) return made;
    kept.colours.forEach((entry, index) => links.set(entry.id, colours[index]!.id));
    report.added.push({ name: made.value.name, id: made.value.id, kind: 'palette' });
    return done(null);
  }
  const ours = getPalette(tx, here);
  if (!ours.ok) return ours;
  const match = (entry: { id: string; name: string }): string | null =>
    ours.value.colours.find((own) => own.id === entry.id)?.id ??
    ours.value.colours.find((own) => nameKey(own.name) === nameKey(entry.name))?.id ??
    null;
  if (choice === 'skip') {
    for (const entry of kept.colours) links.set(entry.id, match(entry));
    report.skipped += 1;
    return done(null);
  }
  const colours = kept.colours.map((entry) => ({ ...entry, id: match(entry) ?? freeColourId(tx, entry.id) }));
  const saved = savePalette(tx, here, ours.value.version, { name: ours.value.name, colours });
  if (!saved.ok) return saved;
  kept.colours.forEach((entry, index) => links.set(entry.id, colours[index]!.id));
  report.replaced.push({ name: ours.value.name, id: here, kind: 'palette' });
  return done(null);
}

function idsAreFree(tx: Db, kept: KeptPalette): boolean {
  if (tx.select({ id: palette.id }).from(palette).where(eq(palette.id, kept.id)).get()) return false;
  return kept.colours.every((entry) => freeColourId(tx, entry.id) === entry.id);
}

const freeColourId = (tx: Db, id: string): string =>
  statement(tx, 'SELECT 1 FROM palette_colour WHERE id = ?').get(id) ? newId() : id;

function takePattern(
  tx: Db,
  { kept, choice }: Taking<KeptPattern>,
  { links, report, names }: Arrival,
): Outcome<null> {
  if (choice === 'skip') {
    report.skipped += 1;
    return done(null);
  }
  const recipe = { ...kept.recipe, slots: kept.recipe.slots.map((slot) => relinked(slot, links)) };
  const ways = kept.colourways.map((way) => ({
    ...way,
    colours: Object.fromEntries(
      Object.entries(way.colours).map(([slot, tint]) => [slot, relinked(tint, links)]),
    ),
  }));
  const here = rowNamed(tx, kept.name);
  if (here && choice === 'replace') return revise(tx, here, { recipe, ways, report });
  const name = here ? freeName(kept.name, [kept.name, ...names]) : kept.name;
  names.push(name);
  const id = findRow(tx, kept.id) ? newId() : kept.id;
  const [problem] = problemsOf(kept.recipe);
  if (problem) return fail('invalid', `“${kept.name}”: ${problem.message}`, problem.path);
  insertPublished(tx, { id, name, description: kept.description, recipe }, kept.credit);
  addTags(tx, id, kept.tags);
  addToCollections(
    tx,
    id,
    kept.collections.map((one) => collectionNamed(tx, one)),
  );
  if (ways.length > 0) {
    const saved = saveColourways(
      tx,
      id,
      1,
      ways.map((way) => withFreeId(tx, way)),
    );
    if (!saved.ok) return saved;
  }
  indexWords(tx, id);
  report.added.push({ name, id, kind: 'pattern' });
  return done(null);
}

/** Gives a pattern of ours the recipe of a newcomer as a new revision, where it differs, and its colourways by name. */
function revise(
  tx: Db,
  { id, name, stock }: { id: string; name: string; stock: boolean },
  { recipe, ways, report }: { recipe: Recipe; ways: readonly Colourway[]; report: TakingReport },
): Outcome<null> {
  if (stock) return fail('protected', `“${name}” is stock and stays as it is; keep both instead.`, 'choices');
  const ours = getPattern(tx, id);
  if (!ours.ok) return ours;
  const { newest, version, colourways } = ours.value;
  if (!sameData(ours.value.recipe, recipe)) {
    addRevision(tx, id, newest + 1, recipe);
    tx.update(pattern)
      .set({ newest: newest + 1, updatedAt: Date.now() })
      .where(eq(pattern.id, id))
      .run();
    note(tx, 'pattern.published', id, { revision: newest + 1 });
  }
  const key = (way: Colourway): string => nameKey(way.name);
  const changed = colourways.map((way) => {
    const theirs = ways.find((one) => key(one) === key(way));
    return theirs ? { ...way, colours: theirs.colours } : way;
  });
  const fresh = ways.filter((way) => !colourways.some((one) => key(one) === key(way)));
  const saved = saveColourways(tx, id, version, [...changed, ...fresh.map((way) => withFreeId(tx, way))]);
  if (!saved.ok) return saved;
  report.replaced.push({ name, id, kind: 'pattern' });
  return done(null);
}

const withFreeId = (tx: Db, way: Colourway): Colourway => ({
  ...way,
  id: isFreeColourway(tx, way.id) ? way.id : newId(),
});

const isFreeColourway = (tx: Db, id: string): boolean =>
  tx.select({ id: colourway.id }).from(colourway).where(eq(colourway.id, id)).get() === undefined;

/** A tint that follows ours instead of the file's palette colour; one that has none here keeps its colour alone. */
function relinked<T extends Tint>(tint: T, links: ReadonlyMap<string, string | null>): T {
  if (tint.link === undefined) return tint;
  const { link, ...rest } = tint;
  const to = links.get(link);
  return (to ? { ...rest, link: to } : rest) as T;
}
