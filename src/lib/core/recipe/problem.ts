/** An expected failure as data: what kind it is, which field it is about, and a sentence that says what to do. */
export type Problem = { code: string; path: string; message: string };

/** A value or the problems that kept it from being made. */
export type Checked<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };

/** A number as it stands in a sentence: no dust, no exponent for ordinary sizes. */
export const sayNumber = (value: number): string =>
  Number.isFinite(value) ? String(Math.round(value * 10_000) / 10_000) : String(value);
