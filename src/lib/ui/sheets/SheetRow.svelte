<script lang="ts">
  import { may } from '../state/may';
  import Archive from '@lucide/svelte/icons/archive';
  import type { SheetSummary } from '$lib/contract/data';
  import { sayDate } from '../library/say';
  import Button from '../components/Button.svelte';
  import { call } from '../state/api';
  import { toasts } from '../state/toasts.svelte';

  /** A client sheet in a list: its name, what is on it, and what clients left that is new. */
  type Props = { sheet: SheetSummary; onchange: () => Promise<void> };
  let { sheet, onchange }: Props = $props();

  async function archive(archived: boolean): Promise<void> {
    const saved = await call('PUT /client-sheets/{id}/archived', { id: sheet.id, body: { archived } });
    if (!saved.ok) return toasts.problem(saved.failure.message);
    await onchange();
    if (archived)
      toasts.show(`“${sheet.name}” is in the archive; its links show nothing now.`, {
        action: { label: 'Undo', run: () => void archive(false) },
      });
  }
</script>

<div class="row">
  <a href="/projects/{sheet.projectId}/client-sheets/{sheet.id}">{sheet.name}</a>
  <span class="muted">
    {sheet.items === 1 ? 'one thing on it' : `${sheet.items} things on it`}{sheet.shownAt === null
      ? ''
      : `, shown as on ${sayDate(sheet.shownAt)}`}
  </span>
  {#if sheet.unread > 0}<span class="new">{sheet.unread} new from the client</span>{/if}
  {#if may('designer')}<Button
      kind="quiet"
      label="Archive {sheet.name}"
      title="Into the archive"
      onclick={() => archive(true)}><Archive size={14} /></Button
    >{/if}
</div>

<style>
  .row {
    display: flex;
    align-items: baseline;
    gap: 12px;
  }
  a {
    color: inherit;
    font-weight: 650;
  }
  .new {
    padding: 1px 8px;
    border-radius: 10px;
    background: var(--kelp);
    color: #fff;
    font-size: var(--small);
  }
</style>
