import { describe, expect, it } from 'vitest';
import { LIMITS } from '../recipe/limits';
import { importSvg, type SvgImport } from './import';

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
        '<style>.a{fill:#00f;opacity:.5} rect.b{fill:red}</style><path class="a" d="M0 0h10v10z"/><path d="M0 0h99v99z" display="none"/><path d="M0 0h10v10z" fill="lime" stroke="lime" fill-opacity=".2"/>',
      ),
    );
    expect(motif.content.elements.map((element) => element.opacity)).toEqual([0.5, 0.2, 1]);
    expect(motif.notes).toEqual(['Style rules other than plain classes were left out.']);
  });

  it('says what it leaves out', () => {
    const motif = good(
      read(
        '<script>alert(1)</script><image href="http://x.test/a.png"/><text>Hi</text><foreignObject/><path onclick="x()" d="M0 0h9v9z" fill="url(#g)"/><use href="other.svg#a"/><path d="M 0 nonsense"/>',
      ),
    );
    expect(motif.notes.join(' ')).toMatch(
      /script.*picture.*Text.*not SVG.*gradient.*Event handlers.*another file.*cannot be read/s,
    );
    expect(JSON.stringify(motif.content)).not.toMatch(/http|alert|onclick|url\(/);
  });

  it.each([
    [
      'an entity of its own',
      '<!DOCTYPE svg [<!ENTITY a "aaaa">]><svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0h9v9z"/></svg>',
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
