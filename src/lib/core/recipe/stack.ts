/** Moves the chosen items one place towards the front (the end) or the back, keeping their order among themselves. */
export function restack<T extends { id: string }>(
  items: readonly T[],
  ids: ReadonlySet<string>,
  towards: 'front' | 'back',
): T[] {
  const row = towards === 'front' ? [...items].reverse() : [...items];
  for (let at = 1; at < row.length; at += 1) {
    const [before, here] = [row[at - 1], row[at]];
    if (before && here && ids.has(here.id) && !ids.has(before.id)) [row[at - 1], row[at]] = [here, before];
  }
  return towards === 'front' ? row.reverse() : row;
}
