import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { byLibrsvg, byResvg, difference, redrawnMotif } from '../support/redraw-motif';

/** Each thing that an SVG file can hold, brought in and drawn again, against resvg's drawing of the original. */
const svg = (body: string, attributes = 'width="100" height="100" viewBox="0 0 100 100"'): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${attributes}>${body}</svg>`;

const VECTORS: Record<string, string> = {
  'CDATA in a style sheet, and selectors that nest': svg(
    '<style><![CDATA[ g.a > rect:first-child { fill: #0a7 } .a rect + rect { fill: #c41; stroke: #000 } ]]></style><g class="a"><rect width="40" height="40"/><rect x="50" width="40" height="40"/></g>',
  ),
  'rules that outweigh each other': svg(
    '<style>#b{fill:#00f}.c{fill:#f00!important}rect{fill:#0f0}</style><rect id="b" class="c" width="80" height="40" style="fill:#ff0"/><rect class="d" y="50" width="80" height="40" fill="#abc"/>',
  ),
  'display: none, which nothing inside undoes': svg(
    '<g display="none"><rect width="99" height="99" style="display:inline;visibility:visible"/></g><circle cx="50" cy="50" r="30" fill="#07c"/>',
  ),
  'visibility, which something inside undoes': svg(
    '<g visibility="hidden"><rect width="99" height="99"/><circle cx="50" cy="50" r="30" fill="#07c" visibility="visible"/></g>',
  ),
  'units of stroke widths': svg(
    '<path d="M10 20H90" stroke="#000" stroke-width="2mm"/><path d="M10 50H90" stroke="#000" stroke-width="6pt"/><path d="M10 80H90" stroke="#000" style="stroke-width:.1in"/>',
  ),
  'strokes in shares of the viewport': svg('<path d="M10 50H90" stroke="#000" stroke-width="20%"/>'),
  'strokes under uneven scale': svg(
    '<g transform="scale(4 .8) rotate(20)"><rect x="4" y="20" width="14" height="50" fill="none" stroke="#a04" stroke-width="4"/></g>',
  ),
  'gradients on strokes': svg(
    '<linearGradient id="g"><stop stop-color="#f00"/><stop offset="1" stop-color="#00f"/></linearGradient><circle cx="50" cy="50" r="35" fill="none" stroke="url(#g)" stroke-width="16"/>',
  ),
  'a focus off the middle': svg(
    '<radialGradient id="g" fx=".2" fy=".3"><stop stop-color="#fff"/><stop offset="1" stop-color="#036"/></radialGradient><rect width="100" height="100" fill="url(#g)"/>',
  ),
  'gradients in user units, with shares': svg(
    '<linearGradient id="g" gradientUnits="userSpaceOnUse" x1="10%" x2="90%"><stop stop-color="#f00"/><stop offset="1" stop-color="currentColor"/></linearGradient><g color="#070"><rect width="100" height="100" fill="url(#g)"/></g>',
  ),
  'entities for short texts': `<!DOCTYPE svg [<!ENTITY ns "http://www.w3.org/2000/svg"><!ENTITY c "fill:#0a7">]><svg xmlns="&ns;" width="100" height="100"><rect width="60" height="60" style="&c;"/></svg>`,
  'lengths in em and shares': svg(
    '<g font-size="10"><rect x="1em" y="10%" width="50%" height="2em" fill="#07c"/><circle cx="50%" cy="70%" r="10%"/></g>',
  ),
  'dashes with an offset': svg(
    '<path d="M5 50H95" stroke="#000" stroke-width="8" stroke-dasharray="14 9" stroke-dashoffset="7"/>',
  ),
  'dashes with an offset under uneven scale': svg(
    '<path transform="scale(1 3)" d="M5 10H95" stroke="#000" stroke-width="6" stroke-dasharray="14 9 3" stroke-dashoffset="20"/>',
  ),
  'paint order': svg(
    '<circle cx="50" cy="50" r="30" fill="#fc0" stroke="#00a" stroke-width="24" paint-order="stroke"/>',
  ),
  switch: svg(
    '<switch><rect systemLanguage="xx" width="99" height="99" fill="red"/><circle cx="50" cy="50" r="30" fill="#07c"/><rect width="99" height="99"/></switch>',
  ),
  'svg and symbol without a size': svg(
    '<svg viewBox="0 0 10 10"><rect width="5" height="5" fill="#a40"/></svg><symbol id="s" viewBox="0 0 10 10"><rect x="5" y="5" width="5" height="5" fill="#04a"/></symbol><use href="#s"/>',
  ),
  'what a nested viewport cuts off': svg(
    '<svg x="20" y="20" width="40" height="40"><circle r="30" fill="#07c"/></svg>',
  ),
  'use and text in clip paths': svg(
    '<defs><path id="p" d="M10 10h60v60z"/></defs><clipPath id="c"><use href="#p" x="10"/></clipPath><rect width="100" height="100" fill="#07c" clip-path="url(#c)"/>',
  ),
  'clip paths in shares of a box': svg(
    '<clipPath id="c" clipPathUnits="objectBoundingBox"><circle cx=".5" cy=".5" r=".4"/></clipPath><g clip-path="url(#c)"><rect x="10" y="10" width="80" height="40" fill="#07c"/><rect x="10" y="50" width="80" height="40" fill="#c70"/></g>',
  ),
  'a triangle that is no window': svg(
    '<clipPath id="c"><path d="M0 0H100L0 100z"/></clipPath><rect x="10" y="10" width="80" height="80" fill="#07c" clip-path="url(#c)"/>',
  ),
  'currentColor and colours that are see-through': svg(
    '<g color="rgba(200,30,60,.5)"><rect width="60" height="60" fill="currentColor"/><rect x="30" y="30" width="60" height="60" stroke="hsl(200 80% 40% / 60%)" stroke-width="10" fill="none"/></g>',
  ),
  'see-through groups whose parts lie apart': svg(
    '<g opacity=".4"><rect width="40" height="90" fill="#07c" stroke="#000" stroke-width="6"/><rect x="55" width="40" height="90" fill="#c70"/></g>',
  ),
  'a viewBox that is fitted': svg(
    '<rect width="20" height="10" fill="#07c"/>',
    'width="100" height="60" viewBox="0 0 20 10"',
  ),
  'a viewBox that is stretched': svg(
    '<circle cx="10" cy="5" r="4" fill="#07c"/>',
    'width="100" height="100" viewBox="0 0 20 10" preserveAspectRatio="none"',
  ),
  'rounded corners of two radii': svg(
    '<rect x="5" y="5" width="90" height="60" rx="30" ry="10" fill="#07c"/><ellipse cx="50" cy="85" rx="20" fill="#c70"/>',
  ),
};

const PICTURES: Record<string, string> = {
  masks: svg(
    '<linearGradient id="g"><stop stop-color="#fff"/><stop offset="1"/></linearGradient><mask id="m"><rect width="100" height="100" fill="url(#g)"/></mask><rect x="10" y="10" width="80" height="80" fill="#07c" mask="url(#m)"/><circle cx="50" cy="90" r="8" fill="#c70"/>',
  ),
  filters: svg(
    '<filter id="f"><feGaussianBlur stdDeviation="4"/></filter><g filter="url(#f)"><circle cx="40" cy="40" r="25" fill="#07c"/></g><rect x="70" y="70" width="20" height="20"/>',
  ),
  markers: svg(
    '<marker id="m" markerWidth="4" markerHeight="4" refX="2" refY="2"><circle cx="2" cy="2" r="2" fill="#c00"/></marker><path d="M20 20L80 50L20 80" fill="none" stroke="#000" stroke-width="4" marker-start="url(#m)" marker-mid="url(#m)" marker-end="url(#m)"/>',
  ),
  'pattern fills': svg(
    '<pattern id="p" width="10" height="10" patternUnits="userSpaceOnUse"><circle cx="5" cy="5" r="3" fill="#07c"/></pattern><rect x="10" y="10" width="80" height="80" fill="url(#p)" stroke="#000"/>',
  ),
  'see-through groups whose parts overlap': svg(
    '<g opacity=".5"><circle cx="40" cy="50" r="30" fill="#07c"/><circle cx="60" cy="50" r="30" fill="#c70"/></g>',
  ),
  'a mask on what stands for another': svg(
    '<mask id="m"><circle cx="30" cy="30" r="20" fill="#fff"/></mask><g id="a"><rect width="60" height="60" fill="#07c" mask="url(#m)"/></g><use href="#a" x="35" y="35"/>',
  ),
};

describe('what a drawing can hold', () => {
  it.each(Object.entries(VECTORS))('%s: kept as vectors', async (_name, source) => {
    const again = await redrawnMotif(source);
    if (typeof again === 'string') throw new Error(again);
    // resvg knows no !important and no see-through currentColor; librsvg does.
    const one = difference(byResvg(source, 200), byResvg(again.svg, 200), 32);
    const other = difference(await byLibrsvg(source, 200), await byLibrsvg(again.svg, 200), 32, false);
    expect(Math.min(one, other)).toBeLessThan(0.01);
    expect(again.notes).toEqual([]);
    expect(again.pictures).toBe(0);
  });

  it.each(Object.entries(PICTURES))('%s: drawn as a picture, which is said', async (_name, source) => {
    const again = await redrawnMotif(source);
    if (typeof again === 'string') throw new Error(again);
    // resvg draws <pattern> through a raster tile, whose edges differ from scale to scale.
    const most = source.includes('<pattern') ? 0.08 : 0.015;
    expect(difference(byResvg(source, 200), byResvg(again.svg, 200), 32)).toBeLessThan(most);
    expect(again.notes.join(' ')).toMatch(/was drawn as a picture at 300 ppi/);
    expect(again.pictures).toBeGreaterThan(0);
  });

  it('merges alike colours where there are more than a pattern holds, and says how far they moved', async () => {
    const stripes = Array.from(
      { length: 300 },
      (_, index) =>
        `<rect x="${index / 3}" width=".4" height="100" fill="rgb(${index % 256},${255 - Math.round(index * 0.4)},${index > 255 ? 121 : 120})"/>`,
    );
    const source = svg(stripes.join(''));
    const again = await redrawnMotif(source);
    if (typeof again === 'string') throw new Error(again);
    expect(again.notes.join(' ')).toMatch(/\d{3} colours were merged to 64.*ΔE2000 \d/);
    expect(new Set(again.svg.match(/#[0-9a-f]{6}/g)).size).toBeLessThanOrEqual(64);
    expect(difference(byResvg(source, 100), byResvg(again.svg, 100), 24)).toBeLessThan(0.01);
  });

  it('keeps a picture inside it where it lay', async () => {
    const red = await sharp({ create: { width: 8, height: 4, channels: 3, background: '#b5462f' } })
      .png()
      .toBuffer();
    const source = svg(
      `<image transform="rotate(20 50 50)" x="20" y="30" width="60" height="40" href="data:image/png;base64,${red.toString('base64')}"/>`,
    );
    const again = await redrawnMotif(source);
    if (typeof again === 'string') throw new Error(again);
    expect(difference(byResvg(source, 200), byResvg(again.svg, 200), 32)).toBeLessThan(0.02);
  });
});
