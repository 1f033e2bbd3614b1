/** Where a page goes: what is too little for the one may be enough for the other. */
export const PROOF_MEDIA = ['print', 'screen'] as const;
export type ProofMedium = (typeof PROOF_MEDIA)[number];

/**
 * What a proof measures, each with its unit, its range and what it starts with for print and for screen. At 0 nothing is looked for.
 * Contrasts are those of WCAG 2.2 (1.4.11 for what is no text, 1.4.3 for text); an inch of screen has 96 px (CSS Values 4); the
 * others are common practice, no source.
 */
export const PROOF_LIMITS = {
  fullPpi: { label: 'Pictures full from', unit: 'ppi', least: 0, most: 2400, print: 300, screen: 192 },
  leastPpi: { label: 'Pictures at least', unit: 'ppi', least: 0, most: 2400, print: 150, screen: 96 },
  line: { label: 'Lines at least', unit: 'pt', least: 0, most: 20, print: 0.25, screen: 0.75 },
  gap: { label: 'Gaps at least', unit: 'mm', least: 0, most: 10, print: 0.1, screen: 0.25 },
  bleed: { label: 'Bleed', unit: 'mm', least: 0, most: 100, print: 3, screen: 0 },
  motif: { label: 'Contrast of motifs', unit: '', least: 0, most: 21, print: 3, screen: 3 },
  text: { label: 'Contrast of text', unit: '', least: 0, most: 21, print: 4.5, screen: 4.5 },
  copies: {
    label: 'Motifs drawn at most',
    unit: '',
    least: 0,
    most: 1_000_000,
    print: 20_000,
    screen: 20_000,
  },
} as const;

export type ProofLimit = keyof typeof PROOF_LIMITS;
export type ProofLimits = Readonly<Record<ProofLimit, number>>;
export const PROOF_KEYS = Object.keys(PROOF_LIMITS) as ProofLimit[];

/** How the layouts of a project are proofed. */
export type ProofSettings = { medium: ProofMedium; print: ProofLimits; screen: ProofLimits };

const startOf = (medium: ProofMedium): ProofLimits =>
  Object.fromEntries(PROOF_KEYS.map((key) => [key, PROOF_LIMITS[key][medium]])) as ProofLimits;

export const freshProof = (): ProofSettings => ({
  medium: 'print',
  print: startOf('print'),
  screen: startOf('screen'),
});
