import { vi } from 'vitest';

/** Looks again and again until what is expected is so; patient, as a machine with much to do is slow. */
export const until = (expected: () => Promise<void> | void, timeout = 25_000): Promise<void> =>
  vi.waitFor(expected, { timeout, interval: 150 });
