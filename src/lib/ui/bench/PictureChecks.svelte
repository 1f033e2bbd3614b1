<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { PicturesReply } from '$lib/contract/bench-work';
  import { apply } from '$lib/core/geom/affine';
  import HeatLine from '../components/HeatLine.svelte';
  import { DISTANCES } from '../state/distances';
  import type { BenchEditor } from './editor.svelte';
  import type { BenchShow, Pointed } from './show.svelte';

  /** What the joins of a pattern with pictures are, with its worst place, and how strongly the eye finds its unit. */
  type Row = [
    label: string,
    what: string,
    text: string,
    noted: boolean,
    show: (() => void) | null,
    title?: string,
  ];
  type Props = { pictures: PicturesReply; editor: BenchEditor; show: BenchShow; row: Snippet<Row> };
  let { pictures, editor, show, row }: Props = $props();

  let from = $state(1);
  const { seams } = $derived(pictures);
  const worse = $derived(seams.across.figure >= seams.down.figure ? 'across' : 'down');
  const EDGES = { across: 'left and right', down: 'above and below' };
  const seen = $derived(pictures.repeat[from]!);

  function point(pointed: Pointed): void {
    show.pointed = show.pointed?.what === pointed.what ? null : pointed;
  }
  /** The worse join, and the place on it where it is seen most. */
  function pointJoin(): void {
    const { matrix, width, height } = editor.scene.cell;
    const along = (share: number) =>
      apply(matrix, worse === 'across' ? { x: 0, y: share * height } : { x: share * width, y: 0 });
    const worst = seams[worse].line.reduce((most, one) => (one.figure > most.figure ? one : most));
    const radius = Math.min(width, height) / 20;
    point({
      what: 'join',
      circles: [{ at: along(worst.at), radius }],
      lines: [{ from: along(0), to: along(1) }],
    });
  }
  function pointUnit(): void {
    const { blob } = seen;
    if (blob) point({ what: 'unit', circles: [{ at: blob, radius: (blob.rx + blob.ry) / 2 }], lines: [] });
  }
</script>

{@render row(
  'Join of pictures',
  'join',
  seams.word === 'flat' ? 'none to find' : `${seams.word}, ${seams.figure.toFixed(2)}`,
  seams.word === 'faint' || seams.word === 'plain',
  seams.word === 'faint' || seams.word === 'plain' ? pointJoin : null,
)}
{#if seams.word === 'faint' || seams.word === 'plain'}
  <div class="line"><HeatLine line={seams[worse].line} edge={EDGES[worse]} /></div>
{/if}
<span class="muted">Looked at from</span>
<select aria-label="Distance" value={from} onchange={(event) => (from = Number(event.currentTarget.value))}>
  {#each DISTANCES as { metres }, index (metres)}<option value={index}>{metres} m</option>{/each}
</select>
{@render row(
  'Unit found',
  'unit',
  `${seen.word}, ${seen.figure.toFixed(2)}`,
  seen.blob !== null,
  seen.blob && pointUnit,
  'What tells the unit most: show where',
)}

<style>
  .line {
    grid-column: 1 / -1;
    justify-self: stretch;
  }
  select {
    justify-self: end;
    min-height: 22px;
    padding-block: 0;
    font-size: 12px;
  }
</style>
