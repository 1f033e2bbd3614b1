import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
import type { Affine } from '$lib/core/geom/affine';
import { pdfDrawing, type PdfDrawing } from '$lib/core/formats/pdf-drawing';
import { withResolution } from '$lib/core/formats/png';

type Reader = typeof import('pdfjs-dist');

let reader: Promise<Reader> | null = null;

/** The reader is large and seldom needed: it comes when the first PDF does, and reads in a worker of its own. */
const pdfReader = (): Promise<Reader> =>
  (reader ??= Promise.all([import('pdfjs-dist'), import('pdfjs-dist/build/pdf.worker.min.mjs?url')]).then(
    ([found, { default: worker }]) => {
      found.GlobalWorkerOptions.workerSrc = worker;
      return found;
    },
  ));

/** 72 pt and 96 px are an inch. */
const PX_PER_PT = 96 / 72;
/** Pixels of a page that becomes a picture. */
export const MOST_PAGE_PIXELS = 40_000_000;

/** A PDF that is open: it is read here, in the browser, and never sent as a whole. */
export class OpenPdf {
  private constructor(
    private readonly pdf: PDFDocumentProxy,
    private readonly found: Reader,
    readonly name: string,
  ) {}

  static async open(file: File): Promise<{ ok: true; pdf: OpenPdf } | { ok: false; message: string }> {
    try {
      const found = await pdfReader();
      const data = new Uint8Array(await file.arrayBuffer());
      const pdf = await found.getDocument({ data, isEvalSupported: false, verbosity: 0 }).promise;
      return { ok: true, pdf: new OpenPdf(pdf, found, file.name.replace(/\.pdf$/i, '')) };
    } catch (error) {
      const kind = error instanceof Error ? error.name : '';
      return {
        ok: false,
        message:
          kind === 'PasswordException'
            ? `“${file.name}” is locked with a password; save it without one and bring it in again.`
            : `“${file.name}” is no PDF that can be read; it may be damaged. Save it once more, or export it as SVG.`,
      };
    }
  }

  get pages(): number {
    return this.pdf.numPages;
  }

  /** The size of a page, px. */
  async size(number: number): Promise<{ width: number; height: number }> {
    const { width, height } = (await this.pdf.getPage(number)).getViewport({ scale: PX_PER_PT });
    return { width, height };
  }

  /** A page as paths, and what of it is none. */
  async drawing(number: number): Promise<PdfDrawing> {
    const page = await this.pdf.getPage(number);
    const { transform, width, height } = page.getViewport({ scale: PX_PER_PT });
    const [a, b, c, d, e, f] = transform as [number, number, number, number, number, number];
    const view: Affine = { a, b, c, d, e, f };
    const names = new Map(Object.entries(this.found.OPS).map(([name, code]) => [code, name]));
    return pdfDrawing(await page.getOperatorList(), names, {
      view,
      width,
      height,
      title: this.titleOf(number),
    });
  }

  /** A page as it looks, on a canvas of so many px across. */
  async draw(number: number, canvas: HTMLCanvasElement, across: number): Promise<void> {
    const page = await this.pdf.getPage(number);
    await drawn(page, canvas, across / page.getViewport({ scale: 1 }).width);
  }

  /** A page as a PNG file of a resolution, clear where nothing is drawn. */
  async picture(number: number, ppi: number): Promise<File> {
    const page = await this.pdf.getPage(number);
    const canvas = document.createElement('canvas');
    await drawn(page, canvas, ppi / 72);
    const blob = await new Promise<Blob | null>((made) => canvas.toBlob(made, 'image/png'));
    if (!blob) throw new Error('The page could not be drawn.');
    const png = withResolution(new Uint8Array(await blob.arrayBuffer()), ppi);
    return new File([png as Uint8Array<ArrayBuffer>], `${this.titleOf(number)}.png`, { type: 'image/png' });
  }

  titleOf(number: number): string {
    return this.pages === 1 ? this.name : `${this.name} ${number}`;
  }

  close(): void {
    void this.pdf.destroy();
  }
}

async function drawn(page: PDFPageProxy, canvas: HTMLCanvasElement, scale: number): Promise<void> {
  const viewport = page.getViewport({ scale });
  canvas.width = Math.max(1, Math.round(viewport.width));
  canvas.height = Math.max(1, Math.round(viewport.height));
  await page.render({ canvas, viewport, background: 'rgba(0,0,0,0)' }).promise;
}
