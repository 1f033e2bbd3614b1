import { deflateSync } from 'node:zlib';
import { strToU8, zipSync } from 'fflate';
import { pngChunk, pngHead } from '../../src/lib/core/formats/png';

/** Files and texts that were made to do harm. Each is small; what it asks for is not. */
const svg = (inside: string, attributes = 'width="100" height="100" viewBox="0 0 100 100"'): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${attributes}>${inside}</svg>`;
const many = (count: number, one: (index: number) => string): string =>
  Array.from({ length: count }, (_, index) => one(index)).join('');

/** Nested <use>: each level draws the one before ten times. */
const nestedUses = (levels: number): string =>
  `<defs><path id="u0" d="M0 0h1v1z"/>${many(
    levels,
    (level) => `<g id="u${level + 1}">${many(10, () => `<use href="#u${level}"/>`)}</g>`,
  )}</defs><use href="#u${levels}"/>`;

export const HOSTILE_SVG: Record<string, () => string> = {
  'use of itself': () => svg('<g id="a"><use href="#a"/><use href="#a"/></g><use href="#a"/>'),
  'use of itself, shortest': () =>
    svg('<use id="a" href="#b"/><g id="b"><use href="#a"/><use href="#a"/><use href="#a"/></g>'),
  'use in use': () => svg(nestedUses(9)),
  'symbol in symbol': () =>
    svg(
      `<symbol id="s0" viewBox="0 0 1 1"><path d="M0 0h1v1z"/></symbol>${many(
        9,
        (level) =>
          `<symbol id="s${level + 1}" viewBox="0 0 1 1">${many(10, () => `<use href="#s${level}" width="1" height="1"/>`)}</symbol>`,
      )}<use href="#s9" width="9" height="9"/>`,
    ),
  'style of 1 MB': () =>
    svg(`<style>${many(90_000, (index) => `.c${index}{fill`)}</style><path d="M0 0h9v9z"/>`),
  'style of a million rules': () => svg(`<style>${'*{}'.repeat(1_000_000)}</style><path d="M0 0h9v9z"/>`),
  'style of braces': () => svg(`<style>${'{'.repeat(900_000)}</style><path d="M0 0h9v9z"/>`),
  'style of comments': () => svg(`<style>${'/*'.repeat(900_000)}</style><path d="M0 0h9v9z"/>`),
  'many rules, many paths': () =>
    svg(
      `<style>${many(3000, (index) => `.c${index} .d${index} path{fill:#${String(index).padStart(6, '0')}}`)}</style>${many(4000, (index) => `<path class="c${index}" d="M${index} 0h9v9z"/>`)}`,
    ),
  'circles in a clip over rectangles': () =>
    svg(
      `<clipPath id="c">${many(60, (index) => `<circle cx="${index}" cy="${index}" r="30"/>`)}</clipPath><g clip-path="url(#c)">${many(3000, (index) => `<rect x="${index % 90}" y="${index % 77}" width="8" height="8"/>`)}</g>`,
    ),
  'clip in clip': () =>
    svg(
      `${many(60, (index) => `<clipPath id="c${index}"${index > 0 ? ` clip-path="url(#c${index - 1})"` : ''}>${many(40, (k) => `<circle cx="${k * 3}" cy="${index}" r="20"/>`)}</clipPath>`)}<g clip-path="url(#c59)"><rect width="90" height="90"/></g>`,
    ),
  'clip of itself': () =>
    svg(
      '<clipPath id="c" clip-path="url(#c)"><rect width="9" height="9"/></clipPath><rect width="50" height="50" clip-path="url(#c)"/>',
    ),
  '300,000 arcs': () => svg(`<path d="M0 0${'a9 5 30 1 0 5 5'.repeat(300_000)}"/>`),
  'a million path commands': () => svg(`<path d="M0 0${'l1 1'.repeat(1_000_000)}"/>`),
  'a width of 2 MB of digits': () =>
    svg('<path d="M0 0h9v9z"/>', `width="${'9'.repeat(2_000_000)}" height="1"`),
  'a stroke width of 2 MB of digits': () =>
    svg(`<path d="M0 0h9v9z" stroke="red" stroke-width="${'1'.repeat(2_000_000)}"/>`),
  'a number of 2 MB in a path': () => svg(`<path d="M0 0L${'1'.repeat(2_000_000)} 0"/>`),
  'a transform of 1 MB': () => svg(`<path transform="${'rotate(1) '.repeat(100_000)}" d="M0 0h9v9z"/>`),
  '10,000 nested groups': () => svg('<g>'.repeat(10_000) + '</g>'.repeat(10_000)),
  '190 nested groups with styles': () =>
    svg(
      `${many(190, (index) => `<g style="opacity:0.99;fill:#00${index % 10}" clip-path="url(#x)">`)}${'<path d="M0 0h9v9z"/>'.repeat(2000)}${'</g>'.repeat(190)}`,
    ),
  'coordinates of 1e11': () => svg('<path d="M0 0L1e11 0L5 5z"/>'),
  'coordinates of 1e38': () => svg('<path d="M0 0L1e38 1e38L-1e38 5z"/>'),
  entities: () =>
    `<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa">${many(9, (index) => `<!ENTITY ${'abcdefghij'[index + 1]} "${`&${'abcdefghij'[index]};`.repeat(10)}">`)}]>${svg('<text>&j;</text>')}`,
  'an entity of a file': () =>
    `<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]>${svg('<text font-family="Bitter">&x;</text>')}`,
  'gradients that refer to themselves': () =>
    svg(
      '<linearGradient id="a" href="#b"/><linearGradient id="b" href="#a"/><rect width="9" height="9" fill="url(#a)"/>',
    ),
  'a gradient of 40,000 stops': () =>
    svg(
      `<linearGradient id="a">${many(40_000, (index) => `<stop offset="${index / 40_000}" stop-color="#${String(index).padStart(6, '0').slice(0, 6)}"/>`)}</linearGradient><rect width="9" height="9" fill="url(#a)"/>`,
    ),
  '5,000 colours': () =>
    svg(
      many(
        4900,
        (index) =>
          `<rect x="${index % 70}" y="${Math.floor(index / 70)}" width="1" height="1" fill="#${((index * 3001) % 16777216).toString(16).padStart(6, '0')}"/>`,
      ),
    ),
  'dashes without number': () =>
    svg('<path d="M0 0H100000" stroke="red" stroke-dasharray="0.00001 0.00001"/>'),
  'a mitre of a thousand': () =>
    svg(
      '<path d="M0 0L1000 0.001L0 0.002" fill="none" stroke="red" stroke-width="900" stroke-miterlimit="1e9"/>',
    ),
  'a data URL that is none': () => svg('<image href="data:image/png;base64,AAAA" width="9" height="9"/>'),
  'a data URL of 4 MB of percent': () =>
    svg(`<image href="data:image/png,${'%'.repeat(4_000_000)}" width="9" height="9"/>`),
  '5,000 pictures': () =>
    svg(
      many(
        4000,
        (index) =>
          `<image x="${index}" href="data:image/png;base64,${Buffer.from(tinyPng).toString('base64')}" width="1" height="1"/>`,
      ),
    ),
  'a text of 100,000 letters': () =>
    svg(`<text font-family="Bitter" font-size="9">${'W'.repeat(100_000)}</text>`),
  'text in text': () =>
    svg(`${'<text font-family="Bitter"><tspan>a'.repeat(90)}${'</tspan></text>'.repeat(90)}`),
  'points of half a million numbers': () => svg(`<polygon points="${'1,2 '.repeat(250_000)}"/>`),
  'switch and foreign content': () =>
    svg(
      '<switch><foreignObject><p xmlns="http://www.w3.org/1999/xhtml">x</p></foreignObject><rect width="9" height="9"/></switch>',
    ),
  'masks that refer to themselves': () =>
    svg(
      '<mask id="m" mask="url(#m)"><rect width="9" height="9" mask="url(#m)"/></mask><rect width="50" height="50" mask="url(#m)"/>',
    ),
  'a filter of great blur': () =>
    svg(
      '<filter id="f" width="100000%" height="100000%"><feGaussianBlur stdDeviation="10000"/></filter><rect width="9" height="9" filter="url(#f)"/>',
    ),
  'patterns that refer to themselves': () =>
    svg(
      '<pattern id="p" width="9" height="9" patternUnits="userSpaceOnUse"><rect width="9" height="9" fill="url(#p)"/></pattern><rect width="90" height="90" fill="url(#p)"/>',
    ),
  'a pattern of 1e-9': () =>
    svg(
      '<pattern id="p" width="1e-9" height="1e-9" patternUnits="userSpaceOnUse"><path d="M0 0h9v9z"/></pattern><rect width="90" height="90" fill="url(#p)"/>',
    ),
  'an element per letter': () => svg('<a>'.repeat(49_000)),
  'attributes without number': () =>
    svg(`<path ${many(30_000, (index) => `a${index}="1" `)} d="M0 0h9v9z"/>`),
  'ids without number': () => svg(many(30_000, (index) => `<g id="i${index}"/>`) + '<path d="M0 0h9v9z"/>'),
  nothing: () => '',
  'a byte': () => '<',
  'not XML': () => '<svg><path></svg>',
  'NUL in it': () => svg('<path d="M0 0h9v9z\u0000"/>'),
};

const tinyPng = picturePng(2, 2);

/** A PNG of one colour: tiny as a file, whatever its size in pixels. */
export function picturePng(width: number, height: number, rows = height): Uint8Array {
  const row = new Uint8Array(Math.min(Math.ceil(width / 8) + 1, 20_000_000));
  const data = deflateSync(
    Buffer.concat(
      Array.from(
        { length: Math.max(1, Math.min(rows, 3000, Math.floor(40_000_000 / row.length))) },
        () => row,
      ),
    ),
  );
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([1, 0, 0, 0, 0], 8);
  const signature = pngHead({ width: 1, height: 1, ppi: 72, alpha: false }).slice(0, 8);
  return Buffer.concat([
    signature,
    pngChunk('IHDR', head),
    pngChunk('IDAT', data),
    pngChunk('IEND', new Uint8Array(0)),
  ]);
}

export const HOSTILE_PICTURES: Record<string, () => Uint8Array> = {
  '99,000,000 × 1': () => picturePng(99_000_000, 1),
  '1 × 99,000,000': () => picturePng(1, 99_000_000),
  '30,000 × 30,000': () => picturePng(30_000, 30_000),
  '2^31 × 2^31': () => picturePng(2 ** 31 - 1, 2 ** 31 - 1),
  HTML: () => strToU8('<html><script>alert(1)</script></html>'),
  'nothing but a signature': () => picturePng(2, 2).slice(0, 8),
  'cut off': () => picturePng(900, 900).slice(0, 60),
};

const manifest = (over: Record<string, unknown>): Uint8Array =>
  strToU8(JSON.stringify({ version: 1, patterns: [], palettes: [], assets: [], ...over }));

export const HOSTILE_FILES: Record<string, () => { name: string; bytes: Uint8Array }> = {
  'a zip bomb': () => ({
    name: 'a.zip',
    bytes: zipSync({ 'a.svg': new Uint8Array(70_000_000) }, { level: 9 }),
  }),
  'a zip of many bombs': () => ({
    name: 'a.zip',
    bytes: zipSync(
      Object.fromEntries(Array.from({ length: 30 }, (_, i) => [`${i}.json`, new Uint8Array(900_000)])),
    ),
  }),
  'a zip in a zip': () => ({
    name: 'a.zip',
    bytes: zipSync({ 'b.zip': zipSync({ 'c.svg': strToU8('<svg/>') }) }),
  }),
  'paths that lead out': () => ({ name: 'a.zip', bytes: zipSync({ '../../etc/x.svg': strToU8('<svg/>') }) }),
  'a package with a picture of 30,000 × 30,000': () => ({
    name: 'a.zip',
    bytes: zipSync({
      'isle.json': manifest({
        palettes: [{ id: 'p', name: 'P', colours: [] }],
        assets: [{ file: 'a.png', mediaType: 'image/png', fileName: 'a.png' }],
      }),
      'a.png': picturePng(30_000, 30_000),
    }),
  }),
  'a package with HTML as a picture': () => ({
    name: 'a.zip',
    bytes: zipSync({
      'isle.json': manifest({
        palettes: [{ id: 'p', name: 'P', colours: [] }],
        assets: [{ file: 'a.png', mediaType: 'image/png', fileName: 'a.png' }],
      }),
      'a.png': strToU8('<html><script>alert(1)</script></html>'),
    }),
  }),
  'a package of 30,000 recipes that are none': () => ({
    name: 'a.zip',
    bytes: zipSync({
      'isle.json': manifest({
        patterns: Array.from({ length: 30_000 }, () => ({ name: 'x', recipe: 'r.json' })),
      }),
      'r.json': strToU8('{"version":2}'),
    }),
  }),
  'tokens of 4,500 aliases': () => ({
    name: 'a.tokens.json',
    bytes: strToU8(
      JSON.stringify(
        Object.fromEntries(
          Array.from({ length: 4500 }, (_, index) => [
            `t${index}`,
            { $type: 'color', $value: index === 4499 ? '#123456' : `{t${index + 1}}` },
          ]),
        ),
      ),
    ),
  }),
  'tokens that refer to each other': () => ({
    name: 'a.tokens.json',
    bytes: strToU8('{"a":{"$type":"color","$value":"{b}"},"b":{"$type":"color","$value":"{a}"}}'),
  }),
  'tokens 5,000 deep': () => ({
    name: 'a.tokens.json',
    bytes: strToU8('{"a":'.repeat(5000) + '1' + '}'.repeat(5000)),
  }),
  'tokens 900,000 deep': () => ({ name: 'a.json', bytes: strToU8('['.repeat(900_000)) }),
  'CSS of variables that refer to each other': () => ({
    name: 'a.css',
    bytes: strToU8(`:root{${many(3000, (index) => `--c${index}:var(--c${index + 1});`)}--c3000:#123456}`),
  }),
  'CSS of 900,000 braces': () => ({ name: 'a.css', bytes: strToU8('{'.repeat(900_000)) }),
  'CSV of one long line': () => ({ name: 'a.csv', bytes: strToU8('"'.repeat(900_000)) }),
  'CSV of 400,000 rows': () => ({ name: 'a.csv', bytes: strToU8('name,#123456\n'.repeat(400_000)) }),
  'colours that are none': () => ({
    name: 'a.css',
    bytes: strToU8(':root{--a:oklch(0.3 0.1M 20);--b:rgb(1e999 0 0);--c:color(xyz 1 2 3)}'),
  }),
  'bytes that are no text': () => ({ name: 'a.svg', bytes: new Uint8Array([0xff, 0xfe, 0x00, 0xd8, 0x3c]) }),
};

/** Bodies that are JSON and nothing else: for every route that takes one. */
export const HOSTILE_JSON: Record<string, () => string> = {
  'lists 100,000 deep': () => '['.repeat(100_000) + ']'.repeat(100_000),
  'objects 100,000 deep': () => '{"a":'.repeat(100_000) + '1' + '}'.repeat(100_000),
  '1.2 million keys': () => `{${Array.from({ length: 1_200_000 }, (_, index) => `"k${index}":1`).join(',')}}`,
  '8 million values': () => `[${'1,'.repeat(8_000_000)}1]`,
  __proto__: () => '{"__proto__":{"name":"x"},"constructor":{"prototype":{}}}',
  'a lone surrogate': () => '{"name":"\\ud800"}',
  'not UTF-8': () => '{"name":"\ufffd"',
  nothing: () => '',
  null: () => 'null',
  'a number': () => '1e999',
};
