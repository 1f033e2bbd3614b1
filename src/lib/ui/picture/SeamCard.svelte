<script lang="ts">
  import type { SeamFigure, SeamWord } from '$lib/core/picture/seam';
  import type { PicturedRecipe } from '$lib/core/recipe/recipe';
  import type { Proposal } from './proposals';
  import HeatLine from '../components/HeatLine.svelte';
  import { DISTANCES } from '../state/distances';
  import type { Maker } from './maker.svelte';

  /** What the joins are, before and now, with the line along the worse one: where it is seen most. While something else is shown than was measured, it says so. A small one, where one paints, covers little. */
  type Props = {
    maker: Maker;
    measuring: boolean;
    small: boolean;
    /** From which of the distances the unit is judged. */
    from: number;
    /** What would make the unit harder to find, with its figures; `null` while that is worked out. */
    offers: (Proposal & { figures: number[] })[] | null;
    onpick: (recipe: PicturedRecipe) => void;
  };
  let { maker, measuring, small, from = $bindable(), offers, onpick }: Props = $props();

  const judged = $derived(maker.judged);
  const worse = $derived.by((): { edge: string; seam: SeamFigure } | null => {
    if (!judged) return null;
    const { across, down } = judged.now;
    return across.figure >= down.figure
      ? { edge: 'left and right', seam: across }
      : { edge: 'above and below', seam: down };
  });
  const SAID: Record<SeamWord, string> = {
    none: 'none',
    faint: 'faint',
    plain: 'plain',
    flat: 'flat, no seam to find',
  };
  const say = ({ word, figure }: { word: SeamWord; figure: number }): string =>
    word === 'flat' ? SAID.flat : `${SAID[word]}, ${figure.toFixed(2)}`;
</script>

<div class="card" role="status" aria-label="The joins of the repeat">
  {#if judged && worse}
    {#if !small}
      <p>
        <span>Join, as it was cut</span><strong class="mono {judged.before.word}">{say(judged.before)}</strong
        >
      </p>
    {/if}
    <p>
      <span>{measuring && small ? 'Join, measuring …' : 'Join now'}</span><strong
        class="mono {judged.now.word}"
        data-seam={judged.now.word}>{say(judged.now)}</strong
      >
    </p>
    {#if !small}
      <HeatLine line={worse.seam.line} edge={worse.edge} />
      <p class="small">
        <span>{worse.edge}</span><span>{measuring ? 'measuring …' : '1: as much as within it'}</span>
      </p>
      {@const seen = judged.repeat[from]}
      {#if seen}
        <p>
          <span>
            Unit seen from
            <select
              aria-label="Distance"
              value={from}
              onchange={(event) => (from = Number(event.currentTarget.value))}
            >
              {#each DISTANCES as { metres }, index (metres)}<option value={index}>{metres} m</option>{/each}
            </select>
          </span>
          <strong class="mono {seen.word}" data-repeat={seen.figure}
            >{seen.word}, {seen.figure.toFixed(2)}</strong
          >
        </p>
        {#if seen.blob}
          <p class="small"><span>Told most by what is {seen.blob.is}, outlined in the unit</span></p>
          <div class="offers" role="group" aria-label="What would make the unit harder to find">
            {#each offers ?? [] as { name, recipe, figures } (name)}
              {@const figure = figures[from] ?? 0}
              <button type="button" data-offer={name} onclick={() => onpick(recipe)}
                >{name}<span class="mono" class:none={figure < seen.figure}>{figure.toFixed(2)}</span></button
              >
            {:else}
              <span class="small"
                >{offers ? 'Nothing here would make it harder to find.' : 'Trying what would be less …'}</span
              >
            {/each}
          </div>
        {/if}
      {/if}
    {/if}
  {:else}
    <p><span>Join</span><span>measuring …</span></p>
  {/if}
</div>

<style>
  .card {
    position: absolute;
    right: 12px;
    bottom: 12px;
    display: grid;
    gap: 5px;
    width: 296px;
    padding: 9px 12px;
    border-radius: 8px;
    background: var(--card);
    box-shadow: var(--shadow);
  }
  p {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    gap: 10px;
  }
  strong {
    white-space: nowrap;
  }
  .none,
  .flat {
    color: var(--kelp);
  }
  .faint {
    color: var(--amber);
  }
  .plain {
    color: var(--signal);
  }
  .offers {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 4px;
  }
  .offers > span {
    grid-column: 1 / -1;
  }
  .offers button {
    display: flex;
    justify-content: space-between;
    gap: 6px;
    padding: 3px 7px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
    font-size: var(--small);
    cursor: pointer;
  }
  .offers button:hover {
    border-color: var(--kelp);
  }
  .offers .mono {
    color: var(--muted);
  }
  .offers .mono.none {
    color: var(--kelp);
  }
  .small {
    color: var(--muted);
    font-size: var(--small);
  }
</style>
