import type { Blank } from './blanks';
import type { Panel } from './sheet';

/** What printed surfaces can be made of. */
export const MATERIALS = ['paper', 'card', 'glaze', 'cotton', 'felt', 'film', 'screen'] as const;
export type Material = (typeof MATERIALS)[number];

export const MATERIAL_NAMES: Readonly<Record<Material, string>> = {
  paper: 'paper, matt',
  card: 'card, smooth',
  glaze: 'ceramic glaze',
  cotton: 'cotton weave',
  felt: 'felt',
  film: 'gloss film',
  screen: 'lit screen',
};

/** A number of an object with its limits and what it starts with, mm. */
export type ObjectNumber = { key: string; label: string; least: number; most: number; start: number };

/** The numbers of an object by their keys, mm. */
export type ObjectNumbers = Readonly<Record<string, number>>;

/** Reads a number of an object by its key. */
export type NumberOf = (key: string) => number;

/**
 * A surface that goes all round. `angle` is that at which the rows of a straight pattern meet at the joint, degrees: nothing
 * closes there but at 0.
 */
export type Round = { girth: number; panels: readonly string[]; joint: string; angle: number };

export type ObjectEntry = {
  label: string;
  /** What it is called in a sentence. */
  noun: string;
  /** What it is printed on unless said otherwise. */
  material: Material;
  numbers: readonly ObjectNumber[];
  /** What its numbers cannot be together; `null` where they can. */
  fault?: (of: NumberOf) => string | null;
  panels: (of: NumberOf) => Panel[];
  /** What the object has without print. */
  blanks?: (of: NumberOf) => Blank[];
  /** The share by which lengths on it may be others than on its sheet, where it is no surface that paper could follow, and why. */
  stretches?: { share: (of: NumberOf) => number; why: string };
  /** Where it is closed all round: how far that is, mm, by which parts, and where the joint lies. */
  round?: (of: NumberOf) => Round;
};

export const number = (key: string, label: string, start: number, least = 10, most = 1500): ObjectNumber => ({
  ...{ key, label, start, least, most },
});
