<script lang="ts">
  import { beforeNavigate, replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { onMount, type Snippet } from 'svelte';
  import type { PatternDetail } from '$lib/contract/data';
  import Button from '../components/Button.svelte';
  import NameField from '../components/NameField.svelte';
  import SaveNote from '../components/SaveNote.svelte';
  import StaleDialog from '../components/StaleDialog.svelte';
  import TopBar from '../components/TopBar.svelte';
  import { may } from '../state/may';
  import { keepUnsaved } from '../state/keeping.svelte';
  import LookOn from '../components/LookOn.svelte';
  import { sameValue } from '$lib/core/num/same';
  import WorkingHere from '../people/WorkingHere.svelte';
  import { sayUses } from '../library/say';
  import { BACK, lastLayout, layoutAddress, type LastLayout } from '../state/last-layout';
  import type { PatternKeeper } from './keeper.svelte';
  import Publishing from './Publishing.svelte';

  /**
   * What every view of a pattern that is worked on has round it: its name and state, saving and publishing, the way back,
   * and the question where somebody else saved first.
   */
  type Props = {
    editor: PatternKeeper;
    /** What the view is called. */
    here: string;
    skip: { label: string; to: string };
    /** There is nothing yet that could be published. */
    empty?: boolean;
    children: Snippet;
  };
  let { editor, here, skip, empty = false, children }: Props = $props();

  let publishing: Publishing | undefined = $state();
  let busy = $state(false);
  /** The layout that one came from to edit this pattern. */
  let cameFrom: LastLayout | null = $state.raw(null);
  const changed = $derived(editor.id === null || editor.differs);
  const status = $derived(
    editor.newest === 0
      ? 'not published yet'
      : `revision ${editor.newest}, ${editor.uses === 0 ? 'not used yet' : sayUses(editor).replace(', ', ' in ')}`,
  );

  $effect(() => {
    const ready = !editor.history.inGesture && editor.problems.length === 0 && !editor.stock;
    if (ready) editor.saver.want(editor.history.doc);
  });
  $effect(() => {
    if (editor.id === null || page.url.pathname !== '/library/new') return;
    replaceState(`/library/${editor.id}/bench`, page.state);
  });
  onMount(() => {
    editor.recallUndo();
    if (page.url.search.includes(BACK)) cameFrom = lastLayout();
    return () => editor.keepUndo();
  });
  // svelte-ignore state_referenced_locally
  // Of a pattern that is there the server knows: proposals of others are not a contributor's to change.
  editor.mayChange = (page.data.mayChange as boolean | undefined) ?? may('contributor');
  // svelte-ignore state_referenced_locally
  keepUnsaved({
    mayChange: () => editor.mayChange,
    ...{ what: () => editor.id && `pattern ${editor.id}`, saver: editor.saver, history: editor.history },
    bring: (base, recipe, version) => {
      const another = !sameValue(base, editor.history.doc);
      editor.history.commit(recipe);
      // A recipe is one piece of work: where another one was saved meanwhile, it is asked which is kept.
      if (another) editor.saver.version = version;
    },
  });
  beforeNavigate(({ willUnload, cancel }) => {
    void editor.saver.flush();
    if (willUnload && !editor.saver.clean) cancel();
  });

  const stale = $derived(editor.saver.state.kind === 'stale' ? editor.saver.state.failure : null);
  const theirs = $derived(stale?.current as PatternDetail | undefined);
  function keepMine(): void {
    const recipe = theirs?.draft ?? theirs?.recipe;
    if (theirs && recipe) editor.saver.rebase(recipe, theirs.version);
  }
  function takeTheirs(): void {
    const recipe = theirs?.draft ?? theirs?.recipe;
    if (!theirs || !recipe) return;
    const { version, newest, hasDraft, name } = theirs;
    editor.history.commit(recipe);
    editor.saver.want(recipe);
    editor.saver.rebase(recipe, version);
    Object.assign(editor, { newest, hasDraft, name });
  }
</script>

<svelte:window onpagehide={() => editor.keepUndo()} />
<svelte:document
  onvisibilitychange={() => document.visibilityState === 'hidden' && void editor.saver.flush()}
/>

<div class="view">
  <TopBar {skip}>
    {#snippet trail()}
      {#if cameFrom}<a href={layoutAddress(cameFrom)}>← {cameFrom.what}</a> ·{/if}
      {#if editor.id === null}{here}{:else}<a href="/library/{editor.id}">{here}</a>{/if} /
      <NameField label="The name of the pattern" value={editor.name} onset={(name) => editor.rename(name)} />
      <span class="status">· {status}</span>
    {/snippet}
    {#snippet actions()}
      {#if !editor.mayChange}<LookOn what="pattern" />
      {:else if editor.stock}
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
      {#if editor.newest > 0 && editor.mayChange}
        <Button onclick={() => publishing?.useIt()}>Use …</Button>
      {/if}
      {#if editor.newest > 0 && may('designer')}
        <Button kind={editor.stock ? 'main' : 'plain'} onclick={() => publishing?.keepAsNew()}
          >Keep as new</Button
        >
      {/if}
      {#if !editor.stock && may('designer')}
        <Button kind="main" disabled={busy || !changed || empty} onclick={() => publishing?.publish()}
          >Publish revision {editor.newest + 1}</Button
        >
      {/if}
      <WorkingHere kind="pattern" id={editor.id} />
    {/snippet}
  </TopBar>
  {@render children()}
</div>

<Publishing bind:this={publishing} {editor} bind:busy back={cameFrom !== null} />
{#if stale}<StaleDialog message={stale.message} onmine={keepMine} ontheirs={takeTheirs} />{/if}

<style>
  .view {
    display: flex;
    flex-direction: column;
    height: 100vh;
    overflow: hidden;
  }
  /* It gives way before the name does. */
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
