/** What the browser's Back closes before it leaves the view: dialogs, panels, the drawing board; the topmost last. */
const open: (() => void)[] = [];

/** Has Back close something as long as it is open; answers how to let go of it. */
export function closesByBack(close: () => void): () => void {
  open.push(close);
  return () => {
    const at = open.lastIndexOf(close);
    if (at >= 0) open.splice(at, 1);
  };
}

/** Closes what lies on top; false where nothing is open. */
export function closeTopmost(): boolean {
  const close = open[open.length - 1];
  close?.();
  return close !== undefined;
}
