<script lang="ts">
  import { untrack } from 'svelte';
  import GripVertical from '@lucide/svelte/icons/grip-vertical';
  import { wrapDegrees } from '$lib/core/num/tolerance';
  import { LIMITS } from '$lib/core/recipe/limits';
  import { isPlaced, type Fill, type PlacedFill } from '$lib/core/recipe/fill';
  import { leadingFill, shapeCentre, withFill, type Shape } from '$lib/core/recipe/layout';
  import { sizeTo, turnBy, moveBy, type TransformScope } from '$lib/core/recipe/transform';
  import NameField from '../components/NameField.svelte';
  import NumberField from '../components/NumberField.svelte';
  import { moveInStack } from './doc';
  import type { LayoutEditor } from './editor.svelte';
  import { sayFill } from './fills';
  import { unitsOver } from './ledger';
  import { MANY } from './preview';

  /** All shapes and their fills, front first. An edit in a selected row changes all selected rows. */
  type Props = { editor: LayoutEditor };
  let { editor }: Props = $props();

  /** Rows are this high; only those in sight and a few around them are built, since each holds many fields. */
  const ROW = 30;
  const AROUND = 4;

  /** While many fills move the rows wait; the fill bar shows the numbers meanwhile. */
  const doc = $derived(
    editor.history.inGesture && editor.selected.size >= MANY ? editor.history.settled : editor.doc,
  );
  const rows = $derived([...doc.shapes].reverse());
  let box: HTMLDivElement | undefined = $state();
  let height = $state(200);
  let scrolled = $state(0);
  const first = $derived(Math.max(0, Math.min(Math.floor(scrolled / ROW) - AROUND, rows.length - 1)));
  const last = $derived(Math.min(rows.length, first + Math.ceil(height / ROW) + 2 * AROUND));
  const inSight = $derived(rows.slice(first, last));

  /** The row of a shape that was selected elsewhere comes into sight. */
  $effect(() => {
    const id = editor.single?.id;
    untrack(() => {
      const index = rows.findIndex((row) => row.id === id);
      if (!box || index < 0) return;
      const top = index * ROW;
      if (top < box.scrollTop || top + 2 * ROW > box.scrollTop + height) box.scrollTop = top - height / 3;
    });
  });
  const kind = $derived({ unit: editor.doc.measure });
  let anchor: string | null = null;
  let dragged: string | null = $state(null);
  let over: string | null = $state(null);

  /** The rows that an edit in `shape`'s row changes. */
  function targets(shape: Shape): ReadonlySet<string> {
    return editor.selected.has(shape.id) ? editor.selected : new Set([shape.id]);
  }

  /** Handlers of a number in a row: all targets take the value, live and then as one step. */
  function number(shape: Shape, write: (one: Shape, value: number) => Shape) {
    const show = (value: number): void =>
      editor.change((one) => write(one, value), { live: true, ids: targets(shape) });
    return {
      onlive: show,
      onset: (value: number) => {
        show(value);
        editor.history.commit();
      },
      oncancel: () => editor.history.cancel(),
    };
  }
  /** A row shows the leading fill of its shape; that of a selected row is the one that is worked on. */
  const fillOf = (shape: Shape): Fill | null =>
    editor.selected.has(shape.id) ? editor.activeOf(shape) : leadingFill(shape);
  const fillNumber = (shape: Shape, write: (fill: Fill, value: number) => Fill) =>
    number(shape, (one, value) => {
      const fill = fillOf(one);
      return fill ? withFill(one, fill.id, (held) => write(held, value)) : one;
    });
  const placedNumber = (shape: Shape, write: (fill: PlacedFill, value: number) => PlacedFill) =>
    fillNumber(shape, (fill, value) => (isPlaced(fill) ? write(fill, value) : fill));

  /** Numbers of the frame act on the shape, and on its pattern too where the handles move both. */
  const frameScope = $derived<TransformScope>(editor.scope === 'both' ? 'both' : 'shape');

  function press(event: MouseEvent, shape: Shape): void {
    if ((event.target as Element).closest('input, button')) return;
    if (event.shiftKey && anchor) {
      const ids = rows.map((row) => row.id);
      const [from, to] = [ids.indexOf(anchor), ids.indexOf(shape.id)].sort((a, b) => a - b);
      editor.select(ids.slice(from, (to ?? 0) + 1));
      return;
    }
    anchor = shape.id;
    if (event.ctrlKey || event.metaKey) editor.toggle(shape.id);
    else editor.select([shape.id]);
  }

  function rowKey(event: KeyboardEvent & { currentTarget: HTMLTableRowElement }, shape: Shape): void {
    if (event.target !== event.currentTarget) return;
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step !== 0) {
      event.preventDefault();
      event.stopPropagation();
      const next =
        step > 0 ? event.currentTarget.nextElementSibling : event.currentTarget.previousElementSibling;
      (next as HTMLElement | null)?.focus();
      const index = rows.findIndex((row) => row.id === shape.id) + step;
      const target = rows[index];
      if (target) {
        if (event.shiftKey) editor.select([...editor.selected, target.id]);
        else editor.select([target.id]);
      }
    } else if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      event.stopPropagation();
      if (event.ctrlKey || event.metaKey) editor.toggle(shape.id);
      else editor.select([shape.id]);
    }
  }

  function drop(target: Shape): void {
    const id = dragged;
    dragged = over = null;
    if (!id || id === target.id) return;
    const rest = editor.doc.shapes.filter((shape) => shape.id !== id);
    const place = rest.findIndex((shape) => shape.id === target.id);
    const wasBelow =
      editor.doc.shapes.findIndex((shape) => shape.id === id) <
      editor.doc.shapes.findIndex((shape) => shape.id === target.id);
    editor.history.commit(moveInStack(editor.history.doc, id, wasBelow ? place + 1 : place));
  }
</script>

<div
  class="ledger"
  bind:this={box}
  bind:clientHeight={height}
  onscroll={() => (scrolled = box?.scrollTop ?? 0)}
>
  <table>
    <caption class="visually-hidden">Ledger: all shapes and their fills, front first</caption>
    <thead>
      <tr>
        <th scope="col" class="shape">Shape</th>
        <th scope="col">Filled with</th>
        <th scope="col">Scale</th>
        <th scope="col">Rotation</th>
        <th scope="col">Offset</th>
        <th scope="col">Opacity</th>
        <th scope="col">Ground</th>
        <th scope="col" title="How often the unit goes into the shape">Across × down</th>
        <th scope="col">Place ({editor.doc.measure})</th>
        <th scope="col">Size ({editor.doc.measure})</th>
        <th scope="col">Turn</th>
      </tr>
    </thead>
    <tbody>
      {#if first > 0}<tr aria-hidden="true" class="room" style:height="{first * ROW}px"></tr>{/if}
      {#each inSight as shape (shape.id)}
        {@const fill = fillOf(shape)}
        {@const use = fill?.kind === 'pattern' ? fill : null}
        {@const pattern = use ? editor.lookup(use) : null}
        <tr
          tabindex="0"
          aria-selected={editor.selected.has(shape.id)}
          class:over={over === shape.id}
          onclick={(event) => press(event, shape)}
          onkeydown={(event) => rowKey(event, shape)}
          ondragover={(event) => {
            if (!dragged) return;
            event.preventDefault();
            over = shape.id;
          }}
          ondrop={(event) => {
            event.preventDefault();
            drop(shape);
          }}
        >
          <td class="shape">
            <button
              type="button"
              class="grip"
              draggable="true"
              aria-label="Move {shape.name} in the stack: drag, or arrow keys"
              title="Drag to change the stack"
              ondragstart={(event) => {
                event.dataTransfer?.setData('application/x-isle-shape', shape.id);
                dragged = shape.id;
              }}
              ondragend={() => (dragged = over = null)}
              onkeydown={(event) => {
                if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
                event.preventDefault();
                event.stopPropagation();
                editor.select([shape.id]);
                editor.restack(event.key === 'ArrowUp' ? 'front' : 'back');
              }}><GripVertical size={13} /></button
            >
            <NameField
              label="The name of the shape"
              value={shape.name}
              onset={(name) => {
                editor.change((one) => ({ ...one, name }), { ids: new Set([shape.id]) });
                return null;
              }}
            />
          </td>
          <td class="filled">
            {#if !fill}<span class="muted">nothing</span>{:else}
              {#if fill.kind === 'colour'}<span class="plain" style:background={fill.colour}
                ></span>{/if}{sayFill(fill, editor)}{#if shape.fills.length > 1}<span
                  class="more"
                  title="{shape.fills.length} fills">+{shape.fills.length - 1}</span
                >{/if}
            {/if}
          </td>
          {#if fill && isPlaced(fill)}
            <td>
              <NumberField
                label="Scale of {shape.name}"
                value={fill.scaleX}
                kind={{ suffix: '%' }}
                {...LIMITS.scale}
                {...placedNumber(shape, (one, value) => ({
                  ...one,
                  scaleX: value,
                  scaleY: (value * one.scaleY) / one.scaleX,
                }))}
              />
            </td>
            <td>
              <NumberField
                label="Rotation of {shape.name}’s pattern"
                value={fill.rotation}
                kind={{ suffix: '°' }}
                {...LIMITS.angle}
                {...placedNumber(shape, (one, value) => ({ ...one, rotation: wrapDegrees(value) }))}
              />
            </td>
            <td class="pair">
              <NumberField
                label="Offset across of {shape.name}"
                value={fill.offset.x}
                {kind}
                {...LIMITS.place}
                hideUnit
                {...placedNumber(shape, (one, value) => ({ ...one, offset: { ...one.offset, x: value } }))}
              />
              ·
              <NumberField
                label="Offset down of {shape.name}"
                value={fill.offset.y}
                {kind}
                {...LIMITS.place}
                hideUnit
                {...placedNumber(shape, (one, value) => ({ ...one, offset: { ...one.offset, y: value } }))}
              />
            </td>
            <td>
              <NumberField
                label="Opacity of {shape.name}"
                value={fill.opacity}
                kind={{ suffix: '%' }}
                least={0}
                most={1}
                {...fillNumber(shape, (one, value) => ({ ...one, opacity: value }))}
              />
            </td>
            <td>
              {#if !use}<span class="muted">–</span>{:else if use.ground.kind === 'colour'}<span
                  class="plain"
                  style:background={use.ground.colour}
                ></span>{use.ground.colour}{:else}{use.ground.kind}{/if}
            </td>
            <td class="mono">{use && pattern ? unitsOver(shape, use, pattern) : '–'}</td>
          {:else if fill}
            <td colspan="3" class="muted">–</td>
            <td>
              <NumberField
                label="Opacity of {shape.name}"
                value={fill.opacity}
                kind={{ suffix: '%' }}
                least={0}
                most={1}
                {...fillNumber(shape, (one, value) => ({ ...one, opacity: value }))}
              />
            </td>
            <td colspan="2" class="muted">–</td>
          {:else}
            <td colspan="6" class="muted">–</td>
          {/if}
          <td class="pair">
            <NumberField
              label="Place across of {shape.name}"
              value={shape.x}
              {kind}
              {...LIMITS.place}
              hideUnit
              {...number(shape, (one, value) => moveBy(one, frameScope, { x: value - one.x, y: 0 }))}
            />
            ·
            <NumberField
              label="Place down of {shape.name}"
              value={shape.y}
              {kind}
              {...LIMITS.place}
              hideUnit
              {...number(shape, (one, value) => moveBy(one, frameScope, { x: 0, y: value - one.y }))}
            />
          </td>
          <td class="pair">
            <NumberField
              label="Width of {shape.name}"
              value={shape.width}
              {kind}
              {...LIMITS.shapeSide}
              hideUnit
              {...number(shape, (one, value) =>
                sizeTo(one, frameScope, { x: one.x, y: one.y, width: value, height: one.height }),
              )}
            />
            ×
            <NumberField
              label="Height of {shape.name}"
              value={shape.height}
              {kind}
              {...LIMITS.shapeSide}
              hideUnit
              {...number(shape, (one, value) =>
                sizeTo(one, frameScope, { x: one.x, y: one.y, width: one.width, height: value }),
              )}
            />
          </td>
          <td>
            <NumberField
              label="Turn of {shape.name}"
              value={shape.rotation}
              kind={{ suffix: '°' }}
              {...LIMITS.angle}
              {...number(shape, (one, value) =>
                turnBy(one, frameScope, value - one.rotation, shapeCentre(one)),
              )}
            />
          </td>
        </tr>
      {:else}
        <tr class="none"
          ><td colspan="11" class="muted"
            >No shapes yet. Choose a form above the stage and draw it; every shape gets a row here.</td
          ></tr
        >
      {/each}
      {#if last < rows.length}<tr
          aria-hidden="true"
          class="room"
          style:height="{(rows.length - last) * ROW}px"
        ></tr>{/if}
    </tbody>
  </table>
</div>

<style>
  .more {
    margin-left: 6px;
    padding: 0 5px;
    border-radius: 8px;
    background: var(--rule);
    font-size: 11px;
  }
  .ledger {
    height: 100%;
    overflow: auto;
    border-top: 1px solid var(--rule);
    background: var(--paper);
  }
  table {
    width: 100%;
    border-collapse: collapse;
    white-space: nowrap;
  }
  th {
    position: sticky;
    top: 0;
    z-index: 2;
    padding: 6px 9px;
    background: var(--paper);
    box-shadow: inset 0 -1px var(--rule);
    color: var(--muted);
    font-size: var(--small);
    font-weight: 500;
    text-align: left;
  }
  td {
    height: 30px;
    padding: 0 9px;
    border-bottom: 1px solid var(--rule);
  }
  td :global(.field) {
    font-size: 12px;
  }
  .shape {
    display: flex;
    align-items: center;
    gap: 2px;
    padding-left: 4px;
  }
  th.shape {
    display: table-cell;
    padding-left: 24px;
  }
  tbody tr {
    cursor: default;
  }
  tbody tr:hover {
    background: var(--card);
  }
  [aria-selected='true'],
  tbody [aria-selected='true']:hover {
    background: var(--kelp-tint);
  }
  tr:focus-visible {
    outline-offset: -2px;
  }
  .over td {
    box-shadow: inset 0 2px var(--kelp);
  }
  .grip {
    display: inline-flex;
    padding: 2px;
    border: 0;
    background: none;
    color: var(--muted);
    cursor: grab;
  }
  .plain {
    display: inline-block;
    width: 12px;
    height: 12px;
    margin-right: 6px;
    border-radius: 50%;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
    vertical-align: -1px;
  }
  .pair {
    color: var(--muted);
  }
  .pair :global(input) {
    color: var(--ink);
  }
  .none td {
    padding: 14px;
  }
</style>
