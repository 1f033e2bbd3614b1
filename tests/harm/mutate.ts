import { pick, type Random } from './extreme';

const NUMBERS = ['0', '-1', '1e9', '1e38', '1e-30', 'NaN', '99999999999', '-0.0000001', '1e309'];

/** A good file made bad: bytes flipped, cut off, doubled, or numbers in it exchanged for odd ones. */
export function mutated(random: Random, bytes: Uint8Array): Uint8Array {
  const at = (): number => Math.floor(random() * bytes.length);
  switch (pick(random, ['flip', 'cut', 'double', 'number', 'splice', 'zero'] as const)) {
    case 'flip': {
      const out = bytes.slice();
      for (let count = 1 + Math.floor(random() * 12); count > 0; count -= 1)
        out[at()] = Math.floor(random() * 256);
      return out;
    }
    case 'cut':
      return bytes.slice(0, at());
    case 'double': {
      const from = at();
      const part = bytes.slice(from, from + 1 + Math.floor(random() * 2000));
      const to = at();
      return joined(
        bytes.slice(0, to),
        ...Array.from({ length: 1 + Math.floor(random() * 60) }, () => part),
        bytes.slice(to),
      );
    }
    case 'number': {
      const text = Buffer.from(bytes).toString('latin1');
      const count = Math.max(1, (text.match(/\d+(\.\d+)?/g) ?? []).length);
      let which = Math.floor(random() * count);
      return Buffer.from(
        text.replace(/\d+(\.\d+)?/g, (found) => (which-- === 0 ? pick(random, NUMBERS) : found)),
        'latin1',
      );
    }
    case 'splice': {
      const [from, to] = [at(), at()];
      return joined(bytes.slice(0, to), bytes.slice(from, from + 300), bytes.slice(to + 100));
    }
    case 'zero': {
      const out = bytes.slice();
      const from = at();
      out.fill(pick(random, [0, 255]), from, from + Math.floor(random() * 200));
      return out;
    }
  }
}

const joined = (...parts: Uint8Array[]): Uint8Array => new Uint8Array(Buffer.concat(parts));
