<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import type { LibraryFacets, PaletteData } from '$lib/contract/data';
  import { readColour } from '$lib/core/colour/space';
  import { fromPx, toPx } from '$lib/core/num/length';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Popover from '../components/Popover.svelte';
  import { isNarrowed, PLAIN_VIEW, type LibraryView } from './query';
  import { REPEAT_NAMES, sayLength } from './say';

  /** What the library is narrowed by. Each says in its own words what holds; all of it stands in the address. */
  type Props = {
    view: LibraryView;
    facets: LibraryFacets;
    palettes: PaletteData[];
    onset: (change: Partial<LibraryView>) => void;
    oncollections: () => void;
  };
  let { view, facets, palettes, onset, oncollections }: Props = $props();

  let typed = $state('');
  let problem: string | null = $state(null);
  const collection = $derived(facets.collections.find((one) => one.id === view.collection));
  const project = $derived(facets.projects.find((one) => one.id === view.project));
  const between = (least: string | null, most: string | null, unit: string): string | null => {
    if (least !== null && most !== null) return `${least} to ${most}${unit}`;
    if (least !== null) return `from ${least}${unit}`;
    return most === null ? null : `to ${most}${unit}`;
  };
  const mm = (px: number | null): string | null => (px === null ? null : sayLength(px, 'mm'));
  const size = $derived(between(mm(view.least), mm(view.most), ' mm'));
  const count = $derived(
    between(view.coloursLeast?.toString() ?? null, view.coloursMost?.toString() ?? null, ' colours'),
  );
  const SIZES = [
    ['Any size', null, null],
    ['Up to 10 mm', null, 10],
    ['10 to 40 mm', 10, 40],
    ['40 to 100 mm', 40, 100],
    ['Over 100 mm', 100, null],
  ] as const;
  const px = (value: number | null): number | null => (value === null ? null : toPx(value, 'mm'));

  function takeColour(text: string): void {
    const read = readColour(text);
    problem = read.ok ? null : read.message;
    if (read.ok) onset({ colour: read.hex });
  }
</script>

{#snippet chip(
  label: string,
  value: string | null,
  body: import('svelte').Snippet<[() => void]>,
  width = 220,
)}
  <Popover
    label="{label}: {value ?? 'any'}"
    {width}
    buttonClass="library-chip{value === null ? '' : ' holds'}"
  >
    {#snippet button()}{label}{#if value !== null}<strong>{value}</strong>{/if}<ChevronDown
        size={13}
      />{/snippet}
    {#snippet children(close)}{@render body(close)}{/snippet}
  </Popover>
{/snippet}

{#snippet options(
  choices: readonly (readonly [string, Partial<LibraryView>, boolean, string?])[],
  close: () => void,
)}
  <div class="options">
    {#each choices as [label, change, holds, aside] (label)}
      <button
        type="button"
        aria-pressed={holds}
        onclick={() => {
          onset(change);
          close();
        }}
        ><span>{label}</span>{#if aside}<span class="mono muted">{aside}</span>{/if}</button
      >
    {/each}
  </div>
{/snippet}

{#snippet collections(close: () => void)}
  {@render options(
    [
      ['Any collection', { collection: '' }, view.collection === ''],
      ...facets.collections.map(
        ({ id, name, patterns }) =>
          [name, { collection: id }, view.collection === id, String(patterns)] as const,
      ),
    ],
    close,
  )}
  <div class="foot">
    <Button
      kind="quiet"
      onclick={() => {
        close();
        oncollections();
      }}>Keep collections …</Button
    >
  </div>
{/snippet}
{#snippet tags(close: () => void)}
  {@render options(
    [
      ['Any tag', { tag: '' }, view.tag === ''],
      ...facets.tags.map(({ tag, patterns }) => [tag, { tag }, view.tag === tag, String(patterns)] as const),
    ],
    close,
  )}
{/snippet}
{#snippet repeats(close: () => void)}
  {@render options(
    [
      ['Any repeat', { repeat: '' }, view.repeat === ''],
      ...(Object.entries(REPEAT_NAMES) as [LibraryView['repeat'], string][]).map(
        ([repeat, name]) => [name, { repeat }, view.repeat === repeat] as const,
      ),
    ],
    close,
  )}
{/snippet}
{#snippet sizes(close: () => void)}
  {@render options(
    SIZES.map(
      ([label, least, most]) =>
        [
          label,
          { least: px(least), most: px(most) },
          mm(view.least) === mm(px(least)) && mm(view.most) === mm(px(most)),
        ] as const,
    ),
    close,
  )}
  <div class="numbers">
    <span class="muted">Longer side from</span>
    <NumberField
      label="Unit from"
      value={view.least ?? 0}
      kind={{ unit: 'mm' }}
      least={0}
      most={1e6}
      onset={(least) => onset({ least: least > 0 ? least : null })}
    />
    <span class="muted">to</span>
    <NumberField
      label="Unit to"
      value={view.most ?? 0}
      kind={{ unit: 'mm' }}
      least={0}
      most={1e6}
      onset={(most) => onset({ most: fromPx(most, 'mm') > 0 ? most : null })}
    />
  </div>
{/snippet}
{#snippet counts(close: () => void)}
  {@render options(
    [
      ['Any number', { coloursLeast: null, coloursMost: null }, count === null],
      ['One colour', { coloursLeast: 1, coloursMost: 1 }, view.coloursLeast === 1 && view.coloursMost === 1],
      ['Two', { coloursLeast: 2, coloursMost: 2 }, view.coloursLeast === 2 && view.coloursMost === 2],
      [
        'Three or four',
        { coloursLeast: 3, coloursMost: 4 },
        view.coloursLeast === 3 && view.coloursMost === 4,
      ],
      [
        'Five or more',
        { coloursLeast: 5, coloursMost: null },
        view.coloursLeast === 5 && view.coloursMost === null,
      ],
    ],
    close,
  )}
{/snippet}
{#snippet grounds(close: () => void)}
  {@render options(
    [
      ['Any ground', { ground: '' }, view.ground === ''],
      ['Clear', { ground: 'clear' }, view.ground === 'clear'],
      ['With a ground', { ground: 'own' }, view.ground === 'own'],
    ],
    close,
  )}
{/snippet}
{#snippet projects(close: () => void)}
  {@render options(
    [
      ['Any project', { project: '' }, view.project === ''],
      ...facets.projects.map(({ id, name }) => [name, { project: id }, view.project === id] as const),
    ],
    close,
  )}
{/snippet}
{#snippet owners(close: () => void)}
  {@render options(
    [
      ['Stock and our own', { stock: '' }, view.stock === ''],
      ['Our own', { stock: 'own' }, view.stock === 'own'],
      ['Stock', { stock: 'stock' }, view.stock === 'stock', String(facets.counts.stock)],
    ],
    close,
  )}
{/snippet}
{#snippet colours()}
  <label class="typed">
    <span class="muted">Contains something like</span>
    <input
      type="text"
      class="mono"
      placeholder="#2f8fab or teal"
      bind:value={typed}
      spellcheck="false"
      aria-label="A colour to look for"
      onkeydown={(event) => event.key === 'Enter' && takeColour(typed)}
    />
  </label>
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#each palettes as palette (palette.id)}
    <p class="muted palette">{palette.name}</p>
    <div class="dots">
      {#each palette.colours as entry (entry.id)}
        <button
          type="button"
          class="dot"
          class:chosen={entry.hex === view.colour}
          style:background={entry.hex}
          title={entry.name}
          aria-label="Like {entry.name}"
          onclick={() => onset({ colour: entry.hex })}
        ></button>
      {/each}
    </div>
  {/each}
  <div class="numbers">
    <span class="muted">Within ΔE2000 of</span>
    <NumberField
      label="Within ΔE2000 of"
      value={view.near}
      kind={{ suffix: '' }}
      least={0}
      most={60}
      digits={0}
      onset={(near) => onset({ near })}
    />
  </div>
  {#if view.colour !== ''}
    <Button kind="quiet" onclick={() => onset({ colour: '' })}>Any colour</Button>
  {/if}
{/snippet}

<div class="filters" role="group" aria-label="Narrow the library">
  {@render chip('Collection', collection?.name ?? (view.collection === '' ? null : 'gone'), collections, 250)}
  {@render chip('Tag', view.tag === '' ? null : view.tag, tags)}
  {@render chip('Repeat', view.repeat === '' ? null : REPEAT_NAMES[view.repeat], repeats)}
  {@render chip('Unit', size, sizes)}
  {@render chip('Colours', count, counts)}
  <Popover
    label="Like: {view.colour === '' ? 'any' : view.colour}"
    width={236}
    buttonClass="library-chip{view.colour === '' ? '' : ' holds'}"
  >
    {#snippet button()}Like{#if view.colour !== ''}<span class="like" style:background={view.colour}
        ></span>{/if}<ChevronDown size={13} />{/snippet}
    {@render colours()}
  </Popover>
  {@render chip('Ground', view.ground === '' ? null : view.ground === 'clear' ? 'clear' : 'own', grounds)}
  {@render chip('Used in', project?.name ?? (view.project === '' ? null : 'gone'), projects, 240)}
  {@render chip('Whose', view.stock === '' ? null : view.stock === 'stock' ? 'stock' : 'our own', owners)}
  {#if isNarrowed(view)}
    <Button
      kind="quiet"
      onclick={() =>
        onset({ ...PLAIN_VIEW, show: view.show, sort: view.sort, backwards: view.backwards, as: view.as })}
      >Clear</Button
    >
  {/if}
</div>

<style>
  .filters {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  .filters :global(.library-chip) {
    gap: 5px;
    height: 26px;
    padding: 0 9px;
    border: 1px solid var(--rule);
    border-radius: 13px;
    background: var(--card);
    font-size: 12.5px;
    white-space: nowrap;
  }
  .filters :global(.library-chip:hover) {
    border-color: var(--rule-strong);
  }
  .filters :global(.library-chip.holds) {
    border-color: var(--kelp);
    background: var(--kelp-tint);
  }
  strong {
    max-width: 130px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .like {
    width: 14px;
    height: 14px;
    border-radius: 50%;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
  }
  .options {
    display: grid;
    gap: 1px;
  }
  .options button {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    padding: 5px 8px;
    border: 0;
    border-radius: 4px;
    background: none;
    text-align: left;
    cursor: pointer;
  }
  .options button:hover {
    background: var(--paper);
  }
  .options [aria-pressed='true'] {
    background: var(--kelp-tint);
    font-weight: 600;
  }
  .foot {
    margin-top: 6px;
    padding-top: 6px;
    border-top: 1px solid var(--rule);
  }
  .numbers {
    display: flex;
    align-items: baseline;
    gap: 6px;
    margin-top: 8px;
    padding: 8px;
    border-top: 1px solid var(--rule);
  }
  .typed {
    display: grid;
    gap: 4px;
  }
  input {
    padding: 5px 8px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
  }
  .palette {
    margin: 10px 0 4px;
    font-size: var(--small);
  }
  .dots {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  .dot {
    width: 22px;
    height: 22px;
    padding: 0;
    border: 1px solid rgb(20 33 31 / 25%);
    border-radius: 50%;
    cursor: pointer;
  }
  .dot.chosen {
    outline: 2px solid var(--kelp);
    outline-offset: 1px;
  }
  .problem {
    margin-top: 6px;
    color: var(--amber);
    font-size: 12px;
  }
</style>
