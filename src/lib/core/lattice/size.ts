/** Width and height in px. */
export type Size = { width: number; height: number };
