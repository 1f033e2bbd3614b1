import type { PatternKeeping } from './data';

/** Small answers that several calls give. */

/** What there is now, under its id. */
export type Kept = { id: string };
/** The version that something has now. */
export type Versioned = { version: number };
export type Made = Kept & Versioned;
/** How many patterns were changed, and how each was before. */
export type PatternsEdited = { patterns: number; before: PatternKeeping[] };
/** The revision that a draft became, and how many uses were held at the one before. */
export type Published = { version: number; revision: number; held: number };
/** A line of words as the path data of its outlines, and how wide it is, px. */
export type SetLine = { d: string; width: number };
/** What a link ends in, which is told this once, and when it ends. */
export type GivenLink = { token: string; endsAt: number };
/** The studio's own name and how it is kept. */
export type StudioState = { name: string; opened: boolean; openPatterns: boolean };
