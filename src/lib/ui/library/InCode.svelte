<script lang="ts">
  import { page } from '$app/state';
  import type { PatternDetail } from '$lib/contract/data';
  import { CODE_FILES } from '$lib/contract/work';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Rows from '../components/Rows.svelte';
  import { toasts } from '../state/toasts.svelte';
  import { codeAddress, snippets, type InCode } from './in-code';

  /** A pattern in pages and programs: the addresses of its files, and what one writes to have it, as it then looks. */
  type Props = { pattern: PatternDetail };
  let { pattern }: Props = $props();

  let revision: number | null = $state(null);
  let colourway: string | null = $state(null);
  let scale = $state(1);
  let rotation = $state(0);
  let shown = $state(0);
  const of = $derived<InCode>({
    ...{ id: pattern.id, name: pattern.name, revision, scale, rotation },
    colourway: pattern.colourways.find(({ id }) => id === colourway)?.name ?? null,
  });
  const { origin } = page.url;
  const ways = $derived(snippets(origin, of));
  const code = $derived(ways[shown]?.code ?? '');
  /** Files in which it lies by numbers; the others are the same at every scale. */
  const LIE = new Set<string>(['tile.png', 'fill.svg', 'pattern.css']);

  async function copy(text: string): Promise<void> {
    try {
      await navigator.clipboard.writeText(text);
      toasts.show('Copied.');
    } catch {
      toasts.problem('The clipboard is closed to this page; select the text and copy it yourself.');
    }
  }
</script>

<section aria-labelledby="in-code">
  <h2 id="in-code">In code</h2>
  {#if pattern.newest === 0}
    <p class="muted">It has addresses once it is published.</p>
  {:else}
    <p class="muted">
      Pages and programs read it at these addresses. “Newest” follows what is published; a revision stays as
      it is.
    </p>
    <Rows>
      <span>Revision</span>
      <Choice
        label="Revision"
        value={String(revision ?? '')}
        options={[
          ['', 'Newest'],
          ...pattern.revisions.map(({ number }) => [String(number), String(number)] as const),
        ]}
        onset={(value) => (revision = value === '' ? null : Number(value))}
      />
      {#if pattern.colourways.length > 0}
        <span>Colourway</span>
        <Choice
          label="Colourway"
          value={colourway ?? ''}
          options={[
            ['', 'Its own colours'],
            ...pattern.colourways.map(({ id, name }) => [id, name] as const),
          ]}
          onset={(value) => (colourway = value === '' ? null : value)}
        />
      {/if}
      <span>Scale</span>
      <NumberField
        label="Scale"
        value={scale}
        kind={{ suffix: '%' }}
        least={0.01}
        most={100}
        onset={(value) => (scale = value)}
      />
      <span>Rotation</span>
      <NumberField
        label="Rotation"
        value={rotation}
        kind={{ suffix: '°' }}
        least={-360}
        most={360}
        onset={(value) => (rotation = value)}
      />
    </Rows>
    <ul>
      {#each CODE_FILES as file (file)}
        {@const address = codeAddress(origin, of, file, LIE.has(file))}
        <li>
          <a href={address} target="_blank" rel="noreferrer">{file}</a>
          <Button kind="quiet" label="Copy the address of {file}" onclick={() => copy(address)}>Copy</Button>
        </li>
      {/each}
    </ul>
    <div class="ways">
      <Choice
        label="What to write"
        value={String(shown)}
        width={190}
        options={ways.map(({ title }, at) => [String(at), title] as const)}
        onset={(value) => (shown = Number(value))}
      />
      <Button kind="quiet" label="Copy the code" onclick={() => copy(code)}>Copy</Button>
    </div>
    <pre tabindex="-1">{code}</pre>
    <!-- What is written, in a page of its own. -->
    <iframe title="As it looks in a page" sandbox="" srcdoc={`<!doctype html><body style="margin: 0">${code}`}
    ></iframe>
  {/if}
</section>

<style>
  section {
    display: grid;
    gap: 12px;
  }
  ul {
    margin: 0;
    padding: 0;
    border-top: 1px solid var(--rule);
    list-style: none;
  }
  li,
  .ways {
    display: flex;
    align-items: center;
    justify-content: space-between;
  }
  li {
    border-bottom: 1px solid var(--rule);
    font: 500 12.5px var(--mono);
  }
  a {
    color: var(--ink);
  }
  pre {
    margin: 0;
    max-height: 150px;
    overflow: auto;
    padding: 8px 10px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--paper);
    font: 12px/1.5 var(--mono);
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
  iframe {
    width: 100%;
    height: 200px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: #fff;
  }
</style>
