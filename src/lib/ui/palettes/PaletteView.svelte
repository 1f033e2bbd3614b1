<script lang="ts">
  import Fixed from '../components/Fixed.svelte';
  import { untrack } from 'svelte';
  import type { ColourUses, LibraryFacets, PaletteData, PaletteEntry } from '$lib/contract/data';
  import type { OrderBy } from '$lib/core/colour/order';
  import { readColour } from '$lib/core/colour/space';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import NameField from '../components/NameField.svelte';
  import LookOn from '../components/LookOn.svelte';
  import SaveNote from '../components/SaveNote.svelte';
  import StaleDialog from '../components/StaleDialog.svelte';
  import { ask, call } from '../state/api';
  import { saveBlob } from '../state/save-file';
  import { toasts } from '../state/toasts.svelte';
  import { keyIsTaken, undoByKey } from '../state/undo-keys';
  import ChosenColour from './ChosenColour.svelte';
  import ColourList from './ColourList.svelte';
  import ContrastMatrix from './ContrastMatrix.svelte';
  import WorkingHere from '../people/WorkingHere.svelte';
  import { may } from '../state/may';
  import { keepUnsaved } from '../state/keeping.svelte';
  import { colourEntry, PaletteEditor } from './editor.svelte';
  import PictureColours from './PictureColours.svelte';
  import SchemeDialog from './SchemeDialog.svelte';
  import UsedColours from './UsedColours.svelte';

  /** One palette: its colours, what follows them, how they stand against each other, and ways to get more. */
  type Props = {
    palette: PaletteData;
    projects: LibraryFacets['projects'];
    onarchive: () => void;
    onname: () => void;
  };
  let { palette, projects, onarchive, onname }: Props = $props();

  // The view is made anew for each palette.
  // svelte-ignore state_referenced_locally
  const editor = new PaletteEditor(palette);
  editor.mayChange = may('designer');
  let uses: ColourUses = $state.raw({});
  let dialog = $state<'picture' | 'scheme' | 'used' | null>(null);
  let typed = $state('');
  let problem: string | null = $state(null);
  const doc = $derived(editor.doc);
  const entry = $derived(editor.entry);
  const stale = $derived(editor.saver.state.kind === 'stale' ? editor.saver.state.failure : null);

  $effect(() => {
    const { doc: now, inGesture } = editor.history;
    if (!inGesture) untrack(() => editor.saver.want(now));
  });
  keepUnsaved({
    ...{ what: () => `palette ${editor.id}`, saver: editor.saver, history: editor.history },
    mayChange: () => editor.mayChange,
    bring: (base, doc) => editor.bringBack(base, doc),
  });
  $effect(() => {
    // Somebody else changed it: shown at once, unless there is work of one's own under way.
    const { version } = palette;
    untrack(() => {
      if (editor.saver.clean && version > editor.saver.version) editor.take(palette);
    });
  });
  $effect(() => {
    void editor.saver.version;
    void call('GET /palettes/{id}/uses', { id: palette.id }).then((answer) => {
      if (answer.ok) uses = answer.value;
    });
  });
  $effect(() => () => void editor.saver.flush());

  function add(): void {
    const text = typed.trim();
    if (text === '') {
      editor.add([colourEntry('Colour', '#808080')]);
      return;
    }
    const read = readColour(text);
    problem = read.ok ? null : read.message;
    if (!read.ok) return;
    typed = '';
    editor.add([colourEntry('Colour', read.hex, read.outside ? text : null)]);
  }
  function gradient(): void {
    const [one, other] = [editor.plain[0], editor.plain.at(-1)];
    const stop = (at: number, from: PaletteEntry | undefined, otherwise: string) =>
      from ? { at, hex: from.hex, link: from.id } : { at, hex: otherwise };
    const stops = [stop(0, one, '#000000'), stop(1, other, '#ffffff')];
    editor.add([{ name: 'Gradient', hex: stops[0]!.hex, gradient: stops }]);
  }
  function take(colours: { name: string; hex: string }[]): void {
    dialog = null;
    editor.add(colours.map(({ name, hex }) => colourEntry(name, hex)));
  }
  async function saveAs(as: 'tokens' | 'css' | 'csv' | 'svg'): Promise<void> {
    await editor.saver.flush();
    const answer = await ask('GET /palettes/{id}/file', { id: palette.id, query: { as } });
    if (answer.ok) await saveBlob(answer);
    else toasts.problem('The palette could not be written; try again.');
  }
  function merge(): void {
    const count = editor.merge(2.3);
    toasts.show(
      count === 0
        ? 'No two colours are nearer than ΔE2000 2.3.'
        : `Merged: ${count === 1 ? 'one near duplicate is' : `${count} near duplicates are`} gone.`,
      count === 0 ? {} : { action: { label: 'Undo', run: () => editor.history.undo() } },
    );
  }
  function onkey(event: KeyboardEvent): void {
    if (keyIsTaken(event) || document.querySelector('dialog[open]')) return;
    if (undoByKey(event, editor.history)) event.preventDefault();
    else if (event.key === 'Delete' && editor.chosen) editor.remove(editor.chosen);
  }
</script>

<svelte:window onkeydown={onkey} />

<div class="view">
  <header>
    <NameField
      size="title"
      label="The name of the palette"
      value={doc.name}
      onset={async (name) => {
        editor.change({ name });
        await editor.saver.flush();
        if (editor.saver.state.kind === 'failed') {
          const { message } = editor.saver.state;
          editor.history.undo();
          return message;
        }
        onname();
        return null;
      }}
    />
    <Choice
      label="Belongs to"
      disabled={!editor.mayChange}
      width={172}
      value={doc.projectId ?? ''}
      options={[
        ['', 'Shared by all projects'],
        ...projects.map(({ id, name }) => [id, `Only ${name}`] as const),
      ]}
      onset={(id) => editor.change({ projectId: id === '' ? null : id })}
    />
    <WorkingHere kind="palette" id={palette.id} />
    {#if editor.mayChange}<SaveNote state={editor.saver.state} onretry={() => editor.saver.flush()} />
    {:else}<LookOn what="palette" />{/if}
    <span class="space"></span>
    <Choice
      label="Save as a file"
      value=""
      options={[
        ['', 'Save as …'],
        ['tokens', 'Design tokens'],
        ['css', 'CSS custom properties'],
        ['csv', 'CSV'],
        ['svg', 'SVG sheet'],
      ]}
      onset={(as) => as !== '' && void saveAs(as as 'tokens' | 'css' | 'csv' | 'svg')}
    />
    {#if editor.mayChange}<Button onclick={onarchive}>Archive</Button>{/if}
  </header>

  {#if editor.mayChange}
    <div class="add">
      <input
        class="mono"
        type="text"
        placeholder="#2f8fab, teal or oklch(…)"
        aria-label="A colour to add"
        bind:value={typed}
        spellcheck="false"
        onkeydown={(event) => event.key === 'Enter' && add()}
      />
      <Button onclick={add}>Add</Button>
      <span class="muted">or from</span>
      <Button onclick={() => (dialog = 'picture')}>Picture …</Button>
      <Button onclick={() => (dialog = 'scheme')}>Scheme …</Button>
      <Button onclick={() => (dialog = 'used')}>Patterns in use …</Button>
      <Button onclick={gradient}>New gradient</Button>
    </div>
    {#if problem}<p class="problem" role="alert">{problem}</p>{/if}

    <div class="add">
      <span class="muted">{doc.colours.length === 1 ? 'One colour' : `${doc.colours.length} colours`}</span>
      <span class="space"></span>
      <Choice
        label="Sort the colours"
        value=""
        options={[
          ['', 'Sort by …'],
          ['lightness', 'Lightness'],
          ['hue', 'Hue'],
          ['chroma', 'Chroma'],
        ]}
        onset={(by) => by !== '' && editor.order(by as OrderBy)}
      />
      <Button onclick={merge}>Merge alike</Button>
    </div>
  {/if}
  <div class="columns">
    <ColourList {editor} />
    {#if entry}
      <Fixed fixed={!editor.mayChange}
        ><ChosenColour {editor} {entry} {uses} onproblem={(text) => (problem = text)} /></Fixed
      >
    {/if}
  </div>

  <ContrastMatrix colours={editor.plain} />
</div>

{#if dialog === 'picture'}<PictureColours ontake={take} onclose={() => (dialog = null)} />{/if}
{#if dialog === 'scheme'}
  <SchemeDialog
    from={entry?.hex ?? editor.plain[0]?.hex ?? '#2f8fab'}
    ontake={take}
    onclose={() => (dialog = null)}
  />
{/if}
{#if dialog === 'used'}<UsedColours has={editor.plain} ontake={take} onclose={() => (dialog = null)} />{/if}
{#if stale}
  <StaleDialog
    message={stale.message}
    onmine={() => {
      const theirs = stale.current as PaletteData;
      editor.saver.rebase(
        { name: theirs.name, projectId: theirs.projectId, colours: theirs.colours },
        theirs.version,
      );
    }}
    ontheirs={() => editor.take(stale.current as PaletteData)}
  />
{/if}

<style>
  .view {
    display: grid;
    gap: 14px;
    padding: 18px 20px 40px;
  }
  header,
  .add {
    display: flex;
    align-items: center;
    gap: 10px;
    flex-wrap: wrap;
  }
  .space {
    flex: 1;
  }
  .add input {
    width: 200px;
    padding: 5px 8px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
  }
  @media (max-width: 1100px) {
    header,
    .add {
      gap: 6px;
    }
    .add input {
      width: 190px;
    }
    header :global(:is(.mirror, input)) {
      font-size: 19px;
    }
  }
  .columns {
    display: flex;
    gap: 20px;
    align-items: flex-start;
  }
</style>
