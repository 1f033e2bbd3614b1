import { escapeXml } from '../num/text';

/** For which press a file is meant: its name, and its ICC profile. */
export type Intent = { name: string; profile: Uint8Array };

/** What makes a file one for print exchange: the press, what its red, green and blue are, and when what it shows was changed last. */
export type Exchange = { press: Intent; screen: Uint8Array; changed: Date };

/** The level that such files are of (ISO 15930-7), as they name it themselves. */
export const EXCHANGE_LEVEL = 'PDF/X-4';

/** A moment as PDF dates have it, in universal time. */
export const pdfDate = (moment: Date): string =>
  `D:${moment.toISOString().replace(/[-:T]/g, '').slice(0, 14)}Z`;

/** What a file says of itself as XMP (ISO 16684-1) with the properties that print exchange asks for. */
export function metadata(
  { title, author, credits }: { title: string; author?: string; credits?: string },
  { changed }: Exchange,
  id: string,
): string {
  const when = `${changed.toISOString().slice(0, 19)}Z`;
  const uuid = [id.slice(0, 8), id.slice(8, 12), id.slice(12, 16), id.slice(16, 20), id.slice(20, 32)].join(
    '-',
  );
  const creator = author
    ? `<dc:creator><rdf:Seq><rdf:li>${escapeXml(author)}</rdf:li></rdf:Seq></dc:creator>`
    : '';
  const rights = credits
    ? `<dc:rights><rdf:Alt><rdf:li xml:lang="x-default">${escapeXml(credits)}</rdf:li></rdf:Alt></dc:rights>`
    : '';
  return `<?xpacket begin="\uFEFF" id="W5M0MpCehiHzreSzNTczkc9d"?>
<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
<rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:xmp="http://ns.adobe.com/xap/1.0/" xmlns:xmpMM="http://ns.adobe.com/xap/1.0/mm/" xmlns:pdf="http://ns.adobe.com/pdf/1.3/" xmlns:pdfxid="http://www.npes.org/pdfx/ns/id/">
<dc:format>application/pdf</dc:format>
<dc:title><rdf:Alt><rdf:li xml:lang="x-default">${escapeXml(title)}</rdf:li></rdf:Alt></dc:title>${creator}${rights}
<xmp:CreateDate>${when}</xmp:CreateDate><xmp:ModifyDate>${when}</xmp:ModifyDate><xmp:MetadataDate>${when}</xmp:MetadataDate><xmp:CreatorTool>Isle</xmp:CreatorTool>
<xmpMM:DocumentID>uuid:${uuid}</xmpMM:DocumentID><xmpMM:VersionID>1</xmpMM:VersionID><xmpMM:RenditionClass>default</xmpMM:RenditionClass>
<pdf:Producer>Isle</pdf:Producer><pdf:Trapped>False</pdf:Trapped>
<pdfxid:GTS_PDFXVersion>${EXCHANGE_LEVEL}</pdfxid:GTS_PDFXVersion>
</rdf:Description></rdf:RDF></x:xmpmeta>
<?xpacket end="r"?>`;
}
