import { lookKey, type PictureLook } from '../../core/colour/look';
import type { Answer } from '../../contract/work';
import type { Processes, RunOptions } from '../processes/pool';

/** Bytes of recoloured pictures that are kept in memory. */
const KEPT_BYTES = 40_000_000;

/** Pictures through a look, as PNG bytes. What was made is kept for a while; two who ask for the same wait for one. */
export class Recoloured {
  private readonly kept = new Map<string, { made: Promise<Answer<'recolour'>>; bytes: number }>();
  private keptBytes = 0;

  constructor(
    private readonly store: string,
    private readonly processes: Processes,
  ) {}

  get(asset: string, look: PictureLook, { asker = '' }: RunOptions = {}): Promise<Answer<'recolour'>> {
    const key = `${asset} ${lookKey(look)}`;
    const held = this.kept.get(key);
    if (held) {
      // The last asked for stands last and is forgotten last.
      this.kept.delete(key);
      this.kept.set(key, held);
      return held.made;
    }
    const made = this.processes.run('recolour', { store: this.store, asset, look }, { asker });
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
