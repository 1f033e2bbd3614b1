<script lang="ts">
  import { allFills, type Shape } from '$lib/core/recipe/layout';
  import type { Fill } from '$lib/core/recipe/fill';
  import type { LayoutEditor } from './editor.svelte';
  import { inkCss, sayFill } from './fills';
  import LedgerFillCells from './LedgerFillCells.svelte';

  /** One fill of a shape that has several, with numbers of its own. */
  type Props = {
    editor: LayoutEditor;
    shape: Shape;
    fill: Fill;
    place: number;
    depth: number;
    onstep: (step: -1 | 1) => void;
  };
  let { editor, shape, fill, place, depth, onstep }: Props = $props();

  const name = $derived(`${shape.name}, fill ${place}`);
  const ofStroke = $derived(!shape.fills.some(({ id }) => id === fill.id));
  const worked = $derived(editor.selected.has(shape.id) && editor.activeOf(shape)?.id === fill.id);
</script>

<tr
  tabindex="0"
  data-row={fill.id}
  class="one"
  aria-selected={worked}
  onclick={(event) => {
    if (!(event.target as Element).closest('input, button')) editor.workOn(shape, fill.id);
  }}
  onkeydown={(event) => {
    if (event.target !== event.currentTarget) return;
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step !== 0) onstep(step);
    else if (event.key === 'Enter' || event.key === ' ') editor.workOn(shape, fill.id);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }}
>
  <td class="shape muted" style:padding-left="{8 + depth * 16}px"
    >{ofStroke ? 'stroke' : 'fill'} {place} of {allFills(shape).length}</td
  >
  <td class="filled" class:off={!fill.shown}
    ><span class="plain" style:background={inkCss(fill, editor)}></span>{sayFill(fill, editor)}</td
  >
  <LedgerFillCells
    {editor}
    {shape}
    {name}
    of={(one) => allFills(one).find(({ id }) => id === fill.id) ?? null}
    targets={() => new Set([shape.id])}
  />
  <td colspan="3" class="muted"
    >{fill.blend === 'normal' ? '' : fill.blend}{fill.mask ? ' masked' : ''}{fill.shown ? '' : ' hidden'}</td
  >
</tr>

<style>
  .off {
    opacity: 0.55;
  }
</style>
