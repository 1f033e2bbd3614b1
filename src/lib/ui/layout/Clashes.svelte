<script lang="ts">
  import Button from '../components/Button.svelte';
  import { fieldWords, valueWords } from './clashes';
  import type { LayoutEditor } from './editor.svelte';

  /** Fields that somebody else and oneself changed at the same time: both values, whose, and which to keep. */
  type Props = { editor: LayoutEditor };
  let { editor }: Props = $props();

  const { together } = $derived(editor);
  const said = (clash: (typeof together.clashes)[number], value: unknown): string =>
    valueWords(clash, value, editor.doc.measure) ?? 'something else';
</script>

{#if together.clashes.length > 0}
  <section aria-label="Changed by two at once">
    <h2>Changed by two at once</h2>
    <ul>
      {#each together.clashes as clash (clash.id)}
        <li>
          <p>
            The {fieldWords(clash)}, “{clash.name}”: {clash.who} has set
            <strong>{said(clash, clash.theirs)}</strong>, you
            <strong>{said(clash, clash.mine)}</strong>.
          </p>
          <div>
            <Button kind="quiet" onclick={() => together.settle(clash.id, 'theirs')}>Leave it</Button>
            <Button onclick={() => together.settle(clash.id, 'mine')}>Take mine</Button>
          </div>
        </li>
      {/each}
    </ul>
  </section>
{/if}

<style>
  section {
    position: fixed;
    right: 16px;
    bottom: 16px;
    z-index: 40;
    width: 340px;
    max-height: 40vh;
    padding: 12px 14px;
    overflow: auto;
    border-left: 4px solid var(--amber);
    border-radius: var(--radius);
    background: var(--card);
    box-shadow: var(--shadow);
  }
  ul {
    display: grid;
    gap: 10px;
    margin: 8px 0 0;
    padding: 0;
    list-style: none;
  }
  li div {
    display: flex;
    justify-content: flex-end;
    gap: 6px;
    margin-top: 4px;
  }
</style>
