import type { Pictured, Region, Tone } from '$lib/core/recipe/pictured';
import type { PictureEditor } from './editor.svelte';

/** What a number field is told: a drag is shown as it goes and becomes one step. */
export type Fields = {
  onlive: (value: number) => void;
  onset: (value: number) => void;
  oncancel: () => void;
};

/** The fields of the picture view, by what their numbers change. */
export function fieldsOf(editor: PictureEditor) {
  const fields = (set: (value: number, live: boolean) => void): Fields => ({
    onlive: (value) => set(value, true),
    onset: (value) => set(value, false),
    oncancel: () => editor.history.cancel(),
  });
  const stepped = (change: (from: Pictured, value: number) => Pictured): Fields =>
    fields((value, live) => editor.steps((from) => change(from, value), live));
  return {
    fields,
    stepped,
    regioned: (change: (from: Region, value: number) => Region): Fields =>
      fields((value, live) => editor.region((from) => change(from, value), live)),
    toned: (key: keyof Tone): Fields =>
      stepped((from, value) => ({ ...from, tone: { ...from.tone, [key]: value } })),
  };
}

export const percent = (value: number): string => `${Math.round(value * 100)} %`;
