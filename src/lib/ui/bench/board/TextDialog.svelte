<script lang="ts">
  import Button from '../../components/Button.svelte';
  import Dialog from '../../components/Dialog.svelte';
  import Field from '../../components/Field.svelte';
  import NumberField from '../../components/NumberField.svelte';
  import Rows from '../../components/Rows.svelte';
  import type { Board } from './board.svelte';
  import FontChoice from '../../components/FontChoice.svelte';
  import { FONTS } from '../../state/fonts';

  /** Text for the drawing board, set in one of the fonts that ship with Isle; it becomes outlines that stay editable as text. */
  type Props = { board: Board; at: { x: number; y: number }; onclose: () => void };
  let { board, at, onclose }: Props = $props();

  let text = $state('');
  let font = $state(FONTS[0]?.id ?? '');
  // svelte-ignore state_referenced_locally
  let size = $state(board.editor.composed.aids.grid * 3);

  async function set(): Promise<void> {
    if (text.trim() === '') return;
    if (await board.addText(text, font, size, at)) {
      board.hand.used();
      onclose();
    }
  }
</script>

<Dialog title="Set text" width={360} {onclose}>
  <form
    onsubmit={(event) => {
      event.preventDefault();
      void set();
    }}
  >
    <Field label="Text" bind:value={text} autofocus />
  </form>
  <Rows>
    <span>Font</span>
    <FontChoice value={font} onset={(value) => (font = value)} />
    <span>Size</span>
    <NumberField
      label="Size of the text"
      value={size}
      kind={{ unit: board.editor.composed.measure }}
      least={0.1}
      most={1e5}
      onset={(value) => (size = value)}
    />
  </Rows>
  {#snippet actions()}
    <Button onclick={onclose}>Cancel</Button>
    <Button kind="main" disabled={text.trim() === ''} onclick={set}>Set text</Button>
  {/snippet}
</Dialog>
