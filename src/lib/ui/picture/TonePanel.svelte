<script lang="ts">
  import { sameValue } from '$lib/core/num/same';
  import {
    PICTURED_LIMITS,
    PLAIN_LEVELS,
    PLAIN_TONE,
    type ToneLevels,
    type Tone,
    type ToneChannel,
  } from '$lib/core/recipe/pictured';
  import Button from '../components/Button.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import Switch from '../components/Switch.svelte';
  import Tick from '../components/Tick.svelte';
  import type { PictureEditor } from './editor.svelte';
  import AloneRows from './AloneRows.svelte';
  import { fieldsOf } from './fields';
  import Levels from './Levels.svelte';
  import type { Maker } from './maker.svelte';

  /** What is done to the colours of the region. */
  type Props = { editor: PictureEditor; maker: Maker };
  let { editor, maker }: Props = $props();

  const { tone } = $derived(editor.pictured.pictured);
  // svelte-ignore state_referenced_locally
  const { fields, toned } = fieldsOf(editor);
  /** Which levels are seen and set. */
  let channel: 'all' | ToneChannel = $state('all');
  const levels: ToneLevels = $derived(channel === 'all' ? tone : (tone.channels?.[channel] ?? PLAIN_LEVELS));
  const setLevels = (change: Partial<ToneLevels>, live = false): void => {
    if (channel === 'all') return setTone(change, live);
    const { [channel]: own, ...others } = tone.channels ?? {};
    const next = { ...(own ?? PLAIN_LEVELS), ...change };
    const channels = sameValue(next, PLAIN_LEVELS) ? others : { ...others, [channel]: next };
    editor.steps((from) => {
      const { channels: _, ...rest } = from.tone;
      return { ...from, tone: Object.keys(channels).length > 0 ? { ...rest, channels } : rest };
    }, live);
  };
  const leveled = (key: 'low' | 'high') => fields((value, live) => setLevels({ [key]: value }, live));
  const setTone = (change: Partial<Tone>, live = false): void =>
    editor.steps((from) => ({ ...from, tone: { ...from.tone, ...change } }), live);
</script>

<Panel title="Tone">
  {#snippet aside()}
    <Tick label="on" checked={tone.on} onset={(on) => setTone({ on })} />
  {/snippet}
  {#if tone.on}
    <div class="which">
      <Switch
        label="Channel of the levels"
        value={channel}
        options={[
          { value: 'all', label: 'All' },
          { value: 'red', label: 'Red' },
          { value: 'green', label: 'Green' },
          { value: 'blue', label: 'Blue' },
        ]}
        onset={(value) => (channel = value)}
      />
    </div>
    <Levels
      tone={levels}
      histogram={maker.unit?.histograms[channel] ?? []}
      onlive={(change) => setLevels(change, true)}
      onset={(change) => setLevels(change)}
      oncancel={() => editor.history.cancel()}
    />
    <Rows>
      <span>Becomes</span>
      <span class="pair">
        <NumberField
          label="Black becomes"
          value={levels.low}
          kind={{ suffix: '' }}
          digits={0}
          {...PICTURED_LIMITS.level}
          {...leveled('low')}
        /> ·
        <NumberField
          label="White becomes"
          value={levels.high}
          kind={{ suffix: '' }}
          digits={0}
          {...PICTURED_LIMITS.level}
          {...leveled('high')}
        />
      </span>
      <span>Even light</span>
      <NumberField
        label="Even light"
        value={tone.even}
        kind={{ suffix: '%' }}
        digits={0}
        least={0}
        most={1}
        {...toned('even')}
      />
      <span>Exposure</span>
      <NumberField
        label="Exposure"
        value={tone.exposure}
        kind={{ suffix: 'EV' }}
        digits={2}
        {...PICTURED_LIMITS.exposure}
        {...toned('exposure')}
      />
      <span>Contrast · saturation</span>
      <span class="pair">
        <NumberField
          label="Contrast"
          value={tone.contrast}
          kind={{ suffix: '%' }}
          digits={0}
          {...PICTURED_LIMITS.share}
          {...toned('contrast')}
        /> ·
        <NumberField
          label="Saturation"
          value={tone.saturation}
          kind={{ suffix: '%' }}
          digits={0}
          {...PICTURED_LIMITS.share}
          {...toned('saturation')}
        />
      </span>
      <span>Becomes a grey</span>
      {#if tone.neutral === null}
        <Button kind="quiet" onclick={() => setTone({ neutral: '#808080' })}>choose …</Button>
      {:else}
        <span class="pair">
          <ColourWell
            colour={tone.neutral}
            label="The colour that becomes a grey"
            size={18}
            reset={{ label: 'None', run: () => setTone({ neutral: null }) }}
            onlive={(neutral) => setTone({ neutral }, true)}
            onset={(neutral) => setTone({ neutral })}
          />
        </span>
      {/if}
      <span>No colour</span>
      <Tick label="grey" checked={tone.grey} onset={(grey) => setTone({ grey })} />
    </Rows>
    <AloneRows {editor} alone={tone.alone ?? []} />
    {#if !sameValue(tone, PLAIN_TONE)}
      <Button kind="quiet" onclick={() => editor.steps((from) => ({ ...from, tone: PLAIN_TONE }))}
        >As the picture is</Button
      >
    {/if}
  {/if}
</Panel>

<style>
  .which {
    margin-bottom: 6px;
  }
</style>
