import type { PressIntent, PressSettings } from '../core/colour/press';
import type { Colourway } from '../core/colour/colourway';
import type { Mockup } from '../core/mockup/mockup';
import type { ObjectSpec } from '../core/mockup/objects';
import type { LengthUnit } from '../core/num/length';
import type { ProofSettings } from '../core/proof/limits';
import type { Shape } from '../core/recipe/layout';
import type { LayoutChange, PageFields } from '../core/recipe/layout-changes';
import type { PaletteEntry, PatternCredit } from '../core/recipe/library';
import type { Recipe } from '../core/recipe/recipe';
import type { Exchange } from '../core/recipe/recolour';
import type { PICTURE_SIDES } from '../core/svg/paint';
import type { StrikeSheet } from '../core/recipe/strike-off';
import type { ClientSheet, SheetChoice } from '../core/sheet/client-sheet';
import type { LibrarySort } from './data';
import type { ClashChoice } from './taking';

/**
 * What is given with calls of the API: their queries and bodies. The route table names the type of each beside the Joi
 * schema that checks it; a test holds the two against each other. Lengths are CSS px.
 */

/** The version that a change was made of; another one is refused as stale. */
export type Based = { base: number };
export type Named = { name: string };
export type Archiving = { archived: boolean };

/** What to look for in the library; what is left out does not filter. */
export type PatternQuery = {
  search?: string;
  archived?: boolean;
  /** Count patterns in that have no revision yet. */
  drafts?: boolean;
  /** Only patterns with work that is not published. */
  unpublished?: boolean;
  collection?: string;
  tag?: string;
  kind?: 'drawn' | 'measured' | 'picture';
  repeat?: 'straight' | 'brick' | 'half-drop' | 'mirror' | 'group';
  least?: number;
  most?: number;
  coloursLeast?: number;
  coloursMost?: number;
  ground?: 'clear' | 'own';
  project?: string;
  /** Contains a colour nearer than `near` (ΔE2000) to this one. */
  colour?: string;
  near?: number;
  stock?: 'stock' | 'own';
  sort?: LibrarySort;
  /** Turns the order round. */
  backwards?: boolean;
  limit?: number;
  offset?: number;
};

export type SwatchQuery = {
  width?: number;
  height?: number;
  scale?: number;
  colourway?: string;
  as?: 'svg' | 'png';
  pixels?: number;
  look?: string;
};

/** How many px the longer side of a picture has that is asked for smaller than it is. */
export type PictureSide = `${(typeof PICTURE_SIDES)[number]}`;

export type CodeQuery = {
  scale?: number;
  rotation?: number;
  x?: number;
  y?: number;
  colourway?: string;
  colours?: string;
};

export type NewPattern = Named & { description?: string; recipe: Recipe };
export type PatternPatch = {
  name?: string;
  description?: string;
  tags?: readonly string[];
  /** Ids of all collections it is to be in. */
  collections?: readonly string[];
  credit?: PatternCredit;
};
export type PatternsEdit = {
  ids: readonly string[];
  addTags?: readonly string[];
  removeTags?: readonly string[];
  addCollections?: readonly string[];
  removeCollections?: readonly string[];
  credit?: PatternCredit;
  archived?: boolean;
};
export type HeldUses = { fills: readonly string[]; held: boolean };
export type Replacing = { by: string; projects?: readonly string[] };
export type Recolouring = { layouts: readonly string[]; exchanges: readonly Exchange[]; summary: string };
/** A draft that becomes the next revision; the fills in `hold` stay at the one that they show. */
export type Publishing = Based & { hold?: readonly string[] };
export type KeptAsNew = Named & { recipe: Recipe; takesDraft?: boolean };
export type ColourwaysSave = Based & { colourways: readonly Colourway[] };
export type DraftSave = Based & { recipe: Recipe };
export type HandingOut = {
  ids?: readonly string[];
  as: 'svg' | 'zip' | 'tile-svg' | 'tile-png' | 'area' | 'css' | 'tokens';
  scale?: number;
  area?: { width: number; height: number; ppi: number; type: 'png' | 'webp' | 'tiff' };
};
/** What is done with what files hold, by the keys under which they were shown. */
export type TakingIn = {
  files: readonly { token: string; choices: Readonly<Record<string, ClashChoice>> }[];
};
export type NewPalette = Named & { colours?: readonly PaletteEntry[]; projectId?: string | null };
export type PaletteSave = Based & Named & { colours: readonly PaletteEntry[]; projectId?: string | null };
export type PressQuery = { intent?: PressIntent; blackPoint?: boolean };

export type NewProject = Named & { measure?: LengthUnit };
export type ProjectPatch = {
  name?: string;
  measure?: LengthUnit;
  proof?: ProofSettings;
  press?: PressSettings;
};
export type NewLayout = Omit<PageFields, 'name' | 'width' | 'height' | 'measure'> & {
  name: string;
  width: number;
  height: number;
  measure: LengthUnit;
  /** The object whose cut sheet the page is. */
  object?: ObjectSpec;
};
export type FilledLayout = NewLayout & { shapes?: readonly Shape[] };
export type LayoutSave = Based & { changes: readonly LayoutChange[] };
export type PdfQuery = {
  bleed?: boolean;
  marks?: boolean;
  register?: boolean;
  exchange?: boolean;
  fonts?: boolean;
  layers?: boolean;
  ppi?: number;
};
export type SvgQuery = { patterns?: 'live' | 'expanded'; bleed?: boolean; version?: number };
export type PngWish = { ppi: number; bleed?: boolean; as?: 'page' | 'plates' };
export type NewStrikeOff = Named & { layoutId: string; sheet: StrikeSheet };
export type StrikeOffSave = Based & Named & { sheet: StrikeSheet };

export type NewMockup = Named & { body: Mockup };
export type MockupSave = Based & NewMockup;
export type NewSheet = Named & { body: ClientSheet };
export type SheetSave = Based & NewSheet;
export type SheetAnswering = { item: string; who: string; choice?: SheetChoice | null; words?: string };
