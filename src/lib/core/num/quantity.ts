import { LENGTH_UNITS, toPx, fromPx, type LengthUnit } from './length';

export type Quantity = { ok: true; value: number } | { ok: false; message: string };

/** What a number field reads: a length (units convert to `unit`), or a plain number with one suffix that may be left out. */
export type QuantityKind = { unit: LengthUnit } | { suffix: '%' | '°' | 'px' | 'ppi' | 'EV' | '' };

type Token =
  { kind: 'number'; value: number } | { kind: 'word'; text: string } | { kind: 'sign'; text: string };

/**
 * Reads what a person types into a number field: sums with + − × / and brackets, and units behind numbers
 * ("120/3", "40mm", "1in + 6 pt"). The value comes back in the field's own unit. Decimal comma, point and powers of ten
 * ("1e3") count.
 */
export function readQuantity(text: string, kind: QuantityKind): Quantity {
  const tokens = tokenise(text);
  if (!tokens || tokens.length === 0) return unreadable(text);
  const reader = { tokens, at: 0 };
  const value = readSum(reader, kind);
  if (value === null || reader.at < tokens.length) return unreadable(text);
  if (!Number.isFinite(value))
    return { ok: false, message: `“${text.trim()}” has no finite value; nothing was changed.` };
  return { ok: true, value };
}

/** A change of what each of several values is: added to it, or multiplied with it. */
export type RelativeQuantity = { by: 'sum' | 'product'; value: number };

/**
 * Reads a typed change: "+10", "+-10", "*1.5", "/2"; units and sums count behind the sign. `null` for anything that
 * does not begin so: a plain number, and "-10", which is one. `value` is in the field's own unit, or a plain factor.
 */
export function readRelative(text: string, kind: QuantityKind): RelativeQuantity | null {
  const [, sign, rest] = /^\s*([+*/×÷])(.+)$/.exec(text) ?? [];
  if (sign === undefined || rest === undefined) return null;
  const by = sign === '+' ? 'sum' : 'product';
  const read = readQuantity(rest, by === 'sum' ? kind : { suffix: '' });
  if (!read.ok) return null;
  const divides = sign === '/' || sign === '÷';
  const value = divides ? 1 / read.value : read.value;
  return Number.isFinite(value) ? { by, value } : null;
}

function unreadable(text: string): Quantity {
  return { ok: false, message: `“${text.trim()}” is not a number; write one such as 40, 40mm or 120/3.` };
}

function tokenise(text: string): Token[] | null {
  const tokens: Token[] = [];
  const source = text.replaceAll('−', '-').replaceAll('×', '*').replaceAll('÷', '/').replaceAll('"', 'in');
  const pattern = /\s*(?:((?:\d+(?:[.,]\d*)?|[.,]\d+)(?:e[-+]?\d+)?)|([a-z%°]+)|([-+*/()]))\s*/giy;
  while (pattern.lastIndex < source.length) {
    const match = pattern.exec(source);
    if (!match) return null;
    if (match[1] !== undefined) tokens.push({ kind: 'number', value: Number(match[1].replace(',', '.')) });
    else if (match[2] !== undefined) tokens.push({ kind: 'word', text: match[2].toLowerCase() });
    else tokens.push({ kind: 'sign', text: match[3] ?? '' });
  }
  return tokens;
}

type Reader = { tokens: Token[]; at: number };

function takeSign(reader: Reader, signs: string): string | null {
  const token = reader.tokens[reader.at];
  if (token?.kind !== 'sign' || !signs.includes(token.text)) return null;
  reader.at += 1;
  return token.text;
}

function readSum(reader: Reader, kind: QuantityKind): number | null {
  let total = readProduct(reader, kind);
  for (let sign = takeSign(reader, '+-'); sign !== null && total !== null; sign = takeSign(reader, '+-')) {
    const next = readProduct(reader, kind);
    if (next === null) return null;
    total = sign === '+' ? total + next : total - next;
  }
  return total;
}

function readProduct(reader: Reader, kind: QuantityKind): number | null {
  let total = readSigned(reader, kind);
  for (let sign = takeSign(reader, '*/'); sign !== null && total !== null; sign = takeSign(reader, '*/')) {
    const next = readSigned(reader, kind);
    if (next === null) return null;
    total = sign === '*' ? total * next : total / next;
  }
  return total;
}

function readSigned(reader: Reader, kind: QuantityKind): number | null {
  const sign = takeSign(reader, '+-');
  if (sign !== null) {
    const value = readSigned(reader, kind);
    return value === null ? null : sign === '-' ? -value : value;
  }
  if (takeSign(reader, '(') !== null) {
    const inner = readSum(reader, kind);
    return takeSign(reader, ')') === null ? null : inner;
  }
  const token = reader.tokens[reader.at];
  if (token?.kind !== 'number') return null;
  reader.at += 1;
  return withUnit(token.value, reader, kind);
}

function withUnit(value: number, reader: Reader, kind: QuantityKind): number | null {
  const token = reader.tokens[reader.at];
  if (token?.kind !== 'word') return value;
  reader.at += 1;
  if ('suffix' in kind)
    return token.text.toLowerCase() === kind.suffix.toLowerCase() ||
      (kind.suffix === '°' && token.text === 'deg')
      ? value
      : null;
  const unit = LENGTH_UNITS.find((known) => known === token.text);
  return unit ? fromPx(toPx(value, unit), kind.unit) : null;
}
