import { describe, expect, it } from 'vitest';
import { LIMITS } from '../recipe/limits';
import { importSvg, sizedPicture, type SvgImport } from './import';

let count = 0;
const read = (body: string, attributes = 'viewBox="0 0 100 100"'): SvgImport =>
  importSvg(
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${attributes}>${body}</svg>`,
    () => `s${count++}`,
  );
const good = (result: SvgImport): Extract<SvgImport, { ok: true }> => {
  if (!result.ok) throw new Error(result.message);
  return result;
};

describe('an SVG file brought in as a motif', () => {
  it('keeps its shapes, lays its middle on the origin and turns colours into slots, equal ones merged', () => {
    const motif = good(
      read(
        '<title>Buoy</title><circle cx="50" cy="50" r="40" fill="#E5572E"/><rect x="40" y="0" width="20" height="100" style="fill:rgb(229,87,46)"/><path d="M10 10h80" stroke="teal" stroke-width="4" fill="none"/>',
      ),
    );
    expect(motif.title).toBe('Buoy');
    expect(motif.content).toMatchObject({ width: 80, height: 100 });
    expect(motif.slots.map((slot) => slot.colour)).toEqual(['#e5572e', '#008080']);
    expect(motif.content.elements[1]?.d).toBe('M-10 -50L10 -50L10 50L-10 50Z');
    expect(motif.content.elements[2]).toMatchObject({ fill: null, stroke: { width: 4, cap: 'butt' } });
    expect(motif.notes).toEqual([]);
  });

  it('larger than any motif may be comes in smaller, its strokes with it, and says so', () => {
    const far = good(read('<path d="M0 0H1e11V5e10Z" stroke="#000" stroke-width="1e9" fill="#e5572e"/>'));
    const { width, height, elements } = far.content;
    expect(Math.max(width, height)).toBeLessThanOrEqual(LIMITS.shapeSide.most);
    expect(elements[0]?.stroke?.width).toBeCloseTo((1e9 / 1e11) * (width / 1.02), -1);
    const numbers = elements[0]!.d.match(/-?[\d.]+/g)!.map(Number);
    expect(Math.max(...numbers.map(Math.abs))).toBeLessThanOrEqual(LIMITS.coordinate);
    expect(far.notes.join(' ')).toMatch(/too large for a motif .*it came in as/);
    expect(good(read('<path d="M0 0H900V500Z"/>')).notes).toEqual([]);
  });

  it('brings no colours that only a part drawn as a picture had', () => {
    const body =
      '<g opacity=".5"><circle cx="40" cy="50" r="20" fill="#0b5c52"/><circle cx="55" cy="50" r="20" fill="#112233"/></g><path d="M0 0h9v9z" fill="#e5572e"/>';
    const part = { x: 20, y: 30, width: 55, height: 40 };
    const motif = good(
      importSvg(
        `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">${body}</svg>`,
        () => `s${count++}`,
        {
          drawPicture: () => ({ href: 'data:image/png;base64,AA==', box: part }),
        },
      ),
    );
    expect(motif.slots.map(({ name, colour }) => `${name} ${colour}`)).toEqual(['Colour 1 #e5572e']);
  });

  it('applies transforms, units and <use>, and inherits styles', () => {
    const motif = good(
      read(
        '<defs><rect id="r" width="10" height="10"/></defs><g fill="red" transform="translate(20 0) rotate(90) scale(2 1)"><use xlink:href="#r" x="5"/></g>',
        'viewBox="0 0 100 100" width="200mm" height="200mm"',
      ),
    );
    const scale = (200 * 96) / 25.4 / 100;
    expect(motif.content.width).toBeCloseTo(10 * scale, 6);
    expect(motif.content.height).toBeCloseTo(20 * scale, 6);
    expect(motif.slots[0]?.colour).toBe('#ff0000');
  });

  it('reads class rules, opacities and hidden parts', () => {
    const motif = good(
      read(
        '<style>.a{fill:#00f;opacity:.5} g > rect.b{fill:red}</style><path class="a" d="M0 0h10v10z"/><path d="M0 0h99v99z" display="none"/><path d="M0 0h10v10z" fill="lime" stroke="lime" fill-opacity=".2"/>',
      ),
    );
    expect(motif.content.elements.map((element) => element.opacity)).toEqual([0.5, 0.2, 1]);
    expect(motif.notes).toEqual([]);
  });

  it('says what it leaves out', () => {
    const motif = good(
      read(
        '<script>alert(1)</script><image href="http://x.test/a.png"/><text>Hi</text><foreignObject/><path onclick="x()" d="M0 0h9v9z"/><use href="other.svg#a"/><path d="M 0 nonsense"/>',
      ),
    );
    expect(motif.notes.join(' ')).toMatch(
      /script.*picture.*Text.*not SVG.*Event handlers.*another file.*cannot be read/s,
    );
    expect(JSON.stringify(motif.content)).not.toMatch(/http|alert|onclick|url\(/);
  });

  it('keeps gradients with their stops as slots, through href, box units and transforms', () => {
    const motif = good(
      read(
        '<defs><linearGradient id="a"><stop offset="0" stop-color="#f00"/><stop offset="100%" stop-color="#00f" stop-opacity=".5"/></linearGradient><linearGradient id="b" href="#a" x1="0" x2="0" y2="1" spreadMethod="reflect"/><radialGradient id="c" gradientUnits="userSpaceOnUse" cx="50" cy="50" r="20" href="#a"/></defs><rect width="80" height="40" fill="url(#b)"/><rect y="60" width="80" height="40" fill="url(#c)"/>',
      ),
    );
    const [box, circle] = motif.content.elements;
    expect(box?.fill).toMatchObject({ kind: 'linear', spread: 'reflect', matrix: { b: 40, f: -50, e: -40 } });
    expect(circle?.fill).toMatchObject({ kind: 'radial', matrix: { a: 20, d: 20, e: 10, f: 0 } });
    expect(motif.slots.map((slot) => slot.colour)).toEqual(['#ff0000', '#0000ff']);
    expect(typeof box?.fill === 'object' && box.fill?.stops[1]?.opacity).toBe(0.5);
    expect(motif.notes).toEqual([]);
  });

  it('paints a gradient that has no length, or one stop, with its last colour', () => {
    const motif = good(
      read(
        '<linearGradient id="a"><stop stop-color="#f00"/><stop offset="1" stop-color="#0a0"/></linearGradient><linearGradient id="b" href="#a" x2="0"/><rect width="9" height="9" fill="url(#b)"/>',
      ),
    );
    expect(motif.slots.map((slot) => slot.colour)).toEqual(['#00aa00']);
  });

  it('keeps clip paths, one inside another, and measures what they leave', () => {
    const motif = good(
      read(
        '<clipPath id="l"><rect width="60" height="100"/></clipPath><clipPath id="t"><rect width="100" height="30"/></clipPath><g clip-path="url(#l)"><rect width="100" height="100" clip-path="url(#t)" fill="red"/></g>',
      ),
    );
    expect(motif.content).toMatchObject({ width: 60, height: 30 });
    expect(motif.content.elements[0]?.clip?.d).toBeTruthy();
    expect(motif.notes).toEqual([]);
  });

  it('takes pictures that are inside the file and fits them as SVG does', () => {
    const motif = good(
      read('<image href="data:image/png;base64,AAAA" x="10" y="10" width="40" height="20"/>'),
    );
    expect(motif.pictures).toEqual(['data:image/png;base64,AAAA']);
    const element = motif.content.elements[0];
    expect(element && sizedPicture(element, 'a', { width: 100, height: 100 }).picture).toEqual({
      asset: 'a',
      width: 100,
      height: 100,
      matrix: { a: 0.2, b: 0, c: 0, d: 0.2, e: -10, f: -10 },
    });
  });

  it('sets text where a font is at hand and says why where none is', () => {
    const body = '<text x="10" y="20" text-anchor="end" font-family="Bitter" font-size="8">Lido</text>';
    const set = importSvg(`<svg xmlns="http://www.w3.org/2000/svg">${body}</svg>`, () => 's', {
      setText: (text, font) => ({
        ok: true,
        d: `M0 0h${text.length * font.size}v-8h-8Z`,
        width: 32,
      }),
    });
    expect(good(set).content.width).toBe(32);
    expect(good(set).origin.x).toBe(10 - 16);
  });

  it.each([
    [
      'an entity of its own',
      '<!DOCTYPE svg [<!ENTITY a "&b;&b;"><!ENTITY b "b">]><svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0h9v9z"/></svg>',
      /entities/,
    ],
    ['an unknown entity', '<svg xmlns="http://www.w3.org/2000/svg"><title>&bomb;</title></svg>', /damaged/],
    ['no end', '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0h9v9z">', /damaged/],
    ['another root', '<html xmlns="http://www.w3.org/1999/xhtml"/>', /root element/],
    ['PNG bytes', '\uFFFDPNG\r\n\u001a\n', /not an SVG/],
    ['nothing to draw', '<svg xmlns="http://www.w3.org/2000/svg"><g/></svg>', /draws nothing/],
    ['nesting to death', `<svg xmlns="http://www.w3.org/2000/svg">${'<g>'.repeat(5000)}`, /deep/],
    [
      'too many elements',
      `<svg xmlns="http://www.w3.org/2000/svg">${'<g/>'.repeat(60_000)}</svg>`,
      /more than/,
    ],
    ['too many bytes', `<svg>${' '.repeat(LIMITS.svgBytes)}</svg>`, /5 MB/],
  ])('is refused with %s', (_what, text, sentence) => {
    const result = importSvg(text, () => 's');
    expect(result.ok).toBe(false);
    expect(!result.ok && result.message).toMatch(sentence);
  });

  it('does not follow a <use> round in a ring', () => {
    const result = read('<g id="a"><use href="#a"/><path d="M0 0h9v9z"/></g>');
    expect(good(result).content.elements.length).toBeLessThan(30);
    expect(good(result).notes.join()).toMatch(/<use>/);
  });
});
