<script lang="ts">
  import { clamp } from '$lib/core/num/tolerance';
  import { PICTURED_LIMITS } from '$lib/core/recipe/pictured';
  import NumberField from '../components/NumberField.svelte';
  import Rows from '../components/Rows.svelte';

  /** How often each brightness is in the unit as it is made now, with the marks for black, middle and white below it. */
  type Marks = { black: number; middle: number; white: number };
  type Props = {
    tone: Marks;
    histogram: readonly number[];
    onlive: (change: Partial<Marks>) => void;
    onset: (change: Partial<Marks>) => void;
    oncancel: () => void;
    /** What the numbers for black, middle and white are called. */
    labels?: readonly [string, string, string];
  };
  let { tone, histogram, onlive, onset, oncancel, labels = ['Black', 'Middle', 'White'] }: Props = $props();

  const whole = { kind: { suffix: '' }, digits: 0 } as const;
  const field = (key: keyof Marks) => ({
    onlive: (value: number) => onlive({ [key]: value }),
    onset: (value: number) => onset({ [key]: value }),
    oncancel,
  });

  const WIDTH = 216;
  const HEIGHT = 56;
  /** Bars as they are seen: a few peaks must not flatten the rest. */
  const bars = $derived.by(() => {
    const sorted = [...histogram].sort((one, other) => one - other);
    const top = Math.max(1, sorted[Math.floor(sorted.length * 0.95)] ?? 1);
    return histogram.map((count) => Math.min(1, count / top));
  });
  const area = $derived(
    `M0 ${HEIGHT}${bars
      .map((bar, index) => `L${((index + 0.5) / bars.length) * WIDTH} ${HEIGHT - bar * (HEIGHT - 4)}`)
      .join('')}L${WIDTH} ${HEIGHT}Z`,
  );
  /** Where the value lies that becomes the middle between black and white. */
  const middleAt = $derived(tone.black + (tone.white - tone.black) * 0.5 ** tone.middle);
  const marks = $derived([
    { key: 'black', at: tone.black },
    { key: 'middle', at: middleAt },
    { key: 'white', at: tone.white },
  ] as const);

  const changeTo = (key: 'black' | 'middle' | 'white', value: number): Partial<Marks> => {
    if (key === 'black') return { black: Math.round(clamp(value, 0, tone.white - 1)) };
    if (key === 'white') return { white: Math.round(clamp(value, tone.black + 1, 255)) };
    const share = clamp((value - tone.black) / (tone.white - tone.black), 0.001, 0.93);
    return { middle: Math.round(clamp(Math.log(share) / Math.log(0.5), 0.1, 10) * 100) / 100 };
  };

  function drag(event: PointerEvent, key: 'black' | 'middle' | 'white'): void {
    if (event.button !== 0) return;
    event.preventDefault();
    const mark = event.currentTarget as SVGElement;
    const box = mark.ownerSVGElement!.getBoundingClientRect();
    mark.setPointerCapture(event.pointerId);
    let change: Partial<Marks> | null = null;
    const follow = (next: Event): void => {
      const { clientX } = next as PointerEvent;
      change = changeTo(key, ((clientX - box.left) / box.width) * 255);
      onlive(change);
    };
    const end = (keep: boolean) => (): void => {
      mark.removeEventListener('pointermove', follow);
      mark.removeEventListener('pointerup', finish);
      mark.removeEventListener('pointercancel', cancel);
      window.removeEventListener('keydown', giveUp, true);
      if (keep && change) onset(change);
      else if (!keep) oncancel();
    };
    const finish = end(true);
    const cancel = end(false);
    const giveUp = (key: KeyboardEvent): void => {
      if (key.key !== 'Escape') return;
      key.preventDefault();
      key.stopPropagation();
      cancel();
    };
    window.addEventListener('keydown', giveUp, true);
    mark.addEventListener('pointermove', follow);
    mark.addEventListener('pointerup', finish);
    mark.addEventListener('pointercancel', cancel);
  }
</script>

<svg viewBox="0 0 {WIDTH} {HEIGHT + 14}" aria-hidden="true">
  <path d={area} />
  <line x1="0" y1={HEIGHT} x2={WIDTH} y2={HEIGHT} />
  {#each marks as { key, at } (key)}
    {@const x = (at / 255) * WIDTH}
    <line class="mark" x1={x} y1="0" x2={x} y2={HEIGHT} />
    <path class="tip" d="M{x} {HEIGHT}l5 9h-10z" />
    <rect
      class="grip"
      role="presentation"
      data-level={key}
      x={x - 9}
      y={HEIGHT - 8}
      width="18"
      height="22"
      onpointerdown={(event) => drag(event, key)}
    />
  {/each}
</svg>
<!-- The numbers say and set the same. -->
<Rows>
  <span>Black · middle · white</span>
  <span class="pair">
    <NumberField
      label={labels[0]}
      value={tone.black}
      {...whole}
      least={0}
      most={tone.white - 1}
      {...field('black')}
    /> ·
    <NumberField
      label={labels[1]}
      value={tone.middle}
      kind={{ suffix: '' }}
      digits={2}
      {...PICTURED_LIMITS.middle}
      {...field('middle')}
    /> ·
    <NumberField
      label={labels[2]}
      value={tone.white}
      {...whole}
      least={tone.black + 1}
      most={255}
      {...field('white')}
    />
  </span>
</Rows>

<style>
  svg {
    display: block;
    width: 100%;
    margin-bottom: 6px;
    overflow: visible;
    touch-action: none;
  }
  path {
    fill: var(--surround);
  }
  line {
    stroke: var(--rule-strong);
  }
  .mark {
    stroke: var(--kelp);
    stroke-width: 1.5;
  }
  .tip {
    fill: var(--kelp);
  }
  .grip {
    fill: transparent;
    cursor: ew-resize;
  }
</style>
