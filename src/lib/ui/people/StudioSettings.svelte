<script lang="ts">
  import type { Me } from '$lib/contract/people';
  import { call } from '../state/api';
  import { refresh } from '../state/refresh';
  import { toasts } from '../state/toasts.svelte';
  import NameField from '../components/NameField.svelte';
  import PageSection from '../components/PageSection.svelte';
  import Tick from '../components/Tick.svelte';

  /** What is the studio's own: its name, and whether programs may read published patterns without signing in. */
  type Props = { studio: Me['studio'] };
  let { studio }: Props = $props();

  async function change(to: { name?: string; openPatterns?: boolean }): Promise<string | null> {
    const saved = await call('PATCH /studio', { body: to });
    await refresh();
    return saved.ok ? null : saved.failure.message;
  }
</script>

<PageSection title="Studio">
  <div class="line">
    <span class="muted">Name</span>
    <NameField label="The studio's name" value={studio.name} onset={(name) => change({ name })} />
  </div>
  <Tick
    label="Published patterns may be read at their addresses without signing in (for pages and programs)"
    checked={studio.openPatterns}
    onset={async (openPatterns) => {
      const wrong = await change({ openPatterns });
      if (wrong) toasts.problem(wrong);
    }}
  />
</PageSection>
