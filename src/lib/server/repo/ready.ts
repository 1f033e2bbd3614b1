import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { newId } from './context';
import type { FileAsset } from '../../contract/taking';
import { recipeAssets, type KeptPalette, type KeptPattern } from '../../core/recipe/library';

/**
 * What a file holds, laid ready in a folder until it is decided what is taken in: `<key>.pattern.json`,
 * `<key>.palette.json`, `assets.json` and each asset under its hash. A child process writes it, all of it checked; the
 * server reads what was chosen. So nothing of a large file is ever in the server's memory.
 */
export class LayingReady {
  bytes = 0;

  constructor(private readonly folder: string) {
    mkdirSync(folder, { recursive: true });
  }

  pattern(kept: KeptPattern): string {
    return this.item('pattern', kept);
  }

  palette(kept: KeptPalette): string {
    return this.item('palette', kept);
  }

  assets(assets: readonly FileAsset[]): void {
    for (const { hash, bytes } of assets) this.write(hash, bytes);
    const list = assets.map(({ hash, mediaType, fileName }) => ({ hash, mediaType, fileName }));
    this.write('assets.json', JSON.stringify(list));
  }

  private item(kind: 'pattern' | 'palette', kept: unknown): string {
    const key = newId();
    this.write(`${key}.${kind}.json`, JSON.stringify(kept));
    return key;
  }

  private write(name: string, content: string | Uint8Array): void {
    writeFileSync(join(this.folder, name), content);
    this.bytes += content.length;
  }
}

/** One thing that was laid ready. */
export const readyItem = <T extends KeptPattern | KeptPalette>(
  folder: string,
  key: string,
  kind: 'pattern' | 'palette',
): T => JSON.parse(readFileSync(join(folder, `${key}.${kind}.json`), 'utf8')) as T;

/** The assets that some patterns need, of those that were laid ready; each is read when it is its turn. */
export function* readyAssets(folder: string, patterns: readonly KeptPattern[]): Generator<FileAsset> {
  const wanted = new Set(patterns.flatMap(({ recipe }) => recipeAssets(recipe)));
  const list = JSON.parse(readFileSync(join(folder, 'assets.json'), 'utf8')) as Omit<FileAsset, 'bytes'>[];
  for (const asset of list)
    if (wanted.has(asset.hash)) yield { ...asset, bytes: readFileSync(join(folder, asset.hash)) };
}
