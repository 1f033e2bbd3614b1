import type { PictureLook } from '../core/colour/look';
import type { PressIntent } from '../core/colour/press';
import type { CutOut } from '../core/recipe/cut-out';
import type {
  ImportedMotif,
  LayoutNotes,
  ParcelContents,
  ParcelWish,
  Plates,
  PressTables,
  Traced,
  TraceBy,
} from './data';
import type { Outcome } from './failure';
import type { HandingOut } from './given';
import type { RouteName } from './routes';
import type { FileAsset, Takeable } from './taking';

/**
 * What the server asks of its child processes, and what each answers with. They parse and draw; the server queries,
 * checks and hands on. A child reads the library itself, from the database file `store`, and never writes it.
 */
export type Work = {
  swatch: { ask: SwatchAsk; answer: { bytes: Uint8Array; fixed: boolean } };
  /** A picture with so many px along its longer side, as PNG bytes. */
  smaller: { ask: { store: string; asset: string; side: number }; answer: { bytes: Uint8Array } };
  recolour: { ask: { store: string; asset: string; look: PictureLook }; answer: { bytes: Uint8Array } };
  /** Makes the picture of a pattern by its steps. */
  makePicture: { ask: { store: string; hash: string }; answer: { bytes: Uint8Array } };
  /** A picture as paths of few colours, in px of the picture. */
  trace: { ask: { store: string; hash: string; by: TraceBy }; answer: Traced };
  /** A subject cut out of a picture: PNG bytes of what is left of it, and where that lay, px. */
  cutOut: {
    ask: { store: string; hash: string; by: CutOut };
    answer: { bytes: Uint8Array; x: number; y: number; width: number; height: number };
  };
  layoutSvg: {
    ask: { store: string; layout: string; as: 'live' | 'expanded'; bleed: boolean; path: string };
    answer: { name: string };
  };
  layoutsPdf: {
    ask: {
      store: string;
      layouts: readonly string[];
      /** The project that they must be of; `null` is any. */
      project: string | null;
      /** What the file is called; the name of its first layout where nothing is said. */
      title: string | null;
      bleed: boolean;
      marks: boolean;
      register: boolean;
      exchange?: boolean;
      fonts?: boolean;
      layers?: boolean;
      ppi: number;
      path: string;
    };
    answer: { name: string };
  };
  sheetPdf: { ask: { store: string; sheet: string; ppi: number; path: string }; answer: { name: string } };
  layoutPng: {
    ask: { store: string; layout: string; ppi: number; bleed: boolean; path: string };
    answer: { bytes: number };
  };
  sheetPng: { ask: { store: string; sheet: string; ppi: number; path: string }; answer: { bytes: number } };
  /** A file of a pattern for pages and programs; `null` for bytes where those that are known under `known` are still right. */
  codeFile: {
    ask: CodeAsk & { store: string; known: string | null };
    answer: { bytes: Uint8Array | null; mediaType: string; tag: string; fixed: boolean };
  };
  /** All that belongs to a project as a zip at `path`. */
  parcel: {
    ask: { store: string; project: string; wish: ParcelWish; path: string };
    answer: ParcelContents;
  };
  /** The plates of a layout as pictures with so many px along their longer side. */
  platesView: {
    ask: { store: string; layout: string; side: number };
    answer: Plates & { version: number };
  };
  /** The plates of a layout as a zip of pictures. */
  platesFile: {
    ask: { store: string; layout: string; ppi: number; bleed: boolean; path: string };
    answer: { bytes: number };
  };
  /** What a press makes of colours all over the screen’s, as two tables in Base64. */
  pressTable: {
    ask: { store: string; profile: string; intent: PressIntent; blackPoint: boolean };
    answer: PressTables;
  };
  /** An ICC profile of a press that came in: its name. */
  readProfile: { ask: { path: string; fileName: string }; answer: { name: string } };
  /** A font file that came in: its name, and the font as TrueType or OpenType. */
  readFont: { ask: { path: string; fileName: string }; answer: { name: string; bytes: Uint8Array } };
  /** A line of words as outlines in a font of the studio, its baseline beginning at (0, 0). */
  setLine: {
    ask: { store: string; font: string; text: string; size: number };
    answer: { d: string; width: number };
  };
  /** What a proof says of all layouts of a project. */
  proof: { ask: { store: string; project: string }; answer: { layouts: LayoutNotes[] } };
  handOut: {
    ask: HandOut & { store: string; path: string };
    /** `leftOut` names patterns that are stored and cannot be read. */
    answer: { fileName: string; mediaType: string; leftOut: string[] };
  };
  readMotif: {
    ask: { fileName: string; svg: string };
    answer: { motif: Omit<ImportedMotif, 'asset'>; pictures: FileAsset[] };
  };
  readPicture: {
    ask: { path: string; fileName: string };
    answer: {
      /** The picture made ready to draw; `null` where the file's own bytes are. */
      ready: FileAsset | null;
      sourceType: string;
      width: number;
      height: number;
      ppi: number | null;
      clear: boolean;
      notes: string[];
    };
  };
  readFile: {
    ask: { store: string; path: string; fileName: string; folder: string };
    answer: { items: Takeable[]; notes: string[]; bytes: number };
  };
  /** Checks all of the database; `unused` are files that nothing refers to any more. */
  lookOver: { ask: { store: string }; answer: { problems: string[]; unused: string[] } };
  /** Copies the database into a folder, and looks the copy over. */
  backup: {
    ask: { store: string; folder: string; at: number };
    answer: { file: string; bytes: number; rows: number };
  };
  checkBody: { ask: { route: RouteName; path: string }; answer: { value: unknown } };
};

export type WorkName = keyof Work;
export type Ask<N extends WorkName> = Work[N]['ask'];
export type Answer<N extends WorkName> = Outcome<Work[N]['answer']>;

export type SwatchAsk = {
  store: string;
  pattern: string;
  revision: number | 'draft';
  colourway: string | null;
  /** An address that names its look may be kept for ever. */
  named: boolean;
  as: 'svg' | 'png';
  width: number;
  height: number;
  scale: number;
  /** Pixels of a PNG to a CSS px. */
  pixels: number;
};

/** The files of a pattern that have addresses of their own. */
export const CODE_FILES = [
  'tile.svg',
  'tile.png',
  'fill.svg',
  'pattern.css',
  'pattern.json',
  'tokens.json',
] as const;
export type CodeFile = (typeof CODE_FILES)[number];

/** Which file of which pattern, in which colours and how it lies; `colours` are such as “Ink:b02030,Paper:ffffff”. */
export type CodeAsk = {
  pattern: string;
  revision: number | 'newest';
  file: CodeFile;
  colourway: string | null;
  colours: string | null;
  scale: number;
  rotation: number;
  x: number;
  y: number;
};

/** An area filled with a pattern, CSS px, and the picture that is made of it. */
export type HandOutArea = NonNullable<HandingOut['area']>;

/** Which patterns are handed out (all without `ids`) and as what; a tile's pixel is a CSS px times `scale`. */
export type HandOut = HandingOut & { scale: number };

/** A message to a child, and those that come back. */
export type WorkCall = { id: number; name: WorkName; ask: unknown };
export type WorkReply =
  | { id: number; progress: number }
  | { id: number; outcome: Outcome<unknown> }
  | { id: number; fault: string };
