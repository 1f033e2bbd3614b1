/** What a client sheet can show. */
export const SHEET_KINDS = ['mock-up', 'layout', 'pattern', 'palette', 'strike-off', 'note'] as const;
export type SheetKind = (typeof SHEET_KINDS)[number];

/** How much of a page's width something takes. */
export const SHEET_WIDTHS = ['third', 'half', 'whole'] as const;
export type SheetWidth = (typeof SHEET_WIDTHS)[number];

/** One thing on a client sheet. `of` is the id of what it shows; of a note it is empty. */
export type SheetItem = { id: string; kind: SheetKind; of: string; width: SheetWidth; caption: string };

/** Sizes of paper upright, mm: ISO 216, the American sizes of ANSI/ASME Y14.1, and a screen of 16 to 9. */
export const PAPERS = {
  a4: { label: 'A4', width: 210, height: 297 },
  a3: { label: 'A3', width: 297, height: 420 },
  letter: { label: 'Letter', width: 215.9, height: 279.4 },
  tabloid: { label: 'Tabloid', width: 279.4, height: 431.8 },
  screen: { label: 'Screen, 16 : 9', width: 190.5, height: 338.67 },
} as const;
export type Paper = keyof typeof PAPERS;
export const PAPER_NAMES = Object.keys(PAPERS) as Paper[];

/** What is laid before a client: a line, some words, and things in the order in which they are shown. */
export type ClientSheet = {
  line: string;
  words: string;
  paper: Paper;
  across: boolean;
  items: readonly SheetItem[];
};

export const SHEET_LIMITS = {
  items: 60,
  line: 120,
  words: 1200,
  caption: 600,
  /** Links of a sheet, what clients leave on one link, and how long that may be. */
  links: 50,
  answers: 500,
  answer: 1000,
  who: 80,
  days: { least: 1, most: 366 },
} as const;

export const freshSheet = (line: string): ClientSheet => ({
  line,
  words: '',
  paper: 'a4',
  across: true,
  items: [],
});

/** A sheet's page, mm, as it lies. */
export function pageSize({ paper, across }: Pick<ClientSheet, 'paper' | 'across'>): {
  width: number;
  height: number;
} {
  const { width, height } = PAPERS[paper];
  return across ? { width: height, height: width } : { width, height };
}

/** What a client sees of one thing: the picture of it is kept under its id. */
export type ShownItem = {
  id: string;
  kind: SheetKind;
  title: string;
  facts: string;
  caption: string;
  width: SheetWidth;
  colours: readonly { name: string; hex: string }[];
};

/** A sheet as clients see it: what it was when it was shown to them. */
export type ShownSheet = { line: string; words: string; items: readonly ShownItem[] };

/** What a client thinks of something: this one, not this. */
export const CHOICES = ['this', 'not'] as const;
export type SheetChoice = (typeof CHOICES)[number];
