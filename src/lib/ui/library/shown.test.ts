import { describe, expect, it } from 'vitest';
import { shownIn } from './shown';

const shown = (address: string) => shownIn(new URLSearchParams(address));

describe('how the library is shown', () => {
  it('is read from the address', () => {
    expect(shown('on=dark&sight=deutan&scale=1.5&columns=kind.uses')).toEqual({
      surface: 'dark',
      sight: 'deutan',
      scale: 1.5,
      columns: ['kind', 'uses'],
    });
  });

  it('starts plainly, also where an address says what does not exist', () => {
    const plain = shown('');
    expect(plain).toMatchObject({ surface: 'mid', sight: 'full', scale: 0.5 });
    for (const address of ['on=lava&sight=hawk', 'scale=0', 'scale=9', 'scale=big'])
      expect(shown(address)).toEqual(plain);
  });
});
