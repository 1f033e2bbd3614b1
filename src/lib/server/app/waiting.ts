import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { nanoid } from 'nanoid';

type Item = { key: string; kind: 'pattern' | 'palette' };

/** A file that was read and waits for the decision what to take in: what it holds lies ready in `folder`. */
export type Waiting = { folder: string; items: Item[]; bytes: number; at: number };

const KEEP_MS = 1_800_000;
const MOST_BYTES = 2_000_000_000;

/** Files that were read, on disk; the oldest go when there are too many, and all after half an hour. */
export class WaitingFiles {
  private readonly held = new Map<string, Waiting>();

  /** `root` is the folder that they lie in. */
  constructor(private readonly root: string) {}

  /** A place for a file that is about to be read: kept once it is, or forgotten. */
  place(): {
    token: string;
    folder: string;
    keep: (bytes: number, items: Item[]) => void;
    forget: () => void;
  } {
    const token = nanoid(12);
    const folder = join(this.root, `waiting-${token}`);
    return {
      token,
      folder,
      keep: (bytes, items) => {
        this.held.set(token, { folder, items, bytes, at: Date.now() });
        this.forget();
      },
      forget: () => rmSync(folder, { recursive: true, force: true }),
    };
  }

  get(token: string): Waiting | undefined {
    this.forget();
    return this.held.get(token);
  }

  drop(tokens: readonly string[]): void {
    for (const token of tokens) {
      const waiting = this.held.get(token);
      if (waiting) rmSync(waiting.folder, { recursive: true, force: true });
      this.held.delete(token);
    }
  }

  private forget(): void {
    let bytes = [...this.held.values()].reduce((sum, file) => sum + file.bytes, 0);
    for (const [token, file] of this.held) {
      if (Date.now() - file.at < KEEP_MS && bytes < MOST_BYTES) continue;
      this.drop([token]);
      bytes -= file.bytes;
    }
  }
}
