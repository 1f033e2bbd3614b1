/**
 * A stroke of a round brush, as data: `points` are x, y, x, y … and `size` its diameter, in px of what it is painted on.
 * Softness 0 is a hard rim, 1 fades from the middle to the rim; strength 1 does wholly what the stroke does. A stroke
 * crosses itself without adding up.
 */
export type BrushStroke = {
  size: number;
  softness: number;
  strength: number;
  points: readonly number[];
};

/** At most so many pixels are measured for a stroke: its width along its length. What is painted is counted by it. */
export function paintedArea({ points, size }: BrushStroke): number {
  let area = size * size;
  for (let at = 2; at < points.length; at += 2)
    area += size * (size + Math.hypot(points[at]! - points[at - 2]!, points[at + 1]! - points[at - 1]!));
  return area;
}

/** The rectangle about a stroke, px². */
export function strokeArea({ points, size }: BrushStroke): number {
  const side = (from: number): number => {
    let [least, most] = [Infinity, -Infinity];
    for (let at = from; at < points.length; at += 2) {
      least = Math.min(least, points[at]!);
      most = Math.max(most, points[at]!);
    }
    return most - least + size;
  };
  return side(0) * side(1);
}

/** A stroke in parts, end to end, of which none has a larger rectangle about it; itself where it fits, or where its brush does not. */
export function partsOfStroke<T extends BrushStroke>(stroke: T, most: number): T[] {
  const parts: T[] = [];
  let points: number[] = [];
  for (let at = 0; at < stroke.points.length; at += 2) {
    const next = [stroke.points[at]!, stroke.points[at + 1]!];
    const longer = [...points, ...next];
    if (points.length > 0 && strokeArea({ ...stroke, points: longer }) > most) {
      parts.push({ ...stroke, points });
      points = points.length > 2 ? [...points.slice(-2), ...next] : next;
    } else points = longer;
  }
  return [...parts, { ...stroke, points }];
}
