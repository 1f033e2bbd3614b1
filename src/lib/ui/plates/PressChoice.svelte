<script lang="ts">
  import { LIMITS } from '$lib/core/recipe/limits';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import FileButton from '../components/FileButton.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Popover from '../components/Popover.svelte';
  import Rows from '../components/Rows.svelte';
  import Tick from '../components/Tick.svelte';
  import { call, sendFile } from '../state/api';
  import type { LayoutPlates } from './layout-plates.svelte';

  /** By which press the layouts of the project are printed, and how their colours become its inks. */
  type Props = { plates: LayoutPlates };
  let { plates }: Props = $props();

  const { settings } = $derived(plates);
  let problem: string | null = $state(null);
  let reading = $state(false);

  async function take(file: File): Promise<void> {
    problem = null;
    reading = true;
    const added = await sendFile('POST /press-profiles', { file });
    reading = false;
    if (!added.ok) return void (problem = added.failure.message);
    await plates.readProfiles();
    await plates.setSettings({ ...settings, profile: added.value.id });
  }
  async function remove(): Promise<void> {
    const { profile } = settings;
    if (profile === null) return;
    problem = null;
    await plates.setSettings({ ...settings, profile: null });
    const removed = await call('DELETE /press-profiles/{id}', { id: profile });
    if (!removed.ok) problem = removed.failure.message;
    await plates.readProfiles();
  }
</script>

<Popover label="The press" width={296} text="Press …">
  <div class="press">
    <p>For all layouts of the project.</p>
    <Rows>
      <span>Profile</span>
      <Choice
        label="Press profile"
        value={settings.profile ?? ''}
        width={180}
        options={[['', 'None'], ...plates.profiles.map(({ id, name }) => [id, name] as const)]}
        onset={(id) => void plates.setSettings({ ...settings, profile: id === '' ? null : id })}
      />
      <span>Intent</span>
      <Choice
        label="Rendering intent"
        value={settings.intent}
        width={180}
        options={[
          ['relative', 'Relative colorimetric'],
          ['perceptual', 'Perceptual'],
        ]}
        onset={(intent) => void plates.setSettings({ ...settings, intent })}
      />
      <span>Ink at most</span>
      <NumberField
        label="Most ink that the paper takes"
        value={settings.inkLimit / 100}
        kind={{ suffix: '%' }}
        least={LIMITS.inkLimit.least / 100}
        most={LIMITS.inkLimit.most / 100}
        digits={0}
        onset={(value) => void plates.setSettings({ ...settings, inkLimit: Math.round(value * 100) })}
      />
    </Rows>
    <Tick
      label="Black point compensation"
      checked={settings.blackPoint}
      onset={(blackPoint) => void plates.setSettings({ ...settings, blackPoint })}
    />
    <FileButton
      label="ICC profile of a press"
      text={reading ? 'Reading the profile …' : 'Load an ICC profile …'}
      accept=".icc,.icm"
      disabled={reading}
      onfile={(file) => void take(file)}
    />
    {#if settings.profile !== null}
      <Button kind="quiet" onclick={() => void remove()}>Take this profile out of the studio</Button>
    {/if}
    {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  </div>
</Popover>

<style>
  .press {
    display: grid;
    gap: 10px;
    justify-items: start;
  }
  .press :global(.rows) {
    width: 100%;
  }
  p:not(.problem) {
    color: var(--muted);
  }
</style>
