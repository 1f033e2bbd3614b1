<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import { LIMITS } from '$lib/core/recipe/limits';

  /** Short words or names, each with a way to take it off, and a field for more. */
  type Props = {
    label: string;
    values: readonly string[];
    known: readonly string[];
    placeholder?: string;
    disabled?: boolean;
    onadd: (values: string[]) => void;
    onremove: (value: string) => void;
  };
  let { label, values, known, placeholder = 'Add', disabled = false, onadd, onremove }: Props = $props();
  const id = $props.id();
  let typed = $state('');

  function add(): void {
    const parts = new Set(typed.split(',').map((part) => part.trim()));
    typed = '';
    const fresh = [...parts].filter((part) => part !== '' && !values.includes(part));
    if (fresh.length > 0) onadd(fresh);
  }
</script>

<div class="tags" role="group" aria-label={label}>
  {#each values as value (value)}
    <span class="tag" dir="auto"
      >{value}{#if !disabled}<button
          type="button"
          aria-label="Take {value} off"
          title="Take off"
          onclick={() => onremove(value)}><X size={12} /></button
        >{/if}</span
    >
  {/each}
  {#if !disabled}
    <input
      bind:value={typed}
      list="{id}-known"
      maxlength={LIMITS.tagLength}
      {placeholder}
      aria-label="{label}: add"
      onkeydown={(event) => {
        if (event.key === 'Enter' || event.key === ',') {
          event.preventDefault();
          add();
        }
      }}
      onchange={add}
    />
    <datalist id="{id}-known">
      {#each known.filter((one) => !values.includes(one)) as one (one)}<option value={one}></option>{/each}
    </datalist>
  {/if}
</div>

<style>
  .tags {
    display: flex;
    flex-wrap: wrap;
    gap: 5px;
  }
  .tag {
    display: inline-flex;
    align-items: center;
    gap: 3px;
    max-width: 100%;
    padding: 1px 4px 1px 8px;
    border-radius: 10px;
    background: var(--kelp-tint);
    font-size: 12.5px;
  }
  .tag button {
    display: grid;
    place-items: center;
    padding: 2px;
    border: 0;
    border-radius: 50%;
    background: none;
    color: var(--muted);
    cursor: pointer;
  }
  .tag button:hover {
    color: var(--ink);
  }
  input {
    width: 92px;
    padding: 1px 6px;
    border: 1px dashed var(--rule-strong);
    border-radius: 10px;
    background: none;
    font-size: 12.5px;
  }
</style>
