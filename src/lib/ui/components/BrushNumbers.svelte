<script lang="ts">
  import type { BrushStroke } from '$lib/core/geom/brush-stroke';
  import { STROKE_LIMITS } from '$lib/core/recipe/stroke';
  import NumberField from './NumberField.svelte';
  import Rows from './Rows.svelte';

  /** How wide a brush is, how soft, and how strong; its width in px of the picture. */
  type Brush = Omit<BrushStroke, 'points'>;
  type Props = { brush: Brush; onset: (brush: Brush) => void };
  let { brush, onset }: Props = $props();

  const field = (key: 'softness' | 'strength') => {
    const set = (value: number): void => onset({ ...brush, [key]: value });
    return { value: brush[key], kind: { suffix: '%' }, digits: 0, most: 1, onlive: set, onset: set } as const;
  };
  const setSize = (size: number): void => onset({ ...brush, size });
</script>

<Rows>
  <span>Brush</span>
  <NumberField
    label="Width of the brush"
    value={brush.size}
    kind={{ suffix: 'px' }}
    digits={0}
    least={1}
    most={STROKE_LIMITS.size.most}
    onlive={setSize}
    onset={setSize}
  />
  <span>Soft · strong</span>
  <span class="pair">
    <NumberField label="Softness of the brush" least={0} {...field('softness')} /> ·
    <NumberField label="Strength of the brush" least={0.01} {...field('strength')} />
  </span>
</Rows>
