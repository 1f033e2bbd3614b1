<script lang="ts">
  import Button from './Button.svelte';

  /** A button that asks for one file; the same file can be chosen again. `label` names the field, `text` is on the button. */
  type Props = {
    label: string;
    text: string;
    accept: string;
    disabled?: boolean;
    onfile: (file: File) => void;
  };
  let { label, text, accept, disabled = false, onfile }: Props = $props();

  let input: HTMLInputElement | undefined = $state();
</script>

<input
  bind:this={input}
  type="file"
  class="visually-hidden"
  tabindex="-1"
  {accept}
  aria-label={label}
  onchange={(event) => {
    const [chosen] = event.currentTarget.files ?? [];
    event.currentTarget.value = '';
    if (chosen) onfile(chosen);
  }}
/>
<Button {disabled} onclick={() => input?.click()}>{text}</Button>
