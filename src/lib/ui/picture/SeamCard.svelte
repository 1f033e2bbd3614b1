<script lang="ts">
  import type { SeamFigure, SeamWord } from '$lib/core/picture/seam';
  import { DISTANCES, type Maker } from './maker.svelte';

  /** What the joins are, before and now, with the line along the worse one: where it is seen most. While something else is shown than was measured, it says so. A small one, where one paints, covers little. */
  type Props = {
    maker: Maker;
    measuring: boolean;
    small: boolean;
    /** From which of the distances the unit is judged. */
    from: number;
  };
  let { maker, measuring, small, from = $bindable() }: Props = $props();

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
  /** From what is not seen to what is plain: pale, amber, signal. */
  function heat(figure: number): string {
    const share = Math.min(1, Math.max(0, (figure - 1) / 2));
    return share < 0.5
      ? `color-mix(in srgb, #e6b84a ${share * 200}%, var(--kelp-tint))`
      : `color-mix(in srgb, var(--signal) ${(share - 0.5) * 200}%, #e6b84a)`;
  }
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
      <div
        class="line"
        role="img"
        aria-label="Along the join {worse.edge}, from where it is not seen to where it is plain"
        style:background="linear-gradient(90deg, {worse.seam.line
          .map(({ at, figure }) => `${heat(figure)} ${at * 100}%`)
          .join(', ')})"
      ></div>
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
  .line {
    height: 8px;
    border-radius: 4px;
  }
  .small {
    color: var(--muted);
    font-size: var(--small);
  }
</style>
