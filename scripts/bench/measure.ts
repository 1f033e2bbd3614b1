/** True for the short form: every part runs once, small, to show that it runs at all; its figures mean nothing. */
export const SHORT = process.argv.includes('--short');

/** A size, or a smaller one for the short form. */
export const sized = (full: number, short: number): number => (SHORT ? short : full);

/** The median of `rounds` timings of `work` in ms, after one warm-up. */
export async function median(work: () => Promise<unknown> | unknown, rounds = 5): Promise<number> {
  if (!SHORT) await work();
  const times: number[] = [];
  for (let round = 0; round < (SHORT ? 1 : rounds); round += 1) {
    const start = performance.now();
    await work();
    times.push(performance.now() - start);
  }
  return middle(times);
}

export function middle(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? NaN;
}

export type Row = { what: string; ms: number; reference?: string; ratio?: number; note?: string };

export function print(title: string, rows: readonly Row[]): void {
  console.log(`\n${title}`);
  for (const row of rows) {
    const ratio = row.ratio === undefined ? '' : `${row.ratio.toFixed(2)} × ${row.reference ?? ''}`;
    console.log(`  ${row.what.padEnd(52)} ${row.ms.toFixed(1).padStart(9)} ms  ${ratio} ${row.note ?? ''}`);
  }
}
