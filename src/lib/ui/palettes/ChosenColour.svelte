<script lang="ts">
  import Trash from '@lucide/svelte/icons/trash-2';
  import type { ColourUses, PaletteEntry } from '$lib/contract/data';
  import { readColour, sayOklch } from '$lib/core/colour/space';
  import Button from '../components/Button.svelte';
  import ColourPlane from '../components/ColourPlane.svelte';
  import NameField from '../components/NameField.svelte';
  import type { PaletteEditor } from './editor.svelte';
  import InkOfColour from './InkOfColour.svelte';
  import GradientEditor from './GradientEditor.svelte';

  /** The chosen colour or gradient of a palette with its numbers, and what follows it. */
  type Props = {
    editor: PaletteEditor;
    entry: PaletteEntry;
    uses: ColourUses;
    /** Takes what is wrong with a typed colour, or `null`. */
    onproblem: (problem: string | null) => void;
  };
  let { editor, entry, uses, onproblem }: Props = $props();

  function sayUses(id: string): string {
    const held = uses[id];
    if (!held) return 'Nothing follows it yet.';
    const count = (number: number, one: string, many: string): string[] =>
      number === 0 ? [] : [number === 1 ? `one ${one}` : `${number} ${many}`];
    const parts = [
      ...count(held.patterns, 'pattern', 'patterns'),
      ...count(held.colourways, 'colourway', 'colourways'),
      ...count(held.fills, 'fill', 'fills'),
      ...count(held.pages, 'page', 'pages'),
    ];
    return `${parts.join(', ')} follow${parts.length === 1 && parts[0]?.startsWith('one') ? 's' : ''} it.`;
  }
  function recolour(text: string): void {
    const read = readColour(text);
    onproblem(read.ok ? null : read.message);
    if (read.ok) editor.set(entry.id, { hex: read.hex, css: read.outside ? text.trim() : null });
  }
</script>

<aside aria-label="The chosen colour">
  <NameField
    label="The name of the colour"
    value={entry.name}
    onset={(name) => {
      editor.set(entry.id, { name });
      return null;
    }}
  />
  {#if entry.gradient}
    <GradientEditor
      stops={entry.gradient}
      palette={{ name: editor.doc.name, colours: editor.plain }}
      onlive={(stops) => editor.set(entry.id, { gradient: stops, hex: stops[0]?.hex ?? entry.hex }, true)}
      onset={(stops) => editor.set(entry.id, { gradient: stops, hex: stops[0]?.hex ?? entry.hex })}
    />
  {:else}
    <input
      class="mono"
      type="text"
      aria-label="The colour as hex or CSS"
      value={entry.css ?? entry.hex}
      spellcheck="false"
      onchange={(event) => {
        recolour(event.currentTarget.value);
        // What was refused does not stay in the field.
        event.currentTarget.value = entry.css ?? entry.hex;
      }}
    />
    {#if entry.css}
      <p class="muted">
        Outside sRGB. Shown and written as {entry.hex}, the nearest by CSS Color 4’s gamut mapping.
      </p>
    {/if}
    <ColourPlane
      colour={entry.hex}
      label={entry.name}
      onlive={(hex) => editor.set(entry.id, { hex, css: null }, true)}
      onset={(hex) => editor.set(entry.id, { hex, css: null })}
    />
    <p class="mono muted">{sayOklch(entry.hex)}</p>
    <InkOfColour {editor} {entry} {onproblem} />
  {/if}
  <p class="muted">{sayUses(entry.id)}</p>
  <Button onclick={() => editor.remove(entry.id)}><Trash size={14} />Take out</Button>
</aside>

<style>
  aside {
    display: grid;
    flex: none;
    gap: 8px;
    justify-items: start;
    width: 236px;
    padding: 12px;
    border: 1px solid var(--rule);
    border-radius: 8px;
    background: var(--card);
  }
  input {
    width: 100%;
    padding: 5px 8px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
  }
</style>
