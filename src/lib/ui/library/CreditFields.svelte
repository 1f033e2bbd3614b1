<script lang="ts">
  import type { PatternCredit } from '$lib/contract/data';
  import Tick from '../components/Tick.svelte';
  import { asksForCredit, LICENCE_IDS, readLicence, USUAL_LICENCES } from './licences';

  /** Author, source and licence. A licence is an SPDX identifier from the list, or free text. */
  type Props = { credit: PatternCredit; disabled?: boolean; onset: (credit: PatternCredit) => void };
  let { credit, disabled = false, onset }: Props = $props();
  const id = $props.id();
  const read = $derived(readLicence(credit.licence));
  const name = $derived(USUAL_LICENCES.find((usual) => usual.id === read.licence)?.name);

  function setLicence(text: string): void {
    const { licence } = readLicence(text);
    onset({ ...credit, licence, attribution: credit.attribution || asksForCredit(licence) });
  }
</script>

<div class="credit">
  <label for="{id}-author">Author</label>
  <input
    id="{id}-author"
    value={credit.author}
    maxlength="300"
    {disabled}
    onchange={(event) => onset({ ...credit, author: event.currentTarget.value.trim() })}
  />
  <label for="{id}-source">Source</label>
  <input
    id="{id}-source"
    value={credit.source}
    maxlength="1000"
    placeholder="Where it comes from"
    {disabled}
    onchange={(event) => onset({ ...credit, source: event.currentTarget.value.trim() })}
  />
  <label for="{id}-licence">Licence</label>
  <input
    id="{id}-licence"
    value={credit.licence}
    maxlength="300"
    list="{id}-licences"
    placeholder="CC-BY-4.0, or your own words"
    {disabled}
    onchange={(event) => setLicence(event.currentTarget.value)}
  />
  <datalist id="{id}-licences">
    {#each LICENCE_IDS as licence (licence)}
      <option value={licence}>{USUAL_LICENCES.find((usual) => usual.id === licence)?.name ?? ''}</option>
    {/each}
  </datalist>
  {#if credit.licence !== ''}
    <span></span><span class="muted note">{name ?? (read.known ? 'Known to SPDX' : 'In your own words')}</span
    >
  {/if}
  <span></span>
  <Tick
    label="Attribution required"
    checked={credit.attribution}
    {disabled}
    onset={(attribution) => onset({ ...credit, attribution })}
  />
</div>

<style>
  .credit {
    display: grid;
    grid-template-columns: 64px 1fr;
    gap: 6px 8px;
    align-items: center;
  }
  label {
    color: var(--muted);
    font-size: var(--small);
  }
  input {
    min-width: 0;
    padding: 4px 8px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
  }
  .note {
    font-size: 12px;
  }
</style>
