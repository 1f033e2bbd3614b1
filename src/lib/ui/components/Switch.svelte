<script lang="ts" generics="T extends string">
  /** A row of choices of which one holds. `tone` colours the chosen one: kelp, or signal for the pattern itself. */
  type Props = {
    label: string;
    value: T;
    options: { value: T; label: string; title?: string; tone?: 'kelp' | 'signal' }[];
    disabled?: boolean;
    onset: (value: T) => void;
  };
  let { label, value, options, disabled = false, onset }: Props = $props();

  function onkeydown(event: KeyboardEvent): void {
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    if (!step) return;
    const index = options.findIndex((option) => option.value === value);
    const next = options[(index + step + options.length) % options.length];
    if (next) {
      onset(next.value);
      const group = (event.currentTarget as HTMLElement).parentElement;
      queueMicrotask(() => group?.querySelector<HTMLElement>('[aria-checked="true"]')?.focus());
    }
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<div class="switch" role="radiogroup" aria-label={label}>
  {#each options as option (option.value)}
    <button
      type="button"
      role="radio"
      class={option.tone ?? 'kelp'}
      aria-checked={option.value === value}
      tabindex={option.value === value ? 0 : -1}
      title={option.title}
      {disabled}
      onclick={() => onset(option.value)}
      {onkeydown}>{option.label}</button
    >
  {/each}
</div>

<style>
  .switch {
    display: inline-flex;
    gap: 2px;
  }
  button {
    min-height: 24px;
    padding: 1px 10px;
    border: 1px solid var(--rule);
    border-radius: 12px;
    background: var(--card);
    color: var(--muted);
    cursor: pointer;
  }
  button:hover:not(:disabled) {
    border-color: var(--rule-strong);
  }
  [aria-checked='true'].kelp {
    border-color: var(--kelp);
    background: var(--kelp);
    color: #fff;
  }
  [aria-checked='true'].signal {
    border-color: var(--signal);
    background: var(--signal);
    color: #fff;
  }
  button:disabled {
    opacity: 0.5;
    cursor: default;
  }
</style>
