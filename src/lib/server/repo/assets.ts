import { createHash } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import type { Db } from '../db/open';
import { motifAsset } from '../db/schema';
import { madeBytes } from './made';

/** Keeps a motif's file under the SHA-256 of its bytes; the same bytes are kept once. */
export function storeAsset(
  db: Db,
  { bytes, mediaType, fileName }: { bytes: Buffer; mediaType: string; fileName: string },
): string {
  const file = { bytes, mediaType, fileName };
  const hash = createHash('sha256').update(file.bytes).digest('hex');
  db.insert(motifAsset)
    .values({ hash, studioId: db.studio, ...file, createdAt: Date.now() })
    // Brought in again: it counts as fresh, so that it is not cleared away before it is saved with something.
    .onConflictDoUpdate({ target: [motifAsset.studioId, motifAsset.hash], set: { createdAt: Date.now() } })
    .run();
  return hash;
}

/** A motif's file, or what was made of one; `null` where there is none, or it was not made yet. */
export function readAsset(
  db: Db,
  hash: string,
): { bytes: Buffer; mediaType: string; fileName: string } | null {
  const row = db
    .select({ bytes: motifAsset.bytes, mediaType: motifAsset.mediaType, fileName: motifAsset.fileName })
    .from(motifAsset)
    .where(and(eq(motifAsset.hash, hash), eq(motifAsset.studioId, db.studio)))
    .get();
  if (row) return row;
  const made = madeBytes(db, hash);
  return made && { bytes: made, mediaType: 'image/png', fileName: 'made.png' };
}

/** True where a file with this hash is kept. */
export const hasAsset = (db: Db, hash: string): boolean =>
  db
    .select({ hash: motifAsset.hash })
    .from(motifAsset)
    .where(and(eq(motifAsset.hash, hash), eq(motifAsset.studioId, db.studio)))
    .get() !== undefined;
