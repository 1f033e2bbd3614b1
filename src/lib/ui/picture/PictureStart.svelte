<script lang="ts">
  import { onMount } from 'svelte';
  import type { Failure } from '$lib/contract/failure';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { PicturedRecipe } from '$lib/core/recipe/recipe';
  import { meanScale } from '$lib/core/geom/affine';
  import Button from '../components/Button.svelte';
  import FileDrop from '../components/FileDrop.svelte';
  import TopBar from '../components/TopBar.svelte';
  import { ask, call, sendFile } from '../state/api';
  import { takeBrought } from '../state/brought';
  import { freshTexture } from '$lib/core/recipe/texture';
  import { freshRecipe, freshTexturedRecipe } from './pictured-recipes';
  import TextureTray from './TextureTray.svelte';

  /** Where a repeat from a picture begins: with a picture. */
  type Props = {
    onpicture: (fresh: PicturedRecipe) => void;
    /** A pattern whose tile is the picture to begin with; it repeats by itself. */
    pattern?: string | null;
  };
  let { onpicture, pattern = null }: Props = $props();

  let input: HTMLInputElement | undefined = $state();
  let reading: string | null = $state(null);
  let problem: string | null = $state(null);
  let notes: string[] = $state.raw([]);
  let ready: PicturedRecipe | null = $state.raw(null);

  /** What a picture must have at least, px a side: a region has to fit into it. */
  const LEAST_SIDE = 16;

  /** The longer side of a tile that is opened as a picture, px. */
  const TILE_SIDE = 1800;

  /** Draws one repeat of a pattern as a picture, and begins with that. */
  async function takeTile(id: string): Promise<void> {
    const found = await call('GET /patterns/{id}', { id });
    if (!found.ok) return void (problem = found.failure.message);
    const { name, facts } = found.value;
    reading = name;
    const side = facts ? Math.max(facts.unit.width, facts.unit.height) : TILE_SIDE;
    const scale = Math.min(20, Math.max(0.05, TILE_SIDE / side));
    try {
      const drawn = await ask('POST /handouts', { body: { ids: [id], as: 'tile-png', scale } });
      if (!drawn.ok) problem = ((await drawn.json()) as Failure).message;
      else await take([new File([await drawn.blob()], `${name}.png`, { type: 'image/png' })], true);
    } catch {
      problem = 'The server does not answer. Try again.';
    }
    reading = null;
  }

  async function take(files: readonly File[], repeats = false): Promise<void> {
    const [file, more] = files;
    if (!file) return;
    problem = null;
    if (more) return void (problem = 'A repeat is made from one picture; choose one.');
    if (file.size > LIMITS.pictureBytes)
      return void (problem = `“${file.name}” has ${(file.size / 1e6).toFixed(1)} MB; a picture may have at most ${LIMITS.pictureBytes / 1e6} MB.`);
    reading = file.name;
    const read = await sendFile('POST /motifs/pictures', { file });
    reading = null;
    if (!read.ok) return void (problem = read.failure.message);
    const { content, name, notes: said } = read.value;
    const picture = content.elements.find((element) => element.picture)?.picture;
    if (!picture) return void (problem = `“${file.name}” holds no picture.`);
    const { asset, width, height, matrix, clear } = picture;
    if (Math.min(width, height) < LEAST_SIDE)
      return void (problem = `“${file.name}” is ${width} × ${height} px; a repeat needs a picture of at least ${LEAST_SIDE} px a side.`);
    const source = { asset, width, height, name, ...(clear ? { clear } : {}) };
    const fresh = freshRecipe(source, meanScale(matrix), repeats);
    notes = said;
    if (said.length === 0) onpicture(fresh);
    else ready = fresh;
  }
  onMount(() => void (pattern === null ? take(takeBrought()) : takeTile(pattern)));
</script>

<FileDrop onfiles={(files) => void take(files)}>
  <TopBar>
    {#snippet trail()}From a picture{/snippet}
  </TopBar>
  <main>
    <div class="start">
      <h1>A repeat from a picture</h1>
      <p class="muted">
        Take a region of a photograph, a scan or a painting; mirror or turn it, set its tone, and make its
        edges meet. The picture itself stays as it is.
      </p>
      {#if reading}
        <p role="status">Reading “{reading}” …</p>
      {:else if ready}
        <div class="notes" role="note">
          <strong>How the picture came in</strong>
          {#each notes as note (note)}<p>{note}</p>{/each}
        </div>
        <Button kind="main" onclick={() => ready && onpicture(ready)}>Go on</Button>
      {:else}
        {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
        <Button kind="main" onclick={() => input?.click()}>Choose a picture</Button>
        <p class="muted small">or drop one here: PNG, JPEG or WebP</p>
      {/if}
      <input
        bind:this={input}
        type="file"
        class="visually-hidden"
        tabindex="-1"
        accept="image/png,image/jpeg,image/webp"
        aria-label="Picture to make a repeat from"
        onchange={(event) => void take([...(event.currentTarget.files ?? [])])}
      />
    </div>
    {#if !reading && !ready}
      <section class="start numbers">
        <h2>Or from numbers</h2>
        <TextureTray onpick={(kind) => onpicture(freshTexturedRecipe(freshTexture(kind)))} />
      </section>
    {/if}
  </main>
</FileDrop>

<style>
  main {
    display: grid;
    flex: 1;
    gap: 16px;
    align-content: center;
    grid-auto-flow: column;
    justify-content: center;
    align-items: stretch;
    background: var(--surround);
  }
  .start {
    display: grid;
    gap: 12px;
    max-width: 420px;
    padding: 28px 32px;
    border-radius: 10px;
    background: var(--card);
    box-shadow: var(--shadow);
    align-content: start;
    justify-items: start;
  }
  .numbers {
    max-width: none;
  }
  .problem {
    color: var(--amber);
    font-weight: 600;
  }
  .notes {
    padding: 8px 10px;
    border-left: 3px solid var(--amber);
    background: var(--amber-tint);
  }
  .small {
    font-size: var(--small);
  }
</style>
