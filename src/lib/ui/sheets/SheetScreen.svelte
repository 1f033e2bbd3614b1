<script lang="ts">
  import Fixed from '../components/Fixed.svelte';
  import { beforeNavigate } from '$app/navigation';
  import { onMount } from 'svelte';
  import type { SheetData } from '$lib/contract/data';
  import { arrangeSheet, type TextWidth } from '$lib/core/sheet/arrange';
  import {
    PAPER_NAMES,
    PAPERS,
    pageSize,
    SHEET_LIMITS,
    SHEET_WIDTHS,
    type Paper,
    type SheetWidth,
  } from '$lib/core/sheet/client-sheet';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import NameField from '../components/NameField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import LookOn from '../components/LookOn.svelte';
  import SaveNote from '../components/SaveNote.svelte';
  import StaleDialog from '../components/StaleDialog.svelte';
  import Switch from '../components/Switch.svelte';
  import WorkingHere from '../people/WorkingHere.svelte';
  import { keepUnsaved } from '../state/keeping.svelte';
  import TopBar from '../components/TopBar.svelte';
  import { onLive } from '../state/live';
  import { keyIsTaken, undoByKey } from '../state/undo-keys';
  import AnswersPanel from './AnswersPanel.svelte';
  import PagesDialog from './PagesDialog.svelte';
  import PaperPage from './PaperPage.svelte';
  import { textWidths } from './paper';
  import { SheetSession } from './session.svelte';
  import ShareDialog from './ShareDialog.svelte';
  import SheetList from './SheetList.svelte';
  import { factsOf, type SheetSources } from './sources';
  import Words from './Words.svelte';

  /** A client sheet: what is on it at the left, its pages, and what is said of it, its links and what clients left at the right. */
  type Props = {
    sheet: SheetData;
    sources: SheetSources;
    mayChange: boolean;
    onsources: () => Promise<void>;
  };
  let { sheet, sources, mayChange, onsources }: Props = $props();

  // svelte-ignore state_referenced_locally
  const session = new SheetSession(sheet);
  // svelte-ignore state_referenced_locally
  session.mayChange = mayChange;
  let sharing = $state(false);
  let saving = $state(false);
  /** On the server texts are as wide as they usually are. */
  let widthOf: TextWidth = $state.raw((text, size) => text.length * size * 0.52);
  onMount(async () => {
    await document.fonts.ready;
    widthOf = textWidths();
  });
  const body = $derived(session.body);
  const size = $derived(pageSize(body));
  const pages = $derived(arrangeSheet(body, (item) => factsOf(sources, item), widthOf, sheet.projectName));
  const chosen = $derived(session.chosen);

  $effect(() => {
    if (!session.history.inGesture) session.saver.want(session.history.doc);
  });
  keepUnsaved({
    ...{ what: () => `sheet ${session.id}`, saver: session.saver, history: session.history },
    mayChange: () => mayChange,
    bring: (base, doc) => void session.bringBack(base, doc),
  });
  onLive(['sheet.', 'mockup.', 'layout.', 'pattern.', 'palette.'], async (events) => {
    if (
      events.some(
        ({ kind, subject }) => kind.startsWith('sheet.') && (subject === session.id || subject === ''),
      )
    )
      await session.hear();
    if (events.some(({ kind }) => !kind.startsWith('sheet.'))) await onsources();
  });
  beforeNavigate(({ willUnload, cancel }) => {
    void session.saver.flush();
    if (willUnload && !session.saver.clean) cancel();
  });
  function onkey(event: KeyboardEvent): void {
    if (keyIsTaken(event)) return;
    if (undoByKey(event, session.history)) event.preventDefault();
  }
  const WIDTH_NAMES: Record<SheetWidth, string> = { third: 'a third', half: 'half', whole: 'whole width' };
</script>

<svelte:window onkeydown={onkey} />

<div class="view">
  <TopBar skip={{ label: 'To what is on the sheet', to: '[data-list] button' }}>
    {#snippet trail()}
      <a href="/projects/{sheet.projectId}">{sheet.projectName}</a> /
      <NameField
        label="The name of the client sheet"
        value={session.history.doc.name}
        onset={(name) => {
          session.rename(name);
          return null;
        }}
      />
      · {pages.length === 1 ? 'one page' : `${pages.length} pages`}
    {/snippet}
    {#snippet actions()}
      <WorkingHere kind="sheet" id={session.id} />
      {#if mayChange}<SaveNote state={session.saver.state} onretry={() => void session.saver.flush()} />
      {:else}<LookOn what="client sheet" />{/if}
      <Button disabled={body.items.length === 0} onclick={() => (saving = true)}>Save pages</Button>
      {#if mayChange}
        <Button kind="main" disabled={body.items.length === 0} onclick={() => (sharing = true)}
          >Show to a client</Button
        >
      {/if}
    {/snippet}
  </TopBar>
  <div class="columns">
    <SheetList {session} {sources} />
    <!-- It scrolls: the keyboard must get there. -->
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <main tabindex="0" aria-label="Pages">
      <h1 class="visually-hidden">{session.history.doc.name}</h1>
      <div class="pages" class:tall={size.height > size.width}>
        {#each pages as page, at (at)}
          <PaperPage
            {page}
            {size}
            number={at + 1}
            items={body.items}
            {sources}
            chosen={session.chosenId}
            onchoose={(id) => (session.chosenId = id)}
          />
        {/each}
      </div>
    </main>
    <aside aria-label="The sheet">
      <Fixed fixed={!mayChange}>
        {#if chosen}
          <Panel title={chosen.kind === 'note' ? 'Note' : factsOf(sources, chosen).title}>
            {#snippet aside()}
              <Button kind="quiet" onclick={() => (session.chosenId = null)}>Done</Button>
            {/snippet}
            <Words
              label={chosen.kind === 'note' ? 'Words' : 'Caption'}
              value={chosen.caption}
              most={SHEET_LIMITS.caption}
              onset={(caption) => session.changeItem(chosen.id, { caption })}
            />
            <Rows>
              <span>Width</span>
              <Choice
                label="How wide it is"
                value={chosen.width}
                options={SHEET_WIDTHS.map((width): [SheetWidth, string] => [width, WIDTH_NAMES[width]])}
                onset={(width) => session.changeItem(chosen.id, { width })}
              />
            </Rows>
          </Panel>
        {/if}
        <Panel title="The sheet">
          <Words
            label="Line on top"
            value={body.line}
            most={SHEET_LIMITS.line}
            rows={1}
            onset={(line) => session.change((held) => ({ ...held, line }))}
          />
          <Words
            label="Some words"
            value={body.words}
            most={SHEET_LIMITS.words}
            onset={(words) => session.change((held) => ({ ...held, words }))}
          />
          <Rows>
            <span>Paper</span>
            <Choice
              label="Paper"
              value={body.paper}
              options={PAPER_NAMES.map((paper): [Paper, string] => [paper, PAPERS[paper].label])}
              onset={(paper) => session.change((held) => ({ ...held, paper }))}
            />
            <span>Lies</span>
            <Switch
              label="How the paper lies"
              value={body.across ? 'across' : 'upright'}
              options={[
                { value: 'across', label: 'across' },
                { value: 'upright', label: 'upright' },
              ]}
              onset={(value) => session.change((held) => ({ ...held, across: value === 'across' }))}
            />
          </Rows>
        </Panel>
        <AnswersPanel {session} {sources} />
      </Fixed>
    </aside>
  </div>
</div>

{#if sharing}<ShareDialog {session} {sources} onclose={() => (sharing = false)} />{/if}
{#if saving}
  <PagesDialog
    name={session.history.doc.name}
    sheet={body}
    {pages}
    {sources}
    onclose={() => (saving = false)}
  />
{/if}
{#if session.stale}
  <StaleDialog
    message={session.stale.message}
    onmine={() => session.keepMine()}
    ontheirs={() => void session.takeTheirs()}
  />
{/if}

<style>
  .view {
    display: flex;
    flex-direction: column;
    height: 100vh;
    overflow: hidden;
  }
  .columns {
    display: grid;
    flex: 1;
    grid-template-columns: 240px minmax(0, 1fr) 280px;
    min-height: 0;
  }
  main:focus-visible {
    outline-offset: -2px;
  }
  main {
    overflow: auto;
    background: var(--surround);
  }
  .pages {
    display: grid;
    gap: 22px;
    max-width: 900px;
    margin: 0 auto;
    padding: 22px;
  }
  .tall {
    max-width: 640px;
  }
  aside {
    overflow: auto;
    border-left: 1px solid var(--rule);
    background: var(--card);
  }
</style>
