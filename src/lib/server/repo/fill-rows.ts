import type { PictureLook } from '../../core/colour/look';
import { tintOf } from '../../core/colour/tint';
import type { CutFrom } from '../../core/recipe/cut-out';
import type { Fill, FillGround, FillPlace, PlacedFill } from '../../core/recipe/fill';
import type { Gradient } from '../../core/recipe/gradient';
import type { Mask } from '../../core/recipe/mask';
import { migrateFill } from '../../core/recipe/migrate';
import { fillLinks } from '../../core/recipe/links';
import { fill } from '../db/schema';
import type { Db } from '../db/open';
import { Rows, statement } from './rows';

type FillRow = typeof fill.$inferSelect;
type FillValues = typeof fill.$inferInsert;

/** Writes rows of fills. */
export const fillRows = new Rows(fill);

/** Writes anew which palette colours a fill follows. */
export function putFillLinks(tx: Db, value: Fill): void {
  statement(tx, 'DELETE FROM fill_link WHERE fill_id = ?').run(value.id);
  for (const colourId of fillLinks(value))
    statement(tx, 'INSERT OR IGNORE INTO fill_link (fill_id, colour_id) VALUES (?, ?)').run(
      value.id,
      colourId,
    );
}

const json = (value: object | null | undefined): string | null => (value ? JSON.stringify(value) : null);

/** A fill as the columns of its row, but for its place in the shape's stack. Inverse of {@link fillOf}. */
export function fillValues(db: Db, value: Fill, shapeId: string): Omit<FillValues, 'position'> {
  const { id, version, opacity, blend, shown } = value;
  const mask = json(value.mask);
  const base = { id, studioId: db.studio, shapeId, version, opacity, blend, shown, mask };
  switch (value.kind) {
    case 'colour':
      return { ...base, kind: 'colour', colour: value.colour, colourLink: value.link ?? null };
    case 'gradient':
      return { ...base, kind: 'gradient', gradient: json(value.gradient) };
    case 'picture':
      return {
        ...base,
        ...placeValues(value),
        kind: 'picture',
        asset: value.asset,
        pictureWidth: value.width,
        pictureHeight: value.height,
        cut: json(value.cut),
      };
    case 'layout':
      return { ...base, ...placeValues(value), kind: 'layout', layoutId: value.layout };
    case 'pattern':
      return {
        ...base,
        ...placeValues(value),
        kind: 'pattern',
        patternId: value.pattern,
        heldRevision: value.held,
        groundKind: value.ground.kind,
        groundColour: value.ground.kind === 'colour' ? value.ground.colour : null,
        groundLink: (value.ground.kind === 'colour' ? value.ground.link : null) ?? null,
        groundOpacity: value.groundOpacity,
        colourwayId: value.colourway,
        colours: JSON.stringify(value.colours),
        look: json(value.look),
        gradient: json(value.wash),
      };
  }
}

function placeValues({ offset, anchor, ...rest }: PlacedFill) {
  const { scaleX, scaleY, reflectX, reflectY, rotation, skew, anchored } = rest;
  return {
    scaleX,
    scaleY,
    reflectX,
    reflectY,
    rotation,
    skew,
    anchored,
    offsetX: offset.x,
    offsetY: offset.y,
    anchorX: anchor.x,
    anchorY: anchor.y,
  };
}

/** A row as a fill. Inverse of {@link fillValues}; older versions are brought along, an unknown one is a fault of the database. */
export function fillOf(row: FillRow): Fill {
  const { id, version, opacity, blend, shown } = row;
  const layer = { id, version, opacity, blend, shown, mask: parsed<Mask>(row.mask) };
  switch (row.kind) {
    case 'colour':
      return migrateFill({ kind: 'colour', ...layer, ...tintOf(row.colour ?? '#000000', row.colourLink) });
    case 'gradient':
      return migrateFill({ kind: 'gradient', ...layer, gradient: parsed<Gradient>(row.gradient) });
    case 'picture': {
      const [width, height] = [row.pictureWidth, row.pictureHeight];
      const cut = parsed<CutFrom>(row.cut);
      const picture = { asset: row.asset, width, height, ...(cut && { cut }) };
      return migrateFill({ kind: 'picture', ...layer, ...placeOf(row), ...picture });
    }
    case 'layout':
      return migrateFill({ kind: 'layout', ...layer, ...placeOf(row), layout: row.layoutId ?? '' });
    case 'pattern':
      return migrateFill({
        kind: 'pattern',
        ...layer,
        ...placeOf(row),
        pattern: row.patternId ?? '',
        held: row.heldRevision,
        ground: groundOf(row),
        groundOpacity: row.groundOpacity,
        colourway: row.colourwayId,
        colours: JSON.parse(row.colours) as object,
        ...(row.look === null ? {} : { look: JSON.parse(row.look) as PictureLook }),
        wash: parsed<Gradient>(row.gradient),
      });
  }
}

const parsed = <T>(text: string | null): T | null => (text === null ? null : (JSON.parse(text) as T));

function placeOf(row: FillRow): FillPlace {
  const { scaleX, scaleY, reflectX, reflectY, rotation, skew, anchored } = row;
  const offset = { x: row.offsetX, y: row.offsetY };
  const anchor = { x: row.anchorX, y: row.anchorY };
  return { scaleX, scaleY, reflectX, reflectY, rotation, skew, anchored, offset, anchor };
}

function groundOf(row: FillRow): FillGround {
  return row.groundKind === 'colour'
    ? { kind: 'colour', ...tintOf(row.groundColour ?? '#ffffff', row.groundLink) }
    : { kind: row.groundKind };
}
