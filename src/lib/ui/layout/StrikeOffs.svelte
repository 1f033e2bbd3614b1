<script lang="ts">
  import { onMount } from 'svelte';
  import type { PaletteData, PatternSummary, StrikeOff } from '$lib/contract/data';
  import { freshPage, shapeBox, type Shape } from '$lib/core/recipe/layout';
  import type { Fill } from '$lib/core/recipe/fill';
  import { moveBy } from '$lib/core/recipe/transform';
  import {
    sayTry,
    sheetSize,
    triedFill,
    triedShape,
    type StrikeSheet,
    type TryAxis,
  } from '$lib/core/recipe/strike-off';
  import { lowerLayout } from '$lib/core/draw/lower';
  import { layoutSvg } from '$lib/core/svg/layout';
  import { maskPicture } from '$lib/core/formats/mask-picture';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import Dialog from '../components/Dialog.svelte';
  import Field from '../components/Field.svelte';
  import TalkAbout from '../talk/TalkAbout.svelte';
  import { call } from '../state/api';
  import { ExportRun } from '../state/export-job.svelte';
  import { fetchFile } from '../state/save-file';
  import { toasts } from '../state/toasts.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import { sayFill } from './fills';
  import { freshAxis, triesOf } from './tries';
  import TryAxisPicker from './TryAxisPicker.svelte';

  /** Try-outs of one shape side by side, true to size among each other: press one to take it over, keep the sheet, print it. */
  type Props = {
    editor: LayoutEditor;
    shape: Shape;
    fill: Fill;
    patterns: PatternSummary[];
    palettes: PaletteData[];
    onclose: () => void;
  };
  let { editor, shape, fill, patterns, palettes, onclose }: Props = $props();

  // svelte-ignore state_referenced_locally
  const firstWays = fill.kind === 'pattern' ? editor.colourwaysOf(fill).map(({ id }) => id) : [];
  // svelte-ignore state_referenced_locally
  const [firstTry = 'opacity'] = triesOf(fill, firstWays.length);
  // svelte-ignore state_referenced_locally
  let sheet: StrikeSheet = $state.raw({
    shape,
    fill: fill.id,
    across: freshAxis(firstTry, fill, firstWays),
    down: firstWays.length > 0 ? freshAxis('colourway', fill, firstWays) : null,
  });
  let kept: StrikeOff[] = $state.raw([]);
  let held: StrikeOff | null = $state.raw(null);
  let name = $state('');
  let loaded = $state(0);
  const png = new ExportRun();

  const base = $derived(sheet.shape.fills.find(({ id }) => id === sheet.fill) ?? fill);
  const ways = $derived(base.kind === 'pattern' ? editor.colourwaysOf(base) : []);
  const size = $derived(sheetSize(sheet));
  const box = $derived(shapeBox(sheet.shape));
  /** One scale for all, so that they can be compared. */
  const zoom = $derived(
    Math.min(
      ((sheet.down ? 880 : 1010) / size.columns - 24) / box.width,
      (420 / Math.min(size.rows, 3) - 20) / box.height,
      1,
    ),
  );
  const nameOf = (id: string): string =>
    editor.patterns.get(id)?.name ??
    patterns.find((one) => one.id === id)?.name ??
    ways.find((way) => way.id === id)?.name ??
    'gone';

  /** Patterns that are tried must be at hand before they can be drawn. */
  $effect(() => {
    const wanted = [sheet.across, sheet.down].flatMap((axis) =>
      axis?.property === 'pattern' ? axis.values : [],
    );
    void editor.loadPatterns(wanted).then(() => (loaded += 1));
  });
  onMount(async () => {
    const answer = await call('GET /projects/{id}/strike-offs', { id: editor.projectId });
    if (answer.ok) kept = answer.value;
  });

  function drawn(column: number, row: number): string {
    void loaded;
    const tried = moveBy(triedShape(sheet, column, row), 'both', { x: -box.x, y: -box.y });
    const page = {
      ...freshPage(box.width, box.height),
      background: null,
      shapes: [{ ...tried, hidden: false }],
    };
    const svg = layoutSvg(lowerLayout(page, editor.lookup), {
      patterns: 'live',
      width: String(Math.max(1, box.width * zoom)),
      height: String(Math.max(1, box.height * zoom)),
      scale: zoom,
      maskPicture: (mask) => maskPicture(mask, zoom * 2),
    });
    // Ids are made for a file of its own; several files stand on one page here.
    return svg.replace(/(id="|url\(#|href="#)/g, `$1t${column}-${row}-`);
  }

  function adopt(column: number, row: number): void {
    const present = editor.doc.shapes.find(({ id }) => id === sheet.shape.id);
    const target = present?.fills.find(({ id }) => id === sheet.fill);
    if (!present || !target) {
      toasts.problem('The shape of this sheet is no longer in the layout; select another one and try anew.');
      return;
    }
    const ids = new Set([present.id]);
    editor.change(
      (one) => ({
        ...one,
        fills: one.fills.map((layer) =>
          layer.id === sheet.fill ? triedFill(layer, sheet, column, row) : layer,
        ),
      }),
      { ids },
    );
    onclose();
  }

  function setAxis(side: 'across' | 'down', axis: TryAxis | null): void {
    if (side === 'down') sheet = { ...sheet, down: axis };
    else if (axis) sheet = { ...sheet, across: axis };
  }

  async function keep(): Promise<StrikeOff | null> {
    const wanted = name.trim() || `${sheet.shape.name}, ${sayFill(base, editor)}`;
    const answer = held
      ? await call('PUT /strike-offs/{id}', {
          id: held.id,
          body: { base: held.version, name: wanted, sheet },
        })
      : await call('POST /projects/{id}/strike-offs', {
          id: editor.projectId,
          body: {
            name: wanted,
            layoutId: editor.id,
            sheet,
          },
        });
    if (!answer.ok) {
      toasts.problem(answer.failure.message);
      return null;
    }
    held = answer.value;
    name = answer.value.name;
    kept = [answer.value, ...kept.filter(({ id }) => id !== answer.value.id)];
    return answer.value;
  }
  async function print(): Promise<void> {
    const saved = await keep();
    const body = { ppi: editor.doc.ppi };
    if (saved) await png.run(() => call('POST /strike-offs/{id}/exports', { id: saved.id, body }));
  }
  let writing = $state(false);
  async function printPdf(): Promise<void> {
    const saved = await keep();
    if (!saved) return;
    writing = true;
    const query = { ppi: editor.doc.ppi };
    const problem = await fetchFile('GET /strike-offs/{id}/pdf', { id: saved.id, query });
    writing = false;
    if (problem !== null) toasts.problem(problem);
  }
  async function remove(): Promise<void> {
    if (!held) return;
    const gone = await call('DELETE /strike-offs/{id}', { id: held.id });
    if (!gone.ok) {
      toasts.problem(gone.failure.message);
      return;
    }
    kept = kept.filter(({ id }) => id !== held?.id);
    held = null;
    name = '';
  }
  function open(id: string): void {
    held = kept.find((one) => one.id === id) ?? null;
    if (!held) return;
    sheet = held.sheet;
    name = held.name;
  }
</script>

<Dialog title="Strike-off of {sheet.shape.name}" width={1120} {onclose}>
  <div class="axes">
    <TryAxisPicker
      label="Across"
      axis={sheet.across}
      fill={base}
      {ways}
      {patterns}
      {palettes}
      taken={sheet.down?.property ?? null}
      onset={(axis) => setAxis('across', axis)}
    />
    <TryAxisPicker
      label="Down"
      axis={sheet.down}
      fill={base}
      {ways}
      {patterns}
      {palettes}
      optional
      taken={sheet.across.property}
      onset={(axis) => setAxis('down', axis)}
    />
    {#if kept.length > 0}
      <div class="kept">
        <span>Kept with this project</span>
        <Choice
          label="Kept strike-offs"
          width={200}
          value={held?.id ?? ''}
          options={[['', 'a new one'] as const, ...kept.map((one) => [one.id, one.name] as const)]}
          onset={open}
        />
      </div>
    {/if}
  </div>
  <div class="work" class:talked={held !== null}>
    <div
      class="sheet"
      style:grid-template-columns="{sheet.down ? 'max-content ' : ''}repeat({size.columns}, max-content)"
    >
      {#if sheet.down}<span></span>{/if}
      {#each { length: size.columns } as _, column (column)}
        <span class="label">{sayTry(sheet.across, column, nameOf)}</span>
      {/each}
      {#each { length: size.rows } as _, row (row)}
        {#if sheet.down}<span class="label side">{sayTry(sheet.down, row, nameOf)}</span>{/if}
        {#each { length: size.columns } as _, column (column)}
          <button
            type="button"
            class="try"
            title="Take this one"
            aria-label="Take {sayTry(sheet.across, column, nameOf)}{sheet.down
              ? `, ${sayTry(sheet.down, row, nameOf)}`
              : ''}"
            onclick={() => adopt(column, row)}
          >
            <!-- eslint-disable-next-line svelte/no-at-html-tags -- an SVG written by core/svg, names escaped -->
            {@html drawn(column, row)}
          </button>
        {/each}
      {/each}
    </div>
    {#if held}
      <div class="talk">
        {#key held.id}<TalkAbout kind="strike-off" id={held.id} />{/key}
      </div>
    {/if}
  </div>
  {#if png.problem}<p class="problem" role="alert">{png.problem}</p>{/if}
  {#snippet actions()}
    <div class="name">
      <Field label="Name" bind:value={name} placeholder="{sheet.shape.name}, {sayFill(base, editor)}" />
    </div>
    {#if held}<Button kind="quiet" onclick={remove}>Take it away</Button>{/if}
    <Button onclick={onclose}>Close</Button>
    <Button disabled={writing} onclick={printPdf}>{writing ? 'Writing …' : 'Print as PDF'}</Button>
    <Button disabled={png.working} onclick={print}
      >{png.working ? `Drawing, ${Math.round((png.job?.progress ?? 0) * 100)} %` : 'Print as PNG'}</Button
    >
    <Button kind="main" onclick={keep}>{held ? 'Keep the changes' : 'Keep'}</Button>
  {/snippet}
</Dialog>

<style>
  .axes {
    display: grid;
    grid-template-columns: 1fr 1fr auto;
    gap: 24px;
  }
  .kept {
    display: grid;
    align-content: start;
    gap: 6px;
    color: var(--muted);
  }
  .sheet {
    display: grid;
    align-items: start;
    justify-content: start;
    gap: 10px 14px;
    max-height: 56vh;
    padding: 14px;
    overflow: auto;
    background: var(--surround);
  }
  .work {
    display: grid;
    gap: 14px;
  }
  .talked {
    grid-template-columns: minmax(0, 1fr) 300px;
  }
  .talk {
    max-height: 56vh;
    overflow: auto;
  }
  .label {
    padding-left: 5px;
    color: var(--ink);
    font: 500 12px var(--mono);
  }
  .side {
    align-self: center;
    max-width: 120px;
  }
  .try {
    padding: 3px;
    border: 2px solid transparent;
    background: none;
    line-height: 0;
    cursor: pointer;
  }
  .try:hover,
  .try:focus-visible {
    border-color: var(--kelp);
  }
  .name {
    flex: 1;
    max-width: 320px;
    margin-right: auto;
  }
</style>
