/** Px from the upper left corner, four numbers each. */
export type Drawn = { width: number; height: number; data: Uint8Array };

const AROUND = [-1, 0, 1].flatMap((dy) => [-1, 0, 1].map((dx) => ({ dx, dy })));

/**
 * The share of px that are clearly of another colour than they should be, of those around which all is one colour: where edges lie
 * each drawer softens them in its own way.
 */
export function othersInside(one: Drawn, right: Drawn, most = 40): { share: number; inside: number } {
  const { width, height, data } = right;
  if (one.width !== width || one.height !== height)
    throw new Error(`It is ${one.width} × ${one.height} px, not ${width} × ${height}.`);
  const far = (from: Uint8Array, at: number, other: number): number =>
    Math.max(...[0, 1, 2].map((channel) => Math.abs(from[at + channel]! - data[other + channel]!)));
  let [count, inside] = [0, 0];
  for (let y = 1; y < height - 1; y += 1)
    for (let x = 1; x < width - 1; x += 1) {
      const at = (y * width + x) * 4;
      if (AROUND.some(({ dx, dy }) => far(data, at, at + (dy * width + dx) * 4) > 24)) continue;
      inside += 1;
      if (far(one.data, at, at) > most) count += 1;
    }
  return { share: inside === 0 ? 0 : count / inside, inside };
}
