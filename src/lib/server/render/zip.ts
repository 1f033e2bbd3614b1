import { fromBuffer, type Entry, type ZipFile } from 'yauzl';
import { LIMITS } from '../../core/recipe/limits';

export type Unzipped = { ok: true; files: Map<string, Uint8Array> } | { ok: false; message: string };

/** What an archive may hold: our own limits, generous for a library of thousands of patterns. */
const MOST_ENTRIES = 40_000;
const MOST_BYTES = 400_000_000;
/** More than this inflated from one byte is a bomb, not a drawing. */
const MOST_RATIO = 1000;

/**
 * Unpacks a zip in memory; nothing is written to disk. Names that lead out of the archive, links, encrypted entries
 * and archives that unpack to far more than they hold are refused whole.
 */
export async function readZip(bytes: Uint8Array): Promise<Unzipped> {
  let zip: ZipFile;
  try {
    zip = await opened(Buffer.from(bytes));
  } catch (error) {
    return { ok: false, message: `the zip is damaged or cut off (${reason(error)}).` };
  }
  if (zip.entryCount > MOST_ENTRIES)
    return { ok: false, message: `the zip holds ${zip.entryCount} files; at most ${MOST_ENTRIES} are read.` };
  const files = new Map<string, Uint8Array>();
  let total = 0;
  try {
    for await (const entry of entriesOf(zip)) {
      const refused = refusal(entry);
      if (refused) return { ok: false, message: refused };
      total += entry.uncompressedSize;
      if (total > MOST_BYTES)
        return { ok: false, message: `the zip unpacks to more than ${MOST_BYTES / 1e6} MB; part it first.` };
      if (!entry.fileName.endsWith('/')) files.set(entry.fileName, await contentOf(zip, entry));
    }
  } catch (error) {
    return { ok: false, message: `the zip cannot be read whole (${reason(error)}); nothing was taken in.` };
  } finally {
    zip.close();
  }
  return { ok: true, files };
}

function refusal(entry: Entry): string | null {
  const unixMode = entry.externalFileAttributes >>> 16;
  if ((unixMode & 0xf000) === 0xa000)
    return `“${entry.fileName}” in the zip is a link, not a file; links are not followed.`;
  if (entry.uncompressedSize > LIMITS.libraryBytes)
    return `“${entry.fileName}” in the zip unpacks to more than ${LIMITS.libraryBytes / 1e6} MB.`;
  if (entry.uncompressedSize > 1_000_000 && entry.uncompressedSize > entry.compressedSize * MOST_RATIO)
    return `“${entry.fileName}” in the zip unpacks to more than ${MOST_RATIO} times its size; such a file is not opened.`;
  if (entry.generalPurposeBitFlag & 1)
    return `“${entry.fileName}” in the zip is encrypted; save it without a password.`;
  return null;
}

const reason = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Opens an archive; yauzl itself refuses absolute names, `..` and backslashes. */
function opened(bytes: Buffer): Promise<ZipFile> {
  return new Promise((resolve, reject) => {
    fromBuffer(bytes, { lazyEntries: true, strictFileNames: true }, (error, zip) =>
      error ? reject(error) : resolve(zip),
    );
  });
}

async function* entriesOf(zip: ZipFile): AsyncGenerator<Entry> {
  while (true) {
    const entry = await new Promise<Entry | null>((resolve, reject) => {
      const done = (value: Entry | null): void => {
        zip.removeAllListeners('entry').removeAllListeners('end').removeAllListeners('error');
        resolve(value);
      };
      zip.once('entry', done);
      zip.once('end', () => done(null));
      zip.once('error', reject);
      zip.readEntry();
    });
    if (!entry) return;
    yield entry;
  }
}

function contentOf(zip: ZipFile, entry: Entry): Promise<Uint8Array> {
  return new Promise((resolve, reject) => {
    zip.openReadStream(entry, (error, stream) => {
      if (error) return reject(error);
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('end', () => resolve(Buffer.concat(parts)));
      stream.on('error', reject);
    });
  });
}
