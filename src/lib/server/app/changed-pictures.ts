import { lookKey, type PictureLook } from '../../core/colour/look';
import type { Answer } from '../../contract/work';
import type { Processes, RunOptions } from '../processes/pool';

/** Bytes of changed pictures that are kept in memory. */
const KEPT_BYTES = 60_000_000;

/** What is done to a picture: it is seen through a look, or with so many px a side. */
export type Change = { look: PictureLook } | { side: number };

/** Pictures changed, as PNG bytes. What was made is kept for a while; two who ask for the same wait for one. */
export class ChangedPictures {
  private readonly kept = new Map<string, { made: Promise<Answer<'recolour'>>; bytes: number }>();
  private keptBytes = 0;

  constructor(
    private readonly store: string,
    private readonly processes: Processes,
  ) {}

  get(asset: string, change: Change, { asker = '' }: RunOptions = {}): Promise<Answer<'recolour'>> {
    const key = `${asset} ${'look' in change ? lookKey(change.look) : change.side}`;
    const held = this.kept.get(key);
    if (held) {
      // The last asked for stands last and is forgotten last.
      this.kept.delete(key);
      this.kept.set(key, held);
      return held.made;
    }
    const { store } = this;
    const made =
      'look' in change
        ? this.processes.run('recolour', { store, asset, ...change }, { asker })
        : this.processes.run('smaller', { store, asset, ...change }, { asker });
    const fresh = { made, bytes: 0 };
    this.kept.set(key, fresh);
    void made.then((answer) => {
      if (!answer.ok) return void this.kept.delete(key);
      fresh.bytes = answer.value.bytes.length;
      this.keptBytes += fresh.bytes;
      this.forget();
    });
    return made;
  }

  /** Lets the longest unused go while there are too many; those still being made stay. */
  private forget(): void {
    for (const [key, { bytes }] of this.kept) {
      if (this.keptBytes <= KEPT_BYTES) return;
      if (bytes === 0) continue;
      this.kept.delete(key);
      this.keptBytes -= bytes;
    }
  }
}
