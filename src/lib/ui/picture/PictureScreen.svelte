<script lang="ts">
  import { beforeNavigate, replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { onMount } from 'svelte';
  import type { PatternDetail } from '$lib/contract/data';
  import type { PicturedRecipe } from '$lib/core/recipe/recipe';
  import Publishing from '../bench/Publishing.svelte';
  import Button from '../components/Button.svelte';
  import NameField from '../components/NameField.svelte';
  import SaveNote from '../components/SaveNote.svelte';
  import StaleDialog from '../components/StaleDialog.svelte';
  import Switch from '../components/Switch.svelte';
  import TopBar from '../components/TopBar.svelte';
  import ViewTools from '../components/ViewTools.svelte';
  import KeysDialog from '../layout/KeysDialog.svelte';
  import { sayUses } from '../library/say';
  import { BACK, lastLayout, layoutAddress, type LastLayout } from '../state/last-layout';
  import { keyIsTaken } from '../state/undo-keys';
  import { PictureEditor } from './editor.svelte';
  import { PICTURE_KEYS, pictureKey } from './keys';
  import { Maker, unitScale } from './maker.svelte';
  import PhotoStage from './PhotoStage.svelte';
  import RepeatStage from './RepeatStage.svelte';
  import SeamCard from './SeamCard.svelte';
  import StepsPanel from './StepsPanel.svelte';
  import SymmetryTray from './SymmetryTray.svelte';

  /** The view where a repeat is made from a picture: the picture, the repeat, the steps, and the region in each symmetry. */
  type Props = { pattern: PatternDetail | null; fresh: PicturedRecipe };
  let { pattern, fresh }: Props = $props();

  // svelte-ignore state_referenced_locally
  const editor = new PictureEditor(pattern, fresh);
  const maker = new Maker();
  let publishing: Publishing | undefined = $state();
  let busy = $state(false);
  let showKeys = $state(false);
  let across: '2' | '3' | '6' = $state('3');
  let half = $state(false);
  let edges = $state(true);
  let shown = $state(0);
  /** The layout that one came from to edit this pattern. */
  let cameFrom: LastLayout | null = $state.raw(null);

  const recipe = $derived(editor.pictured);
  const { asset } = $derived(recipe.pictured.source);
  const changed = $derived(editor.id === null || editor.differs);
  const status = $derived(
    editor.newest === 0
      ? 'not published yet'
      : `revision ${editor.newest}, ${editor.uses === 0 ? 'not used yet' : sayUses(editor).replace(', ', ' in ')}`,
  );

  $effect(() => {
    void maker.open(asset);
  });
  $effect(() => {
    const { pictured, lay } = recipe;
    if (!maker.ready || shown === 0 || editor.problems.length > 0) return;
    maker.draw({ pictured, lay }, unitScale({ pictured, lay }, shown));
  });
  /** The tray follows the region and its tone, but not the symmetry that is picked in it. */
  const traySteps = $derived(JSON.stringify([recipe.pictured.region, recipe.pictured.tone]));
  $effect(() => {
    if (!maker.ready || editor.problems.length > 0 || traySteps === '') return;
    const { pictured, lay } = editor.pictured;
    const wait = setTimeout(() => maker.drawTray({ pictured, lay }), editor.history.inGesture ? 90 : 0);
    return () => clearTimeout(wait);
  });
  $effect(() => {
    const { pictured, lay, unit } = recipe;
    if (!maker.ready || editor.history.inGesture || editor.problems.length > 0) return;
    const wait = setTimeout(() => maker.judge({ pictured, lay }, unit), 250);
    return () => clearTimeout(wait);
  });
  $effect(() => {
    if (!editor.history.inGesture && editor.problems.length === 0 && !editor.stock)
      editor.saver.want(editor.history.doc);
  });
  $effect(() => {
    if (editor.id === null || page.url.pathname !== '/library/new') return;
    replaceState(`/library/${editor.id}/bench`, page.state);
  });
  onMount(() => {
    editor.recallUndo();
    if (page.url.search.includes(BACK)) cameFrom = lastLayout();
    return () => {
      editor.keepUndo();
      maker.stop();
    };
  });
  beforeNavigate(({ willUnload, cancel }) => {
    void editor.saver.flush();
    if (willUnload && !editor.saver.clean) cancel();
  });
  function onkey(event: KeyboardEvent): void {
    if (keyIsTaken(event) || document.querySelector('dialog[open]')) return;
    const done = pictureKey(event, editor, {
      help: () => (showKeys = true),
      half: () => (half = !half),
      edges: () => (edges = !edges),
    });
    if (done) event.preventDefault();
  }

  const stale = $derived(editor.saver.state.kind === 'stale' ? editor.saver.state.failure : null);
  const theirs = $derived(stale?.current as PatternDetail | undefined);
  function keepMine(): void {
    const other = theirs?.draft ?? theirs?.recipe;
    if (theirs && other) editor.saver.rebase(other, theirs.version);
  }
  function takeTheirs(): void {
    const other = theirs?.draft ?? theirs?.recipe;
    if (!theirs || !other) return;
    const { version, newest, hasDraft, name } = theirs;
    editor.history.commit(other);
    editor.saver.want(other);
    editor.saver.rebase(other, version);
    Object.assign(editor, { newest, hasDraft, name });
  }
</script>

<svelte:window onkeydown={onkey} onpagehide={() => editor.keepUndo()} />
<svelte:document
  onvisibilitychange={() => document.visibilityState === 'hidden' && void editor.saver.flush()}
/>

<div class="view">
  <TopBar skip={{ label: 'To the region', to: '.photo' }}>
    {#snippet trail()}
      {#if cameFrom}<a href={layoutAddress(cameFrom)}>← {cameFrom.what}</a> ·{/if}
      {#if editor.id === null}From a picture{:else}<a href="/library/{editor.id}">From a picture</a>{/if} /
      <NameField label="The name of the pattern" value={editor.name} onset={(name) => editor.rename(name)} />
      <span class="status">· {status}</span>
    {/snippet}
    {#snippet actions()}
      {#if editor.stock}
        <span class="muted">Stock: keep it as new to change it</span>
      {:else if editor.problems[0]}
        <span class="problem" role="alert">{editor.problems[0].message}</span>
      {:else if editor.id !== null}
        <SaveNote
          state={editor.saver.state}
          what={editor.hasDraft ? 'Draft' : ''}
          onretry={() => editor.saver.flush()}
        />
      {/if}
      {#if editor.newest > 0}
        <Button onclick={() => publishing?.useIt()}>Use …</Button>
        <Button kind={editor.stock ? 'main' : 'plain'} onclick={() => publishing?.keepAsNew()}
          >Keep as new</Button
        >
      {/if}
      {#if !editor.stock}
        <Button kind="main" disabled={busy || !changed} onclick={() => publishing?.publish()}
          >Publish revision {editor.newest + 1}</Button
        >
      {/if}
    {/snippet}
  </TopBar>
  <div class="columns">
    <main>
      <h1 class="visually-hidden">From a picture: {editor.name}</h1>
      <div class="stages">
        <div class="stage">
          <PhotoStage {editor} />
          <ViewTools history={editor.history} onkeys={() => (showKeys = true)} />
          {#if maker.fault}<p class="fault" role="alert">{maker.fault}</p>{/if}
        </div>
        <div class="stage">
          <RepeatStage {editor} {maker} across={Number(across)} {half} {edges} bind:shown />
          <div class="shown">
            <Switch
              label="Units across"
              value={across}
              options={[
                { value: '2', label: '2 × 2' },
                { value: '3', label: '3 × 3' },
                { value: '6', label: '6 × 6' },
              ]}
              onset={(value) => (across = value)}
            />
            <button
              type="button"
              aria-pressed={half}
              title="Joins in the middle (H)"
              onclick={() => (half = !half)}>Shifted by half</button
            >
            <button
              type="button"
              aria-pressed={edges}
              title="The edges of the unit (E)"
              onclick={() => (edges = !edges)}>Edges</button
            >
          </div>
          <SeamCard {maker} />
        </div>
      </div>
      <SymmetryTray {editor} {maker} />
    </main>
    <aside aria-label="Steps"><StepsPanel {editor} {maker} /></aside>
  </div>
</div>

<Publishing bind:this={publishing} {editor} bind:busy back={cameFrom !== null} />
{#if showKeys}<KeysDialog keys={PICTURE_KEYS} onclose={() => (showKeys = false)} />{/if}
{#if stale}<StaleDialog message={stale.message} onmine={keepMine} ontheirs={takeTheirs} />{/if}

<style>
  .view {
    display: flex;
    flex-direction: column;
    height: 100vh;
    overflow: hidden;
  }
  .columns {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 252px;
    flex: 1;
    min-height: 0;
  }
  main {
    display: grid;
    grid-template-rows: minmax(0, 1fr) auto;
    min-width: 0;
    min-height: 0;
  }
  .stages {
    display: grid;
    grid-template-columns: minmax(0, 46fr) minmax(0, 54fr);
    min-height: 0;
  }
  .stage {
    position: relative;
    display: grid;
    min-width: 0;
    min-height: 0;
    overflow: hidden;
  }
  .stage + .stage {
    border-left: 1px solid var(--card);
  }
  aside {
    overflow: auto;
    border-left: 1px solid var(--rule);
    background: var(--card);
  }
  .shown {
    position: absolute;
    top: 12px;
    left: 12px;
    display: flex;
    align-items: center;
    gap: 4px;
    padding: 4px 8px;
    border-radius: 8px;
    background: var(--card);
    box-shadow: var(--shadow);
  }
  .shown button {
    min-height: 26px;
    padding: 2px 8px;
    border: 0;
    border-radius: 13px;
    background: none;
    cursor: pointer;
  }
  .shown > [aria-pressed='true'] {
    background: var(--kelp-tint);
    color: var(--kelp-dark);
    font-weight: 600;
  }
  .fault {
    position: absolute;
    inset: auto 12px 12px;
    padding: 8px 12px;
    border-radius: 8px;
    background: var(--amber-tint);
    color: var(--amber);
  }
  .status {
    flex-shrink: 1000;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .problem {
    max-width: 420px;
    color: var(--amber);
    font-weight: 600;
  }
</style>
