<script lang="ts">
  import type { PaletteData } from '$lib/contract/data';
  import { PLANE_GROUPS, shortSymbol } from '$lib/core/lattice/groups';
  import { foldOf, mirrorEdges, regionFor } from '$lib/core/lattice/fold';
  import { PICTURED_LIMITS } from '$lib/core/recipe/pictured';
  import NumberField from '../components/NumberField.svelte';
  import { fieldsOf } from './fields';
  import Choice from '../components/Choice.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import Tick from '../components/Tick.svelte';
  import type { PictureEditor } from './editor.svelte';
  import FewPanel from './FewPanel.svelte';
  import JoinPanel from './JoinPanel.svelte';
  import type { Maker } from './maker.svelte';
  import RegionPanel from './RegionPanel.svelte';
  import RetouchPanel from './RetouchPanel.svelte';
  import type { Retoucher } from './retoucher.svelte';
  import SizePanel from './SizePanel.svelte';
  import TexturePanel from './TexturePanel.svelte';
  import TonePanel from './TonePanel.svelte';

  /** The steps from the picture to the repeat, each with its numbers and its switch. */
  type Props = { editor: PictureEditor; maker: Maker; palettes: PaletteData[]; retoucher: Retoucher };
  let { editor, maker, palettes, retoucher }: Props = $props();

  const { symmetry, source } = $derived(editor.pictured.pictured);
  const unit = { width: 1, height: 1 };
  /** Whether the part of the region that counts is bounded by mirrors: that is the group's doing, not the region's. */
  const mirrored = $derived(
    symmetry.on && mirrorEdges(foldOf(symmetry.group, regionFor(unit, symmetry.group))).length > 0,
  );
  // svelte-ignore state_referenced_locally
  const { stepped } = fieldsOf(editor);
  const { texture } = $derived(source);
</script>

{#if texture}<TexturePanel {editor} {texture} />{/if}
<RegionPanel {editor} {maker} />

<Panel title="Symmetry">
  {#snippet aside()}
    <Tick label="on" checked={symmetry.on} onset={(on) => editor.setSymmetry(on)} />
  {/snippet}
  {#if symmetry.on}
    <Rows>
      <span>Plane group</span>
      <Choice
        label="Plane group"
        value={symmetry.group}
        options={PLANE_GROUPS.filter((group) => group !== 'p1').map(
          (group) => [group, shortSymbol(group)] as const,
        )}
        onset={(group) => editor.setSymmetry(true, group)}
      />
      {#if mirrored}
        <span>Mirror lines healed</span>
        <NumberField
          label="Width of the line that is healed along mirrors"
          value={symmetry.heal ?? 0}
          kind={{ suffix: 'px' }}
          digits={1}
          {...PICTURED_LIMITS.heal}
          {...stepped((from, heal) => ({ ...from, symmetry: { ...from.symmetry, heal } }))}
        />
      {/if}
    </Rows>
  {:else}<p class="muted note">The region is laid as it is.</p>{/if}
</Panel>

<TonePanel {editor} {maker} />
<JoinPanel {editor} {maker} />
<RetouchPanel {editor} {retoucher} />
<FewPanel {editor} {maker} {palettes} />
<SizePanel {editor} />

<style>
  .note {
    font-size: var(--small);
  }
</style>
