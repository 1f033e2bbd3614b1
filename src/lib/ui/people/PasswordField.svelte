<script lang="ts">
  /** A password: pasted, kept by the browser, and shown on demand. */
  type Props = {
    label: string;
    value: string;
    /** An own one is typed in; a new one is made, with a word on what it must be. */
    fresh?: boolean;
    problem?: string | null;
  };
  let { label, value = $bindable(), fresh = false, problem = null }: Props = $props();
  const id = $props.id();
  let seen = $state(false);
</script>

<div class="field">
  <label for={id}>{label}</label>
  <div class="line">
    <input
      {id}
      type={seen ? 'text' : 'password'}
      bind:value
      autocomplete={fresh ? 'new-password' : 'current-password'}
      aria-invalid={problem !== null}
      aria-describedby="{id}-note"
      spellcheck="false"
    />
    <button type="button" aria-pressed={seen} onclick={() => (seen = !seen)}>{seen ? 'Hide' : 'Show'}</button>
  </div>
  <p id="{id}-note" class={problem ? 'problem' : 'muted'} role={problem ? 'alert' : undefined}>
    {problem ?? (fresh ? 'At least 12 characters. A few words in a row are good; your name is not.' : '')}
  </p>
</div>

<style>
  .field {
    display: grid;
    gap: 4px;
  }
  label {
    color: var(--muted);
    font-size: var(--small);
  }
  .line {
    display: flex;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
  }
  .line:focus-within {
    outline: 2px solid var(--kelp);
    outline-offset: 1px;
  }
  input {
    flex: 1;
    min-width: 0;
    padding: 6px 10px;
    border: 0;
    outline: 0;
    background: none;
  }
  button {
    border: 0;
    background: none;
    color: var(--kelp);
    font-weight: 600;
    cursor: pointer;
  }
  p {
    font-size: 12px;
  }
  p:empty {
    display: none;
  }
  .problem {
    color: var(--amber);
  }
</style>
