import type { ImportedMotif } from '$lib/contract/data';
import { sendFile } from '../state/api';
import { toasts } from '../state/toasts.svelte';

/** A picture that a fill can show. */
export type TakenPicture = { name: string; asset: string; width: number; height: number };

/** What file fields for pictures accept. */
export const PICTURE_TYPES = 'image/png,image/jpeg,image/webp';

/** Brings a picture file in and says what was changed about it, or why it cannot be. */
export async function takePicture(file: File): Promise<TakenPicture | null> {
  const taken = await sendFile<ImportedMotif>('/motifs/pictures', file);
  if (!taken.ok) {
    toasts.problem(taken.failure.message);
    return null;
  }
  const { content, name, notes } = taken.value;
  if (notes.length > 0) toasts.show(notes.join(' '));
  const picture = content.elements.find((element) => element.picture)?.picture;
  return picture ? { name, asset: picture.asset, width: picture.width, height: picture.height } : null;
}
