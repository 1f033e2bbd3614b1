<script lang="ts">
  import Button from '../components/Button.svelte';
  import NameField from '../components/NameField.svelte';
  import LookOn from '../components/LookOn.svelte';
  import SaveNote from '../components/SaveNote.svelte';
  import TopBar from '../components/TopBar.svelte';
  import { saySize } from '../library/say';
  import OthersHere from './OthersHere.svelte';
  import PageSettings from './PageSettings.svelte';
  import { OBJECTS } from '$lib/core/mockup/objects';
  import Bubble from '@lucide/svelte/icons/message-square';
  import Swatches from '@lucide/svelte/icons/swatch-book';
  import Clock from '@lucide/svelte/icons/history';
  import type { LayoutData, PaletteData } from '$lib/contract/data';
  import type { LayoutProof } from '../proof/layout-proof.svelte';
  import type { Talk } from '../talk/talk.svelte';
  import type { Beside } from './beside.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import type { Here } from './here.svelte';

  /** The bar over a layout: what it is called and how large, whether it is saved, what stands beside it, who else is here. */
  type Props = {
    layout: LayoutData;
    editor: LayoutEditor;
    palettes: PaletteData[];
    beside: Beside;
    proof: LayoutProof;
    talk: Talk;
    here: Here;
    onfit: () => void;
    onrecolour: () => void;
    onexport: () => void;
  };
  let { layout, editor, palettes, beside, proof, talk, here, onfit, onrecolour, onexport }: Props = $props();
</script>

<TopBar skip={{ label: 'To the drawing tools', to: '[role="toolbar"] button' }}>
  {#snippet trail()}
    <a href="/projects/{layout.projectId}">{layout.projectName}</a> /
    <NameField
      label="The name of the layout"
      value={editor.doc.name}
      onset={(name) => {
        editor.changePage({ name });
        return null;
      }}
    />
    · <PageSettings {editor} {palettes} label={saySize(editor.doc, editor.doc.measure)} {onfit} />
  {/snippet}
  {#snippet actions()}
    {#if editor.mayChange}<SaveNote state={editor.saver.state} onretry={() => editor.saver.flush()} />
    {:else}<LookOn what="layout" />{/if}
    {#if layout.object}
      <Button pressed={beside.part === 'object'} onclick={() => beside.toggle('object')}
        >On the {OBJECTS[layout.object.kind].noun}</Button
      >
    {/if}
    <Button
      label="Exchange palettes …"
      title="Exchange the colours of one palette for another’s"
      onclick={onrecolour}><Swatches size={16} /></Button
    >
    <Button kind="main" onclick={onexport}>Export</Button>
    <Button pressed={beside.part === 'proof'} onclick={() => beside.toggle('proof')}
      >Proof
      {#if proof.notes.length > 0}<span class="notes"
          >{proof.notes.length}<span class="visually-hidden">&nbsp;notes</span></span
        >{/if}</Button
    >
    <Button pressed={beside.part === 'plates'} onclick={() => beside.toggle('plates')}>Plates</Button>
    <Button
      label="History"
      title="How the layout was before"
      pressed={beside.part === 'history'}
      onclick={() => beside.toggle('history')}><Clock size={16} /></Button
    >
    <Button
      label={talk.unread > 0 ? `Comments, ${talk.unread} new` : 'Comments'}
      title="What is said about this layout"
      pressed={beside.part === 'comments'}
      onclick={() => beside.toggle('comments')}
      ><Bubble size={16} />{#if talk.unread > 0}<span class="notes">{talk.unread}</span>{/if}</Button
    >
    <OthersHere {here} />
  {/snippet}
</TopBar>

<style>
  .notes {
    min-width: 18px;
    padding: 0 5px;
    border-radius: 9px;
    background: var(--amber-tint);
    color: var(--amber);
    font: 600 12px/18px var(--mono);
    text-align: center;
  }
</style>
