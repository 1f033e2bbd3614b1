import { describe, expect, it } from 'vitest';
import { paletteCss, paletteCsv, paletteSvg, readPaletteFile } from './palette-files';
import { readTokens, tokensOf } from './tokens';

const palette = {
  name: 'Sea, sand & 100 % {sun}',
  colours: [
    { id: 'a', name: 'Deep "water"', hex: '#10394d' },
    { id: 'b', name: 'Deep water', hex: '#2f8fab' },
    { id: 'c', name: 'Neon', hex: '#ff00c8', css: 'color(display-p3 1 0 0.8)' },
    {
      id: 'd',
      name: 'Dusk',
      hex: '#10394d',
      gradient: [
        { at: 0, hex: '#10394d' },
        { at: 1, hex: '#f3c14b' },
      ],
    },
  ],
};
const plain = palette.colours.filter((entry) => !entry.gradient).map(({ hex }) => hex);

function found(fileName: string, text: string) {
  const read = readPaletteFile(fileName, text);
  if (typeof read === 'string') throw new Error(read);
  return read;
}

describe('a palette in a file and back', () => {
  it('as tokens, with the spot inks of its colours; inks that contradict each other are left out with a note', () => {
    const ink = { name: 'Kelp 40', tint: 0.4, overprint: true };
    const colours = [{ id: 'a', name: 'Pale kelp', hex: '#9dc3bd', ink }];
    expect(found('x.tokens.json', tokensOf([{ name: 'Inks', colours }]))[0]?.colours[0]?.ink).toEqual(ink);
    expect(paletteCsv({ name: 'Inks', colours })).toContain('Kelp 40,40\r\n');
    const twice = [...colours, { id: 'b', name: 'Rust', hex: '#9dc3bd', ink: { ...ink, name: 'Rust' } }];
    const [back] = found('x.tokens.json', tokensOf([{ name: 'Inks', colours: twice }]));
    expect(back?.colours.map((one) => one.ink)).toEqual([undefined, undefined]);
    expect(back?.notes.join()).toMatch(/spot inks were left out: .*look the same/);
  });

  it('as tokens, with gradients and colours outside sRGB', () => {
    const [back] = found('x.tokens.json', tokensOf([palette]));
    expect(back?.colours.map(({ hex, css }) => css ?? hex)).toEqual([
      '#10394d',
      '#2f8fab',
      'color(display-p3 1 0 0.8)',
      '#10394d',
    ]);
    expect(back?.colours[3]?.gradient).toEqual(palette.colours[3]!.gradient);
    expect(back?.name).toBe('Sea, sand & 100 % sun');
  });

  it('as CSS, CSV and SVG', () => {
    expect(found('sea.css', paletteCss(palette))[0]?.colours.map(({ hex }) => hex)).toEqual(plain);
    const [csv] = found('sea.csv', paletteCsv(palette));
    expect(csv?.colours.map(({ name, hex }) => [name, hex])).toEqual([
      ['Deep "water"', '#10394d'],
      ['Deep water', '#2f8fab'],
      ['Neon', '#ff00c8'].map((text, index) => (index === 1 ? csv!.colours[2]!.hex : text)),
    ]);
    expect(csv?.colours[2]?.css).toBe('color(display-p3 1 0 0.8)');
    expect(found('sea.svg', paletteSvg(palette))[0]?.colours.map(({ hex }) => hex)).toEqual(plain);
  });
});

// Design Tokens Community Group format: the examples of its text (color module, aliases, groups, gradient), from memory.
describe('design tokens of the format’s own examples', () => {
  const read = (data: unknown) => {
    const answer = readTokens(JSON.stringify(data));
    if (typeof answer === 'string') throw new Error(answer);
    return answer;
  };

  it('reads colours as objects, as hex, and in other spaces', () => {
    const [group] = read({
      'Hot pink': {
        $value: { colorSpace: 'srgb', components: [1, 0, 1], alpha: 1, hex: '#ff00ff' },
        $type: 'color',
      },
      'Translucent shadow': {
        $value: { colorSpace: 'srgb', components: [0, 0, 0], alpha: 0.5, hex: '#000000' },
        $type: 'color',
      },
      'Majestic magenta': { $type: 'color', $value: '#ff00ff' },
      lab: { $type: 'color', $value: { colorSpace: 'oklch', components: [0.7016, 0.3225, 328.363] } },
      nothing: { $type: 'dimension', $value: { value: 4, unit: 'px' } },
    });
    expect(group?.colours.map(({ name, hex }) => [name, hex])).toEqual([
      ['Hot pink', '#ff00ff'],
      ['Translucent shadow', '#000000'],
      ['Majestic magenta', '#ff00ff'],
      ['lab', '#ff00ff'],
    ]);
  });

  it('follows aliases and inherits types from groups', () => {
    const groups = read({
      colors: { $type: 'color', black: { $value: '#000000' }, primary: { $value: '{colors.black}' } },
      theme: { text: { $type: 'color', $value: '{colors.primary}' } },
      gradients: {
        $type: 'gradient',
        blue: {
          $value: [
            { color: '{colors.black}', position: 0 },
            { color: '#ff0000', position: 1 },
          ],
        },
      },
    });
    expect(groups.map(({ name, colours }) => [name, colours.map(({ hex }) => hex)])).toEqual([
      ['colors', ['#000000', '#000000']],
      ['theme', ['#000000']],
      ['gradients', ['#000000']],
    ]);
  });

  it('names loops and missing aliases and keeps the rest', () => {
    const [group] = read({
      a: { $type: 'color', $value: '{b}' },
      b: { $type: 'color', $value: '{a}' },
      c: { $type: 'color', $value: '{nowhere}' },
      d: { $type: 'color', $value: '#00ff00' },
    });
    expect(group?.colours).toEqual([{ name: 'd', hex: '#00ff00' }]);
    expect(group?.notes.join(' ')).toMatch(/“a” leads back to itself.*“c” refers to “nowhere”/);
  });

  it.each([
    ['[]', /object of groups/],
    ['{', /not valid JSON/],
    ['{"a":{"$type":"color","$value":"reddish"}}', /cannot be read/],
    ['{"a":{"b":1}}', /no token of type color/],
  ])('answers %s with a sentence', (text, sentence) => {
    expect(readTokens(text)).toMatch(sentence);
  });
});

describe('a palette from elsewhere', () => {
  it('as CSV with odd quoting, separators and blank rows', () => {
    const [csv] = found(
      'odd.csv',
      '\uFEFFname;"hex"\r\n"Deep; ""blue""";#10394d\r\n\r\n  Pool ;rgb(47 143 171)\r\nbroken;\r\n"no end;#ff0000',
    );
    expect(csv?.colours.map(({ name, hex }) => [name, hex]).slice(0, 2)).toEqual([
      ['Deep; "blue"', '#10394d'],
      ['Pool', '#2f8fab'],
    ]);
    expect(csv?.notes.join(' ')).toMatch(/Row 4 holds no colour/);
  });

  it('as CSS with variables that refer to each other, loops named', () => {
    const [css] = found(
      'a.css',
      ':root{ --a: var(--b); --b: teal; --x: var(--y); --y: var(--x); --size: 4px; /* --z: red; */ --w: var(--gone, #ffffff) }',
    );
    expect(css?.colours.map(({ name, hex }) => [name, hex])).toEqual([
      ['a', '#008080'],
      ['b', '#008080'],
      ['w', '#ffffff'],
    ]);
    expect(css?.notes).toHaveLength(2);
  });

  it.each(['', 'hello', 'a,b\nc,d', '<svg xmlns="http://www.w3.org/2000/svg"/>', ':root{}'])(
    'says that %j holds no colours',
    (text) => {
      expect(readPaletteFile('file', text)).toMatch(/^“file”/);
    },
  );
});
