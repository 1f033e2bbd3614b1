<script lang="ts">
  import { may } from '../state/may';
  import type { PatternSummary } from '$lib/contract/data';
  import Button from '../components/Button.svelte';
  import DrawnPicture from '../components/DrawnPicture.svelte';
  import { surfaceBackground, type Surface } from '../components/surfaces';
  import { KIND_NAMES, sayDate, sayRepeat, sayUnit, sayUses, swatchUrl } from './say';

  /** The chosen pattern beside the wall: what it looks like large, and what one asks first. */
  type Props = {
    pattern: PatternSummary;
    surface: Surface;
    /** What it would fill: the shapes worked on last. */
    fills: string | null;
    onfill: () => void;
    /** Asks in which layout to use it. */
    onuse: () => void;
    onexport: () => void;
  };
  let { pattern, surface, fills, onfill, onuse, onexport }: Props = $props();
  const facts = $derived(pattern.facts);
</script>

<div class="panel">
  <div class="picture" style:background={surfaceBackground(surface)}>
    <DrawnPicture
      src={swatchUrl(pattern, 268, 190, 1)}
      alt="{pattern.name} at 100 %"
      width={268}
      height={190}
    />
  </div>
  <h2 dir="auto">{pattern.name}</h2>
  {#if pattern.description}<p class="muted" dir="auto">{pattern.description}</p>{/if}
  {#if pattern.tags.length > 0}
    <p class="tags">
      {#each pattern.tags as tag (tag)}<a href="/library?tag={encodeURIComponent(tag)}">{tag}</a>{/each}
    </p>
  {/if}
  <dl>
    <dt>Kind</dt>
    <dd>{KIND_NAMES[pattern.kind]}{pattern.stock ? ', stock' : ''}</dd>
    {#if facts}
      <dt>Repeat</dt>
      <dd>{sayRepeat(facts.repeat)}</dd>
      <dt>Unit</dt>
      <dd class="mono">{sayUnit(facts)}</dd>
      <dt>Colours</dt>
      <dd class="dots">
        {#each facts.slots.slice(0, 10) as slot (slot.id)}<span
            style:background={slot.colour}
            title="{slot.name} {slot.colour}"
          ></span>{/each}
      </dd>
      <dt>Ground</dt>
      <dd>{facts.clear ? 'Clear' : 'Its own'}</dd>
    {/if}
    {#if pattern.collections.length > 0}
      <dt>Collections</dt>
      <dd>{pattern.collections.join(', ')}</dd>
    {/if}
    {#if pattern.credit.author || pattern.credit.licence}
      <dt>Credit</dt>
      <dd>{[pattern.credit.author, pattern.credit.licence].filter((text) => text !== '').join(', ')}</dd>
    {/if}
    <dt>Used</dt>
    <dd>{sayUses(pattern)}</dd>
    {#if pattern.lastUsedAt !== null}
      <dt>Last used</dt>
      <dd>{sayDate(pattern.lastUsedAt)}</dd>
    {/if}
    <dt>Revision</dt>
    <dd class="mono">{pattern.newest === 0 ? 'draft' : pattern.newest}</dd>
  </dl>
  <div class="actions">
    <Button kind="main" href="/library/{pattern.id}">Open</Button>
    {#if may('contributor')}<Button href="/library/{pattern.id}/bench">On the bench</Button>{/if}
    {#if pattern.newest > 0 && may('contributor')}
      <Button onclick={onuse}>Use …</Button>
      <Button onclick={onexport}>Hand out …</Button>
    {/if}
  </div>
  {#if pattern.newest > 0 && fills !== null}
    <Button kind="quiet" title="F" onclick={onfill}>Fill {fills}</Button>
  {/if}
</div>

<style>
  .panel {
    display: grid;
    gap: 10px;
    justify-items: start;
  }
  .picture {
    width: 268px;
    height: 190px;
  }
  h2 {
    max-width: 100%;
    font-size: 18px;
    line-height: 1.25;
    overflow-wrap: anywhere;
  }
  .tags {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 8px;
    font-size: 12.5px;
  }
  .tags a {
    color: var(--kelp);
  }
  dl {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 4px 12px;
    width: 100%;
    margin: 0;
    padding-top: 10px;
    border-top: 1px solid var(--rule);
  }
  dt {
    color: var(--muted);
  }
  dd {
    margin: 0;
    font-weight: 600;
    text-align: right;
    overflow-wrap: anywhere;
  }
  .dots span {
    display: inline-block;
    width: 15px;
    height: 15px;
    margin-left: 4px;
    border-radius: 50%;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
  }
  .actions {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
</style>
