import type { LayoutData } from '$lib/contract/data';
import type { LayoutDoc } from '$lib/core/recipe/layout-changes';
import type { Shape } from '$lib/core/recipe/layout';

export { applyChanges, diffLayout, type LayoutDoc } from '$lib/core/recipe/layout-changes';

/** The editable part of a layout as the server gives it. */
export function docOf(data: LayoutData): LayoutDoc {
  const {
    id: _id,
    projectId: _project,
    projectName: _named,
    version: _version,
    archivedAt: _at,
    object: _object,
    ...doc
  } = data;
  return { ...doc, backgroundLink: doc.backgroundLink ?? null };
}

/** The document with some shapes changed; the others stay the same objects. */
export function changeShapes(
  doc: LayoutDoc,
  ids: ReadonlySet<string>,
  change: (shape: Shape) => Shape,
): LayoutDoc {
  return { ...doc, shapes: doc.shapes.map((shape) => (ids.has(shape.id) ? change(shape) : shape)) };
}

/** Puts a shape at another place in the stack. */
export function moveInStack(doc: LayoutDoc, id: string, to: number): LayoutDoc {
  const shape = doc.shapes.find((held) => held.id === id);
  if (!shape) return doc;
  const rest = doc.shapes.filter((held) => held.id !== id);
  return { ...doc, shapes: [...rest.slice(0, to), shape, ...rest.slice(to)] };
}

/** A document without groups that hold nothing. */
export function tidyGroups(doc: LayoutDoc): LayoutDoc {
  let { groups } = doc;
  for (;;) {
    const used = new Set([...doc.shapes.map((shape) => shape.group), ...groups.map(({ parent }) => parent)]);
    const kept = groups.filter(({ id }) => used.has(id));
    if (kept.length === groups.length) return groups === doc.groups ? doc : { ...doc, groups };
    groups = kept;
  }
}
