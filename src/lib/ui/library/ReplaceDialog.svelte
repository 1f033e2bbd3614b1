<script lang="ts">
  import { patternFills } from '$lib/core/recipe/layout';
  import { onMount } from 'svelte';
  import type { PatternDetail, PatternSummary, PublishPreview, UseInPlace } from '$lib/contract/data';
  import { replacePattern } from '$lib/core/recipe/recolour';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import Tick from '../components/Tick.svelte';
  import { call } from '../state/api';
  import { toasts } from '../state/toasts.svelte';
  import { listKeys } from '../state/list-keys';
  import { refresh } from '../state/refresh';
  import { PatternFinder } from './pattern-finder.svelte';
  import PatternSearch from './PatternSearch.svelte';
  import { swatchUrl } from './say';
  import { undoBulk } from './undo-bulk';
  import UsePicture from './UsePicture.svelte';

  /** Another pattern in the place of one, in all projects or chosen ones: first a sheet of every use before and after. */
  type Props = { pattern: PatternDetail; preview: PublishPreview; onclose: () => void };
  let { pattern, preview, onclose }: Props = $props();

  let first: PatternSummary[] = $state.raw([]);
  const finder = new PatternFinder(() => first, 30);
  const found = $derived(finder.shown.filter((one) => one.id !== pattern.id));
  let by: PatternDetail | null = $state.raw(null);
  let left: string[] = $state.raw([]);
  let busy = $state(false);
  let problem: string | null = $state(null);

  const projects = $derived([...new Map(preview.uses.map((use) => [use.projectId, use.projectName]))]);
  const chosen = $derived(preview.uses.filter((use) => !left.includes(use.projectId)));
  const MOST = 40;

  onMount(async () => {
    const answer = await call('GET /patterns', { query: { limit: 30 } });
    if (answer.ok) first = answer.value.patterns;
    else problem = answer.failure.message;
  });

  async function take(id: string): Promise<void> {
    const answer = await call('GET /patterns/{id}', { id });
    if (answer.ok) by = answer.value;
    else problem = answer.failure.message;
  }
  const before = (use: UseInPlace) => preview.recipes[use.held ?? preview.newest];
  function after(use: UseInPlace): UseInPlace {
    const [fill] = patternFills(use.shape);
    if (!by?.recipe || !fill) return use;
    const replaced = replacePattern(fill, by.id, before(use)?.slots ?? [], by.recipe.slots);
    return { ...use, held: null, shape: { ...use.shape, fills: [replaced] } };
  }
  async function replace(): Promise<void> {
    if (!by) return;
    busy = true;
    const done = await call('POST /patterns/{id}/replaced', {
      id: pattern.id,
      body: {
        by: by.id,
        ...(left.length > 0
          ? { projects: projects.map(([id]) => id).filter((id) => !left.includes(id)) }
          : {}),
      },
    });
    busy = false;
    if (!done.ok) {
      problem = done.failure.message;
      return;
    }
    onclose();
    await refresh();
    const { id, fills, layouts, summary } = done.value;
    toasts.show(
      `${summary} in ${fills === 1 ? 'one use' : `${fills} uses`}, ${layouts === 1 ? 'one layout' : `${layouts} layouts`}.`,
      { action: { label: 'Undo', run: () => void undoBulk(id) } },
    );
  }
</script>

<Dialog title="Replace “{pattern.name}”" width={860} {onclose}>
  <div class="columns">
    <div class="choose" {@attach listKeys(() => finder.ready)}>
      <PatternSearch {finder} label="Find the pattern to use instead" />
      <ul class="found" data-list>
        {#each found as one (one.id)}
          <li>
            <button type="button" aria-pressed={by?.id === one.id} onclick={() => take(one.id)}>
              <img src={swatchUrl(one, 96, 40, 0.4)} alt="" width="96" height="40" />
              <span>{one.name}</span>
            </button>
          </li>
        {:else}
          <li class="muted">{finder.problem ?? `Nothing matches “${finder.text}”.`}</li>
        {/each}
      </ul>
      {#if projects.length > 1}
        <fieldset>
          <legend class="muted">In</legend>
          {#each projects as [id, name] (id)}
            <Tick
              label={name}
              checked={!left.includes(id)}
              onset={(on) => (left = on ? left.filter((one) => one !== id) : [...left, id])}
            />
          {/each}
        </fieldset>
      {/if}
    </div>
    <div class="sheet">
      {#if by?.recipe}
        <p class="muted">
          Scale, turn, offset, opacity and ground of every use stay. Held uses are replaced too and follow the
          new pattern.
        </p>
        <ul>
          {#each chosen.slice(0, MOST) as use (use.fillId)}
            {@const recipe = before(use)}
            <li>
              {#if recipe}
                <UsePicture
                  {use}
                  {recipe}
                  colourways={preview.colourways}
                  width={104}
                  height={72}
                  label="{use.shape.name} before"
                />
              {/if}
              <span aria-hidden="true">→</span>
              <UsePicture
                use={after(use)}
                recipe={by.recipe}
                colourways={by.colourways}
                width={104}
                height={72}
                label="{use.shape.name} after"
              />
              <span class="what"
                ><strong>{use.shape.name}</strong><span class="muted"
                  >{use.projectName} / {use.layoutName}</span
                ></span
              >
            </li>
          {/each}
        </ul>
        {#if chosen.length > MOST}<p class="muted">And {chosen.length - MOST} more.</p>{/if}
      {:else}
        <p class="muted">Choose a pattern at the left: every use is shown here before and after.</p>
      {/if}
    </div>
  </div>
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#snippet actions()}
    <Button onclick={onclose}>Cancel</Button>
    <Button kind="main" disabled={!by || busy || chosen.length === 0} onclick={replace}
      >{by ? `Replace in ${chosen.length === 1 ? 'one use' : `${chosen.length} uses`}` : 'Replace'}</Button
    >
  {/snippet}
</Dialog>

<style>
  .columns {
    display: grid;
    grid-template-columns: 240px 1fr;
    gap: 20px;
    height: 440px;
  }
  .choose {
    display: flex;
    flex-direction: column;
    gap: 8px;
    min-height: 0;
  }
  .found {
    flex: 1;
    min-height: 0;
    overflow: auto;
  }
  .found button {
    display: flex;
    align-items: center;
    gap: 10px;
    width: 100%;
    padding: 4px;
    border: 0;
    border-radius: 4px;
    background: none;
    text-align: left;
    cursor: pointer;
  }
  .found button:hover {
    background: var(--paper);
  }
  .found [aria-pressed='true'] {
    background: var(--kelp-tint);
    font-weight: 600;
  }
  .found img {
    display: block;
    background: var(--surround);
  }
  fieldset {
    display: grid;
    gap: 3px;
    margin: 0;
    padding: 0;
    border: 0;
  }
  .sheet {
    overflow: auto;
  }
  .sheet li {
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 5px 0;
  }
  .what {
    display: grid;
    min-width: 0;
    font-size: 12.5px;
  }
</style>
