import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../src/lib/core/num/random';
import { openDatabase } from '../../src/lib/server/db/open';
import { findPatterns, listPatterns } from '../../src/lib/server/repo/find';
import { kept } from '../support/studio';

/** The Damerau–Levenshtein distance (neighbours may change places), by the whole table. */
function distance(one: string, other: string): number {
  const rows: number[][] = [];
  for (let i = 0; i <= one.length; i += 1) {
    rows.push([]);
    for (let j = 0; j <= other.length; j += 1) {
      const row = rows[i]!;
      if (i === 0 || j === 0) {
        row[j] = i + j;
        continue;
      }
      const wrong = one[i - 1] === other[j - 1] ? 0 : 1;
      row[j] = Math.min(rows[i - 1]![j]! + 1, row[j - 1]! + 1, rows[i - 1]![j - 1]! + wrong);
      if (i > 1 && j > 1 && one[i - 1] === other[j - 2] && one[i - 2] === other[j - 1])
        row[j] = Math.min(row[j]!, rows[i - 2]![j - 2]! + 1);
    }
  }
  return rows[one.length]![other.length]!;
}

/** What a word means, told slowly: beginnings and, from three letters on, insides; where there are none, one letter off. */
function meant(typed: string, words: readonly string[]): Set<string> {
  const asTyped = words.filter((word) => (typed.length > 2 ? word.includes(typed) : word.startsWith(typed)));
  if (words.some((word) => word.includes(typed)) || typed.length < 4 || /\d/.test(typed))
    return new Set(asTyped);
  return new Set(
    words.filter(
      (word) =>
        distance(typed, word) <= 1 ||
        (typed.length > 5 &&
          [-1, 0, 1].some((more) => distance(typed, word.slice(0, typed.length + more)) <= 1)),
    ),
  );
}

const SYLLABLES = 'ba co de fi gu la mo ne po ri su ta ve wo'.split(' ');
const LETTERS = 'abcdefghijklmnopqrstuvwxyz';

describe('the search of the library', () => {
  const random = seededRandom(91);
  const upTo = (count: number): number => Math.floor(random() * count);
  const madeUp = (): string => Array.from({ length: 2 + upTo(3) }, () => SYLLABLES[upTo(14)]).join('');
  const db = openDatabase(':memory:');
  const names = [...new Set(Array.from({ length: 150 }, () => `${madeUp()} ${madeUp()}`))];
  for (const name of names) kept(db, name);
  const words = [...new Set(names.flatMap((name) => name.split(' ')))];
  const scan = (typed: string): string[] => {
    const wanted = meant(typed, words);
    return names.filter((name) => name.split(' ').some((word) => wanted.has(word))).sort();
  };

  it('finds with one wrong letter what a table of edit distances finds, in 200 made-up queries: all of it, and no more', () => {
    let recalled = 0;
    for (let query = 0; query < 200; query += 1) {
      const word = words[upTo(words.length)]!;
      const at = upTo(word.length);
      const letter = LETTERS[upTo(26)]!;
      const typed = [
        word.slice(0, at) + letter + word.slice(at + 1),
        word.slice(0, at) + word.slice(at + 1),
        word.slice(0, at) + letter + word.slice(at),
        word.slice(0, at) +
          word
            .slice(at, at + 2)
            .split('')
            .reverse()
            .join('') +
          word.slice(at + 2),
      ][query % 4]!;
      const found = listPatterns(db, { search: typed, limit: 1000 }).map(({ name }) => name);
      expect(found.sort(), `${word} as ${typed}`).toEqual(scan(typed));
      if (found.some((name) => name.split(' ').includes(word))) recalled += 1;
    }
    // What is missed is a wrong word of under four letters, or one that is itself (part of) another one.
    expect(recalled).toBeGreaterThan(185);
  });

  it('has whole words before beginnings, beginnings before insides, and says what a wrong word was taken for', () => {
    const own = openDatabase(':memory:');
    for (const name of ['Primrose', 'Rosette', 'A rose', 'Roses', 'Nose']) kept(own, name);
    kept(own, 'Petal', { description: 'of a rose' });
    const of = (search: string) => {
      const { patterns, total, instead } = findPatterns(own, { search });
      expect(total).toBe(patterns.length);
      return { names: patterns.map(({ name }) => name), instead };
    };
    const found = of('rose').names;
    expect(found.slice(0, 2)).toEqual(['A rose', 'Petal']);
    expect(found.slice(2, 4).sort()).toEqual(['Rosette', 'Roses'].sort());
    expect(found.slice(4)).toEqual(['Primrose']);
    expect(of('prinrose')).toEqual({
      names: ['Primrose'],
      instead: [{ typed: 'prinrose', words: ['primrose'] }],
    });
    expect(of('petla rose')).toEqual({ names: ['Petal'], instead: [{ typed: 'petla', words: ['petal'] }] });
    expect(of('rose 1999').names).toEqual([]);
    expect(of('os').names).toEqual([]);
    kept(own, 'Prinrose');
    expect(of('prinrose')).toEqual({ names: ['Prinrose'], instead: [] });
  });

  it('goes on after a transaction in which it was asked is taken back', () => {
    const own = openDatabase(':memory:');
    own.$client.exec('BEGIN');
    kept(own, 'Gone');
    expect(listPatterns(own, { search: 'gonw' })).toHaveLength(1);
    own.$client.exec('ROLLBACK');
    kept(own, 'Stays');
    expect(listPatterns(own, { search: 'stayz' }).map(({ name }) => name)).toEqual(['Stays']);
    expect(listPatterns(own, { search: 'gonw' })).toEqual([]);
  });
});
