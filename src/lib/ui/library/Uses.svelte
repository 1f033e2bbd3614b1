<script lang="ts">
  import { may } from '../state/may';
  import { patternFills } from '$lib/core/recipe/layout';
  import type { BulkChange, PatternDetail, PublishPreview, UseInPlace } from '$lib/contract/data';
  import Button from '../components/Button.svelte';
  import { call } from '../state/api';
  import { toasts } from '../state/toasts.svelte';
  import { refresh } from '../state/refresh';
  import ReplaceDialog from './ReplaceDialog.svelte';
  import { sayDate, sayPercent, sayUses } from './say';
  import { undoBulk } from './undo-bulk';
  import UsePicture from './UsePicture.svelte';

  /** Where a pattern is used, each use drawn as it is; uses are held and released here, or filled with another pattern. */
  type Props = { pattern: PatternDetail };
  let { pattern }: Props = $props();

  let found = $state.raw<PublishPreview | null>(null);
  let changes: BulkChange[] = $state.raw([]);
  let replacing = $state(false);
  let shown = $state(24);

  $effect(() => {
    // Asked again whenever the pattern was changed or is used otherwise.
    const key = [pattern.id, pattern.version, pattern.uses, pattern.newest].join();
    void call('GET /patterns/{id}/uses', { id: pattern.id }).then((answer) => {
      if (key === [pattern.id, pattern.version, pattern.uses, pattern.newest].join() && answer.ok)
        found = answer.value;
    });
    void call('GET /changes', { query: { pattern: pattern.id } }).then((answer) => {
      if (answer.ok) changes = answer.value;
    });
  });
  const uses = $derived(found?.uses ?? []);
  const held = $derived(uses.filter((use) => use.held !== null));

  async function hold(fills: string[], isHeld: boolean): Promise<void> {
    const done = await call('PUT /patterns/{id}/uses', {
      id: pattern.id,
      body: {
        fills,
        held: isHeld,
      },
    });
    if (!done.ok) return toasts.problem(done.failure.message);
    const answer = await call('GET /patterns/{id}/uses', { id: pattern.id });
    if (answer.ok) found = answer.value;
    const count = done.value.fills === 1 ? 'One use' : `${done.value.fills} uses`;
    toasts.show(
      isHeld
        ? `${count} held at revision ${pattern.newest}.`
        : `${count} following the newest revision again.`,
      { action: { label: 'Undo', run: () => void hold(fills, !isHeld) } },
    );
    await refresh();
  }
  const fillOf = (use: UseInPlace) => patternFills(use.shape)[0] ?? null;
  const recipeOf = (use: UseInPlace) => found?.recipes[use.held ?? found.newest];
</script>

<section aria-labelledby="uses">
  <header>
    <h2 id="uses">Where it is used</h2>
    {#if uses.length > 0 && may('designer')}
      <Button kind="quiet" onclick={() => (replacing = true)}>Replace everywhere …</Button>
    {/if}
  </header>
  {#if pattern.uses === 0}
    <p class="muted">Nowhere yet. Open a layout and choose it from the hangers to fill a shape.</p>
  {:else}
    <p class="muted">
      {sayUses(pattern)}{held.length > 0 ? `, ${held.length} held` : ''}
    </p>
    <ul>
      {#each uses.slice(0, shown) as use (use.fillId)}
        {@const fill = fillOf(use)}
        {@const recipe = recipeOf(use)}
        <li>
          <a href="/projects/{use.projectId}/layouts/{use.layoutId}?shape={use.shape.id}">
            {#if recipe}
              <UsePicture
                {use}
                {recipe}
                colourways={found?.colourways ?? []}
                width={92}
                height={62}
                label="{use.shape.name} as it is"
              />
            {/if}
            <span class="what"
              ><strong dir="auto">{use.shape.name}</strong><span class="muted"
                >{use.projectName} / {use.layoutName}</span
              ><span class="mono"
                >{fill ? sayPercent(fill.scaleX) : ''}{#if fill && fill.rotation !== 0}, {Number(
                    fill.rotation.toFixed(1),
                  )}°{/if}{#if use.held !== null}, held at {use.held}{/if}</span
              ></span
            >
          </a>
          {#if may('designer')}<Button
              kind="quiet"
              label={use.held === null ? `Hold ${use.shape.name}` : `Release ${use.shape.name}`}
              title={use.held === null
                ? `Hold at revision ${pattern.newest}`
                : 'Follow the newest revision again'}
              onclick={() => hold([use.fillId], use.held === null)}
              >{use.held === null ? 'Hold' : 'Release'}</Button
            >{/if}
        </li>
      {/each}
    </ul>
    {#if uses.length > shown}
      <Button kind="quiet" onclick={() => (shown += 48)}>Show more of {uses.length}</Button>
    {/if}
    {#if held.length > 1 && may('designer')}
      <Button
        kind="quiet"
        onclick={() =>
          hold(
            held.map((use) => use.fillId),
            false,
          )}>Release all {held.length}</Button
      >
    {/if}
  {/if}
</section>

{#if changes.length > 0}
  <section aria-labelledby="undoable">
    <h2 id="undoable">Can be undone</h2>
    <ul>
      {#each changes as change (change.id)}
        <li>
          <span class="what"
            ><span>{change.summary}</span><span class="muted"
              >{change.fills === 1 ? 'one use' : `${change.fills} uses`}, {sayDate(change.createdAt)}</span
            ></span
          >
          {#if may('designer')}<Button
              kind="quiet"
              label="Undo: {change.summary}"
              onclick={() => undoBulk(change.id)}>Undo</Button
            >{/if}
        </li>
      {/each}
    </ul>
  </section>
{/if}

{#if replacing && found}
  <ReplaceDialog {pattern} preview={found} onclose={() => (replacing = false)} />
{/if}

<style>
  section {
    display: grid;
    gap: 8px;
    justify-items: start;
  }
  header {
    display: flex;
    justify-content: space-between;
    width: 100%;
  }
  ul {
    width: 100%;
  }
  li {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 6px;
    border-bottom: 1px solid var(--rule);
  }
  a {
    display: flex;
    flex: 1;
    gap: 10px;
    min-width: 0;
    padding: 7px 0;
    color: inherit;
    text-decoration: none;
  }
  a:hover strong {
    color: var(--kelp);
  }
  .what {
    display: grid;
    align-content: center;
    min-width: 0;
    font-size: 12.5px;
  }
  .what > * {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
</style>
