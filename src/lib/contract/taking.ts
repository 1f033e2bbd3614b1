import type { FoundPalette } from '../core/formats/found';
import type { ReadPattern } from '../core/svg/import-patterns';

/** A file's bytes for the reading thread. */
export type ReadRequest = { fileName: string; bytes: Uint8Array };

export type FileAsset = { hash: string; mediaType: string; fileName: string; bytes: Uint8Array };

/** What a reading thread found in a file. What Isle kept itself is plain data that must still be checked. */
export type FoundInFile = {
  /** Patterns that Isle kept, as data. */
  kept: unknown[];
  /** Palettes that Isle kept, as data. */
  keptPalettes: unknown[];
  assets: FileAsset[];
  /** Patterns of other makers; their pictures are named `pending:0` …, counted through the file. */
  drawn: ReadPattern[];
  pictures: string[];
  palettes: FoundPalette[];
  notes: string[];
};

export type ReadReply = { ok: true; found: FoundInFile } | { ok: false; message: string };

/** What to do with something whose name is taken. */
export type ClashChoice = 'both' | 'replace' | 'skip';

/** One thing that a file holds, as it is shown before it is taken in. */
export type Takeable = {
  key: string;
  kind: 'pattern' | 'palette';
  name: string;
  /** A sample strip as SVG, or the colours of a palette. */
  sample: string | null;
  colours: string[];
  notes: string[];
  /** What is here under that name already: `same` says that it is just this one. */
  clash: { id: string; same: boolean; stock: boolean } | null;
};

export type TakenFile = { token: string; fileName: string; items: Takeable[]; notes: string[] };

export type TakingReport = {
  added: { name: string; id: string; kind: 'pattern' | 'palette' }[];
  replaced: { name: string; id: string; kind: 'pattern' | 'palette' }[];
  skipped: number;
};
