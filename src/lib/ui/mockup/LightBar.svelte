<script lang="ts">
  import type { PaletteData } from '$lib/contract/data';
  import type { Hex } from '$lib/core/colour/parse';
  import { STUDIO_GROUND, type LightSetting } from '$lib/core/mockup/mockup';
  import ColourWell from '../components/ColourWell.svelte';
  import Switch from '../components/Switch.svelte';

  /** How a mock-up is lit and what it stands on. */
  type Props = {
    light: LightSetting;
    ground: Hex | null;
    palettes: PaletteData[];
    onlight: (light: LightSetting) => void;
    onground: (ground: Hex | null, live: boolean) => void;
  };
  let { light, ground, palettes, onlight, onground }: Props = $props();
</script>

<div class="light">
  <span class="muted">Light</span>
  <Switch
    label="Light"
    value={light}
    options={[
      { value: 'window', label: 'window', title: 'From a window at the left, with soft shadows' },
      { value: 'even', label: 'even', title: 'From both sides' },
      { value: 'flat', label: 'flat', title: 'No light and shade: every colour as it is' },
    ]}
    onset={onlight}
  />
  <span class="muted">Ground</span>
  <ColourWell
    label="The ground"
    colour={ground ?? STUDIO_GROUND}
    {palettes}
    onlive={(hex) => onground(hex, true)}
    onset={(hex) => onground(hex, false)}
  />
  <button
    type="button"
    aria-pressed={ground === null}
    title="Nothing behind the objects: pictures are clear there"
    onclick={() => onground(ground === null ? STUDIO_GROUND : null, false)}>clear</button
  >
</div>

<style>
  .light {
    display: flex;
    align-items: center;
    gap: 8px;
    padding: 6px 10px;
  }
  button {
    min-height: 24px;
    padding: 1px 8px;
    border: 1px solid var(--rule);
    border-radius: 12px;
    background: var(--card);
    color: var(--muted);
    cursor: pointer;
  }
  [aria-pressed='true'] {
    border-color: var(--kelp);
    background: var(--kelp-tint);
    color: var(--kelp);
  }
</style>
