<script lang="ts">
  import type { Point } from '$lib/core/geom/point';
  import type { TextForm } from '$lib/core/recipe/form';
  import type { Shape } from '$lib/core/recipe/layout';
  import { LIMITS } from '$lib/core/recipe/limits';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import Dialog from '../components/Dialog.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Rows from '../components/Rows.svelte';
  import Switch from '../components/Switch.svelte';
  import { FONTS } from '../state/fonts';
  import type { LayoutEditor } from './editor.svelte';
  import { addText, changeText, setText } from './shapes';

  /** Words for a text shape, set in one of the fonts that ship with Isle; `shape` is the one whose words are changed. */
  type Props = { editor: LayoutEditor; at: Point; shape: Shape | null; onclose: () => void };
  let { editor, at, shape, onclose }: Props = $props();

  // svelte-ignore state_referenced_locally
  const held: TextForm | null = shape?.form.kind === 'text' ? shape.form : null;
  let text = $state(held?.text ?? '');
  let font = $state(held?.font ?? FONTS[0]?.id ?? '');
  // svelte-ignore state_referenced_locally
  let size = $state(held?.size ?? Math.round(Math.max(editor.doc.width, editor.doc.height) / 20));
  let align = $state<TextForm['align']>(held?.align ?? 'start');
  let problem: string | null = $state(null);

  async function set(): Promise<void> {
    const made = await setText(text.trim(), font, size, align);
    if (!made.ok) {
      problem = made.message;
      return;
    }
    if (shape && held) changeText(editor, shape, made.form);
    else addText(editor, made.form, at);
    onclose();
  }
</script>

<Dialog title={held ? 'Change the text' : 'Set text'} width={420} {onclose}>
  <textarea
    aria-label="Text"
    rows="3"
    maxlength={LIMITS.textLength}
    bind:value={text}
    onkeydown={(event) => {
      if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void set();
    }}></textarea>
  <Rows>
    <span>Font</span>
    <Choice
      label="Font"
      value={font}
      options={FONTS.map((one) => [one.id, one.label] as const)}
      onset={(value) => (font = value)}
    />
    <span>Size</span>
    <NumberField
      label="Size of the text"
      value={size}
      kind={{ unit: editor.doc.measure }}
      least={0.1}
      most={1e5}
      onset={(value) => (size = value)}
    />
    <span>Lines</span>
    <Switch
      label="How lines stand"
      value={align}
      options={[
        { value: 'start', label: 'Left' },
        { value: 'middle', label: 'Centred' },
        { value: 'end', label: 'Right' },
      ]}
      onset={(value) => (align = value)}
    />
  </Rows>
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#snippet actions()}
    <Button onclick={onclose}>Cancel</Button>
    <Button kind="main" disabled={text.trim() === ''} onclick={set}>{held ? 'Change' : 'Set text'}</Button>
  {/snippet}
</Dialog>

<style>
  textarea {
    width: 100%;
    padding: 8px 10px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    font: inherit;
    resize: vertical;
  }
</style>
