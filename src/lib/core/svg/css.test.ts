import { describe, expect, it } from 'vitest';
import { StyleSheet, inlineDeclarations } from './css';
import { INITIAL_STYLE, propertiesOf, styleOf, type Style } from './style';
import { readSvgTree, type XmlNode } from './xml';

const VIEW = { width: 200, height: 100 };

function read(body: string): {
  root: XmlNode;
  sheet: StyleSheet;
  notes: string[];
  at: (id: string) => XmlNode;
} {
  const tree = readSvgTree(`<svg xmlns="http://www.w3.org/2000/svg">${body}</svg>`);
  if (!tree.ok) throw new Error(tree.message);
  const notes: string[] = [];
  const sheet = new StyleSheet((text) => notes.push(text));
  const byId = new Map<string, XmlNode>();
  const visit = (node: XmlNode): void => {
    if (node.name === 'style') sheet.add(node.text);
    if (node.attributes.id) byId.set(node.attributes.id, node);
    node.children.forEach(visit);
  };
  visit(tree.root);
  return { root: tree.root, sheet, notes, at: (id) => byId.get(id) as XmlNode };
}

function styleAt(body: string, id = 'x'): { style: Style; notes: string[] } {
  const { sheet, at, notes } = read(body);
  const way: XmlNode[] = [];
  for (let node: XmlNode | null = at(id); node; node = node.parent) way.unshift(node);
  const style = way.reduce(
    (held, node) => styleOf(propertiesOf(node, sheet), held, VIEW, (text) => notes.push(text)),
    INITIAL_STYLE,
  );
  return { style, notes };
}

describe('the cascade (CSS Cascading 4; Selectors 4, section 17)', () => {
  it.each([
    [
      'an attribute counts less than any rule',
      '<style>*{fill:#111111}</style><path id="x" fill="#222222"/>',
      '#111111',
    ],
    [
      'a class counts more than names',
      '<style>.a{fill:#111111}g g path{fill:#222222}</style><g><g><path id="x" class="a"/></g></g>',
      '#111111',
    ],
    [
      'an id counts more than classes',
      '<style>#x{fill:#111111}.a.b.c{fill:#222222}</style><path id="x" class="a b c"/>',
      '#111111',
    ],
    [
      'of equal ones the later',
      '<style>.a{fill:#111111}.b{fill:#222222}</style><path id="x" class="b a"/>',
      '#222222',
    ],
    [
      'its own style counts most',
      '<style>#x{fill:#111111}</style><path id="x" style="fill:#222222"/>',
      '#222222',
    ],
    [
      'but for what is important',
      '<style>path{fill:#111111!important}</style><path id="x" style="fill:#222222"/>',
      '#111111',
    ],
    [
      'selectors of every kind',
      '<style>g > rect + path:nth-of-type(1)[d]{fill:#111111}</style><g><rect/><path id="x" d="M0 0"/></g>',
      '#111111',
    ],
    ['in CDATA too', '<style><![CDATA[ path { fill: #111111 } ]]></style><path id="x"/>', '#111111'],
    ['what is inherited', '<g fill="#111111"><g><path id="x" fill="inherit"/></g></g>', '#111111'],
    ['currentColor where it stands', '<g color="#111111"><path id="x" fill="currentColor"/></g>', '#111111'],
  ])('%s', (_what, body, fill) => expect(styleAt(body).style.fill?.hex).toBe(fill));

  it('keeps the alpha of colours beside opacities', () => {
    const { style } = styleAt(
      '<path id="x" fill="rgb(255 0 0 / 25%)" fill-opacity=".5" stroke="#00ff0080" opacity="40%"/>',
    );
    expect(style.fill).toEqual({ hex: '#ff0000', alpha: 0.25, reference: null });
    expect(style.stroke?.alpha).toBeCloseTo(128 / 255, 9);
    expect([style.fillOpacity, style.opacity]).toEqual([0.5, 0.4]);
  });

  it('reads lengths by the font and the viewport of the element', () => {
    const { style } = styleAt(
      '<g font-size="2em"><path id="x" stroke-width=".5em" stroke-dasharray="10% 2mm 1" stroke-dashoffset="1pt"/></g>',
    );
    expect(style.fontSize).toBe(32);
    expect(style.strokeWidth).toBe(16);
    const tenth = (Math.hypot(200, 100) / Math.SQRT2) * 0.1;
    // An odd number of dashes is gone through twice (SVG 2, section 13.5.6).
    expect(style.dashes.map((dash) => +dash.toFixed(6))).toEqual(
      [tenth, (2 * 96) / 25.4, 1, tenth, (2 * 96) / 25.4, 1].map((dash) => +dash.toFixed(6)),
    );
    expect(style.dashOffset).toBeCloseTo(96 / 72, 9);
  });

  it('takes references with their fallback, paint order and what does not scale', () => {
    const { style } = styleAt(
      '<path id="x" fill="url(#g) #111111" stroke="url(\'#h\')" paint-order="stroke" vector-effect="non-scaling-stroke"/>',
    );
    expect(style.fill).toEqual({ hex: '#111111', alpha: 1, reference: 'g' });
    expect(style.stroke?.reference).toBe('h');
    expect([style.strokeFirst, style.fixedStroke]).toEqual([true, true]);
    expect(styleAt('<path id="x" paint-order="markers fill stroke"/>').style.strokeFirst).toBe(false);
  });

  it('says what it does not understand, and goes on', () => {
    const { style, notes } = styleAt(
      '<style>path:frobnicate(3){fill:red} @media print{path{fill:blue}} .a{fill:#111111}</style><path id="x" class="a" stroke="not-a-colour"/>',
    );
    expect(style.fill?.hex).toBe('#111111');
    expect(style.stroke?.hex).toBe('#000000');
    expect(notes.join(' ')).toMatch(/selectors cannot be used.*media.*“not-a-colour” was not understood/s);
  });

  it('reads style attributes as declarations, in any state', () => {
    expect(inlineDeclarations('fill : red ; ; stroke:blue!important; broken')).toEqual([
      { name: 'fill', value: 'red', important: false },
      { name: 'stroke', value: 'blue', important: true },
    ]);
    expect(inlineDeclarations('x'.repeat(50_000))).toEqual([]);
    expect(inlineDeclarations('}{')).toEqual([]);
  });

  it.each([
    ['400 kB of rules', '*{}'.repeat(150_000)],
    ['open braces', '{'.repeat(300_000)],
    ['open comments', '/*'.repeat(150_000)],
    ['5,000 selectors', Array.from({ length: 5000 }, (_, index) => `.c${index}{fill:red}`).join('')],
  ])('gives up on %s, soon and with a sentence', (_what, css) => {
    const notes: string[] = [];
    const from = performance.now();
    new StyleSheet((text) => notes.push(text)).add(css);
    expect(performance.now() - from).toBeLessThan(4000);
    expect(notes.length + (css.startsWith('/*') || css.startsWith('{') ? 1 : 0)).toBeGreaterThan(0);
  });
});
