<script lang="ts">
  import { IDENTITY, multiply, scaling, type Affine } from '$lib/core/geom/affine';
  import { patternTransform } from '$lib/core/svg/live';
  import GroundRect from '../components/GroundRect.svelte';
  import type { BenchEditor } from './editor.svelte';
  import { SIZES, type BenchShow } from './show.svelte';

  /** The pattern at four sizes at once, one of them life size: as large as this screen was measured to show it. */
  type Props = { editor: BenchEditor; patternId: string; show: BenchShow };
  let { editor, patternId, show }: Props = $props();
  const lie = $derived(editor.kind === 'composed' ? (editor.still.lie ?? IDENTITY) : IDENTITY);
  const lieAt = (scale: number): Affine => multiply(scaling(scale * show.screenScale), lie);
</script>

<div class="strip">
  {#each SIZES as scale (scale)}
    <figure>
      <svg role="img" aria-label="The pattern at {scale * 100} %" style:background={show.background}>
        <defs>
          <pattern
            id="{patternId}-{scale * 100}"
            href="#{patternId}"
            patternTransform={patternTransform(editor.stillScene, lieAt(scale))}
          />
        </defs>
        <GroundRect ground={editor.ground} matrix={lieAt(scale)} />
        <rect width="100%" height="100%" fill="url(#{patternId}-{scale * 100})" />
      </svg>
      <figcaption class="mono">{scale * 100} %{scale === 1 ? ', life size' : ''}</figcaption>
    </figure>
  {/each}
</div>

<style>
  .strip {
    display: grid;
    grid-template-columns: repeat(4, 1fr);
    gap: 10px;
    grid-template-rows: minmax(0, 1fr);
    height: 100%;
    padding: 10px 10px 6px;
    background: var(--surround);
  }
  figure {
    display: grid;
    grid-template-rows: minmax(0, 1fr) auto;
    gap: 3px;
    min-width: 0;
    margin: 0;
  }
  svg {
    width: 100%;
    height: 100%;
    min-height: 0;
  }
  figcaption {
    color: var(--surround-ink);
  }
</style>
