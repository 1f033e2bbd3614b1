<script lang="ts">
  import type { PaletteEntry } from '$lib/contract/data';
  import type { PaletteEditor } from './editor.svelte';

  /** The colours of a palette side by side: chosen, dragged into another order, walked through by arrow keys. */
  type Props = { editor: PaletteEditor };
  let { editor }: Props = $props();

  const colours = $derived(editor.doc.colours);
  let dragged: string | null = null;
  let list: HTMLElement | undefined = $state();

  function onkey(event: KeyboardEvent, id: string): void {
    const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (!step) return;
    event.preventDefault();
    if (event.altKey) editor.move(id, step);
    else {
      const index = colours.findIndex((one) => one.id === id);
      editor.chosen = colours[Math.max(0, Math.min(colours.length - 1, index + step))]?.id ?? null;
    }
    requestAnimationFrame(() => list?.querySelector<HTMLElement>('[aria-pressed="true"]')?.focus());
  }
  function drop(onto: string): void {
    if (dragged === null || dragged === onto) return;
    const ids = colours.map((held) => held.id);
    editor.move(dragged, ids.indexOf(onto) - ids.indexOf(dragged));
    dragged = null;
  }
  const background = (one: PaletteEntry): string =>
    one.gradient
      ? `linear-gradient(to right, ${[...one.gradient]
          .sort((a, b) => a.at - b.at)
          .map(({ at, hex }) => `${hex} ${at * 100}%`)
          .join(', ')})`
      : one.hex;
</script>

<ul class="entries" aria-label="Colours" bind:this={list}>
  {#each colours as one (one.id)}
    <li>
      <button
        type="button"
        class="entry"
        aria-pressed={editor.chosen === one.id}
        draggable="true"
        title="Alt and an arrow key move it"
        ondragstart={() => (dragged = one.id)}
        ondragover={(event) => event.preventDefault()}
        ondrop={() => drop(one.id)}
        onclick={() => (editor.chosen = one.id)}
        onkeydown={(event) => onkey(event, one.id)}
      >
        <span class="swatch" style:background={background(one)}></span>
        <strong dir="auto">{one.name}</strong>
        <span class="mono muted"
          >{one.gradient ? `${one.gradient.length} stops` : one.hex}{one.css ? ' *' : ''}</span
        >
        {#if one.ink}<span class="muted ink" title="Printed in the spot ink “{one.ink.name}”"
            >{one.ink.name}{one.ink.tint < 1 ? ` ${Math.round(one.ink.tint * 100)} %` : ''}</span
          >{/if}
      </button>
    </li>
  {:else}
    <li class="muted none">No colours yet. Type one above, or take them from a picture or a scheme.</li>
  {/each}
</ul>

<style>
  .ink {
    overflow: hidden;
    max-width: 100%;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .entries {
    display: grid;
    flex: 1;
    grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
    gap: 10px;
  }
  .entry {
    display: grid;
    gap: 1px;
    width: 100%;
    padding: 4px;
    border: 1px solid transparent;
    border-radius: var(--radius);
    background: none;
    text-align: left;
    cursor: pointer;
  }
  .entry[aria-pressed='true'] {
    border-color: var(--kelp);
    background: var(--kelp-tint);
  }
  .swatch {
    height: 62px;
    margin-bottom: 3px;
    border-radius: 4px;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 15%);
  }
  .entry strong {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .none {
    grid-column: 1 / -1;
  }
</style>
