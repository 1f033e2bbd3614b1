<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { nanoid } from 'nanoid';
  import type { PhotoObject } from '$lib/contract/data';
  import { freshMockup, photoMockup, type Mockup } from '$lib/core/mockup/mockup';
  import { freeName } from '$lib/core/recipe/edit';
  import X from '@lucide/svelte/icons/x';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import Field from '../components/Field.svelte';
  import { call, sendFile, urlOf } from '../state/api';

  /** A new mock-up: objects in space, or surfaces on a photograph, one's own or one that is kept. */
  type Props = { projectId: string; names: string[]; onclose: () => void };
  let { projectId, names, onclose }: Props = $props();

  let name = $state(untrack(() => freeName('Mock-up 1', names)));
  let kept: PhotoObject[] | null = $state.raw(null);
  let problem: string | null = $state(null);
  let busy = $state(false);

  onMount(async () => {
    const found = await call('GET /photo-objects');
    if (found.ok) kept = found.value;
    else problem = found.failure.message;
  });

  async function make(body: Mockup): Promise<void> {
    if (name.trim() === '') {
      problem = 'The name of the mock-up must not be empty.';
      return;
    }
    busy = true;
    const made = await call('POST /projects/{id}/mock-ups', {
      id: projectId,
      body: {
        name: name.trim(),
        body,
      },
    });
    busy = false;
    if (!made.ok) problem = made.failure.message;
    else await goto(`/projects/${projectId}/mock-ups/${made.value.id}`);
  }
  async function bring(files: File[]): Promise<void> {
    const [file] = files;
    if (!file) return;
    busy = true;
    const read = await sendFile('POST /motifs/pictures', { file });
    busy = false;
    if (!read.ok) {
      problem = read.failure.message;
      return;
    }
    const [element] = read.value.content.elements;
    if (!element?.picture) {
      problem = 'This file holds no photograph.';
      return;
    }
    const { asset, width, height } = element.picture;
    await make(photoMockup({ asset, width, height, strokes: [] }, nanoid(12)));
  }
  async function takeStock(): Promise<void> {
    const found = await call('POST /photo-objects/stock');
    if (found.ok) kept = found.value;
    else problem = found.failure.message;
  }
  async function forget(id: string): Promise<void> {
    const gone = await call('DELETE /photo-objects/{id}', { id });
    if (gone.ok) kept = (kept ?? []).filter((one) => one.id !== id);
    else problem = gone.failure.message;
  }
</script>

<Dialog title="New mock-up" width={560} {onclose}>
  <Field label="Name" bind:value={name} {problem} autofocus />
  <div class="ways">
    <Button kind="main" disabled={busy} onclick={() => void make(freshMockup())}
      >Objects that stand there</Button
    >
    <span class="muted">cups, bags, boxes, cloth, walls: turned and lit as you like</span>
  </div>
  <h3>On a photograph</h3>
  <div class="photos">
    {#each kept ?? [] as one (one.id)}
      <div class="photo">
        <button type="button" disabled={busy} onclick={() => void make(one.body)}>
          <img
            src={one.body.photo &&
              urlOf('GET /motifs/{hash}', { hash: one.body.photo.asset, query: { side: '512' } })}
            alt=""
          />
          <span>{one.name}</span>
        </button>
        <span class="forget">
          <Button kind="quiet" label="Forget {one.name}" onclick={() => void forget(one.id)}
            ><X size={13} /></Button
          >
        </span>
      </div>
    {/each}
    <label class="own"
      >Your own photograph of a blank thing …
      <input
        type="file"
        accept="image/png,image/jpeg,image/webp"
        onchange={(event) => void bring([...(event.currentTarget.files ?? [])])}
      />
    </label>
  </div>
  {#if kept && kept.length === 0}
    <Button onclick={() => void takeStock()}>Take the three that ship with Isle</Button>
  {/if}
</Dialog>

<style>
  .ways {
    display: flex;
    gap: 12px;
    align-items: center;
    margin: 14px 0;
  }
  h3 {
    margin: 10px 0 6px;
    font-size: 13px;
  }
  .photos {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 10px;
    max-height: 360px;
    overflow: auto;
  }
  .photo {
    position: relative;
  }
  button {
    display: grid;
    gap: 4px;
    width: 100%;
    padding: 4px;
    border: 2px solid transparent;
    border-radius: var(--radius);
    background: none;
    text-align: left;
    cursor: pointer;
  }
  button:hover,
  button:focus-visible {
    border-color: var(--kelp);
  }
  img {
    width: 100%;
    height: 110px;
    object-fit: cover;
    background: var(--surround);
  }
  .own {
    display: grid;
    place-content: center;
    min-height: 120px;
    padding: 8px;
    border: 1px dashed var(--rule-strong);
    border-radius: var(--radius);
    color: var(--kelp);
    font-weight: 600;
    text-align: center;
    cursor: pointer;
  }
  .own:focus-within {
    outline: 2px solid var(--kelp);
  }
  .own input {
    position: absolute;
    opacity: 0;
  }
  .forget {
    position: absolute;
    top: 6px;
    right: 6px;
    border-radius: var(--radius);
    background: rgb(255 255 255 / 80%);
  }
</style>
