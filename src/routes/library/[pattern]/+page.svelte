<script lang="ts">
  import Fixed from '$lib/ui/components/Fixed.svelte';
  import { may } from '$lib/ui/state/may';
  import LookOn from '$lib/ui/components/LookOn.svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import Archive from '@lucide/svelte/icons/archive';
  import type { PatternDetail } from '$lib/contract/data';
  import { SIGHTS, type Sight } from '$lib/core/colour/vision';
  import { plainColours } from '$lib/core/colour/tint';
  import type { Point } from '$lib/core/geom/point';
  import { call } from '$lib/ui/state/api';
  import { onLive } from '$lib/ui/state/live';
  import { toasts } from '$lib/ui/state/toasts.svelte';
  import { refresh } from '$lib/ui/state/refresh';
  import Button from '$lib/ui/components/Button.svelte';
  import Fault from '$lib/ui/components/Fault.svelte';
  import LayOn from '$lib/ui/components/LayOn.svelte';
  import NameField from '$lib/ui/components/NameField.svelte';
  import SightChoice from '$lib/ui/components/SightChoice.svelte';
  import { sightFilter } from '$lib/ui/components/SightFilters.svelte';
  import StaleDialog from '$lib/ui/components/StaleDialog.svelte';
  import Switch from '$lib/ui/components/Switch.svelte';
  import TopBar from '$lib/ui/components/TopBar.svelte';
  import { isSurface, SURFACES, surfaceBackground } from '$lib/ui/components/surfaces';
  import Colourways from '$lib/ui/library/Colourways.svelte';
  import DeleteDialog from '$lib/ui/library/DeleteDialog.svelte';
  import HandOutDialog from '$lib/ui/library/HandOutDialog.svelte';
  import InCode from '$lib/ui/library/InCode.svelte';
  import Judging from '$lib/ui/library/Judging.svelte';
  import PatternAbout from '$lib/ui/library/PatternAbout.svelte';
  import PatternPicture from '$lib/ui/library/PatternPicture.svelte';
  import Revisions from '$lib/ui/library/Revisions.svelte';
  import Approval from '$lib/ui/talk/Approval.svelte';
  import TalkAbout from '$lib/ui/talk/TalkAbout.svelte';
  import Uses from '$lib/ui/library/Uses.svelte';
  import { sayPercent } from '$lib/ui/library/say';

  let { data } = $props();
  const pattern = $derived(data.pattern);
  const recipe = $derived(pattern.recipe ?? pattern.draft);
  const TABS = ['about', 'colours', 'uses', 'revisions', 'comments', 'code'] as const;
  const asked = (name: string): string | null => page.url.searchParams.get(name);
  const tab = $derived(TABS.find((one) => one === asked('tab')) ?? 'about');
  const surface = $derived.by(() => {
    const on = asked('on');
    return isSurface(on) ? on : 'mid';
  });
  const sight = $derived<Sight>(SIGHTS.find((one) => one === asked('sight')) ?? 'full');
  const way = $derived(pattern.colourways.find((one) => one.id === asked('colourway')) ?? null);
  const over = $derived(way ? plainColours(way.colours) : {});
  let scale = $state(1);
  let mark: Point | null = $state.raw(null);
  let handing = $state(false);
  let deleting = $state(false);
  let clash: { change: Record<string, unknown>; theirs: PatternDetail; message: string } | null =
    $state.raw(null);

  const ground = $derived.by(() => {
    const found = SURFACES.find((one) => one.id === surface);
    return { name: found?.label.toLowerCase() ?? 'white', colour: found?.colour || '#ffffff' };
  });

  function address(name: string, value: string | null): void {
    const url = new URL(page.url);
    if (value === null) url.searchParams.delete(name);
    else url.searchParams.set(name, value);
    void goto(url, { replaceState: true, keepFocus: true, noScroll: true });
  }

  /** Changes how the pattern is kept; a clash with somebody else's change asks which to keep. */
  async function patch(change: Record<string, unknown>, base = pattern.version): Promise<string | null> {
    const saved = await call('PATCH /patterns/{id}', { id: pattern.id, body: { base, ...change } });
    if (!saved.ok && saved.failure.code === 'stale') {
      const theirs = saved.failure.current as PatternDetail;
      clash = { change, theirs, message: saved.failure.message };
      return null;
    }
    await refresh();
    return saved.ok ? null : saved.failure.message;
  }
  async function keepMine(): Promise<void> {
    if (!clash) return;
    const { change, theirs } = clash;
    clash = null;
    const problem = await patch(change, theirs.version);
    if (problem) toasts.problem(problem);
  }
  async function setArchived(target: PatternDetail, archived: boolean): Promise<void> {
    const saved = await call('PUT /patterns/{id}/archived', { id: target.id, body: { archived } });
    if (!saved.ok) return toasts.problem(saved.failure.message);
    await (archived ? goto('/library') : refresh());
    if (archived)
      toasts.show(`“${target.name}” is in the archive. Its uses stay as they are.`, {
        action: {
          label: 'Undo',
          run: () => void setArchived(target, false).then(() => goto(`/library/${target.id}`)),
        },
      });
    else toasts.show(`“${target.name}” is back in the library.`);
  }
  // A change of one's own is answered at once; what others do is fetched when it is heard of, but never under the hand.
  onLive(['pattern.', 'palette.', 'layout.changed', 'bulk.', 'collection.'], () => {
    if (!(document.activeElement instanceof HTMLInputElement)) void refresh();
  });
</script>

<svelte:head><title>{pattern.name} · Isle</title></svelte:head>

<div class="view">
  <TopBar>
    {#snippet trail()}<a href="/library">Library</a> / <strong dir="auto">{pattern.name}</strong>{/snippet}
    {#snippet actions()}
      {#if pattern.archivedAt === null}
        {#if pattern.newest > 0 && may('contributor')}
          <Button
            href="/library/new?start=picture&of={pattern.id}"
            title="One repeat of it as a picture, to go on with">Open as a picture</Button
          >
          <Button onclick={() => (handing = true)}>Hand out …</Button>
        {/if}
        {#if !pattern.stock && may('designer')}
          <Button onclick={() => setArchived(pattern, true)}><Archive size={15} />Archive</Button>
        {/if}
        {#if may('contributor')}
          <Button kind="main" href="/library/{pattern.id}/bench">Open on the bench</Button>
        {:else}<LookOn what="pattern" />{/if}
      {:else if may('designer')}
        <Button
          disabled={data.usesAnywhere > 0}
          title={data.usesAnywhere > 0 ? 'It is used; replace it there first' : undefined}
          onclick={() => (deleting = true)}>Delete for good …</Button
        >
        <Button kind="main" onclick={() => setArchived(pattern, false)}>Restore</Button>
      {/if}
    {/snippet}
  </TopBar>
  <div class="columns">
    <div class="picture" style:background={surfaceBackground(surface)}>
      <div class="seen" style:filter={sightFilter(sight)}>
        {#if recipe}
          <PatternPicture {recipe} {scale} {over} {mark} label="{pattern.name} at {sayPercent(scale)}" />
        {:else}
          <Fault
            title="This pattern cannot be shown"
            message={pattern.faults.recipe ?? pattern.faults.draft ?? 'It has no recipe.'}
          >
            {#if tab !== 'revisions'}
              <Button onclick={() => address('tab', 'revisions')}>See its revisions</Button>
            {/if}
          </Fault>
        {/if}
      </div>
      <div class="tools">
        <LayOn value={surface} onset={(value) => address('on', value === 'mid' ? null : value)} />
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
        <SightChoice value={sight} onset={(value) => address('sight', value === 'full' ? null : value)} />
      </div>
    </div>
    <main>
      <div>
        <NameField
          size="title"
          label="The name of the pattern"
          value={pattern.name}
          fixed={!may('designer')}
          onset={(name) => patch({ name })}
        />
        <textarea
          aria-label="Description"
          placeholder="Add a description"
          rows="2"
          dir="auto"
          value={pattern.description}
          readonly={pattern.stock || !may('designer')}
          onchange={async (event) => {
            const problem = await patch({ description: event.currentTarget.value });
            if (problem) toasts.problem(problem);
          }}></textarea>
      </div>
      {#if pattern.archivedAt !== null}<p class="flag">
          In the archive. {data.usesAnywhere > 0
            ? 'Its uses still show it; restore it to use it anew.'
            : 'Nothing uses it: it can be restored, or deleted for good.'}
        </p>{/if}
      {#if pattern.stock}<p class="flag">Stock: protected. Keep it as new to change it.</p>{/if}
      {#if pattern.hasDraft}
        <p class="flag">
          {pattern.newest === 0
            ? 'Not published yet.'
            : 'There are changes on the bench that are not published.'}
        </p>
      {/if}
      {#if pattern.newest > 0}
        <div><Approval kind="pattern" id={pattern.id} version={pattern.newest} /></div>
      {/if}
      <div class="tabs">
        <Switch
          label="Show"
          value={tab}
          options={[
            { value: 'about', label: 'About' },
            { value: 'colours', label: 'Colours' },
            { value: 'uses', label: pattern.uses > 0 ? `Uses ${pattern.uses}` : 'Uses' },
            { value: 'revisions', label: 'Revisions' },
            { value: 'comments', label: 'Comments' },
            { value: 'code', label: 'Code' },
          ]}
          onset={(value) => address('tab', value === 'about' ? null : value)}
        />
      </div>
      {#if tab === 'about'}
        <Fixed fixed={!may('designer')}
          ><PatternAbout {pattern} {recipe} facets={data.facets} onpatch={patch} /></Fixed
        >
      {:else if tab === 'colours' && recipe}
        <Colourways
          {pattern}
          {recipe}
          palettes={data.palettes}
          chosen={way?.id ?? null}
          onchoose={(id) => address('colourway', id)}
        />
        <Judging
          {recipe}
          {over}
          palettes={data.palettes}
          {scale}
          surface={ground}
          onmark={(place) => (mark = place)}
        />
      {:else if tab === 'uses'}
        <Uses {pattern} />
      {:else if tab === 'revisions'}
        {#if pattern.revisions.length > 0}<Revisions {pattern} />{:else}<p class="muted">
            Not published yet.
          </p>{/if}
      {:else if tab === 'comments'}
        {#key pattern.id}<TalkAbout kind="pattern" id={pattern.id} />{/key}
      {:else if tab === 'code'}
        <InCode {pattern} />
      {/if}
    </main>
  </div>
</div>

{#if handing}<HandOutDialog ids={[pattern.id]} onclose={() => (handing = false)} />{/if}
{#if deleting}<DeleteDialog {pattern} onclose={() => (deleting = false)} />{/if}
{#if clash}
  <StaleDialog
    message={clash.message}
    undoes={false}
    onmine={keepMine}
    ontheirs={() => {
      clash = null;
      void refresh();
    }}
  />
{/if}

<style>
  .tabs :global(.switch) {
    flex-wrap: wrap;
  }
  .tabs :global(button) {
    padding-inline: 8px;
    white-space: nowrap;
  }
  .view {
    display: flex;
    flex-direction: column;
    height: 100vh;
  }
  .columns {
    display: grid;
    grid-template-columns: 1fr 388px;
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
  .flag {
    padding: 8px 10px;
    border-radius: var(--radius);
    background: var(--amber-tint);
    color: #5f3d00;
  }
  .seen {
    position: absolute;
    inset: 0;
    display: grid;
  }
  @media (max-width: 899px) {
    .columns {
      grid-template-columns: 1fr;
      overflow: auto;
    }
  }
</style>
