/** Numbers of bytes, least first. */
const little = (value: number, bytes: number): number[] =>
  Array.from({ length: bytes }, (_, at) => Math.floor(value / 256 ** at) % 256);
const text = (name: string): number[] => [...name].map((letter) => letter.charCodeAt(0));

function chunk(name: string, parts: readonly Uint8Array[]): Uint8Array[] {
  const size = parts.reduce((sum, { length }) => sum + length, 0);
  const head = Uint8Array.from([...text(name), ...little(size, 4)]);
  return [head, ...parts, ...(size % 2 === 1 ? [new Uint8Array(1)] : [])];
}

/** The chunks of a WebP file that are its picture: VP8, VP8L, and the alpha that belongs to VP8. */
function pictureOf(file: Uint8Array): { parts: Uint8Array[]; alpha: boolean } {
  const view = new DataView(file.buffer, file.byteOffset, file.byteLength);
  const named = (at: number): string => String.fromCharCode(...file.subarray(at, at + 4));
  if (file.length < 20 || named(0) !== 'RIFF' || named(8) !== 'WEBP')
    throw new Error('A frame of a moving WebP must be a WebP file.');
  const parts: Uint8Array[] = [];
  let alpha = false;
  for (let at = 12; at + 8 <= file.length;) {
    const size = view.getUint32(at + 4, true);
    const end = Math.min(file.length, at + 8 + size + (size % 2));
    const name = named(at);
    if (name === 'ALPH' || name === 'VP8L') alpha = true;
    if (name === 'VP8 ' || name === 'VP8L' || name === 'ALPH') parts.push(file.subarray(at, end));
    at = end;
  }
  return { parts, alpha };
}

/**
 * One moving WebP, for ever from the start again, of frames that are WebP files of one size; `ms` from one to the next. Built
 * as the container is described in RFC 9649, section 2.7: VP8X, ANIM, and one ANMF for each frame. Throws where a frame is no
 * WebP file.
 */
export function animatedWebp(
  frames: readonly Uint8Array[],
  { width, height, ms }: { width: number; height: number; ms: number },
): Uint8Array<ArrayBuffer> {
  const pictures = frames.map(pictureOf);
  const alpha = pictures.some((one) => one.alpha);
  const canvas = [...little(width - 1, 3), ...little(height - 1, 3)];
  const flags = 0x02 | (alpha ? 0x10 : 0);
  const body = [
    ...chunk('VP8X', [Uint8Array.from([flags, 0, 0, 0, ...canvas])]),
    // A clear background; 0 loops are for ever.
    ...chunk('ANIM', [Uint8Array.from([0, 0, 0, 0, 0, 0])]),
    ...pictures.flatMap(({ parts }) => {
      // Each takes the place of the one before: no blending.
      const head = [0, 0, 0, 0, 0, 0, ...canvas, ...little(ms, 3), 0x02];
      return chunk('ANMF', [Uint8Array.from(head), ...parts]);
    }),
  ];
  const size = body.reduce((sum, { length }) => sum + length, 4);
  const whole = new Uint8Array(size + 8);
  whole.set([...text('RIFF'), ...little(size, 4), ...text('WEBP')]);
  let at = 12;
  for (const part of body) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
