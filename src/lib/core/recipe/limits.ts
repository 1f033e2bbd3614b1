/**
 * What Isle accepts, in one place, so that a refusal can name the limit. All are our own choices: generous for real
 * work, small enough that one document cannot freeze a page.
 */
export const LIMITS = {
  /** Sides of a unit, px: about 0.1 mm to 5 m. */
  unitSide: { least: 0.3779527559055118, most: 20_000 },
  gap: { least: 0, most: 20_000 },
  /** Sides of a shape, px. */
  shapeSide: { least: 0.01, most: 200_000 },
  /** Sides of a page, px: 1 px to 20 m. */
  pageSide: { least: 1, most: 75_600 },
  place: { least: -200_000, most: 200_000 },
  /** A fill's scale as a factor: 0.1 % to 100,000 %. */
  scale: { least: 0.001, most: 1000 },
  /** A placing's scale. */
  placingScale: { least: 0.0001, most: 10_000 },
  skew: { least: -80, most: 80 },
  angle: { least: -36_000, most: 36_000 },
  ppi: { least: 1, most: 9600 },
  nameLength: 80,
  slots: 64,
  colourways: 60,
  tags: 30,
  tagLength: 40,
  /** Colours of a palette, and stops of a gradient in it. */
  paletteColours: 500,
  gradientStops: 24,
  bands: 60,
  /** Distances and softness of shadows and relief, px. */
  effect: { least: 0, most: 200 },
  /** Pitch of a drawing grid, px. */
  grid: { least: 0.05, most: 5000 },
  guides: 100,
  /** A picture brought in as a motif: bytes of its file, and pixels once decoded. */
  /** Bytes of a PDF of which a page becomes a motif: it is read in the browser. */
  pdfBytes: 100_000_000,
  pictureBytes: 40_000_000,
  picturePixels: 100_000_000,
  /** Sides of a picture, px: what one row of it may need. */
  pictureSide: 40_000,
  /** Coordinates of drawn outlines, px. */
  coordinate: 1_000_000,
  /** What one repeat of a pattern may come to: pieces drawn, segments of their paths, px that filters go over. */
  cellCopies: 80_000,
  cellSegments: 3_000_000,
  cellFiltered: 400_000_000,
  /** Segments of all copies that an expanded SVG may draw. */
  expandedSegments: 4_000_000,
  /** Patterns edited, and fills changed, in one step; rows that such an edit adds. */
  bulkPatterns: 2000,
  bulkFills: 5000,
  bulkRows: 20_000,
  motifs: 200,
  placings: 5000,
  elements: 5000,
  shapes: 2000,
  /** Those that a layout begins with. */
  cutShapes: 100,
  /** A mock-up as JSON, and the picture of it. */
  mockupBytes: 200_000,
  stillBytes: 8_000_000,
  stillSide: 2400,
  /** Characters of a drawn outline, and of a text shape. */
  pathData: 500_000,
  textLength: 2000,
  /** Width of a shape's stroke, px. */
  strokeWidth: { least: 0.01, most: 20_000 },
  groups: 500,
  /** Values along one side of a strike-off. */
  tries: 12,
  bleed: { least: 0, most: 2000 },
  /** Fills of one shape. */
  fills: 24,
  /** Strokes of a painted mask, and points of one stroke. */
  maskStrokes: 2000,
  strokePoints: 5000,
  /** Bytes of a recipe as JSON. */
  recipeBytes: 8_000_000,
  /** Bytes of an SVG file brought in as a motif. */
  svgBytes: 5_000_000,
  /** Bytes of a library file or package. */
  libraryBytes: 80_000_000,
  /** Files opened at once. */
  filesAtOnce: 200,
  /** Pixels of a PNG export: 15,000 × 15,000 and a little more. */
  exportPixels: 256_000_000,
  exportSide: 32_000,
  /** Spot inks of one page, press profiles of a studio and their bytes; how much ink paper takes, %. */
  spotInks: 16,
  pressProfiles: 100,
  profileBytes: 12_000_000,
  inkLimit: { least: 50, most: 400 },
  /** Px along the longer side of plates that are looked at. */
  plateSide: { least: 64, most: 2000 },
  /** Fonts of a studio, the bytes of a file, and of what is packed in it. */
  studioFonts: 200,
  fontBytes: 10_000_000,
  fontUnpacked: 40_000_000,
  /** Pages of one PDF. */
  pdfPages: 60,
  /** Layouts that lie in a layout: how deep they go, how many there are, and their shapes each time that they are drawn. */
  nestedDepth: 4,
  nestedLayouts: 40,
  nestedShapes: 5_000,
  /** Layouts in one parcel. */
  parcelLayouts: 100,
  sides: { least: 3, most: 60 },
  starPoints: { least: 3, most: 60 },
  starInner: { least: 0.05, most: 0.98 },
} as const;
