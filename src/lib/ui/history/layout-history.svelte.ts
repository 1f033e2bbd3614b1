import type { LayoutState } from '$lib/contract/data';
import { diffLayout } from '$lib/core/recipe/layout-changes';
import { call } from '../state/api';
import { toasts } from '../state/toasts.svelte';
import { docOf, type LayoutDoc } from '../layout/doc';
import type { LayoutEditor } from '../layout/editor.svelte';

/** How a state that is looked at stands to the present one on the stage. */
export type Compare = 'beside' | 'over';

/** One thing in which a state differs from the present, with what brings it back. */
export type Difference = {
  id: string;
  name: string;
  what: string;
  /** It came later: taking it back takes it away. */
  fresh?: boolean;
};

/** The states of an open layout: looked at, compared, taken back whole or shape by shape. Taking back is a step as any other. */
export class LayoutHistory {
  states: readonly LayoutState[] = $state.raw([]);
  looked: { state: LayoutState; doc: LayoutDoc } | null = $state.raw(null);
  compare: Compare = $state('beside');
  /** Where the edge between the two states lies, of the stage’s width. */
  split = $state(0.5);

  constructor(private readonly editor: LayoutEditor) {}

  async load(): Promise<void> {
    const found = await call('GET /layouts/{id}/states', { id: this.editor.id });
    if (found.ok) this.states = found.value;
    else toasts.problem(found.failure.message);
  }

  close(): void {
    this.looked = null;
  }

  /** Shows a state beside the present one, or puts it away. */
  async look(state: LayoutState): Promise<void> {
    if (this.looked?.state.version === state.version) return this.close();
    const found = await call('GET /layouts/{id}/states/{version}', {
      id: this.editor.id,
      version: state.version,
    });
    if (!found.ok) {
      toasts.problem(found.failure.message);
      return this.load();
    }
    this.editor.bringInUse(found.value);
    this.looked = { state, doc: docOf(found.value.layout) };
  }

  /** Gives a state a name, or takes it away; `null` is the present state. */
  async name(version: number | null, name: string | null): Promise<string | null> {
    if (version === null && !(await this.editor.saver.flush()))
      return 'What is on the stage is not saved yet; try again.';
    const at = version ?? this.editor.saver.version;
    const saved = await call('PUT /layouts/{id}/states/{version}', {
      id: this.editor.id,
      version: at,
      body: { name },
    });
    await this.load();
    return saved.ok ? null : saved.failure.message;
  }

  readonly differences: readonly Difference[] = $derived.by(() => {
    if (!this.looked) return [];
    const { doc } = this.looked;
    const now = this.editor.history.doc;
    const then = new Map(doc.shapes.map((shape) => [shape.id, shape]));
    return diffLayout(doc, now).flatMap((change): Difference[] => {
      if (change.do === 'patch-shape') {
        const fields = Object.keys(change.fields).length;
        const name = then.get(change.id)?.name ?? '';
        return [
          {
            id: change.id,
            name,
            what: fields === 1 ? 'one thing is another' : `${fields} things are others`,
          },
        ];
      }
      if (change.do === 'remove-shape')
        return [{ id: change.id, name: then.get(change.id)?.name ?? '', what: 'is not there any more' }];
      if (change.do === 'put-shape')
        return [{ id: change.shape.id, name: change.shape.name, what: 'was not there yet', fresh: true }];
      return [];
    });
  });

  /** Has one shape as it was then, as a step. */
  takeBack(id: string): void {
    const then = this.looked?.doc.shapes.find((shape) => shape.id === id);
    const now = this.editor.history.doc;
    const has = now.shapes.some((shape) => shape.id === id);
    const group = then?.group && now.groups.some((one) => one.id === then.group) ? then.group : null;
    const back = then && { ...then, group };
    const shapes = !back
      ? now.shapes.filter((shape) => shape.id !== id)
      : has
        ? now.shapes.map((shape) => (shape.id === id ? back : shape))
        : [...now.shapes, back];
    this.editor.history.commit({ ...now, shapes });
  }

  /** Has the whole layout as it was then, as a step; its name stays. */
  restore(): void {
    if (!this.looked) return;
    const { name } = this.editor.history.doc;
    this.editor.history.commit({ ...this.looked.doc, name });
    toasts.show('The layout is as it was then; undo brings the present back.');
    this.close();
  }
}
