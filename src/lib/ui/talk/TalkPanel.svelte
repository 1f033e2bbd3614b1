<script lang="ts">
  import type { CommentData } from '$lib/contract/talk';
  import Button from '../components/Button.svelte';
  import SidePanel from '../components/SidePanel.svelte';
  import type { LayoutEditor } from '../layout/editor.svelte';
  import Approval from './Approval.svelte';
  import TalkList from './TalkList.svelte';
  import { WHOLE, type Talk } from './talk.svelte';

  /** What is said about a layout: at a place of it, about a shape, or about the whole. */
  type Props = { talk: Talk; editor: LayoutEditor; onclose: () => void };
  let { talk, editor, onclose }: Props = $props();

  function aboutOf({ shapeId, x }: CommentData): string {
    if (shapeId !== null) {
      const shape = editor.doc.shapes.find(({ id }) => id === shapeId);
      return shape ? `about “${shape.name}”` : 'about a shape that is gone';
    }
    return x === null ? '' : 'at a place';
  }
  const spotWords = $derived(
    talk.placing
      ? 'Press a place on the page'
      : talk.spot.shapeId !== null
        ? `About “${editor.doc.shapes.find(({ id }) => id === talk.spot.shapeId)?.name ?? ''}”`
        : talk.spot.x !== null
          ? 'At the place you pressed'
          : 'About the layout',
  );
</script>

<SidePanel
  title="Comments"
  onclose={() => {
    talk.placing = false;
    talk.spot = WHOLE;
    onclose();
  }}
>
  {#snippet tools()}<Approval kind="layout" id={editor.id} version={editor.saver.version} />{/snippet}
  <TalkList {talk} {aboutOf} numbered />
  <div class="spot">
    <span class="muted">{spotWords}</span>
    {#if talk.spot !== WHOLE || talk.placing}
      <Button
        kind="quiet"
        onclick={() => {
          talk.spot = WHOLE;
          talk.placing = false;
        }}>The whole</Button
      >
    {:else}
      {#if editor.single}
        {@const { id, name } = editor.single}
        <Button kind="quiet" onclick={() => (talk.spot = { ...WHOLE, shapeId: id })}>About “{name}”</Button>
      {/if}
      <Button kind="quiet" onclick={() => (talk.placing = true)}>At a place …</Button>
    {/if}
  </div>
</SidePanel>

<style>
  .spot {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    justify-content: space-between;
    padding: 0 12px 10px;
  }
</style>
