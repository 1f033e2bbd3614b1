<script lang="ts">
  import { CLEARING_LIMITS, type Cleared, type ClearingRule } from '$lib/contract/backups';
  import { call } from '../state/api';
  import { refresh } from '../state/refresh';
  import { toasts } from '../state/toasts.svelte';
  import NumberField from '../components/NumberField.svelte';
  import PageSection from '../components/PageSection.svelte';
  import { whenOf } from './say';

  /** The rule by which Isle clears what is past its time, and what it cleared last. */
  type Props = { rule: ClearingRule; last: Cleared | null };
  let { rule, last }: Props = $props();

  async function change(to: Partial<ClearingRule>): Promise<void> {
    const saved = await call('PUT /clearing', { body: { ...rule, ...to } });
    if (!saved.ok) toasts.problem(saved.failure.message);
    await refresh();
  }
</script>

<PageSection title="What is cleared">
  <div class="line">
    <span>What happened is kept for</span>
    <NumberField
      label="Days that what happened is kept"
      kind={{ suffix: '' }}
      value={rule.events}
      {...CLEARING_LIMITS.events}
      digits={0}
      onset={(events) => change({ events: Math.round(events) })}
    />
    <span>days; files that nothing refers to any more go after</span>
    <NumberField
      label="Days after which unused files go"
      kind={{ suffix: '' }}
      value={rule.files}
      {...CLEARING_LIMITS.files}
      digits={0}
      onset={(files) => change({ files: Math.round(files) })}
    />
    <span>days.</span>
  </div>
  <p class="muted">
    {#if last}
      Last cleared {whenOf(last.at)}: {last.events} entries of what happened, {last.files} files, {last.changes}
      changes that could be undone.
    {:else}
      Nothing was cleared yet. Patterns, layouts, comments and states are never cleared by themselves.
    {/if}
  </p>
</PageSection>
