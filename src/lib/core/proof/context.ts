import type { Inks } from '../colour/inks';
import type { PressView } from '../colour/press-table';
import type { ObjectSpec } from '../mockup/objects';
import type { PatternCredit } from '../recipe/library';
import type { PatternLookup } from '../scene/pattern';
import type { ProofLimits } from './limits';

/** What a proof has to know of a pattern beside its drawing. */
export type ProofPattern = {
  id: string;
  name: string;
  newest: number;
  hasDraft: boolean;
  archivedAt: number | null;
  credit: PatternCredit;
};

/** What a layout is proofed by. */
export type ProofContext = {
  limits: ProofLimits;
  lookup: PatternLookup;
  patterns: ReadonlyMap<string, ProofPattern>;
  /** The spot inks that the page is printed in; none where it goes to screens. */
  inks: Inks;
  /** The press that it is printed by, and how much ink its paper takes, %; `null` where none is known. */
  press: { view: PressView; inkLimit: number } | null;
  /** The object whose cut sheet the page is. */
  object: ObjectSpec | null;
};
