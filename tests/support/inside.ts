/** Px from the upper left corner, four numbers each. */
export type Drawn = { width: number; height: number; data: Uint8Array };

/**
 * The share of px that are clearly of another colour than they should be, of those around which all is one colour: where edges lie
 * each drawer softens them in its own way.
 */
export function othersInside(one: Drawn, right: Drawn, most = 40): { share: number; inside: number } {
  const { width, height, data } = right;
  if (one.width !== width || one.height !== height)
    throw new Error(`It is ${one.width} × ${one.height} px, not ${width} × ${height}.`);
  const away = (from: Uint8Array, at: number, other: number, limit: number): boolean =>
    Math.abs(from[at]! - data[other]!) > limit ||
    Math.abs(from[at + 1]! - data[other + 1]!) > limit ||
    Math.abs(from[at + 2]! - data[other + 2]!) > limit;
  const row = width * 4;
  const around = [-row - 4, -row, -row + 4, -4, 4, row - 4, row, row + 4];
  let [count, inside] = [0, 0];
  for (let y = 1; y < height - 1; y += 1)
    for (let at = y * row + 4; at < (y + 1) * row - 4; at += 4) {
      let alike = true;
      for (let index = 0; alike && index < 8; index += 1) alike = !away(data, at, at + around[index]!, 24);
      if (!alike) continue;
      inside += 1;
      if (away(one.data, at, at, most)) count += 1;
    }
  return { share: inside === 0 ? 0 : count / inside, inside };
}
