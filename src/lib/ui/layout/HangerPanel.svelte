<script lang="ts">
  import type { PatternSummary } from '$lib/contract/data';
  import { patternFills } from '$lib/core/recipe/layout';
  import DrawnPicture from '../components/DrawnPicture.svelte';
  import { PatternFinder } from '../library/pattern-finder.svelte';
  import PatternSearch from '../library/PatternSearch.svelte';
  import { sayUnit, swatchUrl } from '../library/say';
  import { listKeys } from '../state/list-keys';
  import type { LayoutEditor } from './editor.svelte';

  /** The hangers beside the stage: find a pattern, press it to fill the selected shapes, or drag it onto a shape. */
  type Props = { patterns: PatternSummary[]; editor: LayoutEditor };
  let { patterns, editor }: Props = $props();

  const finder = new PatternFinder(() => patterns);
  const used = $derived(
    new Set(editor.chosen.flatMap((shape) => patternFills(shape).map(({ pattern }) => pattern))),
  );
</script>

<aside aria-label="Hangers" {@attach listKeys(() => finder.ready)}>
  <div class="head">
    <PatternSearch {finder} label="Find a pattern" />
    <p class="muted">
      {editor.selected.size === 0
        ? 'Select a shape, then press a hanger, or drag one onto a shape.'
        : 'Press a hanger to fill what is selected.'}
    </p>
  </div>
  <ul data-list>
    {#each finder.shown as pattern (pattern.id)}
      <li>
        <button
          type="button"
          class:used={used.has(pattern.id)}
          draggable="true"
          title="Fill the selected shapes with {pattern.name}"
          ondragstart={(event) => event.dataTransfer?.setData('application/x-isle-pattern', pattern.id)}
          onclick={() => editor.fillWith(pattern.id)}
        >
          <span class="strip"
            ><DrawnPicture src={swatchUrl(pattern, 212, 58, 0.5)} alt="" width={212} height={58} lazy /></span
          >
          <span class="line"
            ><strong>{pattern.name}</strong><span class="mono muted"
              >{pattern.facts ? sayUnit(pattern.facts) : ''}</span
            ></span
          >
        </button>
      </li>
    {:else}
      <li class="muted none">
        {finder.problem ??
          (finder.text === '' ? 'No patterns are published yet.' : `Nothing matches “${finder.text}”.`)}
      </li>
    {/each}
  </ul>
</aside>

<style>
  aside {
    display: flex;
    flex-direction: column;
    min-height: 0;
    border-right: 1px solid var(--rule);
    background: var(--card);
  }
  .head {
    padding: 12px 12px 8px;
  }
  .head p {
    margin-top: 6px;
    font-size: var(--small);
  }
  ul {
    flex: 1;
    min-height: 0;
    padding: 4px 8px 16px;
    overflow: auto;
  }
  button {
    display: block;
    width: 100%;
    padding: 4px;
    border: 2px solid transparent;
    border-radius: var(--radius);
    background: none;
    text-align: left;
    cursor: grab;
  }
  button:hover {
    border-color: var(--rule-strong);
  }
  button.used {
    border-color: var(--kelp);
  }
  .strip {
    display: block;
    width: 100%;
    height: 58px;
    overflow: hidden;
    background: var(--surround);
  }
  .strip :global(img) {
    object-position: 0 0;
  }
  .line {
    display: flex;
    justify-content: space-between;
    gap: 6px;
    padding: 3px 0 2px;
    white-space: nowrap;
  }
  strong {
    overflow: hidden;
    font-weight: 650;
    text-overflow: ellipsis;
  }
  .mono {
    font-size: 11px;
  }
  .none {
    padding: 8px;
  }
</style>
