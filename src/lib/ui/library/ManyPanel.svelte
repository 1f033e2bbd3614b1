<script lang="ts">
  import { may } from '../state/may';
  import type { LibraryFacets, PatternCredit, PatternKeeping } from '$lib/contract/data';
  import Button from '../components/Button.svelte';
  import { call } from '../state/api';
  import { toasts } from '../state/toasts.svelte';
  import { collectionIds } from './collections';
  import CreditFields from './CreditFields.svelte';
  import { sayPatterns } from './say';
  import TagField from './TagField.svelte';

  /** Many chosen patterns at once: tags, collections, credit, archive, handing out. Each step can be undone whole. */
  type Props = {
    ids: readonly string[];
    facets: LibraryFacets;
    archived: boolean;
    ondone: () => Promise<unknown>;
    onclear: () => void;
    onexport: () => void;
  };
  let { ids, facets, archived, ondone, onclear, onexport }: Props = $props();

  const NO_CREDIT: PatternCredit = { author: '', source: '', licence: '', attribution: false };
  let credit: PatternCredit = $state.raw(NO_CREDIT);
  let tags: string[] = $state.raw([]);
  let collections: string[] = $state.raw([]);
  let busy = $state(false);

  async function edit(change: Record<string, unknown>, said: string): Promise<boolean> {
    const shown = { tags, collections };
    busy = true;
    const edited = await call('POST /patterns/edits', { body: { ids, ...change } });
    busy = false;
    if (!edited.ok) {
      toasts.problem(edited.failure.message);
      return false;
    }
    const { before } = edited.value;
    await ondone();
    toasts.show(`${said} ${sayPatterns(ids.length)}.`, {
      action: {
        label: 'Undo',
        run: async () => {
          if (await putBack(before)) ({ tags, collections } = shown);
        },
      },
    });
    return true;
  }
  async function putBack(patterns: PatternKeeping[]): Promise<boolean> {
    const back = await call('PUT /patterns/edits', { body: { patterns } });
    if (!back.ok) toasts.problem(back.failure.message);
    await ondone();
    return back.ok;
  }
  async function takeOff(tag: string): Promise<void> {
    if (await edit({ removeTags: [tag] }, `Took “${tag}” off`)) tags = tags.filter((one) => one !== tag);
  }
  const sayNames = (names: readonly string[]): string => names.map((name) => `“${name}”`).join(', ');
  async function collect(names: readonly string[]): Promise<void> {
    const ids = await collectionIds(names, facets);
    if (typeof ids === 'string') return toasts.problem(ids);
    if (await edit({ addCollections: ids }, `Put into ${sayNames(names)}:`))
      collections = [...collections, ...names];
  }
  async function uncollect(name: string): Promise<void> {
    const held = facets.collections.find((one) => one.name === name);
    if (held && (await edit({ removeCollections: [held.id] }, `Took out of “${name}”:`)))
      collections = collections.filter((one) => one !== name);
  }
</script>

<div class="panel" aria-busy={busy}>
  <h2>{sayPatterns(ids.length)} chosen</h2>
  <div class="actions">
    {#if may('contributor')}<Button onclick={onexport}>Hand out …</Button>{/if}
    {#if may('designer')}
      <Button
        disabled={busy}
        onclick={() => edit({ archived: !archived }, archived ? 'Restored' : 'Archived')}
        >{archived ? 'Restore' : 'Archive'}</Button
      >
    {/if}
    <Button kind="quiet" onclick={onclear}>Choose none</Button>
  </div>
  {#if may('designer')}
    <section>
      <h3>Add tags to all</h3>
      <TagField
        label="Tags for all"
        values={tags}
        known={facets.tags.map(({ tag }) => tag)}
        disabled={busy}
        onadd={async (added) => {
          if (await edit({ addTags: added }, `Tagged ${sayNames(added)}:`)) tags = [...tags, ...added];
        }}
        onremove={(tag) => void takeOff(tag)}
      />
    </section>
    <section>
      <h3>Take a tag off all</h3>
      <select
        aria-label="Take a tag off all"
        disabled={busy}
        onchange={(event) => {
          const tag = event.currentTarget.value;
          event.currentTarget.value = '';
          if (tag) void takeOff(tag);
        }}
      >
        <option value="">Choose a tag</option>
        {#each facets.tags as { tag } (tag)}<option value={tag}>{tag}</option>{/each}
      </select>
    </section>
    <section>
      <h3>Put all into collections</h3>
      <TagField
        label="Collections for all"
        values={collections}
        known={facets.collections.map(({ name }) => name)}
        disabled={busy}
        onadd={(names) => void collect(names)}
        onremove={(name) => void uncollect(name)}
      />
    </section>
    <section>
      <h3>Give all the same credit</h3>
      <CreditFields {credit} onset={(next) => (credit = next)} />
      <Button disabled={busy || credit === NO_CREDIT} onclick={() => edit({ credit }, 'Credited')}
        >Set this credit</Button
      >
    </section>
  {/if}
</div>

<style>
  .panel,
  section {
    display: grid;
    gap: 8px;
    justify-items: start;
  }
  .panel {
    gap: 18px;
  }
  section :global(.credit) {
    width: 100%;
  }
  h2 {
    font-size: 18px;
  }
  h3 {
    color: var(--muted);
    font-size: var(--small);
    font-weight: 500;
  }
  .actions {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
</style>
