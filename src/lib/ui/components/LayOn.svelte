<script lang="ts">
  import { SURFACES, type Surface } from './surfaces';

  /** The choice of the surface that patterns are judged on. */
  type Props = { value: Surface; onset: (value: Surface) => void };
  let { value, onset }: Props = $props();
</script>

<div class="lay-on" role="radiogroup" aria-label="Lay on">
  <span class="muted">Lay on</span>
  {#each SURFACES as surface (surface.id)}
    <button
      type="button"
      role="radio"
      class:checkered={surface.id === 'checkered'}
      style:background={surface.id === 'checkered' ? undefined : surface.colour}
      aria-checked={surface.id === value}
      aria-label={surface.label}
      title={surface.label}
      onclick={() => onset(surface.id)}
    ></button>
  {/each}
</div>

<style>
  .lay-on {
    display: inline-flex;
    align-items: center;
    gap: 5px;
    white-space: nowrap;
  }
  button {
    width: 20px;
    height: 20px;
    padding: 0;
    border: 1px solid var(--rule-strong);
    border-radius: 4px;
    cursor: pointer;
  }
  button.checkered {
    background-size: 10px 10px;
  }
  [aria-checked='true'] {
    outline: 2px solid var(--kelp);
    outline-offset: 1px;
  }
</style>
