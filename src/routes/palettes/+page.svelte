<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import { nanoid } from 'nanoid';
  import Plus from '@lucide/svelte/icons/plus';
  import X from '@lucide/svelte/icons/x';
  import type { PaletteData } from '$lib/contract/data';
  import type { Outcome } from '$lib/contract/failure';
  import { contrastRatio } from '$lib/core/colour/contrast';
  import { call } from '$lib/ui/state/api';
  import { toasts } from '$lib/ui/state/toasts.svelte';
  import Button from '$lib/ui/components/Button.svelte';
  import ColourWell from '$lib/ui/components/ColourWell.svelte';
  import NameField from '$lib/ui/components/NameField.svelte';
  import TopBar from '$lib/ui/components/TopBar.svelte';
  import NewThing from '$lib/ui/library/NewThing.svelte';

  let { data } = $props();
  let asking = $state(false);

  async function save(palette: PaletteData, change: Partial<PaletteData>): Promise<string | null> {
    const { name, colours } = { ...palette, ...change };
    const saved = await call('PUT', `/palettes/${palette.id}`, { base: palette.version, name, colours });
    await invalidateAll();
    return saved.ok ? null : saved.failure.message;
  }
  async function change(palette: PaletteData, colours: PaletteData['colours']): Promise<void> {
    const problem = await save(palette, { colours });
    if (problem) toasts.problem(problem);
  }
  async function archive(palette: PaletteData): Promise<void> {
    const saved = await call('PUT', `/palettes/${palette.id}/archived`, { archived: true });
    if (!saved.ok) return toasts.problem(saved.failure.message);
    await invalidateAll();
    toasts.show(`“${palette.name}” is in the archive.`, {
      action: {
        label: 'Undo',
        run: () =>
          void call('PUT', `/palettes/${palette.id}/archived`, { archived: false }).then(() =>
            invalidateAll(),
          ),
      },
    });
  }
  async function create(name: string): Promise<Outcome<unknown>> {
    const made = await call('POST', '/palettes', { name });
    if (made.ok) {
      asking = false;
      await invalidateAll();
    }
    return made;
  }
  function freshName(palette: PaletteData): string {
    let number = palette.colours.length + 1;
    while (palette.colours.some((colour) => colour.name === `Colour ${number}`)) number += 1;
    return `Colour ${number}`;
  }
</script>

<svelte:head><title>Palettes · Isle</title></svelte:head>

<div class="view">
  <TopBar>
    {#snippet actions()}
      <Button kind="main" onclick={() => (asking = true)}><Plus size={16} />New palette</Button>
    {/snippet}
  </TopBar>
  <main>
    <h1>Palettes</h1>
    <p class="muted">
      Colours named here are offered wherever a colour is chosen. The ratio is the contrast with white and
      with black (WCAG 2.2).
    </p>
    {#each data.palettes as palette (palette.id)}
      <section>
        <header>
          <NameField
            label="The name of the palette"
            value={palette.name}
            onset={(name) => save(palette, { name })}
          />
          <Button kind="quiet" onclick={() => archive(palette)}>Archive</Button>
        </header>
        <ul>
          {#each palette.colours as colour (colour.id)}
            <li>
              <div class="sample" style:background={colour.hex}>
                <ColourWell
                  colour={colour.hex}
                  label={colour.name}
                  size={26}
                  onset={(hex) =>
                    change(
                      palette,
                      palette.colours.map((held) => (held.id === colour.id ? { ...held, hex } : held)),
                    )}
                />
                <button
                  type="button"
                  class="remove"
                  aria-label="Remove {colour.name}"
                  title="Remove {colour.name}"
                  onclick={() =>
                    change(
                      palette,
                      palette.colours.filter((held) => held.id !== colour.id),
                    )}><X size={14} /></button
                >
              </div>
              <NameField
                label="The name of the colour"
                value={colour.name}
                onset={(name) =>
                  save(palette, {
                    colours: palette.colours.map((held) =>
                      held.id === colour.id ? { ...held, name } : held,
                    ),
                  })}
              />
              <span class="mono muted">{colour.hex}</span>
              <span class="mono muted"
                >{contrastRatio(colour.hex, '#ffffff').toFixed(1)} · {contrastRatio(
                  colour.hex,
                  '#000000',
                ).toFixed(1)} : 1</span
              >
            </li>
          {/each}
          <li class="add">
            <button
              type="button"
              onclick={() =>
                change(palette, [
                  ...palette.colours,
                  { id: nanoid(12), name: freshName(palette), hex: '#8b938f' },
                ])}><Plus size={16} />Add a colour</button
            >
          </li>
        </ul>
      </section>
    {:else}
      <p>
        No palettes yet. <button type="button" class="link" onclick={() => (asking = true)}
          >Make the first one</button
        >.
      </p>
    {/each}
  </main>
</div>
{#if asking}
  <NewThing
    title="New palette"
    label="The name of the palette"
    action="Make palette"
    {create}
    onclose={() => (asking = false)}
  />
{/if}

<style>
  .view {
    display: flex;
    flex-direction: column;
    height: 100vh;
  }
  main {
    flex: 1;
    overflow: auto;
    padding: 24px;
  }
  section {
    margin-top: 22px;
  }
  header {
    display: flex;
    justify-content: space-between;
    padding-bottom: 8px;
    margin-bottom: 12px;
    border-bottom: 1px solid var(--rule);
    font-size: 15px;
  }
  ul {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
    gap: 16px;
    margin: 0;
    padding: 0;
    list-style: none;
  }
  li {
    display: grid;
    justify-items: start;
    gap: 1px;
  }
  .sample {
    display: flex;
    justify-content: space-between;
    align-items: end;
    width: 100%;
    height: 88px;
    padding: 8px;
    margin-bottom: 6px;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 12%);
  }
  .sample :global(.swatch) {
    border: 2px solid #fff;
  }
  .remove {
    display: inline-flex;
    padding: 4px;
    border: 0;
    border-radius: 50%;
    background: #fff;
    color: var(--ink);
    cursor: pointer;
  }
  .add button {
    display: flex;
    align-items: center;
    justify-content: center;
    gap: 6px;
    width: 100%;
    height: 88px;
    border: 1px dashed var(--rule-strong);
    border-radius: 0;
    background: none;
    color: var(--kelp);
    font-weight: 600;
    cursor: pointer;
  }
  .add {
    width: 100%;
  }
  .link {
    padding: 0;
    border: 0;
    background: none;
    color: var(--kelp);
    text-decoration: underline;
    cursor: pointer;
  }
</style>
