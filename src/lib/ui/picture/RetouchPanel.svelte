<script lang="ts">
  import { RETOUCH_KINDS, type RetouchKind } from '$lib/core/recipe/pictured';
  import BrushNumbers from '../components/BrushNumbers.svelte';
  import Button from '../components/Button.svelte';
  import Panel from '../components/Panel.svelte';
  import Tick from '../components/Tick.svelte';
  import type { PictureEditor } from './editor.svelte';
  import type { Retoucher } from './retoucher.svelte';

  /** What is painted on the repeat: what a stroke does, its brush, and the strokes so far. */
  type Props = { editor: PictureEditor; retoucher: Retoucher };
  let { editor, retoucher }: Props = $props();

  const on = $derived(editor.pictured.pictured.retouch?.on ?? true);
  const { strokes } = $derived(retoucher);
  const LABELS: Record<RetouchKind, { label: string; title: string }> = {
    heal: { label: 'Heal', title: 'Lays what looks alike over it, in the light of what lies around' },
    clone: { label: 'Clone', title: 'Lays what lies somewhere else over it' },
    keep: { label: 'Original here', title: 'Brings back what was there before the edges were joined' },
    join: { label: 'Joined here', title: 'Lays the joined edges over the original again' },
  };
  const why = $derived(retoucher.does && retoucher.why(retoucher.does));
</script>

<Panel title="Retouch">
  {#snippet aside()}
    <Tick label="on" checked={on} onset={(next) => retoucher.setOn(next)} />
  {/snippet}
  {#if on}
    <div class="kinds" role="group" aria-label="What a stroke does">
      {#each RETOUCH_KINDS as kind (kind)}
        <button
          type="button"
          aria-pressed={retoucher.does === kind}
          title={LABELS[kind].title}
          onclick={() => retoucher.choose(kind)}>{LABELS[kind].label}</button
        >
      {/each}
    </div>
    {#if retoucher.does}
      {#if why}<p class="muted note">{why}</p>{/if}
      <BrushNumbers brush={retoucher.brush} onset={(brush) => (retoucher.brush = brush)} />
      {#if retoucher.does === 'clone'}
        <p class="muted note" role="status">
          {#if retoucher.pointing}Press the place on the repeat that it takes from.
          {:else}
            <Button kind="quiet" onclick={() => (retoucher.pointing = true)}>Take from another place</Button>
          {/if}
        </p>
      {/if}
    {/if}
    {#if strokes.length > 0}
      <p class="strokes">
        <span class="muted">{strokes.length === 1 ? 'One stroke' : `${strokes.length} strokes`}</span>
        <Button kind="quiet" onclick={() => retoucher.takeBack()}>Take the last back</Button>
        {#if strokes.length > 1}
          <Button kind="quiet" onclick={() => retoucher.takeBack(true)}>Take all back</Button>
        {/if}
      </p>
    {/if}
  {:else}<p class="muted note">
      {strokes.length === 0 ? 'Nothing is painted.' : `${strokes.length} strokes are left out.`}
    </p>{/if}
</Panel>

<style>
  .kinds {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 4px;
    margin-bottom: 8px;
  }
  .kinds button {
    min-height: 28px;
    padding: 2px 8px;
    border: 1px solid var(--rule);
    border-radius: 6px;
    background: none;
    cursor: pointer;
    font: inherit;
    font-size: var(--small);
  }
  .kinds button:hover {
    background: var(--kelp-tint);
  }
  .kinds [aria-pressed='true'] {
    border-color: var(--kelp);
    background: var(--kelp-tint);
    font-weight: 600;
  }
  .note {
    margin: 0 0 6px;
    font-size: var(--small);
  }
  .strokes {
    display: flex;
    align-items: baseline;
    gap: 10px;
    font-size: var(--small);
  }
</style>
