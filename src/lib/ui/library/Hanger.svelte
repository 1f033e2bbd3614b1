<script lang="ts">
  import type { PatternSummary } from '$lib/contract/data';
  import DrawnPicture from '../components/DrawnPicture.svelte';
  import { surfaceBackground, type Surface } from '../components/surfaces';
  import { saySize, sayUses, swatchUrl } from './say';

  /** A pattern's sample strip, with its name and unit size; a link to the pattern's page. */
  type Props = {
    pattern: PatternSummary;
    width: number;
    height: number;
    scale: number;
    surface: Surface;
    chosen?: boolean;
    /** The keyboard is here. */
    current?: boolean;
    onchoose?: (event: MouseEvent) => void;
  };
  let { pattern, width, height, scale, surface, chosen = false, current, onchoose }: Props = $props();
</script>

<a
  class="hanger"
  class:chosen
  href="/library/{pattern.id}"
  aria-current={chosen ? 'true' : undefined}
  tabindex={current === undefined ? undefined : current ? 0 : -1}
  onclick={onchoose}
>
  <span class="strip" style:aspect-ratio="{width} / {height}" style:background={surfaceBackground(surface)}>
    <DrawnPicture
      src={swatchUrl(pattern, width, height, scale, undefined, 'png')}
      alt=""
      {width}
      {height}
      lazy
    />
    {#if pattern.stock}<span class="mark">Stock</span>{/if}
  </span>
  <span class="line">
    <strong>{pattern.name}</strong>
    {#if pattern.facts}
      <span class="mono muted">{saySize(pattern.facts.unit, pattern.facts.measure)}</span>
    {:else}
      <span class="draft">Draft</span>
    {/if}
  </span>
  <span class="uses">{sayUses(pattern)}</span>
</a>

<style>
  .hanger {
    position: relative;
    display: grid;
    gap: 1px;
    color: var(--ink);
    text-decoration: none;
  }
  .hanger::before {
    content: '';
    position: absolute;
    top: -7px;
    left: 50%;
    z-index: 1;
    width: 54px;
    height: 10px;
    border-radius: 2px;
    background: var(--ink);
    transform: translateX(-50%);
  }
  .strip {
    position: relative;
    display: block;
    overflow: hidden;
  }
  .mark {
    position: absolute;
    right: 6px;
    bottom: 6px;
    padding: 0 6px;
    border-radius: 3px;
    background: rgb(255 255 255 / 88%);
    color: var(--muted);
    font-size: 11.5px;
  }
  /* The strip wears the focus. */
  .hanger:focus-visible {
    outline: none;
  }
  .hanger:hover .strip,
  .hanger:focus-visible .strip {
    outline: 2px solid var(--kelp);
    outline-offset: 2px;
  }
  .hanger.chosen .strip {
    outline: 3px solid var(--kelp);
    outline-offset: 2px;
  }
  .line {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    margin-top: 7px;
  }
  strong {
    font-weight: 650;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .line .mono {
    color: var(--surround-ink);
    white-space: nowrap;
  }
  .draft {
    color: #6d4500;
    font-weight: 600;
  }
  .uses {
    color: var(--surround-ink);
    font-size: 12px;
  }
</style>
