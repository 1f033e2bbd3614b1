<script lang="ts">
  import { onDestroy } from 'svelte';
  import type { PatternFill } from '$lib/core/recipe/fill';
  import type { MeasuredRecipe } from '$lib/core/recipe/recipe';
  import MeasuredPanel from '../bench/MeasuredPanel.svelte';
  import Popover from '../components/Popover.svelte';
  import type { LayoutEditor } from './editor.svelte';

  /** The numbers of a measured pattern, changed where it is used; leaving them asks what becomes of them. */
  type Props = { editor: LayoutEditor; fill: PatternFill; recipe: MeasuredRecipe };
  let { editor, fill, recipe }: Props = $props();

  // svelte-ignore state_referenced_locally
  const { trial } = editor;
  const shown = $derived(trial.recipeOf(fill.pattern) ?? recipe);
  const settled = $derived(trial.settledOf(fill.pattern) ?? recipe);
  const show = (next: MeasuredRecipe, keeps: boolean): void => trial.show(fill.pattern, recipe, next, keeps);
  onDestroy(() => void trial.leave());
</script>

<div class="cell">
  <span>Numbers</span>
  <Popover label="Numbers of the pattern" width={296} aside text="edit …" onclose={() => trial.leave()}>
    <MeasuredPanel
      recipe={shown}
      {settled}
      onlive={(next) => show(next, false)}
      onset={(next) => show(next, true)}
      oncancel={() => trial.cancel()}
    />
    {#if trial.problem}<p class="problem" role="alert">{trial.problem}</p>{/if}
  </Popover>
</div>
