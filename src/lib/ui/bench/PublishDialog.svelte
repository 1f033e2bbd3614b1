<script lang="ts">
  import type { PublishPreview, UseInPlace } from '$lib/contract/data';
  import type { Recipe } from '$lib/core/recipe/recipe';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import UsePicture from '../library/UsePicture.svelte';

  /** What publishing will change: every use by project, before and after; chosen ones can be held where they are. */
  type Props = {
    preview: PublishPreview;
    draft: Recipe;
    busy: boolean;
    onpublish: (hold: string[]) => void;
    onclose: () => void;
  };
  let { preview, draft, busy, onpublish, onclose }: Props = $props();

  let held: string[] = $state([]);
  const following = $derived(preview.uses.filter((use) => use.held === null));
  const still = $derived(preview.uses.length - following.length);
  const before = $derived(preview.recipes[preview.newest]);
  const projects = $derived.by(() => {
    const byId = new Map<string, { name: string; uses: UseInPlace[] }>();
    for (const use of following) {
      const held = byId.get(use.projectId) ?? { name: use.projectName, uses: [] };
      held.uses.push(use);
      byId.set(use.projectId, held);
    }
    return [...byId.entries()];
  });
  const changing = $derived(following.length - held.length);

  function toggleAll(uses: readonly UseInPlace[]): void {
    const ids = uses.map((use) => use.fillId);
    const all = ids.every((id) => held.includes(id));
    held = all ? held.filter((id) => !ids.includes(id)) : [...new Set([...held, ...ids])];
  }
</script>

<Dialog title="Publish revision {preview.newest + 1}" width={720} {onclose}>
  <p>
    {changing === 1 ? '1 use changes' : `${changing} uses change`}{held.length > 0
      ? `, ${held.length} stay${held.length === 1 ? 's' : ''} at revision ${preview.newest}`
      : ''}.
    {#if still > 0}<span class="muted"
        >{still === 1 ? '1 more is' : `${still} more are`} held at an older revision already.</span
      >{/if}
  </p>
  <div class="list">
    {#each projects as [id, { name, uses }] (id)}
      <section>
        <header>
          <h3>{name}</h3>
          <button type="button" onclick={() => toggleAll(uses)}
            >{uses.every((use) => held.includes(use.fillId)) ? 'Let all follow' : 'Hold all'}</button
          >
        </header>
        <ul>
          {#each uses as use (use.fillId)}
            <li class:held={held.includes(use.fillId)}>
              {#if before}
                <UsePicture
                  {use}
                  recipe={before}
                  colourways={preview.colourways}
                  width={104}
                  height={72}
                  label="{use.shape.name} before"
                />
              {/if}
              <span class="arrow" aria-hidden="true">→</span>
              <UsePicture
                {use}
                colourways={preview.colourways}
                recipe={held.includes(use.fillId) && before ? before : draft}
                width={104}
                height={72}
                label="{use.shape.name} after"
              />
              <span class="what"
                ><strong>{use.shape.name}</strong><br /><span class="muted">{use.layoutName}</span></span
              >
              <label
                ><input type="checkbox" value={use.fillId} bind:group={held} /> Hold at {preview.newest}</label
              >
            </li>
          {/each}
        </ul>
      </section>
    {/each}
  </div>
  {#snippet actions()}
    <Button onclick={onclose}>Not yet</Button>
    <Button kind="main" disabled={busy} onclick={() => onpublish([...held])}
      >Publish revision {preview.newest + 1}</Button
    >
  {/snippet}
</Dialog>

<style>
  .list {
    max-height: 52vh;
    margin: 0 -8px;
    padding: 0 8px;
    overflow: auto;
  }
  header {
    position: sticky;
    top: 0;
    display: flex;
    justify-content: space-between;
    padding: 4px 0;
    border-bottom: 1px solid var(--rule);
    background: var(--card);
  }
  h3 {
    margin: 0;
    font-size: 13px;
    font-weight: 650;
  }
  header button {
    border: 0;
    background: none;
    color: var(--kelp);
    font-weight: 600;
    cursor: pointer;
  }
  li {
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 8px 0;
    border-bottom: 1px solid var(--rule);
  }
  .held {
    background: var(--paper);
  }
  .arrow {
    color: var(--muted);
  }
  .what {
    flex: 1;
    min-width: 0;
  }
  label {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    white-space: nowrap;
  }
  input {
    accent-color: var(--kelp);
  }
</style>
