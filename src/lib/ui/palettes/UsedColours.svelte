<script lang="ts">
  import { onMount } from 'svelte';
  import type { LibraryFacets } from '$lib/contract/data';
  import { nearestColour } from '$lib/core/colour/order';
  import { deltaE2000 } from '$lib/core/colour/difference';
  import type { Hex } from '$lib/core/colour/parse';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import { call } from '../state/api';

  /** Colours from the patterns that are in use, in all projects or one; those that the palette has already are left out. */
  type Props = {
    has: readonly { hex: Hex }[];
    ontake: (colours: { name: string; hex: Hex }[]) => void;
    onclose: () => void;
  };
  let { has, ontake, onclose }: Props = $props();

  let projects: LibraryFacets['projects'] = $state.raw([]);
  let project = $state('');
  let left: Hex[] = $state([]);
  let found: { name: string; hex: Hex; patterns: number }[] = $state.raw([]);
  let problem: string | null = $state(null);

  async function look(): Promise<void> {
    const query = { limit: 1000, sort: 'uses', ...(project && { project }) } as const;
    const answer = await call('GET /patterns', { query });
    if (!answer.ok) {
      problem = answer.failure.message;
      return;
    }
    const counted = new Map<Hex, { name: string; patterns: number }>();
    for (const { facts, uses } of answer.value.patterns) {
      if (uses === 0) continue;
      for (const slot of facts?.slots ?? []) {
        const held = counted.get(slot.colour);
        counted.set(slot.colour, { name: held?.name ?? slot.name, patterns: (held?.patterns ?? 0) + 1 });
      }
    }
    found = [...counted]
      .map(([hex, one]) => ({ hex, ...one }))
      .filter(({ hex }) => {
        const near = nearestColour(has, hex);
        return !near || deltaE2000(near.hex, hex) > 0.5;
      })
      .sort((one, other) => other.patterns - one.patterns);
    left = [];
  }
  onMount(async () => {
    const facets = await call('GET /library');
    if (facets.ok) projects = facets.value.projects;
    await look();
  });
  const taken = $derived(found.filter(({ hex }) => !left.includes(hex)));
</script>

<Dialog title="Colours from patterns in use" width={560} {onclose}>
  <label
    ><span class="muted">Used in</span>
    <select bind:value={project} onchange={look}>
      <option value="">all projects</option>
      {#each projects as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
    </select></label
  >
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  <ul>
    {#each found as { hex, name, patterns } (hex)}
      <li>
        <label>
          <input
            type="checkbox"
            checked={!left.includes(hex)}
            onchange={(event) =>
              (left = event.currentTarget.checked ? left.filter((one) => one !== hex) : [...left, hex])}
          />
          <span class="dot" style:background={hex}></span>
          <span>{name}</span><span class="mono muted">{hex}</span>
          <span class="muted">{patterns === 1 ? 'one pattern' : `${patterns} patterns`}</span>
        </label>
      </li>
    {:else}
      <li class="muted">All colours of the patterns in use are in this palette already.</li>
    {/each}
  </ul>
  {#snippet actions()}
    <Button onclick={onclose}>Cancel</Button>
    <Button
      kind="main"
      disabled={taken.length === 0}
      onclick={() => ontake(taken.map(({ name, hex }) => ({ name, hex })))}
      >Add {taken.length === 1 ? 'one colour' : `${taken.length} colours`}</Button
    >
  {/snippet}
</Dialog>

<style>
  ul {
    display: grid;
    gap: 2px;
    max-height: 340px;
    overflow: auto;
  }
  li label {
    display: grid;
    grid-template-columns: auto 20px 1fr 70px 90px;
    align-items: center;
    gap: 8px;
    padding: 3px 0;
  }
  .dot {
    width: 18px;
    height: 18px;
    border-radius: 50%;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
  }
</style>
