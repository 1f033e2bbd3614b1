<script lang="ts">
  /** Words that are taken when the field is left; Escape gives up what was typed. */
  type Props = { label: string; value: string; most: number; rows?: number; onset: (words: string) => void };
  let { label, value, most, rows = 3, onset }: Props = $props();

  const id = $props.id();
  let typed: string | null = $state(null);
  const long = $derived((typed ?? value).length > most);

  function take(): void {
    if (typed === null || long) return;
    const words = typed.trim();
    typed = null;
    if (words !== value) onset(words);
  }
</script>

<label class="field" for={id}>
  <span>{label}</span>
  <textarea
    {id}
    {rows}
    value={typed ?? value}
    data-settled={typed === null ? '' : undefined}
    aria-invalid={long}
    oninput={(event) => (typed = event.currentTarget.value)}
    onblur={take}
    onkeydown={(event) => {
      if (event.key === 'Escape') typed = null;
      if (event.key === 'Enter' && (rows === 1 || event.ctrlKey || event.metaKey)) {
        event.preventDefault();
        take();
      }
    }}></textarea>
</label>
{#if long}
  <p role="alert">At most {most} characters; these are {(typed ?? value).length}.</p>
{/if}

<style>
  .field {
    display: grid;
    gap: 3px;
    margin-bottom: 10px;
  }
  span {
    color: var(--muted);
    font-size: var(--small);
  }
  textarea {
    width: 100%;
    padding: 6px 8px;
    border: 1px solid var(--rule-strong);
    border-radius: var(--radius);
    font: inherit;
    resize: vertical;
  }
  p {
    margin: -6px 0 10px;
    color: var(--signal);
    font-size: var(--small);
  }
</style>
