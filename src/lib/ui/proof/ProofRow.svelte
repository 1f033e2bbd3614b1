<script lang="ts">
  import type { ProofNote } from '$lib/core/proof/note';

  /** One note of a proof: what it says, its figure, where it is; pressing it goes there. */
  type Props = {
    note: Omit<ProofNote, 'mend'>;
    /** Where it is, in words. */
    where: string;
    mend: string | null;
    ongo: () => void;
    onmend: () => void;
  };
  let { note, where, mend, ongo, onmend }: Props = $props();
</script>

<li class={note.weight}>
  <button type="button" class="go" onclick={ongo}>
    <span class="says">{note.says}</span>
    <span class="under"
      ><span class="where">{where}</span>{#if note.figure}<span class="figure">{note.figure}</span>{/if}</span
    >
  </button>
  {#if mend}<button type="button" class="mend" onclick={onmend}>{mend}</button>{/if}
</li>

<style>
  li {
    display: grid;
    justify-items: start;
    padding: 7px 12px 7px 9px;
    border-left: 3px solid transparent;
    border-bottom: 1px solid var(--rule);
  }
  .wrong {
    border-left-color: var(--amber);
  }
  .go {
    display: grid;
    gap: 2px;
    width: 100%;
    padding: 0;
    border: 0;
    background: none;
    text-align: left;
    cursor: pointer;
  }
  .go:hover .says {
    text-decoration: underline;
    text-decoration-color: var(--rule-strong);
    text-underline-offset: 3px;
  }
  .under {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    color: var(--muted);
  }
  .where {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .figure {
    flex: none;
    color: var(--ink);
    font: 500 12.5px var(--mono);
  }
  .wrong .figure {
    color: var(--amber);
  }
  .mend {
    min-height: 24px;
    padding: 0;
    border: 0;
    background: none;
    color: var(--kelp);
    font-weight: 600;
    cursor: pointer;
  }
  .mend:hover {
    color: var(--kelp-dark);
    text-decoration: underline;
  }
</style>
