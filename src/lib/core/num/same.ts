/**
 * True where two plain values are the same: numbers, texts, lists in their order, and objects by their keys in any order.
 * A key that holds `undefined` is as good as none, as in JSON.
 */
export function sameValue(one: unknown, other: unknown): boolean {
  if (Object.is(one, other)) return true;
  if (typeof one !== 'object' || typeof other !== 'object' || one === null || other === null) return false;
  if (Array.isArray(one) || Array.isArray(other))
    return (
      Array.isArray(one) &&
      Array.isArray(other) &&
      one.length === other.length &&
      one.every((value, index) => sameValue(value, other[index]))
    );
  const [a, b] = [one as Record<string, unknown>, other as Record<string, unknown>];
  return Object.keys({ ...a, ...b }).every((key) => sameValue(a[key], b[key]));
}
