<script lang="ts">
  import { PLANE_GROUPS, shortSymbol } from '$lib/core/lattice/groups';
  import Choice from '../components/Choice.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import Tick from '../components/Tick.svelte';
  import type { PictureEditor } from './editor.svelte';
  import JoinPanel from './JoinPanel.svelte';
  import type { Maker } from './maker.svelte';
  import RegionPanel from './RegionPanel.svelte';
  import SizePanel from './SizePanel.svelte';
  import TonePanel from './TonePanel.svelte';

  /** The steps from the picture to the repeat, each with its numbers and its switch. */
  type Props = { editor: PictureEditor; maker: Maker };
  let { editor, maker }: Props = $props();

  const { symmetry } = $derived(editor.pictured.pictured);
</script>

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
    </Rows>
  {:else}<p class="muted note">The region is laid as it is.</p>{/if}
</Panel>

<TonePanel {editor} {maker} />
<JoinPanel {editor} {maker} />
<SizePanel {editor} />

<style>
  .note {
    font-size: var(--small);
  }
</style>
