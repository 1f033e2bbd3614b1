import { sendFile } from '../state/api';
import { toasts } from '../state/toasts.svelte';
import type { LayoutEditor } from './editor.svelte';

/** A picture that a fill can show. */
export type TakenPicture = { name: string; asset: string; width: number; height: number };

/** What file fields for pictures accept. */
export const PICTURE_TYPES = 'image/png,image/jpeg,image/webp';

/** Brings a picture file in and notes what was changed about it beside whatever shows it, or says why it cannot be. */
export async function takePicture(editor: LayoutEditor, file: File): Promise<TakenPicture | null> {
  const taken = await sendFile('POST /motifs/pictures', { file });
  if (!taken.ok) {
    toasts.problem(taken.failure.message);
    return null;
  }
  const { content, name, notes } = taken.value;
  const picture = content.elements.find((element) => element.picture)?.picture;
  if (picture) noteHow(editor, file, [picture.asset], notes);
  return picture ? { name, asset: picture.asset, width: picture.width, height: picture.height } : null;
}

/** How a file came in stands at the fill bar as long as one of its pictures or shapes is chosen. */
export function noteHow(
  editor: LayoutEditor,
  file: File,
  keys: readonly string[],
  notes: readonly string[],
): void {
  if (notes.length === 0) return;
  for (const key of keys) editor.cameIn.set(key, { file: file.name, notes });
  toasts.show(`“${file.name}” came in with notes; they stand at the fill bar.`);
}
