<script lang="ts">
  import type { Colourway } from '$lib/core/colour/colourway';
  import { fromPx } from '$lib/core/num/length';
  import type { Standing } from '$lib/core/mockup/mockup';
  import { saySize } from '../library/say';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Popover from '../components/Popover.svelte';
  import Rows from '../components/Rows.svelte';
  import Tick from '../components/Tick.svelte';
  import { toPx } from '$lib/core/num/length';
  import { patternsOn } from '$lib/core/mockup/patterns-on';
  import type { MockupSession } from './session.svelte';

  /** Which layout an object shows, in which colourway, and how its page lies on it. */
  type Props = { session: MockupSession; one: Standing };
  let { session, one }: Props = $props();

  const editor = $derived(session.editorOf(one));
  const lies = $derived(session.layOf(one));
  const sheet = $derived(session.sheetOf(one));
  const listed = $derived(session.layouts.some(({ id }) => id === one.layout));
  const options = $derived<[string, string][]>([
    ['', 'nothing yet'],
    ...session.layouts.map(({ id, name }): [string, string] => [id, name]),
    ...(one.layout !== null && !listed
      ? [
          [one.layout, editor ? `${editor.doc.name} (archived)` : 'a layout that is archived'] as [
            string,
            string,
          ],
        ]
      : []),
  ]);
  const patterns = $derived(editor ? patternsOn(editor.doc) : []);
  const ways = $derived<Colourway[]>(
    patterns.flatMap(({ pattern }) => [...(editor?.patterns.get(pattern)?.colourways ?? [])]),
  );
  let chosen: ReadonlySet<string> = $state.raw(new Set());
  const picked = $derived<(Colourway | null)[]>([
    ...(chosen.has('') ? [null] : []),
    ...ways.filter(({ id }) => chosen.has(id)),
  ]);
  function tick(id: string, on: boolean): void {
    const next = new Set(chosen);
    if (on) next.add(id);
    else next.delete(id);
    chosen = next;
  }
  const mm = (px: number): string => String(Number(fromPx(px, 'mm').toFixed(1)));
</script>

<Panel title="What it shows">
  {#snippet aside()}
    {#if editor}
      <a href="/projects/{session.projectId}/layouts/{editor.id}">Open the layout</a>
    {/if}
  {/snippet}
  <Rows>
    <span>Layout</span>
    <Choice
      label="The layout that it shows"
      value={one.layout ?? ''}
      {options}
      width={150}
      onset={(id) => void session.show(one.id, id === '' ? null : id)}
    />
    {#if editor && ways.length > 0}
      <span>Colourway</span>
      <Choice
        label="The colourway that it shows"
        value={one.colourway ?? ''}
        options={[['', 'as in the layout'], ...ways.map(({ id, name }): [string, string] => [id, name])]}
        width={150}
        onset={(id) => session.changeOne(one.id, (held) => ({ ...held, colourway: id === '' ? null : id }))}
      />
    {/if}
  </Rows>
  {#if editor && lies && lies.how !== 'sheet'}
    <p class="note">
      The page, {saySize(editor.doc, 'mm')}, lies true to size on {lies.panel === ''
        ? 'the sheet'
        : `“${lies.panel}”`}.
      {#if lies.how === 'beyond'}
        It is larger than that part, so some of it is folded round or cut off. A cut sheet of its own fits
        exactly.
      {/if}
    </p>
    <Rows>
      <span>Slid across · down</span>
      <span class="pair">
        {#each ['x', 'y'] as const as axis (axis)}
          <NumberField
            label="Slid {axis === 'x' ? 'across' : 'down'}"
            value={toPx(one.slid[axis], 'mm')}
            kind={{ unit: 'mm' }}
            digits={1}
            hideUnit
            onset={(value) =>
              session.changeOne(one.id, (held) => ({
                ...held,
                slid: { ...held.slid, [axis]: fromPx(value, 'mm') },
              }))}
          />
          {axis === 'x' ? '·' : ''}
        {/each}
      </span>
    </Rows>
  {/if}
  {#if !editor}
    <p class="note">
      Press a hanger and it is covered with that pattern, true to size; or choose a layout, or begin with an
      empty cut sheet{sheet ? ` of ${mm(toPx(sheet.width, 'mm'))} × ${mm(toPx(sheet.height, 'mm'))} mm` : ''}.
    </p>
  {/if}
  <div class="actions">
    {#if lies?.how !== 'sheet'}
      <Button
        title={editor ? 'A cut sheet of its own with all that is on this layout' : undefined}
        onclick={() => void session.cut(one.id, null)}>{editor ? 'Cut it anew' : 'New cut sheet'}</Button
      >
    {/if}
    {#if ways.length > 0}
      <Popover label="Side by side in colourways" width={230}>
        {#snippet button()}<span class="open">Side by side …</span>{/snippet}
        {#snippet children(close)}
          <div class="ways">
            <strong>One for each of</strong>
            <Tick label="as in the layout" checked={chosen.has('')} onset={(on) => tick('', on)} />
            {#each ways as { id, name } (id)}
              <Tick label={name} checked={chosen.has(id)} onset={(on) => tick(id, on)} />
            {/each}
            <Button
              kind="main"
              disabled={picked.length < 2}
              onclick={() => {
                session.sideBySide(one.id, picked);
                close();
              }}>Stand {picked.length < 2 ? 'them' : picked.length} side by side</Button
            >
          </div>
        {/snippet}
      </Popover>
    {/if}
  </div>
</Panel>

<style>
  a {
    color: var(--kelp);
    font-weight: 600;
  }
  .note {
    margin: 8px 0;
    color: var(--muted);
    font-size: var(--small);
  }
  .actions {
    display: flex;
    gap: 8px;
    margin-top: 10px;
  }
  .open {
    color: var(--kelp);
    font-weight: 600;
  }
  .ways {
    display: grid;
    gap: 6px;
    justify-items: start;
  }
</style>
