<script lang="ts">
  import type { PaletteData } from '$lib/contract/data';
  import { LENGTH_UNITS, isLengthUnit } from '$lib/core/num/length';
  import { LIMITS } from '$lib/core/recipe/limits';
  import { goto } from '$app/navigation';
  import { resizePage, type PageResize } from '$lib/core/recipe/page';
  import Button from '../components/Button.svelte';
  import { call } from '../state/api';
  import { toasts } from '../state/toasts.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Popover from '../components/Popover.svelte';
  import type { LayoutEditor } from './editor.svelte';

  /** The page's size, bleed, unit, resolution and background; what becomes of the shapes with another size is chosen here. */
  type Props = { editor: LayoutEditor; palettes: PaletteData[]; label: string; onfit: () => void };
  let { editor, palettes, label, onfit }: Props = $props();
  const doc = $derived(editor.doc);
  const kind = $derived({ unit: doc.measure });

  let how: PageResize = $state('page');

  function size(change: { width?: number; height?: number }): void {
    const { width, height } = editor.history.doc;
    // All of it is scaled as one: the other side follows.
    if (how === 'everything' && change.width !== undefined && change.height === undefined)
      change.height = (height * change.width) / width;
    else if (how === 'everything' && change.height !== undefined && change.width === undefined)
      change.width = (width * change.height) / height;
    editor.history.commit(resizePage(editor.history.doc, { width, height, ...change }, how));
    onfit();
  }
  async function double(): Promise<void> {
    if (!(await editor.saver.flush())) return;
    const made = await call('POST /layouts/{id}/copies', {
      id: editor.id,
      body: {
        name: `${doc.name.slice(0, 70)} copy`,
      },
    });
    if (!made.ok) toasts.problem(made.failure.message);
    else await goto(`/projects/${editor.projectId}/layouts/${made.value.id}`);
  }
</script>

<Popover label="Page settings: {label}" width={320}>
  {#snippet button()}<span class="size">{label}</span>{/snippet}
  <div class="rows">
    <span>Width</span><NumberField
      label="Width of the page"
      value={doc.width}
      {kind}
      {...LIMITS.pageSide}
      onset={(width) => size({ width })}
    />
    <span>Height</span><NumberField
      label="Height of the page"
      value={doc.height}
      {kind}
      {...LIMITS.pageSide}
      onset={(height) => size({ height })}
    />
    <span>Orientation</span><button
      type="button"
      class="link"
      onclick={() => size({ width: doc.height, height: doc.width })}
      >{doc.width >= doc.height ? 'turn upright' : 'lay across'}</button
    >
    <span>With the size</span>
    <select
      aria-label="What changes with the page’s size"
      value={how}
      onchange={(event) => (how = event.currentTarget.value as PageResize)}
    >
      <option value="page">only the page</option>
      <option value="shapes">shapes, patterns keep their scale</option>
      <option value="everything">everything is scaled</option>
    </select>
    <span>Bleed</span><NumberField
      label="Bleed"
      value={doc.bleed}
      {kind}
      {...LIMITS.bleed}
      onset={(bleed) => editor.changePage({ bleed })}
    />
    <span>Safe margin</span><NumberField
      label="Safe margin"
      value={doc.margin}
      {kind}
      {...LIMITS.bleed}
      onset={(margin) => editor.changePage({ margin })}
    />
    <span>Unit of length</span>
    <select
      aria-label="Unit of length"
      value={doc.measure}
      onchange={(event) =>
        isLengthUnit(event.currentTarget.value) && editor.changePage({ measure: event.currentTarget.value })}
    >
      {#each LENGTH_UNITS as unit (unit)}<option value={unit}>{unit}</option>{/each}
    </select>
    <span>Resolution, ppi</span>
    <NumberField
      label="Resolution"
      value={doc.ppi}
      kind={{ suffix: '' }}
      {...LIMITS.ppi}
      digits={0}
      onset={(ppi) => editor.changePage({ ppi })}
    />
    <span>Background</span>
    <span class="background">
      {#if doc.background !== null}
        <ColourWell
          colour={doc.background}
          label="Background of the page"
          {palettes}
          size={18}
          link={doc.backgroundLink}
          onlive={(background) => editor.changePage({ background, backgroundLink: null }, true)}
          onset={(background, link) => editor.changePage({ background, backgroundLink: link ?? null })}
        />
        <button type="button" onclick={() => editor.changePage({ background: null, backgroundLink: null })}
          >clear it</button
        >
      {:else}
        clear <button type="button" onclick={() => editor.changePage({ background: '#ffffff' })}
          >make it white</button
        >
      {/if}
    </span>
  </div>
  <div class="guides" role="group" aria-label="Guides">
    {#each doc.guides as guide, index (index)}
      <span
        >{guide.axis === 'x' ? 'Upright' : 'Level'} guide <NumberField
          label="{guide.axis === 'x' ? 'Upright' : 'Level'} guide {index + 1}"
          value={guide.at}
          {kind}
          {...LIMITS.place}
          onset={(at) =>
            editor.changePage({
              guides: doc.guides.map((one, place) => (place === index ? { ...one, at } : one)),
            })}
        />
        <button
          type="button"
          aria-label="Take guide {index + 1} away"
          onclick={() => editor.changePage({ guides: doc.guides.filter((_, place) => place !== index) })}
          >take away</button
        ></span
      >
    {/each}
    {#if doc.guides.length < LIMITS.guides}
      <span
        ><button
          type="button"
          onclick={() => editor.changePage({ guides: [...doc.guides, { axis: 'x', at: doc.width / 2 }] })}
          >add an upright guide</button
        >
        <button
          type="button"
          onclick={() => editor.changePage({ guides: [...doc.guides, { axis: 'y', at: doc.height / 2 }] })}
          >add a level guide</button
        ></span
      >
    {/if}
  </div>
  <div class="foot"><Button onclick={double}>Double this layout</Button></div>
</Popover>

<style>
  .size {
    border-bottom: 1px dotted var(--rule-strong);
    color: var(--muted);
    font: 500 12px var(--mono);
  }
  .rows {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 10px 16px;
    align-items: center;
    color: var(--ink);
    justify-items: end;
  }
  .rows > span:nth-child(odd) {
    color: var(--muted);
    font-size: var(--small);
    justify-self: start;
  }
  select {
    max-width: 190px;
  }
  .background {
    display: inline-flex;
    gap: 8px;
    align-items: center;
  }
  .foot {
    margin-top: 12px;
  }
  .guides {
    display: grid;
    gap: 4px;
    margin-top: 10px;
    color: var(--muted);
    font-size: 12.5px;
  }
  .guides span {
    display: flex;
    gap: 10px;
    align-items: baseline;
  }
  .rows button,
  .guides button {
    padding: 0;
    border: 0;
    background: none;
    color: var(--kelp);
    cursor: pointer;
  }
</style>
