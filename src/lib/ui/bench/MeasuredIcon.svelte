<script lang="ts">
  import { scaling } from '$lib/core/geom/affine';
  import { MEASURED, startMeasured, type MeasuredForm } from '$lib/core/recipe/measured';
  import { compileUnit } from '$lib/core/scene/unit';
  import { patternTransform } from '$lib/core/svg/live';
  import { cellMarkup } from '$lib/core/svg/pieces';

  /** A small sample of a kind of measured pattern, drawn by the same code as the pattern itself. */
  type Props = { form: MeasuredForm };
  let { form }: Props = $props();
  const id = $props.id();

  /** Every number at its start, but as large as a sample of 28 px can show. */
  const SCALE: Partial<Record<MeasuredForm, number>> = {
    stripes: 1.4,
    hatch: 1.7,
    bands: 0.13,
    planks: 0.09,
  };
  const scene = $derived(
    compileUnit({
      kind: 'measured',
      version: 2,
      measure: 'mm',
      measured: startMeasured(form, ['ink', form === 'scallop' ? 'pale' : 'ink']),
      ground: { kind: 'clear' },
      slots: [],
    }),
  );
  const scale = $derived(SCALE[form] ?? 12 / Math.min(scene.cell.width, scene.cell.height));
</script>

<svg viewBox="0 0 28 20" width="28" height="20" aria-hidden="true" data-form={MEASURED[form].label}>
  <pattern
    id="{id}-icon"
    width={scene.cell.width}
    height={scene.cell.height}
    patternUnits="userSpaceOnUse"
    patternTransform={patternTransform(scene, scaling(scale))}
  >
    <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and hex colours only, written by core/svg -->
    {@html cellMarkup(scene, { ink: '#5c6664', pale: '#ffffff' }, 1)}
  </pattern>
  <rect width="28" height="20" fill="url(#{id}-icon)" />
</svg>

<style>
  svg {
    display: block;
    width: 100%;
    height: auto;
  }
</style>
