import { fail, done, type Outcome } from './failure';

/** What a JSON text may hold, counted before it is parsed: our own choices, ten times what the largest layout needs. */
const DEEPEST = 64;
const MOST_KEYS = 400_000;
const MOST_VALUES = 4_000_000;

const [QUOTE, BACKSLASH, COLON, COMMA] = [0x22, 0x5c, 0x3a, 0x2c];
const OPEN = new Set([0x5b, 0x7b]);
const CLOSE = new Set([0x5d, 0x7d]);

/** Parses JSON in UTF-8 whose depth, keys and values are counted first, in one pass over its bytes. */
export function boundedJson(bytes: Uint8Array): Outcome<unknown> {
  const refused = countJson(bytes);
  if (refused) return fail('too_large', refused);
  try {
    return done(JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes)) as unknown);
  } catch {
    return fail('unreadable', 'The body is not valid JSON in UTF-8.');
  }
}

/** Why a JSON text is too much, or `null`. */
function countJson(bytes: Uint8Array): string | null {
  let [depth, keys, values] = [0, 0, 0];
  for (let at = 0; at < bytes.length; at += 1) {
    const byte = bytes[at]!;
    if (byte === QUOTE) {
      for (at += 1; at < bytes.length && bytes[at] !== QUOTE; at += 1) if (bytes[at] === BACKSLASH) at += 1;
    } else if (byte === COMMA) values += 1;
    else if (byte === COLON) keys += 1;
    else if (OPEN.has(byte)) {
      depth += 1;
      if (depth > DEEPEST) return `The body nests lists and objects more than ${DEEPEST} deep.`;
    } else if (CLOSE.has(byte)) depth -= 1;
    if (keys > MOST_KEYS) return `The body has more than ${MOST_KEYS} keys; send it in parts.`;
    if (values > MOST_VALUES) return `The body has more than ${MOST_VALUES} values; send it in parts.`;
  }
  return null;
}
