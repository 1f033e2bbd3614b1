<script lang="ts">
  import Switch from '../components/Switch.svelte';
  import type { LayoutEditor } from './editor.svelte';

  /** What the handles on the stage move: the shape, its pattern, or both. */
  let { editor }: { editor: LayoutEditor } = $props();
</script>

<Switch
  label="Handles move"
  value={editor.scope}
  options={[
    { value: 'shape', label: 'Shape', title: 'Handles move the shape (S)' },
    { value: 'pattern', label: 'Pattern', title: 'Handles move the pattern (P)', tone: 'signal' },
    { value: 'both', label: 'Both', title: 'Handles move both (B)' },
  ]}
  onset={(scope) => (editor.scope = scope)}
/>
