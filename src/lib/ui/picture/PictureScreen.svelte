<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import type { PaletteData, PatternDetail } from '$lib/contract/data';
  import type { PicturedRecipe } from '$lib/core/recipe/recipe';
  import PatternFrame from '../bench/PatternFrame.svelte';
  import Button from '../components/Button.svelte';
  import Switch from '../components/Switch.svelte';
  import ViewTools from '../components/ViewTools.svelte';
  import KeysDialog from '../layout/KeysDialog.svelte';
  import { keyIsTaken } from '../state/undo-keys';
  import { PictureEditor } from './editor.svelte';
  import { PICTURE_KEYS, pictureKey } from './keys';
  import { DISTANCES } from '../state/distances';
  import { Maker, unitScale } from './maker.svelte';
  import PhotoStage from './PhotoStage.svelte';
  import RepeatStage from './RepeatStage.svelte';
  import { proposalsFor } from './proposals';
  import SeamCard from './SeamCard.svelte';
  import { Retoucher } from './retoucher.svelte';
  import StepsPanel from './StepsPanel.svelte';
  import SymmetryTray from './SymmetryTray.svelte';

  /** The view where a repeat is made from a picture: the picture, the repeat, the steps, and the region in each symmetry. */
  type Props = { pattern: PatternDetail | null; fresh: PicturedRecipe; palettes: PaletteData[] };
  let { pattern, fresh, palettes }: Props = $props();

  // svelte-ignore state_referenced_locally
  const editor = new PictureEditor(pattern, fresh);
  const maker = new Maker();
  const retoucher = new Retoucher(editor, maker);
  let showKeys = $state(false);
  let across: '1' | '2' | '3' | '6' | 'far' = $state('3');
  /** From which of the distances it is looked at and judged. */
  let from = $state(1);
  let half = $state(false);
  let edges = $state(true);
  let shown = $state(0);

  const recipe = $derived(editor.pictured);
  const { asset } = $derived(recipe.pictured.source);
  /** Whether there is something to make, of the very picture that the steps begin with. */
  const ready = $derived(maker.held === asset && editor.problems.length === 0);

  // Another texture is another asset.
  $effect(() => {
    if (asset !== '') untrack(() => maker.open(recipe.pictured.source));
  });
  $effect(() => {
    const { pictured, lay } = recipe;
    const { slotColours: colours } = editor;
    if (!ready || shown === 0) return;
    maker.draw({ pictured, lay, colours }, unitScale({ pictured, lay }, shown));
  });
  /** The tray follows the region and its tone, but not the symmetry that is picked in it. */
  const traySteps = $derived(
    JSON.stringify([
      recipe.pictured.region,
      recipe.pictured.tone,
      recipe.pictured.symmetry.heal,
      recipe.pictured.few,
      editor.slotColours,
    ]),
  );
  $effect(() => {
    if (!ready || traySteps === '') return;
    const { pictured, lay } = editor.pictured;
    const { slotColours: colours } = editor;
    const wait = setTimeout(
      () => maker.drawTray({ pictured, lay, colours }),
      editor.history.inGesture ? 90 : 0,
    );
    return () => clearTimeout(wait);
  });
  /** All that the joins depend on. */
  const judgedSteps = $derived(
    JSON.stringify([recipe.pictured, recipe.lay, recipe.unit, editor.slotColours]),
  );
  $effect(() => {
    const of = judgedSteps;
    if (!ready || editor.history.inGesture) return;
    const { pictured, lay, unit } = editor.pictured;
    const { slotColours: colours } = editor;
    const wait = setTimeout(() => {
      maker.judge({ pictured, lay, colours }, unit, of);
      maker.compare({ pictured, lay, colours });
    }, 250);
    return () => clearTimeout(wait);
  });
  /** Where the unit is found, what would make it harder to find is worked out. */
  const found = $derived(maker.judgedOf === judgedSteps && maker.judged?.repeat[from]?.word !== 'none');
  $effect(() => {
    const of = judgedSteps;
    if (!ready || !found || editor.history.inGesture) return;
    untrack(() => {
      if (maker.proposed.of !== of) maker.propose(proposalsFor(editor.pictured), editor.slotColours, of);
    });
  });
  // Where one paints, the joins lie in the middle.
  $effect(() => {
    if (retoucher.does) untrack(() => (half = true));
  });
  onMount(() => () => maker.stop());
  function giveUp(): void {
    editor.history.undo();
    maker.restart(editor.pictured.pictured.source);
  }
  function onkey(event: KeyboardEvent): void {
    if (keyIsTaken(event) || document.querySelector('dialog[open]')) return;
    const done = pictureKey(event, editor, {
      help: () => (showKeys = true),
      half: () => (half = !half),
      edges: () => (edges = !edges),
    });
    if (done) event.preventDefault();
  }
</script>

<svelte:window onkeydown={onkey} />

{#snippet making(what: string)}
  <p class="making" role="status">
    Making the {what} …
    {#if editor.history.canUndo}
      <Button kind="quiet" onclick={giveUp}>Stop, and take the change back</Button>
    {/if}
  </p>
{/snippet}

<PatternFrame {editor} here="From a picture" skip={{ label: 'To the region', to: '.photo' }}>
  <div class="columns">
    <main>
      <h1 class="visually-hidden">From a picture: {editor.name}</h1>
      <div class="stages">
        <div class="stage">
          <PhotoStage {editor} texture={maker.texture} />
          {#if recipe.pictured.source.texture && maker.held !== asset && !maker.fault}
            {@render making('texture')}
          {/if}
          <ViewTools history={editor.history} onkeys={() => (showKeys = true)} />
          {#if maker.fault}<p class="fault" role="alert">{maker.fault}</p>{/if}
        </div>
        <div class="stage">
          {#if maker.making}{@render making('repeat')}{/if}
          <RepeatStage
            {editor}
            {maker}
            across={across === 'far' ? null : Number(across)}
            distance={DISTANCES[from]!}
            blob={maker.judged?.repeat[from]?.blob ?? null}
            {half}
            {edges}
            bind:shown
            {retoucher}
          />
          <div class="shown">
            <Switch
              label="Units across"
              value={across}
              options={[
                { value: '1', label: '1 × 1' },
                { value: '2', label: '2 × 2' },
                { value: '3', label: '3 × 3' },
                { value: '6', label: '6 × 6' },
                { value: 'far', label: `from ${DISTANCES[from]!.metres} m` },
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
          <SeamCard
            {maker}
            measuring={editor.problems.length === 0 && maker.judgedOf !== judgedSteps}
            small={retoucher.does !== null}
            offers={maker.proposed.of === judgedSteps ? maker.proposed.offers : null}
            onpick={(next) => editor.change(() => next)}
            bind:from
          />
        </div>
      </div>
      <SymmetryTray {editor} {maker} />
    </main>
    <aside aria-label="Steps"><StepsPanel {editor} {maker} {palettes} {retoucher} /></aside>
  </div>
</PatternFrame>

{#if showKeys}<KeysDialog keys={PICTURE_KEYS} onclose={() => (showKeys = false)} />{/if}

<style>
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
  .making {
    position: absolute;
    z-index: 1;
    bottom: 12px;
    left: 12px;
    display: flex;
    align-items: center;
    gap: 8px;
    padding: 6px 10px;
    border-radius: 8px;
    background: var(--card);
    box-shadow: var(--shadow);
  }
  .fault {
    position: absolute;
    inset: auto 12px 12px;
    padding: 8px 12px;
    border-radius: 8px;
    background: var(--amber-tint);
    color: var(--amber);
  }
</style>
