<script lang="ts">
  import type { Box } from '$lib/core/geom/box';
  import { OBJECTS, type ObjectSpec } from '$lib/core/mockup/objects';
  import ObjectView from '../mockup/ObjectView.svelte';
  import PlatesPanel from '../plates/PlatesPanel.svelte';
  import ProofPanel from '../proof/ProofPanel.svelte';
  import type { LayoutPlates } from '../plates/layout-plates.svelte';
  import type { LayoutProof } from '../proof/layout-proof.svelte';
  import HistoryPanel from '../history/HistoryPanel.svelte';
  import type { LayoutHistory } from '../history/layout-history.svelte';
  import type { Talk } from '../talk/talk.svelte';
  import TalkPanel from '../talk/TalkPanel.svelte';
  import type { Beside } from './beside.svelte';
  import type { LayoutEditor } from './editor.svelte';

  /** The part that stands beside the stage. */
  type Props = {
    beside: Beside;
    proof: LayoutProof;
    plates: LayoutPlates;
    editor: LayoutEditor;
    history: LayoutHistory;
    talk: Talk;
    /** The object whose cut sheet the page is. */
    object: ObjectSpec | null;
    onshow: (box: Box) => void;
  };
  let { beside, proof, plates, editor, history, talk, object, onshow }: Props = $props();
</script>

{#if beside.part === 'proof'}
  <aside aria-label="Proof">
    <ProofPanel {proof} {editor} {onshow} onclose={() => beside.toggle('proof')} />
  </aside>
{:else if beside.part === 'plates'}
  <aside aria-label="Plates">
    <PlatesPanel {plates} {onshow} onclose={() => beside.toggle('plates')} />
  </aside>
{:else if beside.part === 'history'}
  <aside aria-label="History">
    <HistoryPanel {history} {editor} onclose={() => beside.toggle('history')} />
  </aside>
{:else if beside.part === 'comments'}
  <aside aria-label="Comments">
    <TalkPanel {talk} {editor} onclose={() => beside.toggle('comments')} />
  </aside>
{:else if object && beside.part === 'object'}
  <aside class="object" aria-label="On the {OBJECTS[object.kind].noun}">
    <ObjectView
      {object}
      name={editor.doc.name}
      layout={editor.doc}
      lookup={editor.lookup}
      busy={editor.history.inGesture}
    />
  </aside>
{/if}

<style>
  aside {
    display: grid;
    flex: 0 0 clamp(240px, calc(100vw - 860px), 310px);
    min-height: 0;
    border-left: 1px solid var(--rule);
  }
  .object {
    flex-basis: clamp(260px, calc(100vw - 860px), 460px);
    background: #dcdcd8;
  }
</style>
