import type { WorkName } from '../../contract/work';

/**
 * Lanes keep asks of one size together: what takes a moment never waits behind what takes minutes. `niceness` lets the
 * server itself, and quick work, go first on a busy machine.
 */
export const LANES = {
  quick: { processes: 2, waiting: 600, niceness: 5 },
  files: { processes: 2, waiting: 40, niceness: 10 },
  exports: { processes: 1, waiting: 40, niceness: 15 },
} as const;

export type Lane = keyof typeof LANES;

export type WorkLimit = {
  lane: Lane;
  seconds: number;
  megabytes: number;
  /** What the work is, for sentences: "… took longer than 10 s". */
  what: string;
};

/** Time and memory that one ask may take, by kind. Our own choices: a hundred times what real work was seen to need. */
export const WORK_LIMITS: Readonly<Record<WorkName, WorkLimit>> = {
  swatch: { lane: 'quick', seconds: 10, megabytes: 700, what: 'Drawing this pattern' },
  codeFile: { lane: 'quick', seconds: 20, megabytes: 900, what: 'Drawing this pattern' },
  smaller: { lane: 'quick', seconds: 30, megabytes: 1500, what: 'Making this picture smaller' },
  recolour: { lane: 'quick', seconds: 30, megabytes: 1500, what: 'Recolouring this picture' },
  readMotif: { lane: 'quick', seconds: 15, megabytes: 900, what: 'Reading this SVG' },
  readPicture: { lane: 'quick', seconds: 40, megabytes: 1500, what: 'Reading this picture' },
  checkBody: { lane: 'quick', seconds: 10, megabytes: 900, what: 'Checking this request' },
  makePicture: { lane: 'files', seconds: 240, megabytes: 2500, what: 'Making this picture' },
  cutOut: { lane: 'files', seconds: 60, megabytes: 2000, what: 'Cutting this out' },
  trace: { lane: 'files', seconds: 60, megabytes: 1500, what: 'Tracing this picture' },
  layoutSvg: { lane: 'files', seconds: 60, megabytes: 1200, what: 'Writing this SVG' },
  layoutsPdf: { lane: 'files', seconds: 240, megabytes: 2000, what: 'Writing this PDF' },
  sheetPdf: { lane: 'files', seconds: 120, megabytes: 2000, what: 'Writing this PDF' },
  readFile: { lane: 'files', seconds: 60, megabytes: 1500, what: 'Reading this file' },
  proof: { lane: 'files', seconds: 60, megabytes: 1200, what: 'Proofing this project' },
  handOut: { lane: 'files', seconds: 120, megabytes: 1500, what: 'Writing this file' },
  backup: { lane: 'files', seconds: 1800, megabytes: 1500, what: 'Making a backup' },
  lookOver: { lane: 'files', seconds: 600, megabytes: 1500, what: 'Looking the database over' },
  layoutPng: { lane: 'exports', seconds: 900, megabytes: 2000, what: 'Drawing this picture' },
  readProfile: { lane: 'quick', seconds: 20, megabytes: 900, what: 'Reading this profile' },
  readFont: { lane: 'quick', seconds: 20, megabytes: 900, what: 'Reading this font' },
  setLine: { lane: 'quick', seconds: 10, megabytes: 900, what: 'Setting this text' },
  pressTable: { lane: 'quick', seconds: 20, megabytes: 900, what: 'Reading this profile' },
  platesView: { lane: 'files', seconds: 120, megabytes: 1500, what: 'Drawing these plates' },
  platesFile: { lane: 'exports', seconds: 900, megabytes: 3000, what: 'Drawing these plates' },
  parcel: { lane: 'exports', seconds: 1800, megabytes: 2000, what: 'Making this parcel' },
  sheetPng: { lane: 'exports', seconds: 900, megabytes: 2000, what: 'Drawing this sheet' },
};
