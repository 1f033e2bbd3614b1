import type { ClashChoice, TakenFile, TakingReport } from '../../contract/taking';
import { fail, type Outcome } from '../../contract/failure';
import type { KeptPalette, KeptPattern } from '../../core/recipe/library';
import type { RunOptions } from '../processes/pool';
import { takeIn, type Taking } from '../repo/take-in';
import { readyAssets, readyItem } from '../repo/ready';
import { markSound } from '../repo/stored';
import type { App } from './app';

/** Has a child process read a file and lay ready what it holds. Nothing is stored yet. */
export async function readFileIn(
  app: App,
  { path, name }: { path: string; name: string },
  options: RunOptions = {},
): Promise<Outcome<TakenFile>> {
  const place = app.waiting.place();
  const read = await app.processes.run(
    'readFile',
    { store: app.store, path, fileName: name, folder: place.folder },
    options,
  );
  if (!read.ok) {
    place.forget();
    return read;
  }
  const { items, notes, bytes } = read.value;
  place.keep(
    bytes,
    items.map(({ key, kind }) => ({ key, kind })),
  );
  return { ok: true, value: { token: place.token, fileName: name, items, notes } };
}

/** Takes in what was read, as chosen, all in one transaction. */
export function takeFilesIn(
  app: App,
  files: readonly { token: string; choices: Record<string, ClashChoice> }[],
): Outcome<TakingReport> {
  const patterns: Taking<KeptPattern>[] = [];
  const palettes: Taking<KeptPalette>[] = [];
  const folders: { folder: string; patterns: KeptPattern[] }[] = [];
  for (const { token, choices } of files) {
    const waiting = app.waiting.get(token);
    if (!waiting)
      return fail('not_found', 'A file was read too long ago and is forgotten; open it again.', 'files');
    const { folder, items } = waiting;
    const wanted: KeptPattern[] = [];
    for (const { key, kind } of items) {
      const choice = choices[key];
      if (kind === 'palette') palettes.push({ kept: readyItem(folder, key, kind), choice: choice ?? 'skip' });
      else if (choice !== undefined) {
        const kept = readyItem<KeptPattern>(folder, key, kind);
        // Whoever laid it ready has checked it.
        markSound(kept.recipe);
        patterns.push({ kept, choice });
        if (choice !== 'skip') wanted.push(kept);
      }
    }
    folders.push({ folder, patterns: wanted });
  }
  function* assets() {
    for (const { folder, patterns: wanted } of folders) yield* readyAssets(folder, wanted);
  }
  const taken = takeIn(app.db, { patterns, palettes, assets: assets() });
  if (taken.ok) app.waiting.drop(files.map((file) => file.token));
  return taken;
}
