<script lang="ts">
  import type { Me } from '$lib/contract/people';
  import PageSection from '$lib/ui/components/PageSection.svelte';
  import PlainPage from '$lib/ui/components/PlainPage.svelte';
  import Mailbox from '$lib/ui/people/Mailbox.svelte';
  import OpenStudio from '$lib/ui/people/OpenStudio.svelte';
  import ActivityList from '$lib/ui/talk/ActivityList.svelte';
  import BackupPanel from '$lib/ui/people/BackupPanel.svelte';
  import ClearingPanel from '$lib/ui/people/ClearingPanel.svelte';
  import People from '$lib/ui/people/People.svelte';
  import StudioSettings from '$lib/ui/people/StudioSettings.svelte';

  let { data } = $props();
  const me = $derived(data.me as Me);
  const owner = $derived(me.person.role === 'owner');
</script>

<svelte:head><title>{me.studio.name} · Isle</title></svelte:head>
<PlainPage here={me.studio.opened ? me.studio.name : 'The studio'}>
  {#if me.studio.opened}
    <People people={data.people} invitations={data.invitations} projects={data.projects} me={me.person} />
    <PageSection title="What happened"><ActivityList /></PageSection>
    {#if owner}
      {#if data.backups}<BackupPanel backups={data.backups} />{/if}
      <StudioSettings studio={me.studio} />
      {#if data.clearing}<ClearingPanel {...data.clearing} />{/if}
      {#if data.letters}<Mailbox letters={data.letters} />{/if}
    {/if}
  {:else}
    {#if data.backups?.warning}<p class="warning">{data.backups.warning}</p>{/if}
    <OpenStudio
      studio={me.studio.name === 'Studio' ? '' : me.studio.name}
      name={me.person.name === 'You' ? '' : me.person.name}
    />
    {#if data.people.length > 1}
      <People people={data.people} invitations={[]} projects={[]} me={{ ...me.person, role: 'viewer' }} />
    {/if}
    <PageSection title="What happened"><ActivityList /></PageSection>
  {/if}
</PlainPage>

<style>
  .warning {
    color: var(--amber);
  }
</style>
