import type { PictureLook } from '../../core/colour/look';
import { tintOf, type Tint } from '../../core/colour/tint';
import { FILL_VERSION, type Fill, type FillGround } from '../../core/recipe/fill';
import type { fill } from '../db/schema';
import { STUDIO } from '../db/open';

type FillRow = typeof fill.$inferSelect;
type FillValues = typeof fill.$inferInsert;

/** A fill as the columns of its row. Inverse of {@link fillOf}. */
export function fillValues(value: Fill, shapeId: string): FillValues {
  const base = {
    id: value.id,
    studioId: STUDIO,
    shapeId,
    position: 0,
    version: value.version,
    opacity: value.opacity,
  };
  if (value.kind === 'colour')
    return { ...base, kind: 'colour', colour: value.colour, colourLink: value.link ?? null };
  return {
    ...base,
    kind: 'pattern',
    patternId: value.pattern,
    heldRevision: value.held,
    scaleX: value.scaleX,
    scaleY: value.scaleY,
    rotation: value.rotation,
    skew: value.skew,
    offsetX: value.offset.x,
    offsetY: value.offset.y,
    anchorX: value.anchor.x,
    anchorY: value.anchor.y,
    groundKind: value.ground.kind,
    groundColour: value.ground.kind === 'colour' ? value.ground.colour : null,
    groundLink: (value.ground.kind === 'colour' ? value.ground.link : null) ?? null,
    groundOpacity: value.groundOpacity,
    colourwayId: value.colourway,
    colours: JSON.stringify(value.colours),
    look: value.look ? JSON.stringify(value.look) : null,
  };
}

/** A row as a fill. Inverse of {@link fillValues}; an unknown version is a fault of the database. */
export function fillOf(row: FillRow): Fill {
  if (row.version !== FILL_VERSION && row.version !== 1)
    throw new Error(`Fill ${row.id} is stored in version ${row.version}; this Isle reads ${FILL_VERSION}.`);
  if (row.kind === 'colour')
    return {
      kind: 'colour',
      version: FILL_VERSION,
      id: row.id,
      ...tintOf(row.colour ?? '#000000', row.colourLink),
      opacity: row.opacity,
    };
  return {
    kind: 'pattern',
    version: FILL_VERSION,
    id: row.id,
    pattern: row.patternId ?? '',
    held: row.heldRevision,
    scaleX: row.scaleX,
    scaleY: row.scaleY,
    rotation: row.rotation,
    skew: row.skew,
    offset: { x: row.offsetX, y: row.offsetY },
    anchor: { x: row.anchorX, y: row.anchorY },
    opacity: row.opacity,
    ground: groundOf(row),
    groundOpacity: row.groundOpacity,
    colourway: row.colourwayId,
    colours: coloursOf(row.colours),
    ...(row.look === null ? {} : { look: JSON.parse(row.look) as PictureLook }),
  };
}

function groundOf(row: FillRow): FillGround {
  return row.groundKind === 'colour'
    ? { kind: 'colour', ...tintOf(row.groundColour ?? '#ffffff', row.groundLink) }
    : { kind: row.groundKind };
}

/** Colours by slot; version 1 of a fill kept plain hex values. */
function coloursOf(json: string): Record<string, Tint> {
  const stored = JSON.parse(json) as Record<string, Tint | string>;
  return Object.fromEntries(
    Object.entries(stored).map(([slot, value]) => [
      slot,
      typeof value === 'string' ? { colour: value } : value,
    ]),
  );
}
