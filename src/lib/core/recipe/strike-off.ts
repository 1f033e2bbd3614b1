import type { Hex } from '../colour/parse';
import { roundTo, wrapDegrees } from '../num/tolerance';
import { isPlaced, type Fill, type FillGround } from './fill';
import { freshPage, shapeBox, withFill, type Layout, type Shape } from './layout';
import { moveBy } from './transform';

/** What a sheet can try along one of its sides, each with the values of its columns or rows. */
export type TryAxis =
  | { property: 'scale' | 'rotation' | 'opacity'; values: readonly number[] }
  | { property: 'colourway'; values: readonly (string | null)[] }
  | { property: 'pattern'; values: readonly string[] }
  | { property: 'ground'; values: readonly TryGround[] };

export type TryGround = 'own' | 'none' | Hex;

export const TRY_PROPERTIES = ['scale', 'rotation', 'opacity', 'colourway', 'pattern', 'ground'] as const;
export type TryProperty = (typeof TRY_PROPERTIES)[number];

/**
 * A sheet of try-outs: one shape as it was, and what is tried on one of its fills, over columns and perhaps rows. Each
 * try-out is true to size.
 */
export type StrikeSheet = { shape: Shape; fill: string; across: TryAxis; down: TryAxis | null };

/** The fill with the `index`-th value of an axis; a fill that has no such property stays as it is. */
function tried(fill: Fill, axis: TryAxis, index: number): Fill {
  switch (axis.property) {
    case 'scale': {
      const value = axis.values[index] ?? 1;
      return isPlaced(fill)
        ? { ...fill, scaleX: value, scaleY: roundTo((value * fill.scaleY) / fill.scaleX, 9) }
        : fill;
    }
    case 'rotation':
      return isPlaced(fill) ? { ...fill, rotation: wrapDegrees(axis.values[index] ?? 0) } : fill;
    case 'opacity':
      return { ...fill, opacity: axis.values[index] ?? 1 };
    case 'colourway':
      return fill.kind === 'pattern' ? { ...fill, colourway: axis.values[index] ?? null, colours: {} } : fill;
    case 'pattern': {
      const pattern = axis.values[index];
      if (fill.kind !== 'pattern' || pattern === undefined || pattern === fill.pattern) return fill;
      const { look: _look, ...rest } = fill;
      return { ...rest, pattern, held: null, colourway: null, colours: {} };
    }
    case 'ground':
      return fill.kind === 'pattern' ? { ...fill, ground: groundOf(axis.values[index] ?? 'own') } : fill;
  }
}

const groundOf = (value: TryGround): FillGround =>
  value === 'own' || value === 'none' ? { kind: value } : { kind: 'colour', colour: value };

/** A fill as it is tried in one column and row. */
export function triedFill(fill: Fill, { across, down }: StrikeSheet, column: number, row: number): Fill {
  const first = tried(fill, across, column);
  return down ? tried(first, down, row) : first;
}

/** The shape of a sheet as it is tried in one column and row. */
export const triedShape = (sheet: StrikeSheet, column: number, row: number): Shape =>
  withFill(sheet.shape, sheet.fill, (fill) => triedFill(fill, sheet, column, row));

export const sheetSize = ({ across, down }: StrikeSheet): { columns: number; rows: number } => ({
  columns: across.values.length,
  rows: down ? down.values.length : 1,
});

/** What a value is called on a sheet; names of patterns and colourways come from outside. */
export function sayTry(axis: TryAxis, index: number, nameOf: (id: string) => string): string {
  switch (axis.property) {
    case 'scale':
    case 'opacity':
      return `${Number(((axis.values[index] ?? 1) * 100).toFixed(2))} %`;
    case 'rotation':
      return `${Number((axis.values[index] ?? 0).toFixed(2))}°`;
    case 'colourway': {
      const id = axis.values[index];
      return id === null || id === undefined ? 'own colours' : nameOf(id);
    }
    case 'pattern':
      return nameOf(axis.values[index] ?? '');
    case 'ground': {
      const value = axis.values[index];
      return value === 'own' ? 'own ground' : value === 'none' ? 'no ground' : (value ?? '');
    }
  }
}

/** Where each try-out stands on a printed sheet, with its labels' baselines; px at the size of the layout. */
export type SheetPlan = {
  layout: Layout;
  labels: { text: string; x: number; y: number }[];
  labelSize: number;
};

/** A sheet as a page: columns and rows of the shape, each named, on a neutral ground that shows where white ends. */
export function sheetPage(sheet: StrikeSheet, nameOf: (id: string) => string): SheetPlan {
  const box = shapeBox(sheet.shape);
  const { columns, rows } = sheetSize(sheet);
  const gap = Math.max(box.width, box.height) * 0.12;
  const labelSize = Math.max(box.width, box.height) * 0.07;
  const head = labelSize * 1.8;
  const side = sheet.down ? labelSize * 7 : 0;
  const at = (column: number, row: number) => ({
    x: gap + side + column * (box.width + gap),
    y: gap + head + row * (box.height + gap),
  });
  const shapes = Array.from({ length: columns * rows }, (_, index): Shape => {
    const [column, row] = [index % columns, Math.floor(index / columns)];
    const place = at(column, row);
    const shape = moveBy(triedShape(sheet, column, row), 'both', { x: place.x - box.x, y: place.y - box.y });
    return { ...shape, id: `${shape.id}-${index}`, hidden: false };
  });
  const labels = [
    ...Array.from({ length: columns }, (_, column) => ({
      text: sayTry(sheet.across, column, nameOf),
      x: at(column, 0).x,
      y: gap + labelSize,
    })),
    ...(sheet.down
      ? Array.from({ length: rows }, (_, row) => ({
          text: sayTry(sheet.down as TryAxis, row, nameOf),
          x: gap,
          y: at(0, row).y + labelSize,
        }))
      : []),
  ];
  const end = at(columns, rows);
  return { layout: { ...freshPage(end.x, end.y), background: '#e4e5e3', shapes }, labels, labelSize };
}
