import { createHash, type Hash } from 'node:crypto';
import { closeSync, fstatSync, openSync, readSync, rmSync, writeSync } from 'node:fs';
import { Zip, ZipDeflate, ZipPassThrough } from 'fflate';

/** A file of a zip as its manifest names it. */
export type ZipEntry = { path: string; bytes: number; sha256: string };

/** Every file of a zip is of this moment, so that the same files make the same bytes. */
const MOMENT = new Date(1980, 0, 1);
/** What is packed already is not packed again. */
const PACKED = /\.(png|webp|jpe?g|pdf|zip)$/i;
const PART = 1 << 20;

/** A zip that is written to disk while it is made: one part of one file is in memory at a time. */
export class ZipFile {
  readonly entries: ZipEntry[] = [];
  private readonly file: number;
  private readonly zip: Zip;
  private broken: Error | null = null;

  constructor(path: string) {
    this.file = openSync(path, 'w');
    this.zip = new Zip((error, chunk) => {
      if (error) this.broken = error;
      for (let at = 0; at < chunk.length;) at += writeSync(this.file, chunk, at);
    });
  }

  add(path: string, bytes: Uint8Array): void {
    this.write(path, (push) => push(bytes, true));
  }

  /** Takes a file over and removes it where it lay. */
  take(path: string, from: string): void {
    const source = openSync(from, 'r');
    try {
      let left = fstatSync(source).size;
      this.write(path, (push) => {
        do {
          const part = Buffer.alloc(Math.min(PART, left));
          left -= readSync(source, part);
          push(part, left <= 0);
        } while (left > 0);
      });
    } finally {
      closeSync(source);
      rmSync(from, { force: true });
    }
  }

  private write(path: string, from: (push: (part: Uint8Array, last: boolean) => void) => void): void {
    const entry = PACKED.test(path) ? new ZipPassThrough(path) : new ZipDeflate(path, { level: 6 });
    entry.mtime = MOMENT;
    this.zip.add(entry);
    const hash: Hash = createHash('sha256');
    let bytes = 0;
    from((part, last) => {
      hash.update(part);
      bytes += part.length;
      entry.push(part, last);
    });
    if (this.broken) throw this.broken;
    this.entries.push({ path, bytes, sha256: hash.digest('hex') });
  }

  /** Writes its end, or gives the file up. */
  close(whole: boolean): void {
    try {
      if (whole) this.zip.end();
      else this.zip.terminate();
      if (this.broken) throw this.broken;
    } finally {
      closeSync(this.file);
    }
  }
}
