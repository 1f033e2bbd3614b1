import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { spec } from '../../../contract/routes/spec';
import { Rates } from '../rates';
import { hashed, isRight, passwordFault } from './passwords';
import { Patience } from './patience';

describe('patience with wrong passwords', () => {
  const begun = () => {
    let now = 0;
    return { patience: new Patience(() => now), wait: (seconds: number) => (now += seconds * 1000) };
  };

  it('costs nothing five times, then a second, then twice as long each time, two minutes at most, and never locks out', () => {
    const { patience, wait } = begun();
    const waits: number[] = [];
    for (let tries = 0; tries < 16; tries += 1) {
      patience.wrong('mara');
      waits.push(patience.wait('mara'));
      wait(waits[tries] ?? 0);
      expect(patience.wait('mara')).toBe(0);
    }
    expect(waits).toEqual([0, 0, 0, 0, 1, 2, 4, 8, 16, 32, 64, 120, 120, 120, 120, 120]);
    patience.right('mara');
    patience.wrong('mara');
    expect(patience.wait('mara')).toBe(0);
  });

  it('counts each name by itself, waits for the longest, forgets after half an hour, and holds so many at most', () => {
    const { patience, wait } = begun();
    for (let tries = 0; tries < 7; tries += 1) patience.wrong('one', ...(tries < 5 ? ['both'] : []));
    expect([patience.wait('one'), patience.wait('both'), patience.wait('other')]).toEqual([4, 1, 0]);
    expect(patience.wait('both', 'one')).toBe(4);
    wait(31 * 60);
    patience.wrong('one');
    expect(patience.wait('one')).toBe(0);
    for (let count = 0; count < 10_500; count += 1) patience.wrong(`n${count}`);
    expect(patience['missed'].size).toBeLessThanOrEqual(10_000);
  });
});

describe('asks that cost much', () => {
  it('are so many within any minute that slides, each asker and route by itself', () => {
    let now = 0;
    const rates = new Rates(() => now);
    const route = spec('POST', '/motifs', 'contributor', '', { perMinute: 10 });
    const taken = (asker: string): boolean => rates.refused(route, asker) === null;
    expect(Array.from({ length: 12 }, () => taken('mara')).filter(Boolean)).toHaveLength(10);
    expect(taken('jonas')).toBe(true);
    expect(rates.refused(route, 'mara')).toMatchObject({ code: 'too_many', wait: 60 });
    expect(rates.refused(spec('GET', '/free', 'viewer', '', {}), 'mara')).toBeNull();
    // Half a minute into the next one half of the last still counts.
    now = 90_000;
    expect(Array.from({ length: 12 }, () => taken('mara')).filter(Boolean)).toHaveLength(5);
    now = 300_000;
    expect(Array.from({ length: 12 }, () => taken('mara')).filter(Boolean)).toHaveLength(10);
  });
});

describe('a password', () => {
  const about = ['isle', 'Pier & Paper', 'Mara Quill', 'mara@pier.example'];
  const fault = (password: string): string => passwordFault(password, about)?.message ?? '';

  it.each([
    ['eleven char', /at least 12 characters; this one has 11/],
    ['aaaaabbbbbccccc', /fewer than six different/],
    ['mast rope mast rope ', /over and over/],
    ['qwertyuiopasdf', /in their order/],
    ['98765432109876x', /in their order/],
    ['mara@pier.example!', /little more than “mara@pier.example”/],
    ['xx-Quill-xx', /at least 12/],
    ['0quillMARA0?', /little more than “(mara|quill)”/],
    ['x'.repeat(300), /at most 200/],
  ])('such as %s is refused with the reason, and never repeated', (password, why) => {
    expect(fault(password)).toMatch(why);
  });

  it.each([
    'two striped towels',
    'Brücke über den Fjord',
    '泳ぐ泳ぐ 波の音が聞こえる 夏',
    '🌊🚢⚓🧭🏖️🐚🦀🐟🦑🐙🪸🌅',
  ])('such as %s is taken: any characters of any script, spaces too', (password) =>
    expect(fault(password)).toBe(''),
  );

  it('is kept by Argon2id with the second parameters that RFC 9106 recommends, with another salt each time', async () => {
    const [one, other] = await Promise.all([hashed('two striped towels'), hashed('two striped towels')]);
    // The PHC string format: m in KiB, passes, lanes; a salt of 16 bytes and a tag of 32, in Base64 without padding.
    expect(one).toMatch(/^\$argon2id\$v=19\$m=65536,t=3,p=4\$[A-Za-z0-9+/]{22}\$[A-Za-z0-9+/]{43}$/);
    expect(one).not.toBe(other);
    expect(await isRight('two striped towels', one)).toBe(true);
    expect(await isRight('two striped towel', one)).toBe(false);
    expect(await isRight('two striped towels', null)).toBe(false);
    // The same letters, composed or not.
    expect(await isRight('Bru\u0308cke u\u0308ber', await hashed('Br\u00fccke \u00fcber'))).toBe(true);
  });

  it('by chance is hardly ever refused', () => {
    fc.assert(
      fc.property(
        fc.string({ minLength: 20, maxLength: 40, unit: fc.constantFrom(...'acegikmoqsuwy13579!?-_') }),
        (password) => {
          const why = fault(password);
          if (why) expect(why).toMatch(/fewer than six|over and over/);
        },
      ),
      { numRuns: 300 },
    );
  });
});
