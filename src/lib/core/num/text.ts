/**
 * Characters that a name may not hold, since they cannot be seen and change what stands beside them: controls, the marks
 * that turn the direction of writing about (Unicode Bidirectional Algorithm, UAX #9), byte order marks, halves of
 * surrogate pairs and noncharacters. Joiners stay: some scripts are written with them.
 */
const UNSEEN =
  // eslint-disable-next-line no-control-regex -- controls are what is looked for
  /[\u0000-\u001F\u007F-\u009F\u061C\u200B\u200E\u200F\u202A-\u202E\u2060\u2066-\u2069\uFEFF\uFFF9-\uFFFB]|\p{Surrogate}|\p{Noncharacter_Code_Point}/gu;

/** A name as it is kept: composed (NFC), in one line, without characters that cannot be seen, spaces at the ends taken off. */
export function tidyName(text: string): string {
  return text
    .replace(/[\t\n\r\u2028\u2029]+/g, ' ')
    .replace(UNSEEN, '')
    .normalize('NFC')
    .trim();
}

/** A text of several lines as it is kept: as {@link tidyName}, but line by line. */
export function tidyProse(text: string): string {
  const lines = text.replace(/\r\n?|\u2028|\u2029/g, '\n').split('\n');
  return lines
    .map((line) => line.replace(/\t/g, ' ').replace(UNSEEN, '').normalize('NFC').trimEnd())
    .join('\n')
    .trim();
}

/** Text safe inside XML text and quoted attributes; characters that XML 1.0 forbids are dropped. */
export function escapeXml(text: string): string {
  return text
    .replace(/[^\t\n\r\u{20}-\u{D7FF}\u{E000}-\u{FFFD}\u{10000}-\u{10FFFF}]/gu, '')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');
}
