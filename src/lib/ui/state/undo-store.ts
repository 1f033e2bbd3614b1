import type { History } from './history.svelte';

/** How steps of a document are written down: what turns one state into another, and how that is done. */
export type Steps<T, D> = { diff: (from: T, to: T) => D; apply: (from: T, diff: D) => T };

/** So many steps back and forward outlive a reload, as far as they need no more characters than this. */
const MOST_STEPS = 100;
const MOST_CHARS = 1_500_000;

type Kept = { version: number; past: unknown[]; future: unknown[] };

const keyOf = (id: string): string => `isle.undo.${id}`;

/** Keeps the steps of a document that is saved at `version`, in this tab, for {@link recallUndo}. */
export function keepUndo<T, D>(id: string, version: number, history: History<T>, steps: Steps<T, D>): void {
  let room = MOST_CHARS;
  const written = (states: readonly T[]): D[] => {
    const diffs: D[] = [];
    let from = history.settled;
    for (const state of states.slice(0, MOST_STEPS)) {
      const diff = steps.diff(from, state);
      room -= JSON.stringify(diff).length;
      if (room < 0) break;
      diffs.push(diff);
      from = state;
    }
    return diffs;
  };
  const kept: Kept = {
    version,
    past: written([...history.steps.past].reverse()),
    future: written(history.steps.future),
  };
  if (put(keyOf(id), kept)) return;
  // The tab has no more room: what was done last matters most.
  for (const key of Object.keys(sessionStorage))
    if (key.startsWith(keyOf(''))) sessionStorage.removeItem(key);
  put(keyOf(id), kept);
}

function put(key: string, kept: Kept): boolean {
  try {
    sessionStorage.setItem(key, JSON.stringify(kept));
    return true;
  } catch {
    return false;
  }
}

/** Gives a fresh history the steps that were kept in this tab, where nothing was saved since. */
export function recallUndo<T, D>(id: string, version: number, history: History<T>, steps: Steps<T, D>): void {
  try {
    const kept = JSON.parse(sessionStorage.getItem(keyOf(id)) ?? 'null') as Kept | null;
    if (kept?.version !== version) return;
    const read = (diffs: readonly unknown[]): T[] => {
      let from = history.doc;
      return diffs.map((diff) => (from = steps.apply(from, diff as D)));
    };
    history.restore({ past: read(kept.past).reverse(), future: read(kept.future) });
  } catch {
    sessionStorage.removeItem(keyOf(id));
  }
}
