<script lang="ts">
  import type { Box } from '$lib/core/geom/box';
  import { PROOF_MEDIA } from '$lib/core/proof/limits';
  import type { ProofNote } from '$lib/core/proof/note';
  import Choice from '../components/Choice.svelte';
  import SidePanel from '../components/SidePanel.svelte';
  import type { LayoutEditor } from '../layout/editor.svelte';
  import type { LayoutProof } from './layout-proof.svelte';
  import ProofLimits from './ProofLimits.svelte';
  import ProofRow from './ProofRow.svelte';

  /** The proof beside a layout: what would come out wrong, and what is worth a look. */
  type Props = { proof: LayoutProof; editor: LayoutEditor; onshow: (box: Box) => void; onclose: () => void };
  let { proof, editor, onshow, onclose }: Props = $props();

  const MEDIA = { print: 'For print', screen: 'For screen' } as const;
  const PARTS = [
    { weight: 'wrong', title: 'Comes out wrong' },
    { weight: 'look', title: 'Worth a look' },
  ] as const;
  const parts = $derived(
    PARTS.map((part) => ({ ...part, notes: proof.notes.filter(({ weight }) => weight === part.weight) })),
  );
  const names = $derived(new Map(editor.doc.shapes.map(({ id, name }) => [id, name])));

  function where({ places }: ProofNote): string {
    const shapes = [...new Set(places.map(({ shape }) => shape))];
    if (shapes.length === 0) return 'The page';
    return shapes.length === 1 ? (names.get(shapes[0]!) ?? '') : `${shapes.length} shapes`;
  }
  function go(note: ProofNote): void {
    const box = proof.goTo(note);
    if (box) onshow(box);
  }
</script>

<SidePanel title="Proof" {onclose}>
  {#snippet tools()}
    <Choice
      label="What the layouts of the project are for"
      value={proof.settings.medium}
      options={PROOF_MEDIA.map((medium) => [medium, MEDIA[medium]] as const)}
      onset={(medium) => void proof.setSettings({ ...proof.settings, medium })}
    />
    <ProofLimits settings={proof.settings} onset={(settings) => void proof.setSettings(settings)} />
  {/snippet}
  <div class="notes" role="status" aria-label="Notes of the proof">
    {#each parts as { weight, title, notes } (weight)}
      {#if notes.length > 0}
        <h3>{title}<span class="count">{notes.length}</span></h3>
        <ul>
          {#each notes as note (note.key)}
            <ProofRow
              {note}
              where={where(note)}
              mend={proof.mendOf(note)}
              ongo={() => go(note)}
              onmend={() => void proof.mend(note)}
            />
          {/each}
        </ul>
      {/if}
    {/each}
    {#if proof.notes.length === 0}
      <p>
        Nothing to say: pictures, lines, gaps, bleed, margins, contrast, revisions, credits and what is not
        seen are within the limits.
      </p>
    {/if}
  </div>
</SidePanel>

<style>
  .notes {
    flex: 1;
    min-height: 0;
    overflow: auto;
  }
  h3 {
    display: flex;
    justify-content: space-between;
    padding: 12px 12px 6px;
    border-bottom: 1px solid var(--rule);
    font-size: 12px;
    font-weight: 650;
  }
  .count {
    color: var(--muted);
    font: 500 12.5px var(--mono);
  }
  ul {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  p {
    padding: 14px 12px;
    color: var(--muted);
  }
</style>
