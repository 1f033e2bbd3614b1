import type { SpotInk } from '../core/colour/inks';
import type { Hex } from '../core/colour/parse';
import type { Mockup } from '../core/mockup/mockup';
import type { StrikeSheet } from '../core/recipe/strike-off';
import type { ClientSheet, SheetChoice, ShownSheet } from '../core/sheet/client-sheet';

/** A sheet of try-outs that is kept with a project. */
export type StrikeOff = {
  id: string;
  projectId: string;
  layoutId: string;
  name: string;
  version: number;
  updatedAt: number;
  sheet: StrikeSheet;
};

export type MockupSummary = {
  id: string;
  projectId: string;
  name: string;
  version: number;
  updatedAt: number;
  archivedAt: number | null;
  /** When its picture was made; `null` where there is none yet. */
  stillAt: number | null;
};

/** A mock-up with all that stands in it. */
export type MockupData = MockupSummary & { projectName: string; body: Mockup };

/** A photograph of a blank thing with its surfaces marked, for all projects. */
export type PhotoObject = { id: string; name: string; body: Mockup };

export type SheetSummary = {
  id: string;
  projectId: string;
  name: string;
  version: number;
  updatedAt: number;
  items: number;
  /** Since when its links show what they show; `null` before it is shown. */
  shownAt: number | null;
  /** What clients left that nobody has read yet. */
  unread: number;
};

export type SheetLink = {
  token: string;
  to: string;
  createdAt: number;
  endsAt: number;
  endedAt: number | null;
};

/** What a client left: a choice or words about one thing. */
export type SheetAnswer = {
  id: string;
  item: string;
  who: string;
  /** For whom the link was. */
  to: string;
  choice: SheetChoice | null;
  words: string;
  createdAt: number;
  readAt: number | null;
};

export type SheetData = SheetSummary & {
  projectName: string;
  body: ClientSheet;
  links: SheetLink[];
  answers: SheetAnswer[];
};

/** What a link shows: the sheet as it was shown, and what was left at this link. */
export type SharedSheet = {
  shown: ShownSheet;
  shownAt: number;
  endsAt: number;
  /** The things that have a picture. */
  pictures: string[];
  answers: Pick<SheetAnswer, 'id' | 'item' | 'who' | 'choice' | 'words' | 'createdAt'>[];
};

/** What of a project is handed over as one parcel, and how its pages are drawn. */
export type ParcelWish = {
  layouts: readonly string[];
  pdf: boolean;
  png: boolean;
  svg: boolean;
  ppi: number;
  bleed: boolean;
  marks: boolean;
  register: boolean;
  /** PDF of the level for print exchange, with fonts, with layers; parcels of before say nothing of it. */
  exchange?: boolean;
  fonts?: boolean;
  layers?: boolean;
  patterns: boolean;
  palettes: boolean;
  spec: boolean;
};

/** What a parcel holds: which state of what, and its files with their SHA-256. */
export type ParcelContents = {
  layouts: { id: string; name: string; version: number }[];
  patterns: { id: string; name: string; revision: number }[];
  files: { path: string; bytes: number; sha256: string }[];
};

/** The last parcel of a project: when it was made, of what, and what is another since. */
export type LastParcel = {
  madeAt: number;
  wish: ParcelWish;
  changed: { name: string; what: 'layout' | 'pattern'; how: 'changed' | 'new' | 'gone' }[];
};

/** An ICC profile of a press; its id is the SHA-256 of its bytes. */
export type PressProfile = { id: string; name: string; createdAt: number };

/** What a press makes of colours, as `core/colour/press-table` reads it: tables in Base64. */
export type PressTables = { inks: string; deltas: string };

/** One plate of a page: how its full ink and its tints look, what share of the page it covers, and a PNG in Base64 that is black where there is ink. */
export type PlatePicture = {
  name: string;
  kind: 'process' | 'spot';
  look: Hex;
  tints: SpotInk['tints'];
  overprint: boolean;
  coverage: number;
  picture: string;
};

/**
 * The plates of a page, px. `look` is all of them together as they will look, as a PNG in Base64; `beyond` is where the press shows colours
 * visibly otherwise, `null` where there is no press: then what is in process colours is in `look` alone.
 */
export type Plates = {
  width: number;
  height: number;
  plates: PlatePicture[];
  look: string;
  beyond: { share: number; picture: string } | null;
};

/** A font that somebody brought, and under which licence it may be used. */
export type StudioFont = { id: string; name: string; licence: string; createdAt: number };
