<script lang="ts">
  import { goto } from '$app/navigation';
  import type { LibraryFacets, PublishPreview } from '$lib/contract/data';
  import type { Outcome } from '$lib/contract/failure';
  import NewThing from '../library/NewThing.svelte';
  import { call } from '../state/api';
  import UseIn from '../library/UseIn.svelte';
  import { fillAddress, lastLayout, layoutAddress } from '../state/last-layout';
  import { toasts } from '../state/toasts.svelte';
  import { automaticName, type PatternKeeper } from './keeper.svelte';
  import PublishDialog from './PublishDialog.svelte';

  /** The way from the bench into the library: the questions asked before a pattern is published or kept as new. */
  type Props = {
    editor: PatternKeeper;
    busy: boolean;
    /** True where one came from a layout and goes back there. */
    back: boolean;
  };
  let { editor, busy = $bindable(), back }: Props = $props();

  let keeping = $state(false);
  let naming = $state(false);
  /** Where to use the pattern is asked: with what has just happened to it, or without. */
  let using: { facets: LibraryFacets; said?: string } | null = $state.raw(null);
  let preview = $state.raw<PublishPreview | null>(null);

  /** The first time publishing asks for a name, where nobody has typed one; it shows first which uses it will change. */
  export async function publish(): Promise<void> {
    if (editor.newest === 0 && !editor.named) {
      naming = true;
      return;
    }
    busy = true;
    const found = await editor.preview();
    busy = false;
    if (typeof found === 'string') toasts.problem(found);
    else if (found) preview = found;
    else await publishNow([]);
  }
  /** Asks in which layout the pattern is to be used. */
  export async function useIt(said?: string): Promise<void> {
    const found = await call('GET /library');
    if (found.ok) using = { facets: found.value, ...(said === undefined ? {} : { said }) };
    else toasts.problem(found.failure.message);
  }
  /** Asks for the name of a copy and goes on with that. */
  export function keepAsNew(): void {
    keeping = true;
  }

  async function publishNow(hold: string[]): Promise<void> {
    busy = true;
    const problem = await editor.publish(hold);
    busy = false;
    if (problem) return toasts.problem(problem);
    preview = null;
    const last = lastLayout();
    if (last && back) {
      toasts.show(`Revision ${editor.newest} of “${editor.name}” is in the library, and here.`);
      return void goto(layoutAddress(last));
    }
    // The first time it asks where to go on with it; later the button beside *Publish* does.
    const said = `Revision ${editor.newest} of “${editor.name}” is in the library.`;
    if (editor.newest === 1) return useIt(said);
    toasts.show(said, {
      ...(last && editor.id
        ? { action: { label: `Fill ${last.what}`, run: () => void goto(fillAddress(last, editor.id ?? '')) } }
        : {}),
    });
  }
  async function nameAndPublish(name: string): Promise<Outcome<unknown>> {
    const problem = await editor.rename(name);
    if (problem) return { ok: false, failure: { code: 'invalid', message: problem, path: 'name' } };
    naming = false;
    await publish();
    return { ok: true, value: null };
  }
  async function keep(name: string): Promise<Outcome<unknown>> {
    const made = await editor.keepAsNew(name);
    if (!made.ok) return made;
    keeping = false;
    toasts.show(`“${name}” is in the library.`);
    await goto(`/library/${made.value.id}/bench`);
    return made;
  }
</script>

{#if preview}
  <PublishDialog
    {preview}
    draft={editor.recipe}
    {busy}
    onpublish={publishNow}
    onclose={() => (preview = null)}
  />
{/if}
{#if using && editor.id}
  <UseIn pattern={{ id: editor.id, name: editor.name }} {...using} onclose={() => (using = null)} />
{/if}
{#if keeping}
  <NewThing
    title="Keep as new"
    label="The name of the new pattern"
    action="Keep as new"
    name="{editor.name} 2"
    create={keep}
    onclose={() => (keeping = false)}
  />
{/if}
{#if naming}
  <NewThing
    title="Name the pattern"
    label="The name of the pattern"
    action="Name and publish"
    name={automaticName(editor.recipe) === null ? '' : editor.name}
    create={nameAndPublish}
    onclose={() => (naming = false)}
  />
{/if}
