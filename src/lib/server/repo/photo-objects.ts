import { and, asc, eq } from 'drizzle-orm';
import type { PhotoObject } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import { mockupFault, type Mockup } from '../../core/mockup/mockup';
import type { Db } from '../db/open';
import { photoObject } from '../db/schema';
import { hasAsset } from './assets';
import { newId, note, writing } from './context';
import { nameKey } from './names';

/** So many photographs of blank things are kept at most. */
const MOST = 500;

/** The photographs of blank things that are kept for all projects, by name; what cannot be read is left out. */
export function listPhotoObjects(db: Db): PhotoObject[] {
  return db
    .select()
    .from(photoObject)
    .where(eq(photoObject.studioId, db.studio))
    .orderBy(asc(photoObject.nameKey))
    .all()
    .flatMap(({ id, name, body }): PhotoObject[] => {
      try {
        const read = JSON.parse(body) as Mockup;
        return mockupFault(read) === null ? [{ id, name, body: read }] : [];
      } catch {
        return [];
      }
    });
}

/** Keeps a photograph with its surfaces; what they show stays with the mock-up. */
export function keepPhotoObject(
  db: Db,
  { name, body }: { name: string; body: Mockup },
): Outcome<{ id: string }> {
  return writing(db, { what: 'kept photograph', name }, (tx): Outcome<{ id: string }> => {
    const fault = body.kind === 'photo' ? mockupFault(body) : 'Only a mock-up on a photograph is kept so.';
    if (fault) return fail('invalid', fault, 'body');
    if (!body.photo || !hasAsset(tx, body.photo.asset))
      return fail('invalid', 'The photograph is not kept here; bring it in first.', 'body');
    if (listPhotoObjects(tx).length >= MOST)
      return fail('too_large', `At most ${MOST} photographs are kept; take one away first.`);
    const id = newId();
    const blank = body.objects.map((one) => ({
      ...one,
      layout: null,
      colourway: null,
      slid: { x: 0, y: 0 },
    }));
    tx.insert(photoObject)
      .values({
        ...{ id, studioId: tx.studio, name, nameKey: nameKey(name) },
        body: JSON.stringify({ ...body, objects: blank }),
        createdAt: Date.now(),
      })
      .run();
    note(tx, 'photo-object.kept', id);
    return done({ id });
  });
}

export function removePhotoObject(db: Db, id: string): Outcome<{ id: string }> {
  const { changes } = db
    .delete(photoObject)
    .where(and(eq(photoObject.id, id), eq(photoObject.studioId, db.studio)))
    .run();
  if (changes === 0) return fail('not_found', 'This photograph is not kept any more.', 'id');
  note(db, 'photo-object.removed', id);
  return done({ id });
}
