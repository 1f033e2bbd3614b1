import { strToU8, zlibSync } from 'fflate';
import {
  PDFDict,
  PDFDocument,
  PDFName,
  PDFNumber,
  PDFString,
  PDFArray,
  PDFHexString,
  PDFRawStream,
  PDFObject,
  type PDFRef,
} from 'pdf-lib';
import { NO_INKS, type Inks } from '../colour/inks';
import type { Box } from '../geom/box';
import { EXCHANGE_LEVEL, metadata, pdfDate, type Exchange, type Intent } from './exchange';
import type { Affine } from '../geom/affine';

/** What stands in a dictionary: numbers, names (with a leading slash), texts in brackets, lists, dictionaries, references. */
export type Value =
  number | boolean | string | PDFObject | readonly Value[] | { readonly [key: string]: Value | undefined };

/** What a page is and what it is about. Boxes in pt from the lower left corner, as ISO 32000-1, 14.11.2 names them. */
export type PageBoxes = { media: Box; bleed: Box; trim: Box };
export type Facts = {
  title: string;
  author?: string;
  /** Credits that are due, in a line. */
  credits?: string;
  inks?: Inks;
  /** The press that it is meant for. */
  press?: Intent;
  /** What makes it a file for print exchange. */
  exchange?: Exchange;
};

/**
 * A PDF file as it is written (ISO 32000-1): its objects, and resources that all of its drawings share. It says nothing of when it was
 * made, so that the same drawing gives the same bytes.
 */
export class PdfFile {
  private readonly names = new Map<string, string>();
  private readonly resources: PDFDict;
  private readonly kinds = new Map<string, PDFDict>();
  readonly shared: PDFRef;

  private readonly held = new Map<string, PDFRef>();
  private screen: PDFRef | null = null;
  private readonly layers: PDFRef[] = [];

  private constructor(
    private readonly doc: PDFDocument,
    private readonly facts: Facts,
    /** The spot inks that it is printed in. */
    readonly inks: Inks,
  ) {
    this.resources = doc.context.obj({}) as PDFDict;
    this.shared = doc.context.register(this.resources);
  }

  static async begin(facts: Facts): Promise<PdfFile> {
    const { title, author, inks = NO_INKS } = facts;
    const doc = await PDFDocument.create({ updateMetadata: false });
    doc.setTitle(title, { showInWindowTitleBar: true });
    doc.setProducer('Isle');
    if (author) doc.setAuthor(author);
    if (facts.credits) doc.setSubject(facts.credits);
    const file = new PdfFile(doc, facts, inks);
    if (facts.press) file.meantFor(facts.press);
    if (facts.exchange) file.forExchange(facts.exchange);
    return file;
  }

  /** What red, green and blue are: those of a screen by its profile where the file is for print exchange, else a device's. */
  get rgb(): Value {
    return this.screen ?? '/DeviceRGB';
  }

  /** Says for which press it is meant (ISO 32000-1, 14.11.5). */
  private meantFor({ name, profile }: Intent): void {
    const intent = this.value({
      ...{ Type: '/OutputIntent', S: '/GTS_PDFX', OutputConditionIdentifier: 'Custom' },
      ...{ OutputCondition: PDFHexString.fromText(name), Info: PDFHexString.fromText(name) },
      DestOutputProfile: this.stream(profile, { N: 4 }),
    });
    this.doc.catalog.set(PDFName.of('OutputIntents'), this.value([intent]));
  }

  private forExchange({ press, screen, changed }: Exchange): void {
    const { context } = this.doc;
    this.meantFor(press);
    this.screen = this.object(['/ICCBased', this.stream(screen, { N: 3, Alternate: '/DeviceRGB' })]);
    this.kind('ColorSpace').set(PDFName.of('DefaultRGB'), this.screen);
    const info = context.lookup(context.trailerInfo.Info, PDFDict);
    const when = this.value(pdfDate(changed));
    info.set(PDFName.of('Trapped'), PDFName.of('False'));
    info.set(PDFName.of('CreationDate'), when);
    info.set(PDFName.of('ModDate'), when);
    info.set(PDFName.of('GTS_PDFXVersion'), this.value(EXCHANGE_LEVEL));
  }

  /** Adds a stream, packed where it is worth it, and answers the reference to it. */
  stream(bytes: Uint8Array | string, dict: { [key: string]: Value | undefined } = {}): PDFRef {
    // Content streams are plain ASCII.
    const raw = typeof bytes === 'string' ? strToU8(bytes) : bytes;
    if (raw.length < WORTH_PACKING) return this.packed(raw, dict);
    return this.packed(zlibSync(raw, { level: 6 }), { ...dict, Filter: '/FlateDecode' });
  }
  /** Adds a stream whose bytes are packed already, as those of a JPEG. */
  packed(bytes: Uint8Array, dict: { [key: string]: Value | undefined }): PDFRef {
    const of = this.dict(dict);
    of.set(named('Length'), PDFNumber.of(bytes.length));
    return this.doc.context.register(PDFRawStream.of(of, bytes));
  }
  object(value: Value): PDFRef {
    return this.doc.context.register(this.value(value));
  }

  /** An object that is written once, under a key. */
  once(key: string, make: () => PDFRef): PDFRef {
    const held = this.held.get(key) ?? make();
    this.held.set(key, held);
    return held;
  }

  /** The name under which drawings find a resource; `make` is asked where none stands under the key yet. */
  resource(
    kind: 'ExtGState' | 'Pattern' | 'XObject' | 'ColorSpace' | 'Font' | 'Properties',
    key: string,
    make: () => PDFRef,
  ): string {
    const held = this.names.get(`${kind} ${key}`);
    if (held) return held;
    const name = `${kind.charAt(0)}${this.names.size}`;
    this.names.set(`${kind} ${key}`, name);
    const made = make();
    this.kind(kind).set(PDFName.of(name), made);
    return name;
  }

  /** All resources of a kind. */
  private kind(kind: string): PDFDict {
    const held = this.kinds.get(kind) ?? (this.doc.context.obj({}) as PDFDict);
    this.resources.set(PDFName.of(kind), held);
    this.kinds.set(kind, held);
    return held;
  }

  /** A layer that readers show or hide (8.11), by its name among the resources; those of one name are one. */
  layer(name: string): string {
    return this.resource('Properties', `layer ${name}`, () => {
      const group = this.object({ Type: '/OCG', Name: PDFHexString.fromText(name) });
      this.layers.push(group);
      return group;
    });
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
      this.value({ Type: '/Group', S: '/Transparency', CS: this.rgb, I: true }),
    );
  }

  /** The bytes of the file; `id` names what is in it, 32 hexadecimal digits. */
  async bytes(id?: string): Promise<Uint8Array> {
    const { layers } = this;
    if (layers.length > 0) {
      const shown = { Name: 'Layers', Order: layers, ON: layers };
      this.doc.catalog.set(PDFName.of('OCProperties'), this.value({ OCGs: layers, D: shown }));
    }
    if (id !== undefined) {
      const own = PDFHexString.of(id);
      this.doc.context.trailerInfo.ID = this.doc.context.obj([own, own]);
      const { exchange } = this.facts;
      if (exchange) {
        const said = strToU8(metadata(this.facts, exchange, id));
        const stream = this.packed(said, { Type: '/Metadata', Subtype: '/XML' });
        this.doc.catalog.set(PDFName.of('Metadata'), stream);
      }
    }
    const bytes = await this.doc.save({
      // It would wait a tick for every fifty objects; it is written where nothing else waits.
      objectsPerTick: Infinity,
      ...{ useObjectStreams: false, addDefaultPage: false, updateFieldAppearances: false },
    });
    // Print exchange is of PDF 1.6; pdf-lib writes “%PDF-1.7” whatever it is told.
    if (this.facts.exchange) bytes[7] = '6'.charCodeAt(0);
    return bytes;
  }

  private dict(value: { readonly [key: string]: Value | undefined }): PDFDict {
    const dict = PDFDict.withContext(this.doc.context);
    for (const key in value) {
      const one = value[key];
      if (one !== undefined) dict.set(named(key), this.value(one));
    }
    return dict;
  }
  private value(value: Value): PDFObject {
    if (typeof value === 'number') return PDFNumber.of(rounded(value));
    if (typeof value === 'string') return value.startsWith('/') ? named(value.slice(1)) : PDFString.of(value);
    if (typeof value === 'boolean') return this.doc.context.obj(value);
    if (isNumbers(value)) return new Numbers(value);
    if (Array.isArray(value)) {
      const list = PDFArray.withContext(this.doc.context);
      for (const one of value as readonly Value[]) list.push(this.value(one));
      return list;
    }
    if (isObject(value)) return value;
    return this.dict(value as { [key: string]: Value | undefined });
  }
}

/** A list of numbers, as it stands in the file: most of what dictionaries hold are boxes and matrices. */
class Numbers extends PDFObject {
  private readonly text: string;
  constructor(values: readonly number[]) {
    super();
    this.text = `[ ${values.map(say).join(' ')} ]`;
  }
  override clone(): this {
    return this;
  }
  override toString(): string {
    return this.text;
  }
  override sizeInBytes(): number {
    return this.text.length;
  }
  override copyBytesInto(buffer: Uint8Array, offset: number): number {
    for (let at = 0; at < this.text.length; at += 1) buffer[offset + at] = this.text.charCodeAt(at);
    return this.text.length;
  }
}
const isNumbers = (value: Value): value is readonly number[] =>
  Array.isArray(value) && value.length > 0 && value.every((one) => typeof one === 'number');

/** Names that are met over and over; pdf-lib looks each through for escapes before it knows it again. */
function named(name: string): PDFName {
  const held = NAMES.get(name);
  if (held) return held;
  const made = PDFName.of(name);
  if (NAMES.size < 200) NAMES.set(name, made);
  return made;
}
const NAMES = new Map<string, PDFName>();

/** Packing shorter streams takes longer than all else, and spares little. */
const WORTH_PACKING = 800;

const isObject = (value: unknown): value is PDFObject =>
  typeof value === 'object' && value !== null && 'sizeInBytes' in value;

/** Six digits are less than a millionth of an inch on any page that there is. */
const rounded = (value: number): number => Math.round(value * 1e6) / 1e6 + 0;

/** A number as content streams have it: no exponents, which JavaScript writes from 1e-7 down, where nothing is left of six digits. */
export const say = (value: number): string => String(rounded(value));

export const sayMatrix = ({ a, b, c, d, e, f }: Affine): string =>
  // Small scales need more digits than places do.
  `${sayScale(a)} ${sayScale(b)} ${sayScale(c)} ${sayScale(d)} ${say(e)} ${say(f)}`;

function sayScale(value: number): string {
  const held = Math.round(value * 1e9) / 1e9 + 0;
  return Math.abs(held) >= 1e-6 || held === 0 ? String(held) : held.toFixed(9).replace(/0+$/, '');
}
