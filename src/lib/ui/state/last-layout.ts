/** Which layout and shapes were worked on last, on this computer, so that a fresh pattern can fill them in one step. */
export type LastLayout = { path: string; shapes: string[]; what: string };

const KEY = 'isle.last-layout';

export function rememberLayout(last: LastLayout): void {
  localStorage.setItem(KEY, JSON.stringify(last));
}

export function lastLayout(): LastLayout | null {
  try {
    const held = JSON.parse(localStorage.getItem(KEY) ?? 'null') as Partial<LastLayout> | null;
    if (!held || typeof held.path !== 'string' || !Array.isArray(held.shapes) || held.shapes.length === 0)
      return null;
    return { path: held.path, shapes: held.shapes.map(String), what: String(held.what ?? 'the last shape') };
  } catch {
    return null;
  }
}

/** The address that opens the layout and fills its shapes with a pattern. */
export function fillAddress({ path, shapes }: LastLayout, pattern: string): string {
  return `${path}?shape=${encodeURIComponent(shapes.join(','))}&fill=${encodeURIComponent(pattern)}`;
}

/** In the address of the bench: whoever came from a layout goes back there after publishing. */
export const BACK = 'back=layout';

/** The address of the layout with its shapes selected. */
export const layoutAddress = ({ path, shapes }: LastLayout): string =>
  `${path}?shape=${encodeURIComponent(shapes.join(','))}`;

/** The address of a layout with a pattern in the hand: the next shape that is drawn is filled with it. */
export const handAddress = (path: string, pattern: string): string =>
  `${path}?fill=${encodeURIComponent(pattern)}`;
