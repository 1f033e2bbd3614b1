<script lang="ts">
  /** A labelled text field for dialogs, with its problem below. */
  type Props = {
    label: string;
    value: string;
    problem?: string | null;
    placeholder?: string;
    autofocus?: boolean;
    kind?: 'text' | 'email';
    autocomplete?: 'off' | 'username' | 'name';
  };
  let {
    label,
    value = $bindable(),
    problem = null,
    placeholder = '',
    autofocus = false,
    kind = 'text',
    autocomplete = 'off',
  }: Props = $props();
  const id = $props.id();

  function focusFirst(node: HTMLInputElement): void {
    if (!autofocus) return;
    node.focus();
    node.select();
  }
</script>

<label class="field" for={id}>
  <span>{label}</span>
  <input
    {id}
    type="text"
    inputmode={kind}
    bind:value
    {placeholder}
    {autocomplete}
    aria-invalid={problem !== null}
    aria-describedby={problem ? `${id}-problem` : undefined}
    {@attach focusFirst}
  />
</label>
{#if problem}<p class="problem" id="{id}-problem" role="alert">{problem}</p>{/if}

<style>
  .field {
    display: grid;
    gap: 4px;
  }
  span {
    color: var(--muted);
    font-size: var(--small);
  }
  input {
    padding: 6px 10px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
  }
  input[aria-invalid='true'] {
    border-color: var(--amber);
  }
  .problem {
    color: var(--amber);
    font-size: 12px;
  }
</style>
