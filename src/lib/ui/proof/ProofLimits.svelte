<script lang="ts">
  import type { ComponentProps } from 'svelte';
  import { fromPx, isLengthUnit, toPx } from '$lib/core/num/length';
  import { roundTo } from '$lib/core/num/tolerance';
  import {
    freshProof,
    PROOF_KEYS,
    PROOF_LIMITS,
    type ProofLimit,
    type ProofSettings,
  } from '$lib/core/proof/limits';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Popover from '../components/Popover.svelte';
  import Rows from '../components/Rows.svelte';

  /** By what the layouts of a project are proofed, for the medium that is chosen. */
  type Props = { settings: ProofSettings; onset: (settings: ProofSettings) => void };
  let { settings, onset }: Props = $props();

  const { medium } = $derived(settings);
  const limits = $derived(settings[medium]);
  const asItStarts = $derived(PROOF_KEYS.every((key) => limits[key] === PROOF_LIMITS[key][medium]));
  /** Fields hold lengths in px; limits are in what printers say them in. */
  function fieldOf(
    key: ProofLimit,
  ): Pick<ComponentProps<typeof NumberField>, 'value' | 'kind' | 'least' | 'most'> {
    const { unit, least, most } = PROOF_LIMITS[key];
    if (!isLengthUnit(unit)) return { value: limits[key], kind: { suffix: unit }, least, most };
    const [value, from, to] = [limits[key], least, most].map((length) => toPx(length, unit));
    return { value: value!, kind: { unit }, least: from!, most: to! };
  }
  function set(key: ProofLimit, value: number): void {
    const { unit } = PROOF_LIMITS[key];
    const held = isLengthUnit(unit) ? roundTo(fromPx(value, unit), 4) : value;
    onset({ ...settings, [medium]: { ...limits, [key]: held } });
  }
</script>

<Popover label="Limits of the proof" width={264} text="Limits …">
  <div class="limits">
    <p>For {medium}, in all layouts of the project. At 0 nothing is looked for.</p>
    <Rows>
      {#each PROOF_KEYS as key (key)}
        {@const { label } = PROOF_LIMITS[key]}
        <span title={label}>{label}</span>
        <NumberField {label} {...fieldOf(key)} onset={(value) => set(key, value)} />
      {/each}
    </Rows>
    <Button
      kind="quiet"
      disabled={asItStarts}
      onclick={() => onset({ ...settings, [medium]: freshProof()[medium] })}
      >Back to what they start with</Button
    >
  </div>
</Popover>

<style>
  .limits {
    display: grid;
    gap: 10px;
    justify-items: start;
  }
  .limits :global(.rows) {
    width: 100%;
  }
  p {
    color: var(--muted);
  }
</style>
