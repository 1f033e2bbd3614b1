/** On what one sees who else is there. */
export const HERE_KINDS = ['layout', 'pattern', 'palette', 'mockup', 'sheet'] as const;

/** Who is where, and what they have selected there. */
export type Presence = {
  /** Of which of their windows this is told. */
  view: string;
  person: string;
  name: string;
  colour: string;
  kind: (typeof HERE_KINDS)[number];
  /** The ids of shapes that they have selected. */
  selected: readonly string[];
  /** What of the page they see: its middle in px, and the zoom; `null` where that is not told. */
  sees: { x: number; y: number; zoom: number } | null;
  /** They are not there any more. */
  left?: true;
};

/**
 * What changed on the server: a kind such as `palette.changed`, the id of what changed ("" for anything), and of a layout
 * the version that it has now. `here` is told of who is where, which is kept nowhere.
 */
export type LiveEvent = { kind: string; subject: string; version?: number; here?: Presence };
