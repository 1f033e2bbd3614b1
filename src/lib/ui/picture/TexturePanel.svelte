<script lang="ts">
  import { roundTo } from '$lib/core/num/tolerance';
  import {
    freshTexture,
    TEXTURE_KINDS,
    TEXTURE_SIDE,
    TEXTURES,
    type Texture,
  } from '$lib/core/recipe/texture';
  import { PICTURED_LIMITS } from '$lib/core/recipe/pictured';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import type { PictureEditor } from './editor.svelte';
  import { fieldsOf } from './fields';

  /** The numbers that make the picture. */
  type Props = { editor: PictureEditor; texture: Texture };
  let { editor, texture }: Props = $props();

  // svelte-ignore state_referenced_locally
  const { fields } = fieldsOf(editor);
  const numbered = (set: (from: Texture, value: number) => Texture) =>
    fields((value, live) => editor.setTexture((from) => set(from, value), live));
  const SUFFIX = { px: 'px', angle: '°', share: '%', count: '' } as const;
  const DIGITS = { px: 0, angle: 1, share: 0, count: 1 } as const;
</script>

<Panel title="Texture">
  {#snippet aside()}
    <Button
      kind="quiet"
      title="The same numbers, thrown once more"
      onclick={() =>
        editor.setTexture((from) => ({ ...from, seed: (from.seed + 1) % (PICTURED_LIMITS.seed.most + 1) }))}
      >Another try</Button
    >
  {/snippet}
  <Rows>
    <span>Kind</span>
    <Choice
      label="Kind of texture"
      value={texture.kind}
      options={TEXTURE_KINDS.map((kind) => [kind, TEXTURES[kind].label] as const)}
      onset={(kind) =>
        editor.setTexture(({ width, height, seed }) => ({ ...freshTexture(kind), width, height, seed }))}
    />
    <span>Width · height</span>
    <span class="pair">
      <NumberField
        label="Width of the texture"
        value={texture.width}
        kind={{ suffix: 'px' }}
        digits={0}
        hideUnit
        {...TEXTURE_SIDE}
        {...numbered((from, width) => ({ ...from, width: Math.round(width) }))}
      /> ·
      <NumberField
        label="Height of the texture"
        value={texture.height}
        kind={{ suffix: 'px' }}
        digits={0}
        {...TEXTURE_SIDE}
        {...numbered((from, height) => ({ ...from, height: Math.round(height) }))}
      />
    </span>
    {#each TEXTURES[texture.kind].numbers as { key, label, kind, least, most } (key)}
      <span>{label}</span>
      <NumberField
        {label}
        value={texture.numbers[key] ?? 0}
        kind={{ suffix: SUFFIX[kind] }}
        digits={DIGITS[kind]}
        {least}
        {most}
        {...numbered((from, value) => ({ ...from, numbers: { ...from.numbers, [key]: roundTo(value, 4) } }))}
      />
    {/each}
  </Rows>
</Panel>
