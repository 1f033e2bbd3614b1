/** Which rows of a long list are near enough to be drawn: those seen, and a few beyond at both ends. */
export function rowsInSight(
  scroll: number,
  height: number,
  rowHeight: number,
  rows: number,
  beyond = 2,
): { first: number; last: number } {
  if (rowHeight <= 0 || rows === 0) return { first: 0, last: -1 };
  const first = Math.max(0, Math.floor(scroll / rowHeight) - beyond);
  const last = Math.min(rows - 1, Math.ceil((scroll + height) / rowHeight) + beyond);
  return { first, last };
}

/** How far a list must be scrolled so that a row is wholly seen; the present place where it is already. */
export function scrollToRow(scroll: number, height: number, rowHeight: number, row: number): number {
  const top = row * rowHeight;
  if (top < scroll) return top;
  return top + rowHeight > scroll + height ? top + rowHeight - height : scroll;
}

/** What another question found is seen from its first row. Gives the new place of the scroller, px. */
export function toTop(scroller: HTMLElement | undefined): number {
  if (scroller && scroller.scrollTop > 0) scroller.scrollTop = 0;
  return 0;
}
