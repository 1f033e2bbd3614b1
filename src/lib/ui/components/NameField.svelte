<script lang="ts">
  import { settledField } from '../state/undo-keys';

  /** A name edited in place: it looks like text until it is pressed. `onset` answers a problem, or null when taken. */
  type Props = {
    value: string;
    label: string;
    size?: 'title' | 'text';
    /** It cannot be edited by whoever looks. */
    fixed?: boolean;
    onset: (name: string) => Promise<string | null> | string | null;
  };
  let { value, label, size = 'text', fixed = false, onset }: Props = $props();

  let typed: string | null = $state(null);
  let problem: string | null = $state(null);

  async function accept(text: string): Promise<void> {
    const name = text.trim();
    if (name === value) {
      typed = null;
      problem = null;
      return;
    }
    problem =
      name === ''
        ? `${label} must not be empty.`
        : name.length > 80
          ? `${label} may have at most 80 characters.`
          : await onset(name);
    if (problem === null) typed = null;
  }
</script>

<span class="name {size}">
  <span class="mirror" aria-hidden="true">{typed ?? value}</span>
  <input
    type="text"
    aria-label={label}
    autocomplete="off"
    spellcheck="false"
    value={typed ?? value}
    readonly={fixed}
    aria-invalid={problem !== null}
    size="1"
    {...settledField(typed)}
    oninput={(event) => {
      const { value: text } = event.currentTarget;
      typed = text === value ? null : text;
    }}
    onkeydown={(event) => {
      if (event.key === 'Enter') event.currentTarget.blur();
      if (event.key === 'Escape') {
        if (typed !== null) event.preventDefault();
        typed = null;
        problem = null;
        event.stopPropagation();
      }
    }}
    onblur={() => typed !== null && accept(typed)}
  />
  {#if problem}<span class="problem" role="alert">{problem}</span>{/if}
</span>

<style>
  .name {
    position: relative;
    display: inline-grid;
    max-width: 100%;
    margin-left: -5px;
  }
  .mirror,
  input {
    grid-area: 1 / 1;
    min-width: 0;
    padding: 1px 4px;
    border: 1px solid transparent;
    border-radius: 4px;
    background: none;
    font-weight: 650;
  }
  .mirror {
    min-width: 24px;
    visibility: hidden;
    white-space: pre;
    overflow: hidden;
  }
  input {
    width: 100%;
    text-overflow: ellipsis;
  }
  .title .mirror,
  .title input {
    font-size: 22px;
    letter-spacing: -0.01em;
  }
  input:not([readonly]):hover {
    border-color: var(--rule);
  }
  input:focus {
    background: var(--card);
    border-color: var(--kelp);
    outline-offset: 0;
  }
  .problem {
    position: absolute;
    top: calc(100% + 4px);
    left: 5px;
    z-index: 40;
    width: max-content;
    max-width: 320px;
    padding: 6px 10px;
    border: 1px solid var(--amber);
    border-radius: var(--radius);
    background: var(--amber-tint);
    color: var(--ink);
    font: 12px/1.4 var(--sans);
    white-space: normal;
  }
</style>
