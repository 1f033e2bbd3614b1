<script lang="ts">
  import { scaling } from '$lib/core/geom/affine';
  import { patternTransform } from '$lib/core/svg/live';
  import { surfaceBackground, type Surface } from '../components/surfaces';
  import type { BenchEditor } from './editor.svelte';

  /** The pattern at four sizes at once, one of them life size (one CSS px for one px of the pattern). */
  type Props = { editor: BenchEditor; patternId: string; surface: Surface };
  let { editor, patternId, surface }: Props = $props();
  const SCALES = [0.25, 0.5, 1, 2];
</script>

<div class="strip">
  {#each SCALES as scale (scale)}
    <figure>
      <svg
        role="img"
        aria-label="The pattern at {scale * 100} %"
        style:background={surfaceBackground(surface)}
      >
        <defs>
          <pattern
            id="{patternId}-{scale * 100}"
            href="#{patternId}"
            patternTransform={patternTransform(editor.scene, scaling(scale))}
          />
        </defs>
        {#if editor.ground}<rect width="100%" height="100%" fill={editor.ground} />{/if}
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
