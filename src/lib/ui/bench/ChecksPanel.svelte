<script lang="ts">
  import { fromPx } from '$lib/core/num/length';
  import { motifSlots } from '$lib/core/recipe/edit';
  import { THINNEST_LINE } from '$lib/core/scene/thin';
  import Button from '../components/Button.svelte';
  import Panel from '../components/Panel.svelte';
  import { SURFACES } from '../components/surfaces';
  import { contrasts } from '$lib/core/recipe/contrast';
  import PictureChecks from './PictureChecks.svelte';
  import type { Checks } from './checks.svelte';
  import type { BenchEditor } from './editor.svelte';
  import type { BenchShow, Pointed } from './show.svelte';

  /** What the checks found, each with a way to see it on the unit view. */
  type Props = { editor: BenchEditor; checks: Checks; show: BenchShow };
  let { editor, checks, show }: Props = $props();

  const recipe = $derived(editor.kind === 'composed' ? editor.still : editor.recipe);
  const reply = $derived(checks.reply);
  const say = (px: number): string => `${Number(fromPx(px, recipe.measure).toFixed(2))} ${recipe.measure}`;
  const surface = $derived.by(() => {
    if (show.surfaceColour) return { name: 'the chosen surface', colour: show.surfaceColour };
    const found = SURFACES.find((one) => one.id === show.surface);
    return found && found.colour !== ''
      ? { name: `the ${found.label.toLowerCase()} surface`, colour: found.colour }
      : null;
  });
  const standing = $derived(contrasts(recipe, surface));
  const least = $derived(standing[0]);
  const alike = $derived(standing.filter((one) => one.alike));
  const touching = $derived((reply?.touches ?? []).filter((touch) => touch.distance <= 0));
  const near = $derived((reply?.touches ?? []).filter((touch) => touch.distance > 0));
  const nameOf = (slot: string): string => recipe.slots.find((held) => held.id === slot)?.name ?? '';
  const pairs = (count: number): string =>
    count === 1 ? '1 pair' : count >= 200 ? '200 pairs or more' : `${count} pairs`;
  let open = $state(false);

  function point(what: string, circles: Pointed['circles'], lines: Pointed['lines'] = []): void {
    show.pointed = show.pointed?.what === what ? null : { what, circles, lines };
  }
  const around = (at: { x: number; y: number }): { at: { x: number; y: number }; radius: number } => ({
    at,
    radius: Math.min(editor.scene.pitch.width, editor.scene.pitch.height) / 14,
  });
  const placedAt = (ids: readonly string[]): Pointed['circles'] =>
    editor.scene.pieces
      .filter((piece) => ids.includes(piece.id))
      .map(({ box }) => ({
        at: { x: box.x + box.width / 2, y: box.y + box.height / 2 },
        radius: Math.max(box.width, box.height) / 2 + 2,
      }));
  /** The pieces whose motifs use a slot. */
  function paintedWith(slot: string): Pointed['circles'] {
    const motifs = new Set(
      editor.still.motifs.filter((motif) => motifSlots(motif).includes(slot)).map(({ id }) => id),
    );
    return placedAt(editor.scene.pieces.filter(({ motif }) => motifs.has(motif)).map(({ id }) => id));
  }
  function joinLines(): Pointed['lines'] {
    const { a, b } = editor.scene.lattice;
    return [
      { from: { x: 0, y: 0 }, to: a },
      { from: { x: 0, y: 0 }, to: b },
    ];
  }
</script>

{#snippet row(
  label: string,
  what: string,
  text: string,
  noted: boolean,
  show_: (() => void) | null,
  title = '',
)}
  <span class="muted">{label}</span>
  {#if show_}
    <button
      type="button"
      class="value"
      class:noted
      aria-pressed={show.pointed?.what === what}
      title={title || `${label}: show where`}
      onclick={show_}
      >{text}{text.length > 12 ? '' : show.pointed?.what === what ? ', hide' : ', show'}</button
    >
  {:else}
    <span class="value" class:noted class:clean={!noted}>{text}</span>
  {/if}
{/snippet}

<Panel title="Checks">
  {#snippet aside()}<span class="state" aria-live="polite">{checks.running ? 'looking …' : ''}</span
    >{/snippet}
  <div class="rows">
    {#if checks.pictures}
      <PictureChecks pictures={checks.pictures} {editor} {show} {row} />
    {:else if checks.joins}
      {@render row(
        'Join at edges',
        'join',
        checks.joins.visible ? 'visible' : 'clean',
        checks.joins.visible,
        checks.joins.visible ? () => point('join', [], joinLines()) : null,
      )}
    {/if}
    {#if checks.coverage}
      <span class="muted">Coverage</span>
      <button type="button" class="value" aria-expanded={open} onclick={() => (open = !open)}
        >{(checks.coverage.total * 100).toFixed(1)} %, {open ? 'hide' : 'each'}</button
      >
      {#if open}
        {#each checks.coverage.bySlot as { slot, share } (slot)}
          <span class="muted sub">{nameOf(slot)}</span><span class="value">{(share * 100).toFixed(2)} %</span>
        {/each}
      {/if}
    {/if}
    {#if reply}
      {#if reply.gap}
        {@const gap = reply.gap}
        {@render row('Widest gap', 'gap', `⌀ ${say(gap.radius * 2)}`, false, () => point('gap', [gap]))}
      {:else}
        {@render row('Widest gap', 'gap', 'none', false, null)}
      {/if}
      {#if editor.kind === 'composed'}
        {@render row(
          'Touching',
          'touch',
          touching.length === 0 ? 'none' : pairs(touching.length),
          false,
          touching.length > 0
            ? () =>
                point(
                  'touch',
                  touching.map(({ at }) => around(at)),
                )
            : null,
        )}
        {@render row(
          'Near misses',
          'near',
          near.length === 0 ? 'none' : pairs(near.length),
          near.length > 0,
          near.length > 0
            ? () =>
                point(
                  'near',
                  near.map(({ at }) => around(at)),
                )
            : null,
        )}
      {/if}
      {@render row(
        'Under 0.25 pt',
        'thin',
        reply.thin.length === 0
          ? 'nothing'
          : `${reply.thin.length} at ${say(Math.min(...reply.thin.map(({ width }) => width), THINNEST_LINE))}`,
        reply.thin.length > 0,
        reply.thin.length > 0 ? () => point('thin', placedAt(reply.thin.map(({ piece }) => piece))) : null,
      )}
    {/if}
    {#if least}
      {@const slot = least.slot}
      {@render row(
        'Least contrast',
        'contrast',
        `${least.ratio.toFixed(1)} : 1, ΔE ${least.deltaE.toFixed(0)}`,
        least.alike,
        editor.kind === 'composed' ? () => point('contrast', paintedWith(slot)) : null,
        `${least.name} on ${least.against}: contrast ${least.ratio.toFixed(2)} : 1, ΔE2000 ${least.deltaE.toFixed(1)}`,
      )}
    {/if}
  </div>
  {#each alike as one (one.slot + one.against)}
    <p class="warning" role="status">{one.name} can hardly be told from {one.against}.</p>
  {/each}
  {#if reply?.gap && editor.motif && editor.kind === 'composed'}
    {@const gap = reply.gap}
    {@const name = editor.still.motifs.find((held) => held.id === editor.motif)?.name}
    {#if name}
      <div class="fill">
        <Button
          kind="quiet"
          onclick={() => {
            editor.fillGap(gap);
            show.pointed = null;
          }}>Put {name} into the widest gap</Button
        >
      </div>
    {/if}
  {/if}
</Panel>

<style>
  .rows {
    display: grid;
    grid-template-columns: 1fr auto;
    justify-items: start;
    gap: 4px 8px;
    align-items: baseline;
  }
  .rows > :not(.muted) {
    justify-self: end;
  }
  .rows > .muted {
    white-space: nowrap;
  }
  .value {
    padding: 0;
    border: 0;
    background: none;
    color: var(--ink);
    font: 500 11.5px var(--mono);
    letter-spacing: -0.02em;
    text-align: right;
    white-space: nowrap;
  }
  button.value {
    border-bottom: 1px dotted var(--rule-strong);
    justify-self: end;
    cursor: pointer;
  }
  .clean {
    color: var(--kelp);
  }
  .noted {
    color: var(--amber);
  }
  .sub {
    padding-left: 10px;
  }
  .fill {
    margin: 4px 0 -6px -8px;
  }
  .state {
    font-size: var(--small);
  }
  .warning {
    margin-top: 6px;
    padding: 4px 8px;
    border-radius: 4px;
    background: var(--amber-tint);
    font-size: 12px;
  }
</style>
