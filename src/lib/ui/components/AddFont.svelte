<script lang="ts">
  import { call, sendFile } from '../state/api';
  import { studioFonts } from '../state/studio-fonts.svelte';
  import Button from './Button.svelte';
  import Dialog from './Dialog.svelte';
  import Field from './Field.svelte';
  import FileButton from './FileButton.svelte';

  /** Brings a font into the studio, with the licence under which it may be used. */
  type Props = { onadded: (font: string) => void; onclose: () => void };
  let { onadded, onclose }: Props = $props();

  let file: File | null = $state.raw(null);
  let licence = $state('');
  let problem: string | null = $state(null);
  let working = $state(false);

  async function add(): Promise<void> {
    if (!file) return;
    working = true;
    const added = await sendFile('POST /fonts', {
      query: { licence: licence.trim() },
      file,
    });
    working = false;
    if (!added.ok) return void (problem = added.failure.message);
    await studioFonts.read();
    onadded(added.value.id);
  }
  async function remove(id: string): Promise<void> {
    const removed = await call('DELETE /fonts/{id}', { id });
    problem = removed.ok ? null : removed.failure.message;
    await studioFonts.read();
  }
</script>

<Dialog title="Add a font" width={440} {onclose}>
  <div class="file">
    <FileButton
      label="Font file"
      text="Choose a file …"
      accept=".woff2,.woff,.otf,.ttf"
      onfile={(chosen) => {
        file = chosen;
        problem = null;
      }}
    />
    <span class="muted">{file ? file.name : 'WOFF2, WOFF, OTF or TTF'}</span>
  </div>
  <Field label="Licence, or who allows its use" bind:value={licence} />
  <p class="muted">
    Everyone in the studio can set words in it. They become outlines; in a PDF they can be a part of the font,
    where it allows that.
  </p>
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#if studioFonts.all.length > 0}
    <ul>
      {#each studioFonts.all as { id, name, licence: held } (id)}
        <li>
          <span><strong>{name}</strong> <span class="muted">{held}</span></span>
          <Button kind="quiet" label="Take {name} out" onclick={() => void remove(id)}>Take out</Button>
        </li>
      {/each}
    </ul>
  {/if}
  {#snippet actions()}
    <Button onclick={onclose}>Close</Button>
    <Button kind="main" disabled={!file || licence.trim() === '' || working} onclick={() => void add()}
      >{working ? 'Reading the font …' : 'Add it'}</Button
    >
  {/snippet}
</Dialog>

<style>
  .file,
  li {
    display: flex;
    align-items: center;
    gap: 10px;
  }
  ul {
    display: grid;
    gap: 4px;
    max-height: 180px;
    margin: 0;
    padding: 8px 0 0;
    border-top: 1px solid var(--rule);
    list-style: none;
    overflow: auto;
  }
  li {
    justify-content: space-between;
  }
</style>
