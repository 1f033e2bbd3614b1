import type { LengthUnit } from '../num/length';

/** Page sizes offered for a new layout. `source` says where the numbers come from. */
export type PagePreset = {
  id: string;
  name: string;
  width: number;
  height: number;
  measure: LengthUnit;
  ppi: number;
  source: string;
};

const iso216 = (name: string, width: number, height: number): PagePreset => ({
  id: name.toLowerCase(),
  name,
  width,
  height,
  measure: 'mm',
  ppi: 300,
  source: 'ISO 216',
});

const ansi = (id: string, name: string, width: number, height: number): PagePreset => ({
  id,
  name,
  width,
  height,
  measure: 'in',
  ppi: 300,
  source: 'ANSI/ASME Y14.1, sizes A and B',
});

const screen = (id: string, name: string, width: number, height: number): PagePreset => ({
  id,
  name,
  width,
  height,
  measure: 'px',
  ppi: 96,
  source: 'common practice, no source',
});

export const PAGE_PRESETS: readonly PagePreset[] = [
  screen('square', 'Square post', 1080, 1080),
  screen('wide', 'Wide screen', 1920, 1080),
  screen('desktop', 'Desktop page', 1440, 900),
  screen('phone', 'Phone, upright', 1080, 1920),
  ansi('letter', 'Letter', 8.5, 11),
  ansi('tabloid', 'Tabloid', 11, 17),
  iso216('A3', 297, 420),
  iso216('A4', 210, 297),
  iso216('A5', 148, 210),
  iso216('A6', 105, 148),
  {
    id: 'card',
    name: 'Business card',
    width: 85.6,
    height: 53.98,
    measure: 'mm',
    ppi: 300,
    source: 'ISO/IEC 7810 ID-1',
  },
];

/** The size that a new page of a project starts with, by the project's unit. */
export function startingPage(unit: LengthUnit): PagePreset {
  const id = { px: 'square', mm: 'a4', in: 'letter', pt: 'a4' }[unit];
  return PAGE_PRESETS.find((preset) => preset.id === id) as PagePreset;
}
