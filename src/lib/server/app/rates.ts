import { fail, type Failure } from '../../contract/failure';
import type { RouteSpec } from '../../contract/routes';

const MINUTE = 60_000;
const MOST_KEPT = 20_000;

/** Counts asks that cost much, by route and asker, over a minute that slides in two halves (a sliding window counter). */
export class Rates {
  private readonly counts = new Map<string, { minute: number; now: number; before: number }>();

  constructor(private readonly now: () => number = () => performance.now()) {}

  /** Why an ask is not taken now, or `null`; it is counted where it is taken. */
  refused({ method, path, perMinute }: RouteSpec, asker: string): Failure | null {
    if (perMinute === undefined) return null;
    const at = this.now();
    const minute = Math.floor(at / MINUTE);
    const key = `${method} ${path} ${asker}`;
    const held = this.counts.get(key);
    const [now, before] =
      held?.minute === minute
        ? [held.now, held.before]
        : held?.minute === minute - 1
          ? [0, held.now]
          : [0, 0];
    const left = 1 - (at % MINUTE) / MINUTE;
    if (now + before * left >= perMinute) {
      const wait = Math.ceil(((at % MINUTE) / MINUTE) * -60 + 60);
      return fail('too_many', `This was asked too often within a minute. Try again in ${wait} seconds.`, '', {
        wait,
      }).failure;
    }
    this.counts.delete(key);
    this.counts.set(key, { minute, now: now + 1, before });
    const [oldest] = this.counts.keys();
    if (this.counts.size > MOST_KEPT && oldest !== undefined) this.counts.delete(oldest);
    return null;
  }
}
