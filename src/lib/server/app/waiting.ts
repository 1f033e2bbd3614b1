import { nanoid } from 'nanoid';
import type { FileAsset } from '../../contract/taking';
import type { KeptPalette, KeptPattern } from '../../core/recipe/library';

/** A file that was read and waits for the decision what to take in. */
export type Waiting = {
  patterns: Map<string, KeptPattern>;
  palettes: Map<string, KeptPalette>;
  assets: FileAsset[];
  bytes: number;
  at: number;
};

/** Files that were read, in memory; the oldest go when there are too many, and all after half an hour. */
export class WaitingFiles {
  private readonly held = new Map<string, Waiting>();

  keep(file: Omit<Waiting, 'at'>): string {
    const token = nanoid(12);
    this.held.set(token, { ...file, at: Date.now() });
    this.forget();
    return token;
  }

  get(token: string): Waiting | undefined {
    this.forget();
    return this.held.get(token);
  }

  drop(tokens: readonly string[]): void {
    for (const token of tokens) this.held.delete(token);
  }

  private forget(): void {
    let bytes = [...this.held.values()].reduce((sum, file) => sum + file.bytes, 0);
    for (const [token, file] of this.held) {
      if (Date.now() - file.at < 1_800_000 && bytes < 600_000_000) continue;
      this.held.delete(token);
      bytes -= file.bytes;
    }
  }
}
