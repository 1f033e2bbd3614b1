/**
 * True where two words are the same but for one letter: a wrong one, a missing one, one too many, or two neighbours that
 * changed places (a Damerau–Levenshtein distance of at most 1). Letters are UTF-16 units.
 */
export function oneLetterOff(one: string, other: string): boolean {
  const longer = one.length - other.length;
  if (longer < -1 || longer > 1) return false;
  const shared = Math.min(one.length, other.length);
  let start = 0;
  while (start < shared && one[start] === other[start]) start += 1;
  if (longer === 1) return one.slice(start + 1) === other.slice(start);
  if (longer === -1) return one.slice(start) === other.slice(start + 1);
  if (one.slice(start + 1) === other.slice(start + 1)) return true;
  return (
    one[start] === other[start + 1] &&
    one[start + 1] === other[start] &&
    one.slice(start + 2) === other.slice(start + 2)
  );
}

/** True where a word is one letter off the beginning of another one, or of all of it. */
export const oneLetterOffStart = (word: string, whole: string): boolean =>
  oneLetterOff(word, whole.slice(0, word.length)) ||
  oneLetterOff(word, whole.slice(0, word.length - 1)) ||
  oneLetterOff(word, whole.slice(0, word.length + 1));
