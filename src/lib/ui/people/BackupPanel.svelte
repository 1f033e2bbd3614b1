<script lang="ts">
  import { BACKUP_LIMITS, type BackupsData, type BackupSettings } from '$lib/contract/backups';
  import { call } from '../state/api';
  import { refresh } from '../state/refresh';
  import { toasts } from '../state/toasts.svelte';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import PageSection from '../components/PageSection.svelte';
  import { whenOf } from './say';

  /** Backups: the last good one, how they are made, and a warning where none is young enough. */
  type Props = { backups: BackupsData };
  let { backups }: Props = $props();

  let busy = $state(false);
  // svelte-ignore state_referenced_locally
  let folder = $state(backups.settings.folder ?? '');
  const mega = (bytes: number): string => `${(bytes / 1e6).toFixed(1)} MB`;

  async function make(): Promise<void> {
    busy = true;
    const made = await call('POST /backups');
    busy = false;
    if (!made.ok) toasts.problem(made.failure.message);
    else toasts.show('The backup is made; it was restored for a trial, and all was there.');
    await refresh();
  }
  async function change(to: Partial<BackupSettings>): Promise<void> {
    const saved = await call('PUT /backups', { body: { ...backups.settings, ...to } });
    if (!saved.ok) toasts.problem(saved.failure.message);
    await refresh();
  }
</script>

<PageSection title="Backups">
  {#snippet action()}
    <Button disabled={busy} onclick={make}>{busy ? 'Making a backup …' : 'Make one now'}</Button>
  {/snippet}
  {#if backups.warning}<p class="warning" role="alert">{backups.warning}</p>{/if}
  <p>
    {#if backups.files[0]}
      The last good one is of <strong>{whenOf(backups.files[0].at)}</strong> ({mega(backups.files[0].bytes)}); {backups
        .files.length}
      {backups.files.length === 1 ? 'is' : 'are'} kept in <span class="mono">{backups.place}</span>.
    {:else}
      None is made yet. The first is made within minutes, into <span class="mono">{backups.place}</span>.
    {/if}
  </p>
  <div class="line">
    <span>Every</span>
    <NumberField
      label="Hours between two backups"
      kind={{ suffix: '' }}
      value={backups.settings.every}
      {...BACKUP_LIMITS.every}
      digits={0}
      onset={(every) => change({ every: Math.round(every) })}
    />
    <span>hours; the newest</span>
    <NumberField
      label="Backups that are kept"
      kind={{ suffix: '' }}
      value={backups.settings.keep}
      {...BACKUP_LIMITS.keep}
      digits={0}
      onset={(keep) => change({ keep: Math.round(keep) })}
    />
    <span>are kept.</span>
  </div>
  <form
    onsubmit={(event) => {
      event.preventDefault();
      void change({ folder: folder.trim() === '' ? null : folder.trim() });
    }}
  >
    <label>
      <span class="muted">Folder on the machine that Isle runs on (empty: in its data folder)</span>
      <input type="text" class="mono" bind:value={folder} spellcheck="false" placeholder={backups.place} />
    </label>
    <Button type="submit" disabled={folder.trim() === (backups.settings.folder ?? '')}>Use it</Button>
  </form>
  <p class="muted">
    Each is a whole database that was checked and restored for a trial. On the machine, “npm run isle --
    restore FILE NEW-FOLDER” brings one back.
  </p>
</PageSection>

<style>
  .warning {
    padding: 8px 12px;
    border-left: 4px solid var(--amber);
    background: var(--amber-tint);
    color: var(--amber);
  }
  form {
    display: flex;
    align-items: flex-end;
    gap: 8px;
  }
  label {
    display: grid;
    flex: 1;
    gap: 4px;
  }
  label span {
    font-size: var(--small);
  }
  input {
    padding: 6px 10px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
  }
</style>
