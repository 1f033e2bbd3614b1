<script lang="ts">
  import Move3d from '@lucide/svelte/icons/scaling';
  import Layers from '@lucide/svelte/icons/align-horizontal-space-around';
  import Popover from '../components/Popover.svelte';
  import ArrangePanel from './ArrangePanel.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import ByNumbers from './ByNumbers.svelte';

  /** The two tools for what is selected: arranging, and transforming by numbers. */
  type Props = { editor: LayoutEditor };
  let { editor }: Props = $props();
</script>

<Popover label="Arrange" title="Line up, unite, group, copy in rows" width={300} aside>
  {#snippet button()}<Layers size={16} />{/snippet}
  <ArrangePanel {editor} />
</Popover>
<Popover
  label="Transform by numbers"
  title="Move, scale, turn, skew or reflect by numbers"
  width={290}
  aside
  onclose={() => editor.history.cancel()}
>
  {#snippet button()}<Move3d size={16} />{/snippet}
  {#snippet children(close)}<ByNumbers {editor} onclose={close} />{/snippet}
</Popover>
