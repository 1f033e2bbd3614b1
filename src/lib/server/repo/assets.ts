import { createHash } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { STUDIO, type Db } from '../db/open';
import { motifAsset } from '../db/schema';

/** Keeps a motif's file under the SHA-256 of its bytes; the same bytes are kept once. */
export function storeAsset(
  db: Db,
  { bytes, mediaType, fileName }: { bytes: Buffer; mediaType: string; fileName: string },
): string {
  const file = { bytes, mediaType, fileName };
  const hash = createHash('sha256').update(file.bytes).digest('hex');
  db.insert(motifAsset)
    .values({ hash, studioId: STUDIO, ...file, createdAt: Date.now() })
    // Brought in again: it counts as fresh, so that it is not cleared away before it is saved with something.
    .onConflictDoUpdate({ target: [motifAsset.studioId, motifAsset.hash], set: { createdAt: Date.now() } })
    .run();
  return hash;
}

/** A motif's file, or `null`. */
export function readAsset(
  db: Db,
  hash: string,
): { bytes: Buffer; mediaType: string; fileName: string } | null {
  const row = db
    .select({ bytes: motifAsset.bytes, mediaType: motifAsset.mediaType, fileName: motifAsset.fileName })
    .from(motifAsset)
    .where(and(eq(motifAsset.hash, hash), eq(motifAsset.studioId, STUDIO)))
    .get();
  return row ?? null;
}

/** A picture among the assets as a data URL, or `null`. */
export function assetUrl(db: Db, hash: string): string | null {
  const file = readAsset(db, hash);
  return file && `data:${file.mediaType};base64,${file.bytes.toString('base64')}`;
}

/** True where a file with this hash is kept. */
export const hasAsset = (db: Db, hash: string): boolean =>
  db
    .select({ hash: motifAsset.hash })
    .from(motifAsset)
    .where(and(eq(motifAsset.hash, hash), eq(motifAsset.studioId, STUDIO)))
    .get() !== undefined;
