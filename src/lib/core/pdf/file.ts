import { zlibSync } from 'fflate';
import {
  PDFDict,
  PDFDocument,
  PDFName,
  PDFNumber,
  PDFString,
  PDFArray,
  PDFHexString,
  type PDFObject,
  type PDFRef,
} from 'pdf-lib';
import type { Box } from '../geom/box';
import type { Affine } from '../geom/affine';

/** What stands in a dictionary: numbers, names (with a leading slash), texts in brackets, lists, dictionaries, references. */
export type Value =
  number | boolean | string | PDFObject | readonly Value[] | { readonly [key: string]: Value | undefined };

/** What a page is and what it is about. Boxes in pt from the lower left corner, as ISO 32000-1, 14.11.2 names them. */
export type PageBoxes = { media: Box; bleed: Box; trim: Box };
export type Facts = { title: string; author?: string };

/**
 * A PDF file as it is written (ISO 32000-1): its objects, and resources that all of its drawings share. It says nothing of when it was
 * made, so that the same drawing gives the same bytes.
 */
export class PdfFile {
  private readonly names = new Map<string, string>();
  private readonly resources: PDFDict;
  private readonly kinds = new Map<string, PDFDict>();
  readonly shared: PDFRef;

  private constructor(private readonly doc: PDFDocument) {
    this.resources = doc.context.obj({}) as PDFDict;
    this.shared = doc.context.register(this.resources);
  }

  static async begin({ title, author }: Facts): Promise<PdfFile> {
    const doc = await PDFDocument.create({ updateMetadata: false });
    doc.setTitle(title, { showInWindowTitleBar: true });
    doc.setProducer('Isle');
    if (author) doc.setAuthor(author);
    return new PdfFile(doc);
  }

  /** Adds a stream, packed where it is worth it, and answers the reference to it. */
  stream(bytes: Uint8Array | string, dict: { [key: string]: Value | undefined } = {}): PDFRef {
    const raw = typeof bytes === 'string' ? latin(bytes) : bytes;
    if (raw.length < WORTH_PACKING) return this.packed(raw, dict);
    return this.packed(zlibSync(raw, { level: 6 }), { ...dict, Filter: '/FlateDecode' });
  }
  /** Adds a stream whose bytes are packed already, as those of a JPEG. */
  packed(bytes: Uint8Array, dict: { [key: string]: Value | undefined }): PDFRef {
    return this.doc.context.register(this.doc.context.stream(bytes, this.entries(dict)));
  }
  object(value: Value): PDFRef {
    return this.doc.context.register(this.value(value));
  }

  /** The name under which drawings find a resource; `make` is asked where none stands under the key yet. */
  resource(
    kind: 'ExtGState' | 'Pattern' | 'XObject' | 'ColorSpace',
    key: string,
    make: () => PDFRef,
  ): string {
    const held = this.names.get(`${kind} ${key}`);
    if (held) return held;
    const name = `${kind.charAt(0)}${this.names.size}`;
    this.names.set(`${kind} ${key}`, name);
    let dict = this.kinds.get(kind);
    if (!dict) {
      dict = this.doc.context.obj({}) as PDFDict;
      this.resources.set(PDFName.of(kind), dict);
      this.kinds.set(kind, dict);
    }
    dict.set(PDFName.of(name), make());
    return name;
  }

  /** The first page of another PDF as a form: its size in pt, and the reference to it. */
  async embed(bytes: Uint8Array): Promise<{ form: PDFRef; width: number; height: number }> {
    const [page] = await this.doc.embedPdf(bytes);
    if (!page) throw new Error('The PDF has no page.');
    await page.embed();
    const { ref, width, height } = page;
    return { form: ref, width, height };
  }

  /** Adds a page that shows a drawing. */
  page(content: string, { media, bleed, trim }: PageBoxes): void {
    const page = this.doc.addPage([media.width, media.height]);
    const box = ({ x, y, width, height }: Box): PDFArray =>
      this.doc.context.obj([x, y, x + width, y + height].map(rounded)) as PDFArray;
    page.node.set(PDFName.of('MediaBox'), box(media));
    page.node.set(PDFName.of('BleedBox'), box(bleed));
    page.node.set(PDFName.of('TrimBox'), box(trim));
    page.node.set(PDFName.of('Resources'), this.shared);
    page.node.set(PDFName.of('Contents'), this.stream(content));
    page.node.set(
      PDFName.of('Group'),
      this.value({ Type: '/Group', S: '/Transparency', CS: '/DeviceRGB', I: true }),
    );
  }

  /** The bytes of the file; `id` names what is in it, 32 hexadecimal digits. */
  async bytes(id?: string): Promise<Uint8Array> {
    if (id !== undefined) {
      const own = PDFHexString.of(id);
      this.doc.context.trailerInfo.ID = this.doc.context.obj([own, own]);
    }
    return this.doc.save({ useObjectStreams: false, addDefaultPage: false, updateFieldAppearances: false });
  }

  private entries(dict: { [key: string]: Value | undefined }): Record<string, PDFObject> {
    return Object.fromEntries(
      Object.entries(dict).flatMap(([key, value]) => (value === undefined ? [] : [[key, this.value(value)]])),
    );
  }
  private value(value: Value): PDFObject {
    if (typeof value === 'number') return PDFNumber.of(rounded(value));
    if (typeof value === 'string')
      return value.startsWith('/') ? PDFName.of(value.slice(1)) : PDFString.of(value);
    if (typeof value === 'boolean') return this.doc.context.obj(value);
    if (Array.isArray(value)) {
      const list = PDFArray.withContext(this.doc.context);
      for (const one of value as readonly Value[]) list.push(this.value(one));
      return list;
    }
    if (isObject(value)) return value;
    const dict = PDFDict.withContext(this.doc.context);
    for (const [key, one] of Object.entries(value as { [key: string]: Value | undefined }))
      if (one !== undefined) dict.set(PDFName.of(key), this.value(one));
    return dict;
  }
}

/** Content streams are plain ASCII. */
function latin(text: string): Uint8Array {
  const bytes = new Uint8Array(text.length);
  for (let at = 0; at < text.length; at += 1) bytes[at] = text.charCodeAt(at);
  return bytes;
}

/** Packing shorter streams takes longer than all else, and spares little. */
const WORTH_PACKING = 800;

const isObject = (value: unknown): value is PDFObject =>
  typeof value === 'object' && value !== null && 'sizeInBytes' in value;

/** Six digits are less than a millionth of an inch on any page that there is. */
const rounded = (value: number): number => Math.round(value * 1e6) / 1e6 + 0;

/** A number as content streams have it: no exponents. */
export function say(value: number): string {
  const text = rounded(value).toFixed(6);
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
}

export const sayMatrix = ({ a, b, c, d, e, f }: Affine): string =>
  // Small scales need more digits than places do.
  [a, b, c, d].map(sayScale).concat([e, f].map(say)).join(' ');

function sayScale(value: number): string {
  const text = value.toFixed(9).replace(/\.?0+$/, '');
  return text === '' || text === '-0' || text === '-' ? '0' : text;
}
