<script lang="ts">
  import { urlOf } from '../state/api';
  import { resolveSlots } from '$lib/core/colour/slots';
  import type { Credit, Motif } from '$lib/core/recipe/recipe';
  import { motifSvg } from '$lib/core/svg/motif';
  import { embedPictures, pictureAddress, picturesIn } from '$lib/core/svg/paint';
  import Button from '../components/Button.svelte';
  import Panel from '../components/Panel.svelte';
  import { pictureUrl } from '../state/raster';
  import type { BenchEditor } from './editor.svelte';

  /** Where a motif comes from, and the motif as a file. */
  type Props = { editor: BenchEditor; motif: Motif };
  let { editor, motif }: Props = $props();

  const credit = $derived(motif.credit ?? { author: '', source: '', licence: '' });
  const asset = $derived(motif.content.kind === 'drawing' ? motif.content.asset : null);
  const FIELDS = [
    ['author', 'Author'],
    ['source', 'Source'],
    ['licence', 'Licence'],
  ] as const satisfies readonly (readonly [keyof Credit, string])[];

  function write(change: Partial<Credit>): void {
    const next = { ...credit, ...change };
    const empty = Object.values(next).every((value) => value.trim() === '');
    editor.setMotif(motif.id, (held) => {
      const { credit: _old, ...rest } = held;
      return empty ? rest : { ...rest, credit: next };
    });
  }
  async function save(): Promise<void> {
    const svg = motifSvg(motif, resolveSlots(editor.composed.slots, {}));
    const urls = new Map<string, string | null>();
    for (const shown of picturesIn(svg)) urls.set(pictureAddress(shown), await pictureUrl(shown));
    const blob = new Blob([embedPictures(svg, (shown) => urls.get(pictureAddress(shown)) ?? null)], {
      type: 'image/svg+xml',
    });
    const link = document.createElement('a');
    link.href = URL.createObjectURL(blob);
    link.download = `${motif.name}.svg`;
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
  }
</script>

<Panel title="Credit and file" folded>
  {#each FIELDS as [key, label] (key)}
    <label>
      <span class="muted">{label}</span>
      <input
        type="text"
        maxlength="300"
        value={credit[key]}
        placeholder={key === 'licence' ? 'CC-BY-4.0, own work …' : ''}
        onchange={(event) => write({ [key]: event.currentTarget.value })}
      />
    </label>
  {/each}
  <div class="buttons">
    <Button kind="quiet" onclick={save}>Save as SVG</Button>
    {#if asset}<Button kind="quiet" href={urlOf('GET /motifs/{hash}', { hash: asset })}
        >The file it came from</Button
      >{/if}
  </div>
</Panel>

<style>
  label {
    display: grid;
    grid-template-columns: 60px 1fr;
    align-items: baseline;
    padding: 2px 0;
  }
  input {
    min-width: 0;
    padding: 1px 5px;
    border: 1px solid var(--rule);
    border-radius: 4px;
  }
  .buttons {
    display: flex;
    margin: 4px 0 -4px -6px;
  }
</style>
