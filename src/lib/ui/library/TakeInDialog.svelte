<script lang="ts">
  import { onMount } from 'svelte';
  import type { ClashChoice, Takeable, TakenFile, TakingReport } from '$lib/contract/taking';
  import { LIMITS } from '$lib/core/recipe/limits';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import { call, sendFile } from '../state/api';

  /**
   * Files opened into the library: each is read and shown first, then all that is chosen is taken in at once. Where a
   * name is taken it asks whether to keep both, publish a revision of ours, or leave the newcomer out.
   */
  type Props = { files: File[]; ondone: () => Promise<unknown>; onclose: () => void };
  let { files, ondone, onclose }: Props = $props();

  let read: TakenFile[] = $state.raw([]);
  let failed: string[] = $state.raw([]);
  let progress: { at: number; of: number; name: string } | null = $state.raw(null);
  let choices: Record<string, ClashChoice> = $state({});
  let taking = $state(false);
  let problem: string | null = $state(null);
  let report: TakingReport | null = $state.raw(null);
  let stopped = false;
  let input: HTMLInputElement | undefined = $state();

  const items = $derived(read.flatMap((file) => file.items));
  const clashes = $derived(items.filter((item) => item.clash && !item.clash.same));
  const wanted = $derived(items.filter((item) => choices[item.key] !== 'skip').length);
  const notes = $derived([
    ...failed,
    ...read.flatMap((file) =>
      file.notes.map((note) => (read.length > 1 ? `${file.fileName}: ${note}` : note)),
    ),
  ]);

  const firstChoice = ({ clash, kind }: Takeable): ClashChoice => {
    if (!clash) return 'both';
    if (clash.same || kind === 'palette') return 'skip';
    return 'both';
  };

  async function open(chosen: readonly File[]): Promise<void> {
    if (chosen.length === 0) return;
    problem = null;
    report = null;
    if (chosen.length > LIMITS.filesAtOnce) {
      problem = `${chosen.length.toLocaleString('en-GB')} files were chosen; at most ${LIMITS.filesAtOnce} are opened at once. Put them into one zip, or open them in parts.`;
      return;
    }
    stopped = false;
    for (const [index, file] of chosen.entries()) {
      if (stopped) break;
      progress = { at: index, of: chosen.length, name: file.name };
      const answer = await sendFile('POST /intake/files', { file });
      if (answer.ok) {
        read = [...read, answer.value];
        for (const item of answer.value.items) choices[item.key] = firstChoice(item);
      } else failed = [...failed, answer.failure.message];
    }
    progress = null;
  }
  onMount(() => void open(files));

  async function takeIn(): Promise<void> {
    taking = true;
    problem = null;
    const done = await call('POST /intake', {
      body: {
        files: read.map((file) => ({
          token: file.token,
          choices: Object.fromEntries(file.items.map((item) => [item.key, choices[item.key] ?? 'skip'])),
        })),
      },
    });
    taking = false;
    if (!done.ok) {
      problem = done.failure.message;
      return;
    }
    report = done.value;
    read = [];
    await ondone();
  }
  function chooseAll(choice: ClashChoice): void {
    for (const item of clashes)
      choices[item.key] = item.clash?.stock && choice === 'replace' ? 'both' : choice;
  }
  const svgUrl = (svg: string): string => `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
</script>

<Dialog title="Open files" width={680} {onclose}>
  <input
    bind:this={input}
    type="file"
    class="visually-hidden"
    multiple
    accept=".svg,.zip,.json,.tokens,.css,.csv,image/svg+xml,application/zip"
    aria-label="Files to open"
    onchange={(event) => open([...(event.currentTarget.files ?? [])])}
  />
  {#if progress}
    <div role="status">
      <p>Reading {progress.name} ({progress.at + 1} of {progress.of})</p>
      <progress max={progress.of} value={progress.at}></progress>
      <Button kind="quiet" onclick={() => (stopped = true)}>Stop after this one</Button>
    </div>
  {:else if report}
    <p role="status">
      Taken in: {report.added.length} new{#if report.replaced.length > 0}, {report.replaced.length} as new revisions{/if}{#if report.skipped > 0},
        {report.skipped} left out{/if}.
    </p>
    <ul class="report">
      {#each [...report.added, ...report.replaced] as one (one.id)}
        <li>
          <a href={one.kind === 'pattern' ? `/library/${one.id}` : `/palettes?palette=${one.id}`}
            >{one.name}</a
          >
          <span class="muted">{one.kind === 'palette' ? 'palette' : 'pattern'}</span>
        </li>
      {/each}
    </ul>
  {:else if items.length === 0}
    <p>
      Isle reads its own library files and packages, any SVG with patterns in it, and palettes as design
      tokens, CSS custom properties, CSV or SVG. Nothing is changed until you have seen what is inside.
    </p>
  {/if}
  {#if items.length > 0 && !progress}
    {#if clashes.length > 1}
      <div class="all">
        <span class="muted">{clashes.length} names are taken.</span>
        <Button kind="quiet" onclick={() => chooseAll('both')}>Keep both</Button>
        <Button kind="quiet" onclick={() => chooseAll('replace')}>Replace all</Button>
        <Button kind="quiet" onclick={() => chooseAll('skip')}>Leave all out</Button>
      </div>
    {/if}
    <ul class="items">
      {#each items as item (item.key)}
        <li>
          {#if item.sample}
            <img src={svgUrl(item.sample)} alt="" width="132" height="72" />
          {:else}
            <span class="swatches">
              {#each item.colours.slice(0, 24) as colour, index (index)}<i style:background={colour}
                ></i>{/each}
            </span>
          {/if}
          <span class="what">
            <strong dir="auto">{item.name}</strong>
            <span class="muted"
              >{item.kind === 'palette'
                ? `Palette, ${item.colours.length} colours`
                : 'Pattern'}{#if item.clash?.same}; just this one is here already{:else if item.clash}; the
                name is taken{/if}</span
            >
            {#each item.notes as note, index (index)}<span class="note">{note}</span>{/each}
          </span>
          <select
            aria-label="What to do with {item.name}"
            value={choices[item.key]}
            onchange={(event) => (choices[item.key] = event.currentTarget.value as ClashChoice)}
          >
            <option value="both">{item.clash ? 'Keep both' : 'Take in'}</option>
            {#if item.clash && !item.clash.stock}
              <option value="replace">{item.kind === 'palette' ? 'Replace ours' : 'As a new revision'}</option
              >
            {/if}
            <option value="skip">{item.clash && item.kind === 'palette' ? 'Use ours' : 'Leave out'}</option>
          </select>
        </li>
      {/each}
    </ul>
  {/if}
  {#if notes.length > 0}
    <details open={items.length === 0 || failed.length > 0}>
      <summary>{notes.length === 1 ? 'One remark' : `${notes.length} remarks`}</summary>
      <ul class="notes">
        {#each notes as note, index (index)}<li>{note}</li>{/each}
      </ul>
    </details>
  {/if}
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#snippet actions()}
    <Button onclick={onclose}>{report ? 'Close' : 'Cancel'}</Button>
    {#if items.length > 0 && !progress}
      <Button onclick={() => input?.click()}>More files …</Button>
      <Button kind="main" disabled={taking || wanted === 0} onclick={takeIn}
        >{taking ? 'Taking in …' : `Take in ${wanted}`}</Button
      >
    {:else if !progress}
      <Button kind="main" onclick={() => input?.click()}>Choose files …</Button>
    {/if}
  {/snippet}
</Dialog>

<style>
  .items {
    display: grid;
    gap: 8px;
    max-height: 46vh;
    overflow: auto;
  }
  .items li {
    display: grid;
    grid-template-columns: 132px 1fr auto;
    gap: 12px;
    align-items: center;
  }
  .items img {
    display: block;
    background: var(--surround);
  }
  .swatches {
    display: flex;
    flex-wrap: wrap;
    gap: 3px;
  }
  .swatches i {
    width: 16px;
    height: 16px;
    border-radius: 50%;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
  }
  .what {
    display: grid;
    gap: 1px;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  .note {
    color: var(--amber);
    font-size: 12px;
  }
  .notes li {
    padding: 2px 0;
    font-size: 12.5px;
  }
  .report {
    max-height: 220px;
    overflow: auto;
  }
  .report a {
    color: var(--kelp);
  }
  .all {
    display: flex;
    align-items: center;
    gap: 6px;
  }
  progress {
    width: 100%;
    accent-color: var(--kelp);
  }
</style>
