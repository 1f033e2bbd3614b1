import type { FilledLayout } from '../../contract/given';
import { done, type Outcome } from '../../contract/failure';
import { mapFills, type Shape } from '../../core/recipe/layout';
import type { Db } from '../db/open';
import { newId, writing } from './context';
import { applyChanges } from './layout-changes';
import { createLayout, getLayout } from './layouts';

/** A new layout with its first shapes, or none of it. */
export function makeLayout(
  db: Db,
  projectId: string,
  { shapes = [], ...page }: FilledLayout,
): Outcome<{ id: string; version: number }> {
  return writing(db, { what: 'layout', name: page.name }, (tx): Outcome<{ id: string; version: number }> => {
    const made = createLayout(tx, projectId, page);
    if (!made.ok || shapes.length === 0) return made;
    const { id, version } = made.value;
    const changed = applyChanges(
      tx,
      id,
      version,
      shapes.map((shape) => ({ do: 'put-shape', shape })),
    );
    return changed.ok ? done({ id, version: changed.value.version }) : changed;
  });
}

/** Doubles a layout in its project under another name: page, groups, shapes and fills, all under ids of their own. */
export function copyLayout(db: Db, id: string, name: string): Outcome<{ id: string }> {
  return writing(db, { what: 'layout', name }, (tx): Outcome<{ id: string }> => {
    const found = getLayout(tx, id);
    if (!found.ok) return found;
    const { projectId, width, height, measure, ppi, background, object, shapes, groups, ...page } =
      found.value;
    const made = createLayout(tx, projectId, { name, width, height, measure, ppi, background, object });
    if (!made.ok) return made;
    const ids = new Map(groups.map((group) => [group.id, newId()]));
    const renamed = (held: string | null): string | null => (held === null ? null : (ids.get(held) ?? null));
    const copied = shapes.map((shape): Shape => {
      const copy = mapFills(shape, (fill) => ({ ...fill, id: newId() }));
      return { ...copy, id: newId(), group: renamed(shape.group) };
    });
    const { bleed, margin, guides, backgroundLink = null } = page;
    const changed = applyChanges(tx, made.value.id, made.value.version, [
      { do: 'page', bleed, margin, guides, backgroundLink },
      ...groups.map((group) => ({
        do: 'put-group' as const,
        group: { ...group, id: ids.get(group.id) ?? newId(), parent: renamed(group.parent) },
      })),
      ...copied.map((shape) => ({ do: 'put-shape' as const, shape })),
    ]);
    return changed.ok ? done({ id: made.value.id }) : changed;
  });
}
