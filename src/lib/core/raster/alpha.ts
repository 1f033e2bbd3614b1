/** Straight RGBA → premultiplied, in place, eight bits a channel. */
export function premultiply(data: Uint8Array | Uint8ClampedArray): void {
  for (let at = 0; at < data.length; at += 4) {
    const alpha = data[at + 3]!;
    if (alpha === 255) continue;
    for (let channel = at; channel < at + 3; channel += 1)
      data[channel] = Math.round((data[channel]! * alpha) / 255);
  }
}

/** Premultiplied RGBA → straight, in place; whether anything can be seen through. What is wholly clear stays as it is. */
export function straighten(data: Uint8Array | Uint8ClampedArray): boolean {
  let clear = false;
  for (let at = 0; at < data.length; at += 4) {
    const alpha = data[at + 3]!;
    if (alpha === 255) continue;
    clear = true;
    if (alpha === 0) continue;
    for (let channel = at; channel < at + 3; channel += 1)
      data[channel] = Math.min(255, Math.round((data[channel]! * 255) / alpha));
  }
  return clear;
}
