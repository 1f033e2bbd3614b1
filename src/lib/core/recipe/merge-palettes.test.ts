import { describe, expect, it } from 'vitest';
import { mergePalettes, type PaletteDoc } from './merge-palettes';

const entry = (id: string, hex = '#102030') => ({ id, name: id, hex: hex as `#${string}` });
const base: PaletteDoc = { name: 'Lido', projectId: null, colours: ['a', 'b', 'c'].map((id) => entry(id)) };
const changed = (change: Partial<PaletteDoc>): PaletteDoc => ({ ...base, ...change });
const coloured = (id: string, hex: string): PaletteDoc =>
  changed({ colours: base.colours.map((one) => (one.id === id ? entry(id, hex) : one)) });
const looks = ({ colours }: PaletteDoc): string =>
  colours.map(({ id, hex }) => `${id}${hex.slice(1, 3)}`).join(' ');

describe('two changes of one palette', () => {
  it('are brought together colour by colour', () => {
    const { doc, clashes } = mergePalettes(base, coloured('a', '#ff0000'), coloured('b', '#00ff00'));
    expect(looks(doc)).toBe('aff b00 c10');
    expect(clashes).toBe(false);
  });

  it('keep what either added, and lose what either took out', () => {
    const mine = changed({ name: 'Pool', colours: [...base.colours.slice(1), entry('mine')] });
    const theirs = changed({ projectId: 'p', colours: [entry('theirs'), ...base.colours] });
    const { doc, clashes } = mergePalettes(base, mine, theirs);
    expect(doc).toMatchObject({ name: 'Pool', projectId: 'p' });
    expect(doc.colours.map(({ id }) => id)).toEqual(['theirs', 'b', 'c', 'mine']);
    expect(clashes).toBe(false);
  });

  it('clash only where both gave the same colour another value, or one took out what the other changed', () => {
    expect(mergePalettes(base, coloured('a', '#ff0000'), coloured('a', '#0000ff'))).toMatchObject({
      clashes: true,
    });
    expect(mergePalettes(base, coloured('a', '#ff0000'), coloured('a', '#ff0000'))).toMatchObject({
      clashes: false,
    });
    const out = changed({ colours: base.colours.slice(1) });
    const clash = mergePalettes(base, coloured('a', '#ff0000'), out);
    expect(clash.clashes).toBe(true);
    expect(looks(clash.doc)).toBe('b10 c10 aff');
  });

  it('have the order of whoever changed it', () => {
    const turned = changed({ colours: [...base.colours].reverse() });
    expect(looks(mergePalettes(base, turned, coloured('b', '#ff0000')).doc)).toBe('c10 bff a10');
    expect(looks(mergePalettes(base, coloured('b', '#ff0000'), turned).doc)).toBe('c10 bff a10');
  });
});
