<script lang="ts">
  import type { LibraryFacets, PatternDetail } from '$lib/contract/data';
  import { groundSlots, type Recipe } from '$lib/core/recipe/recipe';
  import { toasts } from '../state/toasts.svelte';
  import { refresh } from '../state/refresh';
  import { collectionIds } from './collections';
  import CreditFields from './CreditFields.svelte';
  import { KIND_NAMES, sayDate, sayRepeat, sayUnit } from './say';
  import TagField from './TagField.svelte';

  /** How a pattern is kept, and its facts. */
  type Props = {
    pattern: PatternDetail;
    recipe: Recipe | null;
    facets: LibraryFacets;
    onpatch: (change: Record<string, unknown>) => Promise<string | null>;
  };
  let { pattern, recipe, facets, onpatch }: Props = $props();
  const facts = $derived(pattern.facts);

  async function patch(change: Record<string, unknown>): Promise<void> {
    const problem = await onpatch(change);
    if (problem) toasts.problem(problem);
  }
  async function collect(names: readonly string[]): Promise<void> {
    const ids = await collectionIds(names, facets);
    if (typeof ids === 'string') return toasts.problem(ids);
    await patch({ collections: ids });
    await refresh();
  }
</script>

<section aria-labelledby="tags">
  <h2 id="tags">Tags</h2>
  <TagField
    label="Tags"
    values={pattern.tags}
    known={facets.tags.map(({ tag }) => tag)}
    onadd={(tags) => void patch({ tags: [...pattern.tags, ...tags] })}
    onremove={(tag) => void patch({ tags: pattern.tags.filter((one) => one !== tag) })}
  />
</section>
<section aria-labelledby="collections">
  <h2 id="collections">Collections</h2>
  <TagField
    label="Collections"
    values={pattern.collections}
    known={facets.collections.map(({ name }) => name)}
    onadd={(names) => void collect([...pattern.collections, ...names])}
    onremove={(name) => void collect(pattern.collections.filter((one) => one !== name))}
  />
</section>
{#if facts}
  <section aria-labelledby="facts">
    <h2 id="facts">Facts</h2>
    <dl>
      <dt>Kind</dt>
      <dd>{KIND_NAMES[pattern.kind]}</dd>
      <dt>Repeat</dt>
      <dd>{sayRepeat(facts.repeat)}</dd>
      <dt>Unit</dt>
      <dd class="mono">{sayUnit(facts)}</dd>
      <dt>Ground</dt>
      <dd>{facts.clear ? 'Clear' : 'Own colour'}</dd>
      <dt>Revision</dt>
      <dd class="mono">{pattern.newest}</dd>
      <dt>Made</dt>
      <dd>{sayDate(pattern.createdAt)}</dd>
      {#if pattern.lastUsedAt !== null}
        <dt>Last used</dt>
        <dd>{sayDate(pattern.lastUsedAt)}</dd>
      {/if}
    </dl>
  </section>
{/if}
{#if recipe}
  <section aria-labelledby="slots">
    <h2 id="slots">Colours</h2>
    <ul>
      {#each recipe.slots as slot (slot.id)}
        <li>
          <span class="dot" style:background={slot.colour}></span><span dir="auto">{slot.name}</span>
          {#if groundSlots(recipe.ground).includes(slot.id)}<span class="muted">ground</span>{/if}
          <span class="mono muted">{slot.colour}</span>
        </li>
      {/each}
    </ul>
  </section>
{/if}
<section aria-labelledby="credit">
  <h2 id="credit">Credit</h2>
  <CreditFields credit={pattern.credit} disabled={pattern.stock} onset={(credit) => void patch({ credit })} />
</section>

<style>
  section {
    display: grid;
    gap: 8px;
  }
  dl {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 4px 12px;
    margin: 0;
  }
  dt {
    color: var(--muted);
  }
  dd {
    margin: 0;
    font-weight: 600;
    text-align: right;
  }
  li {
    display: flex;
    align-items: center;
    gap: 8px;
    padding: 2px 0;
  }
  .mono {
    margin-left: auto;
  }
  .dot {
    width: 18px;
    height: 18px;
    border-radius: 50%;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
  }
</style>
