/**
 * Small changes of one thing that follow each other quickly (notches of a wheel, presses of an arrow key) are one step
 * of a history. Whoever makes them says which run they belong to; whatever history they end in reads it.
 */
let now: string | null = null;

/** Makes a change as part of a run: one field, one selection that is nudged. */
export function inRun(run: string, change: () => void): void {
  const before = now;
  now = run;
  try {
    change();
  } finally {
    now = before;
  }
}

/** The run that is being made, if one is. */
export const runNow = (): string | null => now;
