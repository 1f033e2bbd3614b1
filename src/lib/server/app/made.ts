import { fail, done, type Outcome } from '../../contract/failure';
import type { Db } from '../db/open';
import type { Processes, RunOptions } from '../processes/pool';
import { keepMade, madeBytes, stepsOf } from '../repo/made';

/** Pictures of patterns, made in a child process where they are missing and kept; two who ask for one wait for the same. */
export class Made {
  private readonly making = new Map<string, Promise<Outcome<{ bytes: Buffer }>>>();

  constructor(
    private readonly db: Db,
    private readonly store: string,
    private readonly processes: Processes,
  ) {}

  /** The picture of a name, as PNG bytes. */
  get(hash: string, options: RunOptions = {}): Promise<Outcome<{ bytes: Buffer }>> {
    const kept = madeBytes(this.db, hash);
    if (kept) return Promise.resolve(done({ bytes: kept }));
    if (!stepsOf(this.db, hash))
      return Promise.resolve(fail('not_found', `There is no motif file “${hash}”.`, 'hash'));
    const held = this.making.get(hash);
    if (held) return held;
    const { asker = '' } = options;
    const making = this.make(hash, asker).finally(() => this.making.delete(hash));
    this.making.set(hash, making);
    return making;
  }

  private async make(hash: string, asker: string): Promise<Outcome<{ bytes: Buffer }>> {
    const made = await this.processes.run('makePicture', { store: this.store, hash }, { asker });
    if (!made.ok) return made;
    const bytes = Buffer.from(made.value.bytes);
    if (this.db.$client.open) keepMade(this.db, hash, bytes);
    return done({ bytes });
  }
}
