<script lang="ts">
  import { BLEND_MODES, type BlendMode } from '$lib/core/colour/blend';
  import Choice from '../components/Choice.svelte';

  /** How a fill blends with what lies below it, by the W3C names. */
  type Props = { value: BlendMode; onset: (value: BlendMode) => void };
  let { value, onset }: Props = $props();
  const options = BLEND_MODES.map((mode) => [mode, mode] as const);
</script>

<Choice label="Blend mode" {value} {options} {onset} />
