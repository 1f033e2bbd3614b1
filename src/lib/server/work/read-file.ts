import { createHash } from 'node:crypto';
import { nanoid } from 'nanoid';
import type { FileAsset, FoundInFile, ReadReply, ReadRequest } from '../../contract/taking';
import { readPaletteFile } from '../../core/formats/palette-files';
import { LIBRARY_VERSION } from '../../core/recipe/library';
import { LIMITS } from '../../core/recipe/limits';
import { readPatterns } from '../../core/svg/import-patterns';
import { readKept } from '../../core/svg/read-library';
import { readSvgTree } from '../../core/svg/xml';
import { setText } from '../render/text';
import { readZip } from '../render/zip';

/** Entry of a reading thread: what a file holds that a library can take in. */
export default async function readFile({ fileName, bytes }: ReadRequest): Promise<ReadReply> {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return readPackage(fileName, bytes);
  return readOne(fileName, bytes);
}

const nothing = (): FoundInFile => ({
  kept: [],
  keptPalettes: [],
  assets: [],
  drawn: [],
  pictures: [],
  palettes: [],
  notes: [],
});

function readOne(fileName: string, bytes: Uint8Array): ReadReply {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return {
      ok: false,
      message: `“${fileName}” is neither text in UTF-8 nor a zip; open an SVG file, a library package or a palette file.`,
    };
  }
  if (
    !text
      .replace(/^\uFEFF/, '')
      .trimStart()
      .startsWith('<')
  )
    return paletteReply(fileName, text);
  const tree = readSvgTree(text, { bytes: LIMITS.libraryBytes, nodes: 2_000_000 });
  if (!tree.ok) return { ok: false, message: `“${fileName}”: ${tree.message}` };
  const kept = readKept(tree.root);
  const { patterns, pictures, notes } = readPatterns(tree.root, () => nanoid(12), setText, kept.ours);
  const library = (kept.library ?? {}) as { palettes?: unknown[]; assets?: unknown[] };
  const found: FoundInFile = {
    ...nothing(),
    kept: kept.patterns,
    keptPalettes: Array.isArray(library.palettes) ? library.palettes : [],
    assets: (Array.isArray(library.assets) ? library.assets : []).flatMap((asset) => assetOf(asset) ?? []),
    drawn: patterns,
    pictures,
    notes: [...kept.notes, ...notes],
  };
  if (found.kept.length + found.drawn.length > 0) return { ok: true, found };
  if (found.notes.length > 0) return { ok: false, message: `“${fileName}”: ${found.notes.join(' ')}` };
  return paletteReply(
    fileName,
    text,
    `“${fileName}” holds no <pattern> and no colours. To use its drawing as a motif, open the bench.`,
  );
}

function paletteReply(fileName: string, text: string, otherwise?: string): ReadReply {
  const palettes = readPaletteFile(fileName, text);
  if (typeof palettes === 'string') return { ok: false, message: otherwise ?? palettes };
  return { ok: true, found: { ...nothing(), palettes } };
}

/** An asset of a library file with the hash of its own bytes; what it says of itself is not believed. */
function assetOf(value: unknown): FileAsset | null {
  const { data, mediaType, fileName } = (value ?? {}) as Record<string, unknown>;
  if (typeof data !== 'string' || typeof mediaType !== 'string') return null;
  const bytes = Buffer.from(data, 'base64');
  return fileAsset(bytes, mediaType, typeof fileName === 'string' ? fileName : 'picture');
}

const ASSET_TYPES = new Set(['image/png', 'image/jpeg', 'image/webp', 'image/svg+xml']);

function fileAsset(bytes: Buffer, mediaType: string, fileName: string): FileAsset | null {
  if (!ASSET_TYPES.has(mediaType) || bytes.length === 0) return null;
  return {
    hash: createHash('sha256').update(bytes).digest('hex'),
    mediaType,
    fileName: fileName.slice(0, 255),
    bytes,
  };
}

async function readPackage(fileName: string, bytes: Uint8Array): Promise<ReadReply> {
  const zip = await readZip(bytes);
  if (!zip.ok) return { ok: false, message: `“${fileName}”: ${zip.message}` };
  const manifest = zip.files.get('isle.json');
  if (manifest) return readManifest(fileName, manifest, zip.files);
  const found = nothing();
  for (const [name, inner] of zip.files) {
    if (!/\.(svg|json|tokens|css|csv)$/i.test(name)) continue;
    const reply = readOne(name.split('/').at(-1) ?? name, inner);
    if (!reply.ok) {
      found.notes.push(reply.message);
      continue;
    }
    const { drawn, pictures, ...rest } = reply.found;
    const shift = found.pictures.length;
    found.drawn.push(...(shift === 0 ? drawn : drawn.map((one) => renumbered(one, shift))));
    found.pictures.push(...pictures);
    for (const key of ['kept', 'keptPalettes', 'assets', 'palettes', 'notes'] as const)
      (found[key] as unknown[]).push(...rest[key]);
  }
  const count = found.kept.length + found.drawn.length + found.palettes.length;
  if (count > 0) return { ok: true, found };
  return {
    ok: false,
    message: `“${fileName}” holds nothing that Isle can take in. ${found.notes.slice(0, 3).join(' ')}`.trim(),
  };
}

/** Pictures of a later file of a package are counted on from those before. */
function renumbered<T>(value: T, shift: number): T {
  const text = JSON.stringify(value).replace(
    /"pending:(\d+)"/g,
    (_, index: string) => `"pending:${Number(index) + shift}"`,
  );
  return JSON.parse(text) as T;
}

function readManifest(
  fileName: string,
  manifest: Uint8Array,
  files: ReadonlyMap<string, Uint8Array>,
): ReadReply {
  const data = json(manifest);
  if (!data)
    return {
      ok: false,
      message: `“${fileName}”: its table of contents, isle.json, is damaged; nothing was read.`,
    };
  const { version, patterns, palettes, assets } = data as Record<string, unknown>;
  if (version !== LIBRARY_VERSION)
    return {
      ok: false,
      message: `“${fileName}” is written in version ${String(version)}; this Isle reads version ${LIBRARY_VERSION}. Update Isle to open it.`,
    };
  const found = nothing();
  for (const entry of list(patterns)) {
    const { recipe, ...rest } = entry;
    const own = typeof recipe === 'string' ? files.get(recipe) : undefined;
    const read = own ? json(own) : null;
    if (read) found.kept.push({ version, ...rest, recipe: read });
    else found.notes.push(`The recipe of “${String(rest.name)}” is missing or damaged; it was left out.`);
  }
  found.keptPalettes = list(palettes);
  for (const { file, mediaType, fileName: name } of list(assets)) {
    const bytes = typeof file === 'string' ? files.get(file) : undefined;
    const asset = bytes && fileAsset(Buffer.from(bytes), String(mediaType), String(name));
    if (asset) found.assets.push(asset);
  }
  return { ok: true, found };
}

const list = (value: unknown): Record<string, unknown>[] =>
  Array.isArray(value)
    ? value.filter((one): one is Record<string, unknown> => typeof one === 'object' && one !== null)
    : [];

function json(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes)) as unknown;
  } catch {
    return null;
  }
}
