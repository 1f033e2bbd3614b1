<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import type { ShapeGroup } from '$lib/core/recipe/layout';
  import NameField from '../components/NameField.svelte';
  import { holdGroup, membersOf } from './arrange';
  import type { LayoutDoc } from './doc';
  import type { LayoutEditor } from './editor.svelte';
  import LedgerHolds from './LedgerHolds.svelte';

  /** The head of a group in the ledger: folds its rows, names, locks, hides and selects all that lie in it. */
  type Props = {
    editor: LayoutEditor;
    doc: LayoutDoc;
    group: ShapeGroup;
    depth: number;
    folded: boolean;
    onfold: () => void;
  };
  let { editor, doc, group, depth, folded, onfold }: Props = $props();

  const members = $derived(membersOf(doc, group.id));

  function rename(name: string): null {
    const groups = editor.history.doc.groups.map((one) => (one.id === group.id ? { ...one, name } : one));
    editor.history.commit({ ...editor.history.doc, groups });
    return null;
  }
</script>

<tr
  class="group"
  aria-selected={[...members].every((id) => editor.selected.has(id))}
  onclick={(event) => {
    if (!(event.target as Element).closest('input, button')) editor.select(members);
  }}
>
  <td class="shape" style:padding-left="{4 + depth * 16}px">
    <button
      type="button"
      class="grip"
      aria-label="{folded ? 'Unfold' : 'Fold'} {group.name}"
      aria-expanded={!folded}
      onclick={onfold}
      >{#if folded}<ChevronRight size={13} />{:else}<ChevronDown size={13} />{/if}</button
    >
    <NameField label="The name of the group" value={group.name} onset={rename} />
    <LedgerHolds
      name={group.name}
      locked={group.locked}
      hidden={group.hidden}
      onhold={(by) => holdGroup(editor, group.id, by)}
    />
  </td>
  <td colspan="10" class="muted">
    <button type="button" class="choose" onclick={() => editor.select(members)}
      >select all {members.size}</button
    >
  </td>
</tr>
