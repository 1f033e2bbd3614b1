<script lang="ts">
  import { goto, invalidateAll } from '$app/navigation';
  import Archive from '@lucide/svelte/icons/archive';
  import type { PatternDetail } from '$lib/contract/data';
  import { groundSlots } from '$lib/core/recipe/recipe';
  import { call } from '$lib/ui/state/api';
  import { toasts } from '$lib/ui/state/toasts.svelte';
  import Button from '$lib/ui/components/Button.svelte';
  import LayOn from '$lib/ui/components/LayOn.svelte';
  import NameField from '$lib/ui/components/NameField.svelte';
  import TopBar from '$lib/ui/components/TopBar.svelte';
  import { surfaceBackground, type Surface } from '$lib/ui/components/surfaces';
  import PatternPicture from '$lib/ui/library/PatternPicture.svelte';
  import Revisions from '$lib/ui/library/Revisions.svelte';
  import { sayPercent, sayRepeat, sayUnit, sayUses } from '$lib/ui/library/say';

  let { data } = $props();
  const pattern = $derived(data.pattern);
  const recipe = $derived(pattern.recipe ?? pattern.draft);
  const facts = $derived(pattern.facts);
  let surface: Surface = $state('mid');
  let scale = $state(1);

  async function patch(change: { name?: string; description?: string }): Promise<string | null> {
    const saved = await call('PATCH', `/patterns/${pattern.id}`, { base: pattern.version, ...change });
    await invalidateAll();
    return saved.ok ? null : saved.failure.message;
  }

  async function setArchived(target: PatternDetail, archived: boolean): Promise<void> {
    const saved = await call('PUT', `/patterns/${target.id}/archived`, { archived });
    if (!saved.ok) return toasts.problem(saved.failure.message);
    await (archived ? goto('/library') : invalidateAll());
    if (archived)
      toasts.show(`“${target.name}” is in the archive. Its uses stay as they are.`, {
        action: {
          label: 'Undo',
          run: () => void setArchived(target, false).then(() => goto(`/library/${target.id}`)),
        },
      });
    else toasts.show(`“${target.name}” is back in the library.`);
  }
</script>

<svelte:head><title>{pattern.name} · Isle</title></svelte:head>

<div class="view">
  <TopBar>
    {#snippet trail()}<a href="/library">Library</a> / <strong>{pattern.name}</strong>{/snippet}
    {#snippet actions()}
      {#if pattern.archivedAt === null}
        {#if !pattern.stock}
          <Button onclick={() => setArchived(pattern, true)}><Archive size={15} />Archive</Button>
        {/if}
        <Button kind="main" href="/library/{pattern.id}/bench">Open on the bench</Button>
      {:else}
        <Button kind="main" onclick={() => setArchived(pattern, false)}>Restore</Button>
      {/if}
    {/snippet}
  </TopBar>
  <div class="columns">
    <div class="picture" style:background={surfaceBackground(surface)}>
      {#if recipe}<PatternPicture {recipe} {scale} label="{pattern.name} at {sayPercent(scale)}" />{/if}
      <div class="tools">
        <LayOn value={surface} onset={(value) => (surface = value)} />
        <label class="scale"
          >Scale
          <input
            type="range"
            min="-2"
            max="2"
            step="0.25"
            value={Math.log2(scale)}
            aria-valuetext={sayPercent(scale)}
            oninput={(event) => (scale = 2 ** Number(event.currentTarget.value))}
          />
          <span class="mono">{sayPercent(scale)}</span></label
        >
      </div>
    </div>
    <main>
      <div>
        <NameField
          size="title"
          label="The name of the pattern"
          value={pattern.name}
          onset={(name) => patch({ name })}
        />
        <textarea
          aria-label="Description"
          placeholder="Add a description"
          rows="2"
          value={pattern.description}
          onchange={async (event) => {
            const problem = await patch({ description: event.currentTarget.value });
            if (problem) toasts.problem(problem);
          }}></textarea>
      </div>
      {#if pattern.archivedAt !== null}<p class="flag">
          In the archive. Its uses still show it; restore it to use it anew.
        </p>{/if}
      {#if pattern.stock}<p class="flag">Stock: protected. Keep it as new to change it.</p>{/if}
      {#if pattern.hasDraft}
        <p class="flag">
          {pattern.newest === 0
            ? 'Not published yet.'
            : 'There are changes on the bench that are not published.'}
        </p>
      {/if}
      {#if recipe}
        <section aria-labelledby="colours">
          <h2 id="colours">Colours</h2>
          <ul class="colours">
            {#each recipe.slots as slot (slot.id)}
              <li>
                <span class="dot" style:background={slot.colour}></span>{slot.name}
                <span class="mono muted">{slot.colour}</span>
                {#if groundSlots(recipe.ground).includes(slot.id)}<span class="muted">ground</span>{/if}
              </li>
            {/each}
          </ul>
        </section>
      {/if}
      {#if facts}
        <section aria-labelledby="facts">
          <h2 id="facts">Facts</h2>
          <dl>
            <dt>Repeat</dt>
            <dd>{sayRepeat(facts.repeat)}</dd>
            <dt>Unit</dt>
            <dd class="mono">{sayUnit(facts)}</dd>
            <dt>Ground</dt>
            <dd>{facts.clear ? 'Clear' : 'Own colour'}</dd>
            <dt>Revision</dt>
            <dd class="mono">{pattern.newest}</dd>
          </dl>
        </section>
      {/if}
      {#if pattern.revisions.length > 1}<Revisions {pattern} />{/if}
      <section aria-labelledby="uses">
        <h2 id="uses">Where it is used</h2>
        {#if pattern.usedIn.length === 0}
          <p class="muted">Nowhere yet. Open a layout and choose it from the hangers to fill a shape.</p>
        {:else}
          <p class="muted">{sayUses(pattern)}</p>
          <ul class="uses">
            {#each pattern.usedIn as use (use.fillId)}
              <li>
                <a href="/projects/{use.projectId}/layouts/{use.layoutId}?shape={use.shapeId}">
                  <span
                    ><strong>{use.shapeName}</strong><br /><span class="muted"
                      >{use.projectName} / {use.layoutName}</span
                    ></span
                  >
                  <span class="mono"
                    >{sayPercent(use.scaleX)}{#if use.rotation !== 0}<br />{Number(
                        use.rotation.toFixed(1),
                      )}°{/if}{#if use.held}<br />held at {use.held}{/if}</span
                  >
                </a>
              </li>
            {/each}
          </ul>
        {/if}
      </section>
    </main>
  </div>
</div>

<style>
  .view {
    display: flex;
    flex-direction: column;
    height: 100vh;
  }
  .columns {
    display: grid;
    grid-template-columns: 1fr 340px;
    flex: 1;
    min-height: 0;
  }
  .picture {
    position: relative;
    min-height: 320px;
  }
  .tools {
    position: absolute;
    bottom: 16px;
    left: 16px;
    display: flex;
    gap: 20px;
    align-items: center;
    padding: 8px 12px;
    border-radius: 8px;
    background: var(--card);
    box-shadow: var(--shadow);
  }
  .scale {
    display: inline-flex;
    align-items: center;
    gap: 8px;
  }
  .scale input {
    width: 120px;
    accent-color: var(--kelp);
  }
  .scale .mono {
    min-width: 48px;
  }
  main {
    display: flex;
    flex-direction: column;
    gap: 18px;
    overflow: auto;
    padding: 20px 18px;
    border-left: 1px solid var(--rule);
    background: var(--card);
  }
  textarea {
    width: 100%;
    margin: 4px 0 0 -5px;
    padding: 3px 4px;
    border: 1px solid transparent;
    border-radius: 4px;
    background: none;
    color: var(--muted);
    resize: none;
    field-sizing: content;
  }
  textarea:hover,
  textarea:focus {
    border-color: var(--rule);
  }
  section {
    display: grid;
    gap: 8px;
  }
  .flag {
    padding: 8px 10px;
    border-radius: var(--radius);
    background: var(--amber-tint);
    color: #5f3d00;
  }
  ul {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  .colours li {
    display: flex;
    align-items: center;
    gap: 8px;
    padding: 3px 0;
  }
  .colours .muted:last-child {
    margin-left: auto;
  }
  .dot {
    width: 20px;
    height: 20px;
    border-radius: 50%;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
  }
  dl {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 5px 12px;
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
  .uses a {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    padding: 7px 0;
    border-bottom: 1px solid var(--rule);
    color: inherit;
    text-decoration: none;
  }
  .uses a:hover strong {
    color: var(--kelp);
  }
  .uses .mono {
    text-align: right;
    white-space: nowrap;
  }
  @media (max-width: 900px) {
    .columns {
      grid-template-columns: 1fr;
      overflow: auto;
    }
  }
</style>
