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
  /** The object whose cut sheet the page is. */
  object: ObjectSpec | null;
};
