import type { BlendMode } from '../core/colour/blend';
import type { Colourway } from '../core/colour/colourway';
import type { ColourSlot } from '../core/colour/slots';
import type { Gap, Repeat, Size } from '../core/lattice/repeat';
import type { ObjectSpec } from '../core/mockup/objects';
import type { LengthUnit } from '../core/num/length';
import type { Layout, Shape } from '../core/recipe/layout';
import type { LayoutChange } from '../core/recipe/layout-changes';
import type { ProofPattern } from '../core/proof/context';
import type { PressSettings } from '../core/colour/press';
import type { ProofSettings } from '../core/proof/limits';
import type { ProofNote } from '../core/proof/note';
import type { PaletteEntry, PatternCredit } from '../core/recipe/library';
import type { DrawingElement, MotifContent, Recipe } from '../core/recipe/recipe';

export type { BlendMode };
export type * from './shown-data';

/** What answers carry. Lengths are CSS px, times milliseconds since 1970. */
export type PatternSummary = {
  id: string;
  name: string;
  description: string;
  tags: string[];
  /** Names of the collections it is in. */
  collections: string[];
  credit: PatternCredit;
  stock: boolean;
  kind: 'drawn' | 'measured' | 'picture';
  /** The newest revision; 0 while there is only a draft. */
  newest: number;
  version: number;
  hasDraft: boolean;
  archivedAt: number | null;
  createdAt: number;
  updatedAt: number;
  /** When a shape was last filled with it. */
  lastUsedAt: number | null;
  facts: PatternFacts | null;
  uses: number;
  projects: number;
};

export type { PaletteEntry, PatternCredit };

/** How a pattern is kept: what an edit of many can change, and be put back from. `collections` are ids. */
export type PatternKeeping = {
  id: string;
  tags: string[];
  collections: string[];
  credit: PatternCredit;
  archivedAt: number | null;
};

export const LIBRARY_SORTS = [
  'match',
  'name',
  'newest',
  'changed',
  'uses',
  'last-used',
  'unit',
  'colours',
  'kind',
  'repeat',
  'licence',
] as const;

export type LibrarySort = (typeof LIBRARY_SORTS)[number];

/** `instead` is there for a search with words. */
export type FoundPatterns = { total: number; patterns: PatternSummary[]; instead?: Instead[] };

/** A word of a search that no pattern has, and what it was taken for: the words that are one letter off. */
export type Instead = { typed: string; words: string[] };

/** What the library can be narrowed by. */
export type LibraryFacets = {
  counts: { live: number; stock: number; unpublished: number; archived: number };
  tags: { tag: string; patterns: number }[];
  collections: { id: string; name: string; patterns: number }[];
  projects: { id: string; name: string }[];
  /** The layouts that were changed last, the latest first. */
  latest: { id: string; name: string; projectId: string; projectName: string }[];
  /** True once a shape of any layout was filled with a pattern. */
  filled: boolean;
};

/** Counted once when a revision is published. */
export type PatternFacts = {
  kind: Recipe['kind'];
  /** The unit; for a measured pattern its smallest repeat. */
  unit: Size;
  gap: Gap;
  repeat: Repeat;
  measure: LengthUnit;
  clear: boolean;
  slots: ColourSlot[];
};

export type PatternDetail = PatternSummary & {
  recipe: Recipe | null;
  draft: Recipe | null;
  /** Why a recipe that is stored cannot be shown, where that is so. */
  faults: { recipe: string | null; draft: string | null };
  colourways: Colourway[];
  revisions: { number: number; createdAt: number }[];
  usedIn: PatternUse[];
};

export type PatternUse = {
  fillId: string;
  shapeId: string;
  shapeName: string;
  layoutId: string;
  layoutName: string;
  projectId: string;
  projectName: string;
  held: number | null;
  scaleX: number;
  scaleY: number;
  rotation: number;
};

/** One use with the shape that it fills, to be drawn. */
export type UseInPlace = {
  fillId: string;
  held: number | null;
  shape: Shape;
  layoutId: string;
  layoutName: string;
  projectId: string;
  projectName: string;
};

/** What publishing a pattern would change, and the recipes that its uses show now, by revision. */
export type PublishPreview = {
  newest: number;
  recipes: Record<number, Recipe>;
  colourways: Colourway[];
  uses: UseInPlace[];
};

/** A pattern as a layout needs it: every revision that the layout or the hangers use, as recipe. */
/** The patterns that hang beside the stage, and what they can be narrowed by. */
export type Hangers = {
  all: PatternSummary[];
  /** The ids of those that the project uses, and of those that any layout used last, the latest first. */
  inProject: string[];
  recent: string[];
  facets: LibraryFacets;
};

export type PatternForUse = ProofPattern & {
  recipes: Record<number, Recipe>;
  /** Sentences for those revisions that are stored and cannot be shown. */
  faults: Record<number, string>;
  colourways: Colourway[];
};

export type ProjectSummary = {
  id: string;
  name: string;
  measure: LengthUnit;
  /** Whether only those named in it see it. */
  closed: boolean;
  /** Whether only what is approved is handed over. */
  demandsApproval: boolean;
  version: number;
  archivedAt: number | null;
  updatedAt: number;
  layouts: number;
  patterns: number;
};

export type LayoutSummary = {
  id: string;
  projectId: string;
  name: string;
  width: number;
  height: number;
  measure: LengthUnit;
  shapes: number;
  version: number;
  updatedAt: number;
  archivedAt: number | null;
};

/** The notes of a layout's proof; what mends them is done in the layout. */
export type LayoutNotes = { id: string; name: string; notes: Omit<ProofNote, 'mend'>[] };

export type ProjectDetail = ProjectSummary & {
  proof: ProofSettings;
  press: PressSettings;
  layoutList: LayoutSummary[];
  patternList: PatternSummary[];
};

export type LayoutData = Layout & {
  id: string;
  projectId: string;
  projectName: string;
  name: string;
  version: number;
  archivedAt: number | null;
  /** The object whose cut sheet the page was made from. */
  object?: ObjectSpec;
  /** Sentences for shapes that are stored and cannot be read; they are left as they are. */
  faults?: string[];
};

export type { LayoutChange } from '../core/recipe/layout-changes';

/** What one save changed in a layout, and who made it. */
export type LoggedChange = {
  version: number;
  person: string | null;
  /** The name of who made it. */
  by: string | null;
  at: number;
  changes: LayoutChange[];
};

/** A state of a layout that one can go back to. */
export type LayoutState = {
  /** 0 is as it began. */
  version: number;
  at: number;
  by: string | null;
  /** A named one is kept for good. */
  name: string | null;
  /** What it takes on disk. */
  bytes: number;
};

/** What was changed in a layout since a version, save by save; `null` where it has to be read whole. */
export type LayoutSince = { version: number; since: LoggedChange[] | null };

/** A layout that lies in another one. */
export type PageForUse = Layout & { id: string; name: string; version: number };

/** A layout with the patterns that its fills use and the layouts that lie in it, with those in them. */
export type LayoutInUse = { layout: LayoutData; patterns: PatternForUse[]; pages: PageForUse[] };

export type PaletteData = {
  id: string;
  name: string;
  version: number;
  /** The project it belongs to; `null` is shared by all. */
  projectId: string | null;
  colours: PaletteEntry[];
};

/** Where a palette colour is followed: numbers of patterns, colourways, fills and layout backgrounds. */
export type ColourUses = Record<
  string,
  { patterns: number; colourways: number; fills: number; pages: number }
>;

/** A change of many fills that can still be undone. */
export type BulkChange = { id: string; summary: string; fills: number; createdAt: number };

/** What a change of many fills did, and the way back. */
export type BulkDone = { id: string; fills: number; layouts: number; summary: string };

export type ExportJob = {
  id: string;
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  /** How many are drawn before it while it waits. */
  ahead: number | null;
  /** 0 to 1. */
  progress: number;
  /** Of a picture; 0 for what is none. */
  width: number;
  height: number;
  ppi: number;
  fileName: string;
  mediaType: string;
  bytes: number;
  message: string;
};

/** What came of a file: the motif's drawing, the colours it brings, and what could not be kept or was changed. */
/** A subject that was cut out: a picture, and where its upper left corner lay in the one it was cut out of, px. */
export type CutPicture = { asset: string; x: number; y: number; width: number; height: number };

/**
 * How a picture is traced: in how many colours, spots of how many px of it are dropped, from which turn on a bend is a
 * corner (degrees), and whether its lightest colour is paper, which is left out.
 */
export type TraceBy = { colours: number; speck: number; corner: number; paper: boolean };

/** Ranges of the numbers of {@link TraceBy}. */
export const TRACE_LIMITS = {
  colours: { least: 2, most: 16 },
  speck: { least: 0, most: 10_000 },
  corner: { least: 0, most: 180 },
} as const;

/** A picture as paths in its own px, and the share of its pixels that differ once drawn in its few colours. */
export type Traced = { elements: DrawingElement[]; slots: ColourSlot[]; differs: number };

export type ImportedMotif = {
  asset: string;
  name: string;
  content: Extract<MotifContent, { kind: 'drawing' }>;
  slots: ColourSlot[];
  notes: string[];
};
