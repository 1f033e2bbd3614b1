import { clamp, roundTo } from '$lib/core/num/tolerance';
import { LIMITS } from '$lib/core/recipe/limits';
import { motifSize, type PicturePaint } from '$lib/core/recipe/recipe';
import { lonePicture } from '$lib/core/scene/drawing';
import { meanScale } from '$lib/core/geom/affine';
import { call, sendFile } from '../state/api';
import { toasts } from '../state/toasts.svelte';
import type { BenchEditor } from './editor.svelte';

/** Brings SVG files, pages of PDFs and pictures in as motifs and places each once; says what could not be kept. */
export async function bringIn(editor: BenchEditor, files: Iterable<File>): Promise<void> {
  for (const file of files) await bringOne(editor, file);
}

/** Brings one file in; of a PDF a page is asked for first. */
export async function bringOne(editor: BenchEditor, file: File): Promise<void> {
  if (file.type === 'application/pdf' || /\.pdf$/i.test(file.name)) {
    if (file.size > LIMITS.pdfBytes)
      toasts.problem(
        `“${file.name}” has ${(file.size / 1e6).toFixed(1)} MB; a PDF may have at most ${LIMITS.pdfBytes / 1e6} MB.`,
      );
    else editor.pdf = file;
    return;
  }
  const isSvg = file.type === 'image/svg+xml' || /\.svg$/i.test(file.name);
  const most = isSvg ? LIMITS.svgBytes : LIMITS.pictureBytes;
  if (file.size > most) {
    toasts.problem(
      `“${file.name}” has ${(file.size / 1e6).toFixed(1)} MB; ${isSvg ? 'an SVG file' : 'a picture'} may have at most ${most / 1e6} MB.`,
    );
    return;
  }
  const read = isSvg
    ? await call('POST /motifs', { body: { fileName: file.name, svg: await file.text() } })
    : await sendFile('POST /motifs/pictures', { file });
  if (!read.ok) {
    toasts.problem(read.failure.message);
    return;
  }
  const { name, content, slots, notes } = read.value;
  const picture = lonePicture(content);
  if (picture && editor.composed.motifs.length === 0) suitPicture(editor, motifSize(content), picture);
  const motif = editor.addMotif(name, content, slots);
  if (notes.length === 0) return;
  editor.notes.set(motif, notes);
  toasts.problem(`“${file.name}” came in with notes; they stand beside the motif.`);
}

/** An empty unit takes the size of the first picture, read in inches where the picture has a resolution of its own. */
function suitPicture(
  editor: BenchEditor,
  { width, height }: { width: number; height: number },
  { matrix }: PicturePaint,
): void {
  const { least, most } = LIMITS.unitSide;
  const side = (length: number): number => clamp(roundTo(length, 6), least, most);
  const measure = meanScale(matrix) === 1 ? 'px' : 'in';
  editor.history.live({
    ...editor.composed,
    measure,
    unit: { width: side(width), height: side(height) },
  });
}
