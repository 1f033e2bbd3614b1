import type { Instead } from '../../contract/data';
import { oneLetterOff, oneLetterOffStart } from '../../core/num/one-letter';
import type { Db } from '../db/open';
import { once, statement } from './rows';

/** What a search asks of the index, best first. */
export type WordSearch = {
  /** The FTS5 query of all that is found. */
  match: string;
  /** FTS5 queries of what comes first, the best of all in front. */
  first: string[];
  /** Words that no pattern has, and what they were taken for. */
  instead: Instead[];
};

/** Words of a search beyond these are left out. */
const MOST_TYPED = 20;
/** So many words of a search are also looked for inside words and with a wrong letter. */
const MOST_LOOSE = 6;
/** So many words that hold one, or are one letter off, stand for it. */
const MOST_MEANT = 200;
/** Words of the library that are looked through. */
const MOST_KNOWN = 100_000;

/**
 * The words of a search as queries of the index; `null` for no words. Every word must be found: as a word of the text,
 * as the beginning of one, or inside one, and in that order. A word of four letters or more that no pattern has in any of
 * these ways stands for those that are one letter off it (for their beginnings too, from six letters on); one with a
 * digit never does.
 */
export function searchWords(db: Db, search: string): WordSearch | null {
  const typed = (search.match(/[\p{L}\p{M}\p{N}]+/gu) ?? []).slice(0, MOST_TYPED);
  if (typed.length === 0) return null;
  const taken = typed.map((word, index) => meantBy(word, index < MOST_LOOSE ? knownWords(db) : []));
  const all = (pick: (word: Taken) => string): string => taken.map(pick).join(' AND ');
  const match = all(({ whole, begins, inside, off }) =>
    off.length > 0 ? anyOf(off) : inside.length > 0 ? `(${begins} OR ${anyOf(inside)})` : begins || whole,
  );
  const first: string[] = [];
  if (taken.every(({ off }) => off.length === 0)) {
    if (taken.some((word) => word.longer)) first.push(all(({ whole }) => whole));
    if (taken.some((word) => word.inside.length > 0)) first.push(all(({ begins }) => begins));
  }
  const instead = taken.flatMap(({ word, off }) => (off.length > 0 ? [{ typed: word, words: off }] : []));
  return { match, first, instead };
}

type Taken = {
  word: string;
  whole: string;
  begins: string;
  /** True where a word of the library begins with it and goes on. */
  longer: boolean;
  inside: string[];
  off: string[];
};

function meantBy(word: string, known: readonly string[]): Taken {
  const key = folded(word);
  const holding = key.length > 2 || /[^\p{Script=Latin}\p{N}]/u.test(key);
  const inside: string[] = [];
  let [found, longer] = [false, false];
  for (const one of known) {
    const at = one.indexOf(key);
    if (at < 0) continue;
    if (at === 0) {
      found = true;
      longer ||= one.length > key.length;
    } else if (holding) inside.push(one);
  }
  const off = found || inside.length > 0 || /\p{N}/u.test(key) ? [] : oneOff(key, known);
  return {
    word,
    whole: quoted(word),
    begins: `${quoted(word)}*`,
    longer,
    inside: shortest(inside),
    off: shortest(off),
  };
}

function oneOff(key: string, known: readonly string[]): string[] {
  if (key.length < 4) return [];
  const near = key.length < 6 ? oneLetterOff : oneLetterOffStart;
  return known.filter((one) => near(key, one));
}

const shortest = (words: string[]): string[] =>
  words.sort((one, other) => one.length - other.length).slice(0, MOST_MEANT);

const quoted = (word: string): string => `"${word}"`;
const anyOf = (words: readonly string[]): string => `(${words.map(quoted).join(' OR ')})`;

/** A word as the index keeps it: without case and accents. */
const folded = (word: string): string => word.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

type Known = { words: readonly string[] | null };

const held = once((): Known => ({ words: null }));

/** The words of the index, kept until it is written. */
function knownWords(db: Db): readonly string[] {
  const known = held(db);
  known.words ??= readWords(db);
  return known.words;
}

function readWords(db: Db): string[] {
  // Made anew each time: one that was made within a transaction is gone if that is taken back.
  db.$client.exec(
    "CREATE VIRTUAL TABLE IF NOT EXISTS temp.pattern_word USING fts5vocab(main, pattern_search, 'row')",
  );
  return statement(db, 'SELECT term FROM temp.pattern_word LIMIT ?').pluck().all(MOST_KNOWN) as string[];
}

/** Says that the index was written: its words are read anew with the next search. */
export function forgetWords(db: Db): void {
  held(db).words = null;
}
